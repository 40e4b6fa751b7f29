import { ConflictException, Inject, Injectable } from '@nestjs/common';
import { type DocumentContent, DocumentRefusedError, type DocumentKind, readDocument } from '@sift-reel/core';
import type { DocumentForm } from '@sift-reel/forms';
import type { AuditAction } from '../audit/trail-words.js';
import { AuditService } from '../audit/audit.service.js';
import { Database } from '../database/database.service.js';
import { type Actor, found, scoped } from '../identity/actor.js';
import { InvalidFormException, StaleWriteException } from '../problems/refusals.js';
import { Recording, TranscriptRow } from '../recordings/recordings.models.js';
import { RecordingsService } from '../recordings/recordings.service.js';
import { talkLanguages } from '../shorts/talk-languages.js';
import { DocumentHistory } from './document-history.service.js';
import { DocumentMaker } from './document-maker.service.js';
import { DocumentRow } from './documents.models.js';
import type { DocumentEntryView, DocumentVersionView, DocumentView } from './documents.views.js';

/** Documents of recordings: made, edited, made again, and what they were. */
@Injectable()
export class DocumentsService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(RecordingsService) private readonly recordings: RecordingsService,
    @Inject(DocumentMaker) private readonly maker: DocumentMaker,
    @Inject(DocumentHistory) private readonly history: DocumentHistory,
    @Inject(AuditService) private readonly audit: AuditService,
  ) {}

  async list(actor: Actor, recordingId: string): Promise<DocumentEntryView[]> {
    await this.recordings.find(actor, recordingId);
    return this.database.snapshot(async () => {
      const rows = await DocumentRow.findAll({ where: { recordingId, ...scoped(actor) }, attributes: ['id', 'kind', 'version'] });
      const last = await this.history.last(rows.map(({ id }) => id));
      return rows.map(({ id, kind, version }) => ({ id, kind, version, ...last.get(id)! }));
    });
  }

  async read(actor: Actor, documentId: string): Promise<DocumentView> {
    return this.database.snapshot(async () => this.viewOf(await this.find(actor, documentId)));
  }

  async find(actor: Actor, documentId: string): Promise<DocumentRow> {
    return found(await DocumentRow.findOne({ where: { id: documentId, ...scoped(actor) }, include: [Recording] }), 'document');
  }

  /** The first of its kind of a recording. Whoever makes it at the same moment gets a refusal, and the one that is there stays. */
  async make(actor: Actor, recordingId: string, kind: DocumentKind): Promise<DocumentView> {
    const recording = await this.recordings.find(actor, recordingId);
    const content = await this.maker.make(recording, kind);
    const id = await this.database.transaction(async () => {
      found(await Recording.findByPk(recordingId, { attributes: ['id'], lock: true }), 'recording');
      if ((await DocumentRow.count({ where: { recordingId, kind } })) > 0) throw new ConflictException('This document is there already.');
      const row = await DocumentRow.create({ recordingId, clientId: recording.clientId, kind, content });
      await this.history.add(row, content, null);
      await this.record(actor, 'make', row);
      return row.id;
    });
    return this.read(actor, id);
  }

  /** Makes it anew from what is known now; what it was stays among its versions. */
  async makeAgain(actor: Actor, documentId: string, version: number): Promise<DocumentView> {
    const { recording, kind } = await this.find(actor, documentId);
    const content = await this.maker.make(recording, kind);
    return this.change(actor, documentId, version, 'make-again', content, null);
  }

  async save(actor: Actor, documentId: string, { content, version }: DocumentForm): Promise<DocumentView> {
    const { recordingId } = await this.find(actor, documentId);
    const transcript = found(await TranscriptRow.findByPk(recordingId, { attributes: ['wordCount'] }), 'transcript');
    return this.change(actor, documentId, version, 'write', contentOf(content, transcript.wordCount), actor.userId);
  }

  async remove(actor: Actor, documentId: string, version: number): Promise<void> {
    await this.database.transaction(async () => {
      const row = await this.lockSeen(actor, documentId, version);
      await row.destroy();
      await this.record(actor, 'remove', row);
    });
  }

  /** The newest first. */
  async listVersions(actor: Actor, documentId: string): Promise<DocumentVersionView[]> {
    return this.database.snapshot(async () => this.history.of(await this.find(actor, documentId)));
  }

  private async change(
    actor: Actor,
    documentId: string,
    version: number,
    action: AuditAction,
    content: DocumentContent,
    by: string | null,
  ): Promise<DocumentView> {
    await this.database.transaction(async () => {
      const row = await this.lockSeen(actor, documentId, version);
      await row.update({ content, version: row.version + 1 });
      await this.history.add(row, content, by);
      await this.record(actor, action, row);
    });
    return this.read(actor, documentId);
  }

  /** The document under a lock. @throws StaleWriteException when it is not the version that was seen */
  private async lockSeen(actor: Actor, documentId: string, version: number): Promise<DocumentRow> {
    const row = found(await DocumentRow.findOne({ where: { id: documentId, ...scoped(actor) }, lock: true }), 'document');
    if (row.version !== version) throw new StaleWriteException('document', await this.viewOf(await this.find(actor, documentId)));
    return row;
  }

  private async viewOf(row: DocumentRow): Promise<DocumentView> {
    const { id, clientId, recordingId, kind, version, content, recording } = row;
    const last = (await this.history.last([id])).get(id)!;
    const language = (await talkLanguages(this.database, [recordingId])).get(recordingId)!;
    return { id, clientId, recordingId, recordingTitle: recording.title, sound: recording.soundFile !== null, language, kind, version, content, ...last };
  }

  private async record(actor: Actor, action: AuditAction, { id, clientId, kind }: DocumentRow): Promise<void> {
    await this.audit.record({ userId: actor.userId, clientId, action, subject: 'document', subjectId: id, detail: { kind } });
  }
}

function contentOf(content: object, wordCount: number): DocumentContent {
  try {
    return readDocument(content, wordCount);
  } catch (error) {
    if (error instanceof DocumentRefusedError)
      throw new InvalidFormException([{ field: error.path === '' ? 'content' : `content.${error.path}`, detail: error.message.replace(/^[^:]*: /, '') }]);
    throw error;
  }
}
