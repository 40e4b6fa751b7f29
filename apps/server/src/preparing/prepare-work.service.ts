import { mkdir, rm } from 'node:fs/promises';
import { Inject, Injectable, type OnModuleInit } from '@nestjs/common';
import { Database } from '../database/database.service.js';
import { JobRefusedError } from '../jobs/job-kind.js';
import type { JobRun } from '../jobs/job-run.js';
import { JobWorker } from '../jobs/job-worker.service.js';
import { MediaStore } from '../media/media-store.service.js';
import { onlyRewrapped, whyProxy } from '../media/playable.js';
import { probe, type Probed, wholePictureGapMs } from '../media/probe.js';
import { MissingFileError } from '../media/store-errors.js';
import { FfmpegError, runFfmpeg } from '../media/run-ffmpeg.js';
import { Recording } from '../recordings/recordings.models.js';
import { partialName, PREPARE } from './prepare.kind.js';
import { Preparation } from './preparing.models.js';
import { proxyArgs } from './proxy.js';
import { spriteArgs, spriteOf } from './sprite.js';
import { hear, keepVoice, shareOf } from './voice-tracks.js';

/** Shares of the whole: converting a picture takes by far the longest. */
const WEIGHTS = { hearing: 1, wrapping: 0.3, convertingPicture: 8, convertingSound: 1, picturing: 0.5 } as const;
const LEAST_LIMIT_MS = 20 * 60_000;
/** A stage that takes so many times as long as the recording will not end. */
const SLOWEST = 6;

/** A recording is as long as its sound or what was said in it. $1 id, $2 of which file, $3 ms */
const COUNTED = `UPDATE recordings SET duration_ms = greatest($3, (SELECT duration_ms FROM transcripts WHERE recording_id = $1))
WHERE id = $1 AND sound_file = $2`;

/** What an earlier version of the program did not look for. $1 id, $2 of which file, $3 tracks */
const TRACKS = `UPDATE recordings SET sound_tracks = $3::jsonb WHERE id = $1 AND sound_file = $2 AND sound_tracks <> $3::jsonb`;

/** One stage, and how much of all the work it is. */
interface Stage {
  readonly name: string;
  readonly weight: number;
  work(onFraction: (fraction: number) => void): Promise<void>;
}

/**
 * Prepares recordings, in the worker, stage by stage: what a stage made is kept when it is done, so a run that was killed goes on
 * after the last of them. A file gets its name in the transaction that names it.
 */
