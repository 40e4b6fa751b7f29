import { basename, extname } from 'node:path';
import { ConflictException, Inject, Injectable, UnprocessableEntityException } from '@nestjs/common';
import { InjectConnection } from '@nestjs/sequelize';
import { QueryTypes } from 'sequelize';
import { Sequelize } from 'sequelize-typescript';
import { AuditService } from '../audit/audit.service.js';
import { Client } from '../clients/clients.models.js';
import { type Actor, found, requireClient, scoped } from '../identity/actor.js';
import type { PreparedTranscript } from '../jobs/text-tasks.js';
import { TextPool } from '../jobs/text-pool.service.js';
import type { BroughtIn } from './bring-in.js';
import { MediaStore } from './media-store.service.js';
import { Recording, TranscriptRow } from './recordings.models.js';
import type { LatestSiftView, RecordingView, RepairsView } from './recordings.views.js';

/** A transcript was refused; the problem document says file, line and field. */
export class TranscriptRefusedException extends UnprocessableEntityException {
  constructor(
    readonly file: string,
    readonly line: number,
    readonly field: string | null,
    readonly code: string,
    detail: string,
  ) {
    super(`${file}:${line}: ${field === null ? '' : `${field}: `}${detail}`);
  }
}

@Injectable()
export class RecordingsService {
  constructor(
    @InjectConnection() private readonly sequelize: Sequelize,
    @Inject(AuditService) private readonly audit: AuditService,
    @Inject(MediaStore) private readonly media: MediaStore,
    @Inject(TextPool) private readonly pool: TextPool,
  ) {}

  async list(actor: Actor, clientId?: string): Promise<RecordingView[]> {
    if (clientId !== undefined) requireClient(actor, clientId);
    const rows = await Recording.findAll({
      where: { ...scoped(actor), ...(clientId === undefined ? {} : { clientId }) },
      include: [{ model: TranscriptRow, attributes: { exclude: ['packed', 'repairs'] } }],
      order: [['createdAt', 'DESC']],
    });
    const sifts = await this.latestSifts(rows.map((row) => row.id));
    return rows.map((row) => toView(row, sifts.get(row.id) ?? null));
  }

  async read(actor: Actor, recordingId: string): Promise<RecordingView> {
    const row = await this.find(actor, recordingId);
    return toView(row, (await this.latestSifts([row.id])).get(row.id) ?? null);
  }

  async find(actor: Actor, recordingId: string): Promise<Recording> {
    return found(
      await Recording.findOne({
        where: { id: recordingId, ...scoped(actor) },
        include: [{ model: TranscriptRow, attributes: { exclude: ['packed', 'repairs'] } }],
      }),
      'recording',
    );
  }

  /** A new recording from what was brought in. All of it, or nothing. */
  async create(actor: Actor, clientId: string, brought: BroughtIn): Promise<RecordingView> {
    try {
      requireClient(actor, clientId);
      found(await Client.findByPk(clientId, { attributes: ['id'] }), 'client');
      const named = brought.transcript?.name ?? brought.sound?.name;
      if (named === undefined) throw new UnprocessableEntityException('Send a transcript, a sound file, or both.');
      const base = basename(named, extname(named));
      return await this.store(
        actor,
        brought,
        async (transaction) =>
          Recording.create(
            { clientId, title: brought.title ?? (base.replace(/[_-]+/g, ' ').trim().slice(0, 160) || 'Untitled'), baseName: base, createdBy: actor.userId },
            { transaction },
          ),
        'bring-in',
      );
    } catch (error) {
      if (brought.sound !== null) await this.media.discard(brought.sound);
      throw error;
    }
  }

  /** Adds what a recording waits for. Replacing a transcript that was sifted would pull the ground from under it: refused. */
  async add(actor: Actor, recordingId: string, brought: BroughtIn): Promise<RecordingView> {
    try {
      const row = await this.find(actor, recordingId);
      if (brought.transcript !== null && row.transcript !== null && (await this.latestSifts([row.id])).has(row.id)) {
        throw new ConflictException('This recording was sifted with the transcript it has. Bring the new one in as a recording of its own.');
      }
      return await this.store(actor, brought, async () => row, 'add-to');
    } catch (error) {
      if (brought.sound !== null) await this.media.discard(brought.sound);
      throw error;
    }
  }

  private async store(
    actor: Actor,
    brought: BroughtIn,
    target: (transaction: import('sequelize').Transaction) => Promise<Recording>,
    action: string,
  ): Promise<RecordingView> {
    const prepared = brought.transcript === null ? null : await this.prepare(brought.transcript);
    const kept = brought.sound === null ? null : await this.media.keep(brought.sound);
    let replaced: string | null = null;
    try {
      const id = await this.sequelize.transaction(async (transaction) => {
        const row = await target(transaction);
        if (prepared !== null && brought.transcript !== null) {
          await TranscriptRow.destroy({ where: { recordingId: row.id }, transaction });
          const { packed, durationMs, ...fields } = prepared;
          await TranscriptRow.create(
            { ...fields, recordingId: row.id, clientId: row.clientId, sourceName: brought.transcript.name, packed: Buffer.from(packed) },
            { transaction },
          );
          if (brought.sound === null && row.soundFile === null) await row.update({ durationMs }, { transaction });
        }
        if (kept !== null && brought.sound !== null) {
          replaced = row.soundFile;
          const durationMs = Math.max(brought.sound.durationMs, prepared?.durationMs ?? 0);
          await row.update(
            { soundFile: kept.file, soundName: brought.sound.name, soundBytes: String(brought.sound.bytes), soundType: kept.type, durationMs },
            { transaction },
          );
        }
        await this.audit.record(
          { userId: actor.userId, clientId: row.clientId, action, subject: 'recording', subjectId: row.id, detail: { title: row.title } },
          transaction,
        );
        return row.id;
      });
      if (replaced !== null) await this.media.remove(replaced);
      return await this.read(actor, id);
    } catch (error) {
      if (kept !== null) await this.media.remove(kept.file);
      throw error;
    }
  }

