import { ConflictException, Inject, Injectable, type OnModuleDestroy, type OnModuleInit } from '@nestjs/common';
import type { AlignmentForm, AlignmentKind } from '@sift-reel/forms';
import type { AuditAction } from '../audit/trail-words.js';
import { AuditService } from '../audit/audit.service.js';
import { Rounds } from '../config/rounds.js';
import { Database } from '../database/database.service.js';
import { type Actor, found } from '../identity/actor.js';
import { JobsService } from '../jobs/jobs.service.js';
import { MediaStore } from '../media/media-store.service.js';
import { RecordingFacts } from '../recordings/recording-facts.js';
import { Recording, TranscriptRow } from '../recordings/recordings.models.js';
import { RecordingsService } from '../recordings/recordings.service.js';
import type { AlignmentView } from '../recordings/recordings.views.js';
import type { UntimedTranscript } from '../text/prepare-task.js';
import { ALIGN, LONG_MS, workFolder } from './align.kind.js';
import { Alignment } from './aligning.models.js';

const SWEEP_EVERY_MS = 10 * 60_000;

const ALIGNMENTS = `SELECT a.recording_id AS "recordingId", a.kind, j.state, j.stage, j.fraction, j.left_ms AS "leftMs", j.failure,
  a.source_name AS "sourceName", a.share, a.outcome
FROM alignments a JOIN jobs j ON j.kind = 'align' AND j.subject_id = a.id WHERE a.recording_id = ANY ($1)`;