@Injectable()
export class PrepareWork implements OnModuleInit {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(JobWorker) private readonly worker: JobWorker,
    @Inject(MediaStore) private readonly media: MediaStore,
  ) {}

  onModuleInit(): void {
    this.worker.register(PREPARE, (preparationId, run) => this.prepare(preparationId, run));
  }

  private async prepare(preparationId: string, run: JobRun): Promise<void> {
    const row = await Preparation.findByPk(preparationId);
    const recording = row === null ? null : await Recording.findByPk(row.recordingId);
    if (row === null || recording === null) throw new JobRefusedError('The recording is gone.');
    try {
      await this.media.use(row.soundFile, '.', (source) => this.work(row, recording, source, run), run.signal);
    } catch (error) {
      if (error instanceof MissingFileError) throw new JobRefusedError('The file of this recording is not in its place.');
      if (error instanceof FfmpegError && run.attempt >= PREPARE.attempts) throw new JobRefusedError(`It could not be converted: ${error.message}`);
      throw error;
    }
    await run.complete();
  }

  private async work(row: Preparation, recording: Recording, source: string, run: JobRun): Promise<void> {
    run.report('looking', 0);
    const probed = await probe(source, recording.soundName ?? row.soundFile);
    if (row.whyProxy === null) {
      const why = whyProxy(probed, row.soundTrack, probed.picture === null ? 0 : await wholePictureGapMs(source));
      // By itself, as all that waits for the recording's row.
      await this.database.run(TRACKS, [recording.id, row.soundFile, JSON.stringify(probed.soundTracks)]);
      await run.keep(() => row.update({ whyProxy: why }));
    }
    await this.runAll(this.stagesOf(row, recording, source, probed, run), run);
  }

  private async runAll(stages: readonly Stage[], run: JobRun): Promise<void> {
    const total = stages.reduce((sum, { weight }) => sum + weight, 0);
    let before = 0;
    for (const { name, weight, work } of stages) {
      const from = before;
      run.report(name, from / total);
      await work((fraction) => run.report(name, (from + weight * fraction) / total));
      before += weight;
    }
  }

  /** What is still to be done, in order. */
  private stagesOf(row: Preparation, recording: Recording, source: string, probed: Probed, run: JobRun): Stage[] {
    const { picture, durationMs } = probed;
    const stages: Stage[] = [];
    const wrapped = onlyRewrapped(row.whyProxy!);
    if (row.heardMs === null && row.soundTrack !== null)
      stages.push({ name: 'hearing', weight: WEIGHTS.hearing, work: (told) => this.listen(row, recording, source, row.soundTrack!, run, told) });
    if (row.proxyFile === null && row.whyProxy!.length > 0)
      // What takes a minute comes before the sound is heard; what takes the better part of the recording's length, behind it.
      stages.splice(wrapped ? 0 : stages.length, 0, {
        name: 'converting',
        weight: wrapped ? WEIGHTS.wrapping : picture === null ? WEIGHTS.convertingSound : WEIGHTS.convertingPicture,
        work: async (told) => {
          const args = (to: string): string[] => proxyArgs(source, probed, row.soundTrack, row.whyProxy!, to);
          const ending = picture === null ? 'm4a' : 'mp4';
          try {
            await this.make(row, run, durationMs, ending, args, told, (proxyFile) => row.update({ proxyFile }));
          } catch (error) {
            if (!wrapped || !(error instanceof FfmpegError)) throw error;
            // What cannot be wrapped anew plays as it came in, only later; the rest is prepared.
            await run.keep(() => row.update({ whyProxy: [] }));
          }
        },
      });
    if (row.sprite === null && picture !== null)
      stages.push({
        name: 'picturing',
        weight: WEIGHTS.picturing,
        work: async (told) => {
          const sprite = spriteOf(picture, durationMs);
          const draw = (from: string): Promise<void> =>
            this.make(
              row,
              run,
              durationMs,
              'jpg',
              (to) => spriteArgs(from, sprite, to),
              told,
              (spriteFile) => row.update({ spriteFile, sprite }),
            );
          await (row.proxyFile === null ? draw(source) : this.media.use(row.proxyFile, 'prepared', draw, run.signal));
        },
      });
    return stages;
  }

  private async listen(row: Preparation, recording: Recording, source: string, track: number, run: JobRun, told: (fraction: number) => void): Promise<void> {
    const { recordingId, clientId, soundFile } = row;
    const { signal } = run;
    const heard = await hear(recordingId, source, {
      signal,
      track,
      loudness: true,
      patient: true,
      onHeard: (ms) => told(shareOf(ms, recording.durationMs ?? 0)),
    });
    if (heard !== null) {
      // By themselves: both wait for the recording's row, which whoever replaces its file holds while he waits for the job's.
      await keepVoice(recordingId, clientId, row, heard.voice);
      // What a file says of its length may be a guess; what was counted is not.
      if (recording.picture === null) await this.database.run(COUNTED, [recordingId, soundFile, heard.lengthMs]);
    }
    await run.keep(() => row.update({ loudness: heard?.loudness ?? null, heardMs: heard?.lengthMs ?? 0 }));
  }

  /** Makes a file, and puts it into its place before the row names it. */
  private async make(
    row: Preparation,
    run: JobRun,
    durationMs: number,
    ending: string,
    args: (to: string) => string[],
    told: (fraction: number) => void,
    write: (file: string) => Promise<unknown>,
  ): Promise<void> {
    const partial = this.media.pathOf(partialName(row.id, run.attempt, ending), 'prepared');
    await mkdir(this.media.pathOf('.', 'prepared'), { recursive: true });
    try {
      const longestMs = Math.max(LEAST_LIMIT_MS, SLOWEST * durationMs);
      await runFfmpeg(args(partial), { signal: run.signal, longestMs, patient: true, onProgress: (ms) => told(shareOf(ms, durationMs)) });
      // Under a name of this run's own, before the row names it: one that was taken over puts its file beside, and it is swept.
      const file = `${row.id}-${run.attempt}.${ending}`;
      await this.media.put(partial, file, 'prepared', run.signal);
      await run.keep(() => write(file));
    } finally {
      await rm(partial, { force: true });
    }
  }
}
