import { mkdir, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { gunzipSync, gzipSync } from 'node:zlib';
import { Inject, Injectable, type OnModuleInit } from '@nestjs/common';
import { belongs, type HeardWord } from '@sift-reel/core';
import { JobRefusedError } from '../jobs/job-kind.js';
import type { JobRun } from '../jobs/job-run.js';
import { JobWorker } from '../jobs/job-worker.service.js';
import { MediaStore } from '../media/media-store.service.js';
import { MissingFileError } from '../media/store-errors.js';
import { Recording, TranscriptRow } from '../recordings/recordings.models.js';
import { TextPool } from '../text/text-pool.service.js';
import { ALIGN, workFolder } from './align.kind.js';
import { Alignment } from './aligning.models.js';
import { quietPlace } from './quiet-place.js';
import { type Expected, type Recogniser, RECOGNISER, RecogniserError } from './recogniser.js';
import { SoundPieces, RECOGNISER_RATE, wavOf } from './sound-pieces.js';
import { TakeTimes } from './take-times.service.js';

/** Heard at once, in ms: as much as a worker that is killed hears again. */
const PIECE_MS = 120_000;
const READ_AT = 0.02;
const HEARD_AT = 0.97;
const percent = (share: number): string => `${Math.round(share * 100)} %`;

/** Listens for words, in the worker, piece by piece: what was heard is kept, so a run that was killed goes on after the last piece. */
@Injectable()
export class AlignWork implements OnModuleInit {
  constructor(
    @Inject(JobWorker) private readonly worker: JobWorker,
    @Inject(MediaStore) private readonly media: MediaStore,
    @Inject(TextPool) private readonly text: TextPool,
    @Inject(TakeTimes) private readonly taking: TakeTimes,
    @Inject(RECOGNISER) private readonly recogniser: Recogniser,
  ) {}

  onModuleInit(): void {
    this.worker.register(ALIGN, (alignmentId, run) => this.align(alignmentId, run));
  }

  private async align(alignmentId: string, run: JobRun): Promise<void> {
    const row = await Alignment.findByPk(alignmentId);
    const recording = row === null ? null : await Recording.findByPk(row.recordingId);
    if (row === null || recording === null) throw new JobRefusedError('The recording is gone.');
    run.report('reading', 0);
    const talk = await this.talkOf(row);
    if (talk !== null && talk.language !== null && !this.recogniser.anyLanguage) return this.foreign(row, talk.language, run);
    try {
      await this.media.use(row.soundFile, '.', (source) => this.hearAll(row, source, recording.durationMs ?? 0, talk?.words ?? null, run), run.signal);
    } catch (error) {
      if (error instanceof MissingFileError) throw new JobRefusedError('The file of this recording is not in its place.');
      if (error instanceof RecogniserError && run.attempt >= ALIGN.attempts) throw new JobRefusedError(`It could not be listened to: ${error.message}`);
      throw error;
    }
    run.report('placing', HEARD_AT);
    await this.take(row, run);
  }

  /** What is said, where that is known. */
  private async talkOf(row: Alignment): Promise<{ readonly words: string[]; readonly language: string | null } | null> {
    if (row.kind === 'draft') return null;
    if (row.kind === 'text') return this.text.talkToHear(row.clientId, { said: row.said! });
    const transcript = await TranscriptRow.findByPk(row.recordingId, { attributes: ['packed'] });
    if (transcript === null) throw new JobRefusedError('The recording has no transcript.');
    return this.text.talkToHear(row.clientId, { packed: transcript.packed });
  }

  private async foreign(row: Alignment, language: string, run: JobRun): Promise<void> {
    if (row.kind === 'text') throw new JobRefusedError(`Words are heard in English only, and this is ${language}. Bring in a transcript with times.`);
    await run.complete(() => row.update({ outcome: 'language' }).then(() => undefined));
  }

  private async hearAll(row: Alignment, source: string, lengthMs: number, words: readonly string[] | null, run: JobRun): Promise<void> {
    const { signal } = run;
    const known = row.heard !== null && row.recogniser === this.recogniser.name;
    const heard: HeardWord[] = known ? (JSON.parse(gunzipSync(row.heard!).toString('utf8')) as HeardWord[]) : [];
    let fromMs = known ? row.heardMs : 0;
    const folder = this.media.pathOf(workFolder(row.id, run.attempt), 'aligning');
    await mkdir(folder, { recursive: true });
    const sound = new SoundPieces(source, row.soundTrack, signal);
    try {
      const expected: Expected | null = words === null ? null : await this.recogniser.expect(words, { folder, signal });
      await sound.skip(fromMs);
      for (;;) {
        signal.throwIfAborted();
        const samples = await sound.next(PIECE_MS);
        if (samples.length === 0) break;
        const share = (ms: number): number => READ_AT + (HEARD_AT - READ_AT) * Math.min(1, lengthMs === 0 ? 0 : ms / lengthMs);
        run.report('hearing-words', share(fromMs));
        const wav = join(folder, 'piece.wav');
        await writeFile(wav, wavOf(samples));
        const piece = await this.recogniser.hear({ wav, folder, signal }, expected);
        const pieceMs = (samples.length / RECOGNISER_RATE) * 1_000;
        const last = pieceMs < PIECE_MS;
        const cutMs = last ? pieceMs : quietPlace(piece, pieceMs);
        if (!last) sound.putBack(samples.subarray(Math.round((cutMs * RECOGNISER_RATE) / 1_000)));
        for (const { text, startMs, endMs } of piece) if (last || endMs <= cutMs) heard.push({ text, startMs: startMs + fromMs, endMs: endMs + fromMs });
        fromMs = Math.round(fromMs + cutMs);
        await run.keep(() => row.update({ heard: gzipSync(JSON.stringify(heard)), heardMs: fromMs, recogniser: this.recogniser.name }));
        run.report('hearing-words', share(fromMs));
        if (last) break;
      }
    } finally {
      sound.close();
      await rm(folder, { recursive: true, force: true });
    }
  }

  private async take(row: Alignment, run: JobRun): Promise<void> {
    const { clientId, kind, heardMs: lengthMs } = row;
    if (row.heard === null) throw new JobRefusedError('There is no sound to listen to.');
    if (kind === 'cues') return this.taking.retime(row, run);
    const heard = row.heard;
    if (kind === 'draft') {
      const draft = await this.text.draftHeard(clientId, { heard, lengthMs });
      if (draft === null) throw new JobRefusedError('Nobody was heard to speak.');
      return this.taking.write(row, run, draft, null);
    }
    const { share, used, ...timed } = await this.text.timeSaid(clientId, { said: row.said!, heard, lengthMs, format: row.format!, encoding: row.encoding! });
    if (!belongs({ share, used }))
      throw new JobRefusedError(
        `Text and sound do not belong together: ${percent(share)} of the text was heard, and ${percent(used)} of what is said stands in it.`,
      );
    await this.taking.write(row, run, timed, share);
  }
}