  private async prepare(file: { name: string; bytes: Buffer }): Promise<PreparedTranscript> {
    const outcome = await this.pool.prepareTranscript(file.bytes);
    if (outcome.kind === 'refused') throw new TranscriptRefusedException(file.name, outcome.line, outcome.field, outcome.code, outcome.detail);
    return outcome.transcript;
  }

  async rename(actor: Actor, recordingId: string, title: string): Promise<RecordingView> {
    await this.sequelize.transaction(async (transaction) => {
      const row = await this.find(actor, recordingId);
      await row.update({ title }, { transaction });
      await this.audit.record(
        { userId: actor.userId, clientId: row.clientId, action: 'rename', subject: 'recording', subjectId: row.id, detail: { title } },
        transaction,
      );
    });
    return this.read(actor, recordingId);
  }

  async remove(actor: Actor, recordingId: string): Promise<void> {
    const row = await this.find(actor, recordingId);
    const [posts] = await this.sequelize.query<{ n: number }>(
      'SELECT count(*)::int AS n FROM posts JOIN shorts ON shorts.id = posts.short_id WHERE shorts.recording_id = :recordingId',
      { replacements: { recordingId }, type: QueryTypes.SELECT },
    );
    if ((posts?.n ?? 0) > 0) throw new ConflictException(`Shorts of this recording stand on the schedule (${posts!.n}). Take them off first.`);
    await this.sequelize.transaction(async (transaction) => {
      await row.destroy({ transaction });
      await this.audit.record(
        { userId: actor.userId, clientId: row.clientId, action: 'delete', subject: 'recording', subjectId: row.id, detail: { title: row.title } },
        transaction,
      );
    });
    if (row.soundFile !== null) await this.media.remove(row.soundFile);
  }

  /** The packed transcript, gzipped. */
  async readPacked(actor: Actor, recordingId: string): Promise<Buffer> {
    const row = await TranscriptRow.findOne({ where: { recordingId, ...scoped(actor) }, attributes: ['packed'] });
    return found(row, 'transcript').packed;
  }

  async readRepairs(actor: Actor, recordingId: string): Promise<RepairsView> {
    const row = found(
      await TranscriptRow.findOne({ where: { recordingId, ...scoped(actor) }, attributes: ['sourceName', 'repairCount', 'repairs'] }),
      'transcript',
    );
    return { sourceName: row.sourceName, count: row.repairCount, repairs: row.repairs };
  }

  private async latestSifts(recordingIds: readonly string[]): Promise<Map<string, LatestSiftView>> {
    if (recordingIds.length === 0) return new Map();
    const rows = await this.sequelize.query<LatestSiftView & { recordingId: string }>(
      `SELECT s.id, s.recording_id AS "recordingId", s.state, s.stage, s.fraction, s.left_ms AS "leftMs", s.strong_count AS "strongCount",
         (SELECT count(*)::int FROM candidates c WHERE c.sift_id = s.id) AS "candidateCount",
         (SELECT count(*)::int FROM candidates c WHERE c.sift_id = s.id AND c.state = 'kept') AS "keptCount"
       FROM (SELECT DISTINCT ON (recording_id) * FROM sifts WHERE recording_id IN (:recordingIds) ORDER BY recording_id, created_at DESC) s`,
      { replacements: { recordingIds: [...recordingIds] }, type: QueryTypes.SELECT },
    );
    return new Map(rows.map(({ recordingId, ...view }) => [recordingId, view]));
  }
}

function toView(row: Recording, latestSift: LatestSiftView | null): RecordingView {
  const sound =
    row.soundFile === null || row.soundFile === undefined ? null : { name: row.soundName ?? '', type: row.soundType ?? '', bytes: Number(row.soundBytes) };
  const t = row.transcript;
  const transcript =
    t === null || t === undefined
      ? null
      : {
          sourceName: t.sourceName,
          format: t.format,
          encoding: t.encoding,
          wordCount: t.wordCount,
          sentenceCount: t.sentenceCount,
          speakers: t.speakers,
          wordTimes: t.wordTimes,
          sentenceEnds: t.sentenceEnds,
          repairCount: t.repairCount,
        };
  return {
    id: row.id,
    clientId: row.clientId,
    title: row.title,
    durationMs: row.durationMs ?? null,
    sound,
    transcript,
    latestSift,
    createdAt: row.createdAt.toISOString(),
  };
}
