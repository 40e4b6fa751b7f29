import { ConflictException, Inject, Injectable, type OnModuleDestroy, type OnModuleInit } from '@nestjs/common';
import { AuditService } from '../audit/audit.service.js';
import { Rounds } from '../config/rounds.js';
import { Database } from '../database/database.service.js';
import { type Actor, found, scoped } from '../identity/actor.js';
import { JobsService } from '../jobs/jobs.service.js';
import { MediaStore } from '../media/media-store.service.js';
import { RecordingFacts } from '../recordings/recording-facts.js';
import { Recording } from '../recordings/recordings.models.js';
import { RecordingsService } from '../recordings/recordings.service.js';
import type { FetchView, RecordingView } from '../recordings/recordings.views.js';
import { FETCH, LONG_BYTES, partName } from './feeds.kind.js';
import { Fetch } from './feeds.models.js';

const SWEEP_EVERY_MS = 10 * 60_000;
/** What was stopped or could not be fetched can be gone on with for so long. */
const KEPT_MS = 48 * 3_600_000;

const FETCHES = `SELECT f.recording_id AS "recordingId", f.id, f.url, j.state, j.stage, j.fraction, j.left_ms AS "leftMs", j.failure, f.notes
FROM fetches f JOIN jobs j ON j.kind = 'fetch' AND j.subject_id = f.id WHERE f.recording_id = ANY ($1)`;
/** Files that a run writes, or will go on with. */
const WANTED = `SELECT f.id FROM fetches f JOIN jobs j ON j.kind = 'fetch' AND j.subject_id = f.id WHERE j.state IN ('waiting', 'running')`;

/** How fetches stand, and what is done about them. */
@Injectable()
export class FetchesService implements OnModuleInit, OnModuleDestroy {
  private readonly rounds = new Rounds('what fetching left', SWEEP_EVERY_MS, () => this.sweep());

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(JobsService) private readonly jobs: JobsService,
    @Inject(AuditService) private readonly audit: AuditService,
    @Inject(MediaStore) private readonly media: MediaStore,
    @Inject(RecordingsService) private readonly recordings: RecordingsService,
    @Inject(RecordingFacts) private readonly facts: RecordingFacts,
  ) {}

  async onModuleInit(): Promise<void> {
    this.facts.provideFetches(async (recordingIds) => {
      const rows = await this.database.rows<Omit<FetchView, 'host'> & { recordingId: string; url: string }>(FETCHES, [recordingIds]);
      return new Map(rows.map(({ recordingId, url, ...view }) => [recordingId, { ...view, host: new URL(url).hostname }]));
    });
    this.facts.removeWith(async (recordingId) => {
      const row = await Fetch.findOne({ where: { recordingId }, attributes: ['id'] });
      if (row !== null) await this.jobs.cancel(FETCH, row.id);
    });
    await this.rounds.begin();
  }

  onModuleDestroy(): void {
    this.rounds.end();
  }

  async sweep(nowMs = Date.now()): Promise<void> {
    const wanted = async (): Promise<ReadonlySet<string>> => new Set((await this.database.rows<{ id: string }>(WANTED)).map(({ id }) => partName(id)));
    await this.media.sweep(wanted, nowMs, 'fetching', KEPT_MS);
  }

  /** Fetches what was stopped or could not be fetched once more, from where it came to. */
  async again(actor: Actor, recordingId: string): Promise<RecordingView> {
    await this.recordings.find(actor, recordingId);
    await this.database.transaction(async () => {
      await Recording.findByPk(recordingId, { attributes: ['id'], lock: true });
      const { id, clientId, bytes } = await this.find(actor, recordingId);
      const size = Number(bytes ?? 0) > LONG_BYTES ? 'long' : 'short';
      if (!(await this.jobs.enqueue(FETCH, { subjectId: id, clientId, about: { recordingId }, size })))
        throw new ConflictException('It is being fetched, or was fetched already.');
      await this.audit.record({ userId: actor.userId, clientId, action: 'retry', subject: 'recording', subjectId: recordingId });
    });
    return this.recordings.read(actor, recordingId);
  }

  async stop(actor: Actor, recordingId: string): Promise<RecordingView> {
    await this.recordings.find(actor, recordingId);
    await this.database.transaction(async () => {
      await Recording.findByPk(recordingId, { attributes: ['id'], lock: true });
      const { id, clientId } = await this.find(actor, recordingId);
      if (!(await this.jobs.cancel(FETCH, id))) throw new ConflictException('The fetching is over; there is nothing to stop.');
      await this.audit.record({ userId: actor.userId, clientId, action: 'cancel', subject: 'recording', subjectId: recordingId });
    });
    return this.recordings.read(actor, recordingId);
  }

  private async find(actor: Actor, recordingId: string): Promise<Fetch> {
    return found(await Fetch.findOne({ where: { recordingId, ...scoped(actor) } }), 'fetch');
  }
}
