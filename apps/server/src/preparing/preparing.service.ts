import { ConflictException, Inject, Injectable, type OnModuleDestroy, type OnModuleInit } from '@nestjs/common';
import { VOICE_STEP_MS } from '@sift-reel/core';
import { log } from '../config/logger.js';
import { Rounds } from '../config/rounds.js';
import { Database } from '../database/database.service.js';
import { type Actor, found, scoped } from '../identity/actor.js';
import { JobsService } from '../jobs/jobs.service.js';
import { MediaStore } from '../media/media-store.service.js';
import { RecordingFacts } from '../recordings/recording-facts.js';
import { Recording } from '../recordings/recordings.models.js';
import { RecordingsService } from '../recordings/recordings.service.js';
import type { SoundLevelsView, PreparationView } from '../recordings/recordings.views.js';
import { LONG_MS, partialName, PREPARE } from './prepare.kind.js';
import { Preparation } from './preparing.models.js';
import { knownVoice } from './voice-tracks.js';

const SWEEP_EVERY_MS = 10 * 60_000;
/** As many levels as a wide screen has points. */
const MOST_LEVELS = 1_500;
const ENDINGS = ['mp4', 'm4a', 'jpg'];

const PREPARATIONS = `SELECT p.recording_id AS "recordingId", p.id, j.state, j.stage, j.fraction, j.left_ms AS "leftMs", j.failure,
  p.proxy_file IS NOT NULL AS proxied, p.sprite, p.loudness, coalesce(p.heard_ms, 0) > 0 AS heard
FROM preparations p JOIN jobs j ON j.kind = 'prepare' AND j.subject_id = p.id WHERE p.recording_id = ANY ($1)`;

/** Recordings whose file nobody has begun to prepare, such as those of an earlier version of the program. */
const UNPREPARED = `SELECT r.id FROM recordings r WHERE r.sound_file IS NOT NULL AND NOT EXISTS (SELECT FROM preparations p WHERE p.recording_id = r.id)`;

/** Has files prepared as they come in, says how that stands, and hands out what was made. */
@Injectable()
export class PreparingService implements OnModuleInit, OnModuleDestroy {
  private readonly rounds = new Rounds('left preparations', SWEEP_EVERY_MS, () => this.sweep());

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(JobsService) private readonly jobs: JobsService,
    @Inject(MediaStore) private readonly media: MediaStore,
    @Inject(RecordingsService) private readonly recordings: RecordingsService,
    @Inject(RecordingFacts) private readonly facts: RecordingFacts,
  ) {}

  async onModuleInit(): Promise<void> {
    this.facts.beginWith((recording) => this.begin(recording));
    this.facts.removeWith((recordingId) => this.end(recordingId));
    this.facts.providePreparations(async (recordingIds) => {
      const rows = await this.database.rows<PreparationView & { recordingId: string }>(PREPARATIONS, [recordingIds]);
      return new Map(rows.map(({ recordingId, ...view }) => [recordingId, view]));
    });
    for (const { id } of await this.database.rows<{ id: string }>(UNPREPARED))
      await this.database.transaction(async () => {
        const recording = await Recording.findByPk(id, { lock: true });
        if (recording?.soundFile != null && (await Preparation.count({ where: { recordingId: id } })) === 0) await this.begin(recording);
      });
    await this.rounds.begin();
  }

  onModuleDestroy(): void {
    this.rounds.end();
  }

  /** Files whose recording is gone or has another, and what killed runs left. */
  async sweep(nowMs = Date.now()): Promise<void> {
    const named = async (): Promise<ReadonlySet<string>> => {
      const atWork = (await this.jobs.atWork(PREPARE)).flatMap(({ subjectId, attempt }) => ENDINGS.map((ending) => partialName(subjectId, attempt, ending)));
      const rows = await Preparation.findAll({ attributes: ['proxyFile', 'spriteFile'] });
      return new Set([...rows.flatMap(({ proxyFile, spriteFile }) => [proxyFile ?? [], spriteFile ?? []].flat()), ...atWork]);
    };
    const swept = await this.media.sweep(named, nowMs, 'prepared');
    if (swept > 0) log.warn({ files: swept }, 'preparations that nobody names were swept away');
  }

  /** Another file is another preparation: what ran for the one before ends, and what it made is nobody's. */
  private async begin({ id: recordingId, clientId, soundFile, soundTrack, durationMs }: Recording): Promise<void> {
    await this.end(recordingId);
    const { id } = await Preparation.create({ recordingId, clientId, soundFile, soundTrack });
    await this.jobs.enqueue(PREPARE, { subjectId: id, clientId, about: { recordingId }, size: (durationMs ?? 0) > LONG_MS ? 'long' : 'short' });
  }

  /** Ends what runs, and what there is of it. The job before the row: whoever keeps what he made holds them in this order. */
  private async end(recordingId: string): Promise<void> {
    const row = await Preparation.findOne({ attributes: ['id'], where: { recordingId } });
    if (row === null) return;
    await this.jobs.cancel(PREPARE, row.id);
    await row.destroy();
  }

  /** Once more, where it could not be done. */
  async again(actor: Actor, recordingId: string): Promise<PreparationView> {
    await this.recordings.find(actor, recordingId);
    const row = found(await Preparation.findOne({ where: { recordingId, ...scoped(actor) } }), 'preparation');
    const { id, clientId, heardMs } = row;
    if (!(await this.jobs.enqueue(PREPARE, { subjectId: id, clientId, about: { recordingId }, size: (heardMs ?? 0) > LONG_MS ? 'long' : 'short' })))
      throw new ConflictException('It is being prepared, or prepared already.');
    return found((await this.facts.preparationsOf([recordingId])).get(recordingId), 'preparation');
  }

  /** What browsers play. */
  async proxyOf(actor: Actor, preparationId: string): Promise<{ readonly file: string; readonly type: string }> {
    const file = found((await this.find(actor, preparationId)).proxyFile, 'file');
    return { file, type: file.endsWith('.m4a') ? 'audio/mp4' : 'video/mp4' };
  }

  async spriteOf(actor: Actor, preparationId: string): Promise<string> {
    return found((await this.find(actor, preparationId)).spriteFile, 'file');
  }

  private async find(actor: Actor, preparationId: string): Promise<Preparation> {
    return found(await Preparation.findOne({ where: { id: preparationId, ...scoped(actor) } }), 'preparation');
  }

  /** How loud the recording is over its length. */
  async levels(actor: Actor, recordingId: string): Promise<SoundLevelsView> {
    const voice = found(await knownVoice(await this.recordings.find(actor, recordingId)), 'sound that was heard');
    const each = Math.max(1, Math.ceil(voice.levels.length / MOST_LEVELS));
    const db = Array.from({ length: Math.ceil(voice.levels.length / each) }, (_, i) => meanLevel(voice.levels.subarray(i * each, (i + 1) * each)));
    return { stepMs: each * VOICE_STEP_MS, db };
  }
}

/** Of some levels in dB, that of their mean power: of the loudest alone, an hour of talk looks the same all over. */
function meanLevel(levels: Int8Array): number {
  let power = 0;
  for (const db of levels) power += 10 ** (db / 10);
  return Math.max(-96, Math.round(10 * Math.log10(power / levels.length)));
}