/** Has words listened for: text without times and cues as they come in, a draft when somebody asks. */
@Injectable()
export class AligningService implements OnModuleInit, OnModuleDestroy {
  private readonly rounds = new Rounds('what listening left', SWEEP_EVERY_MS, () => this.sweep());

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(JobsService) private readonly jobs: JobsService,
    @Inject(AuditService) private readonly audit: AuditService,
    @Inject(MediaStore) private readonly media: MediaStore,
    @Inject(RecordingsService) private readonly recordings: RecordingsService,
    @Inject(RecordingFacts) private readonly facts: RecordingFacts,
  ) {}

  async onModuleInit(): Promise<void> {
    this.facts.beginWith((recording) => this.fileCameIn(recording));
    this.facts.readWith((recording) => this.transcriptCameIn(recording));
    this.facts.timeWith((recording, text) => this.begin(recording, 'text', text));
    this.facts.removeWith((recordingId) => this.end(recordingId).then(() => undefined));
    this.facts.provideAlignments(async (recordingIds) => {
      const rows = await this.database.rows<AlignmentView & { recordingId: string }>(ALIGNMENTS, [recordingIds]);
      return new Map(rows.map(({ recordingId, ...view }) => [recordingId, view]));
    });
    await this.rounds.begin();
  }

  onModuleDestroy(): void {
    this.rounds.end();
  }

  /** What killed runs left. */
  async sweep(nowMs = Date.now()): Promise<void> {
    const atWork = async (): Promise<ReadonlySet<string>> =>
      new Set((await this.jobs.atWork(ALIGN)).map(({ subjectId, attempt }) => workFolder(subjectId, attempt)));
    await this.media.sweep(atWork, nowMs, 'aligning');
  }

  /** Another file, or another of its tracks, is listened to anew; what was taken of the one before stays. */
  private async fileCameIn(recording: Recording): Promise<void> {
    if ((await TranscriptRow.count({ where: { recordingId: recording.id } })) > 0) return this.transcriptCameIn(recording);
    const before = await Alignment.findOne({ where: { recordingId: recording.id } });
    if (before === null) return;
    const { kind, sourceName, format, encoding, said } = before;
    await this.end(recording.id);
    if (recording.soundTrack !== null) await this.write(recording, { kind, sourceName, format, encoding, said });
  }

  /** Cues that have no times for each word are given true ones. Whatever was listened for before is not needed any more. */
  private async transcriptCameIn(recording: Recording): Promise<void> {
    const transcript = await TranscriptRow.findByPk(recording.id, { attributes: ['wordTimes'] });
    if (transcript === null) return;
    await this.end(recording.id);
    if (transcript.wordTimes === 'spread' && recording.soundFile !== null && recording.soundTrack !== null) await this.write(recording, { kind: 'cues' });
  }

  private async begin(recording: Recording, kind: AlignmentKind, text: (UntimedTranscript & { readonly name: string }) | null = null): Promise<void> {
    await this.end(recording.id);
    await this.write(
      recording,
      text === null ? { kind } : { kind, sourceName: text.name, format: text.format, encoding: text.encoding, said: Buffer.from(text.said) },
    );
  }

  private async write(recording: Recording, fields: Partial<Alignment>): Promise<void> {
    const { id: recordingId, clientId, soundFile, soundTrack, durationMs } = recording;
    const { id } = await Alignment.create({ ...fields, recordingId, clientId, soundFile, soundTrack });
    await this.jobs.enqueue(ALIGN, { subjectId: id, clientId, about: { recordingId }, size: (durationMs ?? 0) > LONG_MS ? 'long' : 'short' });
  }

  /** The job before the row: whoever keeps what he heard holds them in this order. @returns false when there was none */
  private async end(recordingId: string): Promise<boolean> {
    const row = await Alignment.findOne({ attributes: ['id'], where: { recordingId } });
    if (row === null) return false;
    await this.jobs.cancel(ALIGN, row.id);
    await row.destroy();
    return true;
  }

  /** Listens because somebody asks: for a draft, for true times, or once more for a text that could not be found in the sound. */
  async ask(actor: Actor, recordingId: string, { kind }: AlignmentForm): Promise<AlignmentView> {
    await this.recordings.find(actor, recordingId);
    await this.database.transaction(async () => {
      const recording = found(await Recording.findByPk(recordingId, { lock: true }), 'recording');
      const before = await Alignment.findOne({ where: { recordingId } });
      if (before !== null && (await this.isAtWork(before.id))) throw new ConflictException('It is being listened to already.');
      if (recording.soundFile === null || recording.soundTrack === null) throw new ConflictException('This recording has no sound to listen to.');
      const transcript = await TranscriptRow.findByPk(recordingId, { attributes: ['wordTimes'] });
      if (kind !== 'cues' && transcript !== null) throw new ConflictException('This recording has a transcript.');
      if (kind === 'cues' && transcript?.wordTimes !== 'spread') throw new ConflictException('There are no times that could be made truer.');
      if (kind === 'text' && before?.kind !== 'text') throw new ConflictException('There is no text that waits for its times.');
      const { sourceName = null, format = null, encoding = null, said = null } = kind === 'text' ? before! : {};
      await this.end(recordingId);
      await this.write(recording, { kind, sourceName, format, encoding, said });
      await this.record(actor, recording, 'listen');
    });
    return found((await this.facts.alignmentsOf([recordingId])).get(recordingId), 'alignment');
  }

  /** Ends the listening, or lets go of a text that waits for its times. */
  async leave(actor: Actor, recordingId: string): Promise<void> {
    await this.recordings.find(actor, recordingId);
    await this.database.transaction(async () => {
      const recording = found(await Recording.findByPk(recordingId, { lock: true }), 'recording');
      found((await this.end(recordingId)) || null, 'alignment');
      await this.record(actor, recording, 'stop-listening');
    });
  }

  private async isAtWork(alignmentId: string): Promise<boolean> {
    const job = (await this.jobs.ofSubjects(ALIGN, [alignmentId])).get(alignmentId);
    return job?.state === 'waiting' || job?.state === 'running';
  }

  private async record(actor: Actor, { id, clientId, title }: Recording, action: AuditAction): Promise<void> {
    await this.audit.record({ userId: actor.userId, clientId, action, subject: 'recording', subjectId: id, detail: { title } });
  }
}
