import { mkdir } from 'node:fs/promises';
import { dirname } from 'node:path';
import { ConflictException, HttpException, Inject, Injectable, type OnModuleInit, UnprocessableEntityException } from '@nestjs/common';
import type { FeedFile, GivenChapter } from '@sift-reel/core';
import { Database } from '../database/database.service.js';
import { download } from '../fetching/download.js';
import { FetchError } from '../fetching/fetch-errors.js';
import { SafeFetch } from '../fetching/safe-fetch.js';
import { JobLaterError, JobRefusedError } from '../jobs/job-kind.js';
import type { JobRun } from '../jobs/job-run.js';
import { JobWorker } from '../jobs/job-worker.service.js';
import { MediaStore, type StagedSound } from '../media/media-store.service.js';
import type { Talk } from '../recordings/bring-in.js';
import { Recording } from '../recordings/recordings.models.js';
import { RecordingsService } from '../recordings/recordings.service.js';
import { TextPool } from '../text/text-pool.service.js';
import { FETCH, LARGEST_FILE, partName } from './feeds.kind.js';
import { Fetch } from './feeds.models.js';
import { fileName } from './file-name.js';

const [LARGEST_TRANSCRIPT, LARGEST_CHAPTERS] = [64_000_000, 2_000_000];
/** So long one file may take, however slowly it comes: ten hours of video over a poor line. */
const LONGEST_MS = 12 * 3_600_000;
const LONGEST_TEXT_MS = 120_000;
const [FETCHING_AT, LOOKING_AT] = [0.04, 0.97];
const MOST_NOTES = 6;
const TOO_LONG = 'It took longer than it may.';

interface Beside {
  readonly transcript: { readonly name: string; readonly talk: Talk } | null;
  readonly chapters: readonly GivenChapter[];
  readonly notes: readonly string[];
}

/** Brings the files of recordings in from where they lie, in the worker. What has come stays, so a run that was killed goes on after it. */
@Injectable()
export class FetchWork implements OnModuleInit {
  constructor(
    @Inject(JobWorker) private readonly worker: JobWorker,
    @Inject(Database) private readonly database: Database,
    @Inject(SafeFetch) private readonly safe: SafeFetch,
    @Inject(MediaStore) private readonly media: MediaStore,
    @Inject(RecordingsService) private readonly recordings: RecordingsService,
    @Inject(TextPool) private readonly text: TextPool,
  ) {}

  onModuleInit(): void {
    this.worker.register(FETCH, (fetchId, run) => this.fetch(fetchId, run));
  }

  private async fetch(fetchId: string, run: JobRun): Promise<void> {
    const row = await Fetch.findByPk(fetchId);
    if (row === null) throw new JobRefusedError('The recording is gone.');
    run.report('asking', 0);
    try {
      const path = this.media.pathOf(partName(row.id), 'fetching');
      await mkdir(dirname(path), { recursive: true });
      const { type } = await download(
        this.safe,
        {
          url: row.url,
          path,
          validator: row.validator,
          bytes: row.bytes === null ? null : Number(row.bytes),
          mostBytes: LARGEST_FILE,
          begins: async (validator, bytes) => {
            await run.keep(() => row.update({ validator, bytes }));
          },
          progress: (bytes, of) => run.report('fetching', FETCHING_AT + (LOOKING_AT - FETCHING_AT) * (of === null ? 0 : bytes / of)),
        },
        AbortSignal.any([run.signal, AbortSignal.timeout(LONGEST_MS)]),
      );
      // After the file: what goes with it keeps nobody waiting for that.
      const beside = await this.besides(row, run);
      run.report('looking', LOOKING_AT);
      const sound = await this.look(row, type);
      await this.take(row, sound, beside, run);
    } catch (error) {
      throw run.signal.aborted ? error : forTheJob(error);
    }
    await this.media.remove(partName(row.id), 'fetching');
  }

  /** A file that is neither sound nor video is not fetched again: nobody can do anything with it. */
  private async look(row: Fetch, type: string): Promise<StagedSound> {
    const name = fileName(row.url);
    try {
      return await this.media.stageFetched(partName(row.id), name);
    } catch (error) {
      if (!(error instanceof UnprocessableEntityException)) throw error;
      await this.media.remove(partName(row.id), 'fetching');
      const { hostname } = new URL(row.url);
      throw new JobRefusedError(/^text\/html/.test(type) ? `${hostname} has a web page at this address, not a file of sound or video.` : error.message);
    }
  }

  /** Recording, then job: whoever removes a recording holds them in this order. */
  private async take(row: Fetch, sound: StagedSound, { transcript, chapters, notes }: Beside, run: JobRun): Promise<void> {
    const by = { userId: row.askedBy, turn: row.clientId, keepsTranscript: true };
    await this.recordings.receive(by, row.recordingId, { title: null, transcript, sound }, (write) =>
      this.database.transaction(async () => {
        const recording = await Recording.findByPk(row.recordingId, { lock: true });
        await run.complete(async () => {
          if (recording?.origin != null && chapters.length > 0) await recording.update({ origin: { ...recording.origin, chapters } });
          await row.update({ takenAt: new Date(), validator: null, notes: notes.slice(0, MOST_NOTES) });
          await write();
        });
      }),
    );
  }

  /** What goes with the file. Whatever of it cannot be had is said, and does not keep the file away. */
  private async besides(row: Fetch, run: JobRun): Promise<Beside> {
    const notes: string[] = [];
    let transcript: Beside['transcript'] = null;
    for (const file of row.transcripts) {
      transcript = await this.transcriptOf(row, file, run, notes);
      if (transcript !== null) break;
    }
    return { transcript, chapters: await this.chaptersOf(row, run, notes), notes };
  }

  private async transcriptOf(row: Fetch, { url }: FeedFile, run: JobRun, notes: string[]): Promise<Beside['transcript']> {
    const name = fileName(url);
    try {
      const { bytes } = await this.safe.read(url, LARGEST_TRANSCRIPT, { signal: short(run) });
      // In a buffer of its own: it moves into the thread that reads it.
      return { name, talk: await this.recordings.prepare(row.clientId, { name, bytes: new Uint8Array(bytes) }) };
    } catch (error) {
      notes.push(`${name}: ${this.withoutIt(error, run, name)}`);
      return null;
    }
  }

  private async chaptersOf(row: Fetch, run: JobRun, notes: string[]): Promise<readonly GivenChapter[]> {
    if (row.chaptersUrl === null) return [];
    const name = fileName(row.chaptersUrl);
    try {
      const { bytes } = await this.safe.read(row.chaptersUrl, LARGEST_CHAPTERS, { signal: short(run) });
      const outcome = await this.text.readChapters(row.clientId, new Uint8Array(bytes));
      if (outcome.kind === 'read') return outcome.what;
      notes.push(`${name}: ${outcome.detail}`);
    } catch (error) {
      notes.push(`${name}: ${this.withoutIt(error, run, name)}`);
    }
    return [];
  }

  /**
   * Why a file beside the sound is gone without, in words.
   * @throws what is no fault of that file: the end of the run, or a host that may answer in a moment, while there are attempts left
   */
  private withoutIt(error: unknown, run: JobRun, name: string): string {
    run.signal.throwIfAborted();
    const isLate = error instanceof Error && error.name === 'TimeoutError';
    if ((isLate || (error instanceof FetchError && error.again)) && !run.isLast) throw error;
    if (isLate) return TOO_LONG;
    if (error instanceof FetchError) return error.message;
    if (error instanceof HttpException) return error.message.replace(`${name}:`, 'line ');
    throw error;
  }
}

const short = (run: JobRun): AbortSignal => AbortSignal.any([run.signal, AbortSignal.timeout(LONGEST_TEXT_MS)]);

/** What an error means for the job. */
function forTheJob(error: unknown): unknown {
  if (error instanceof FetchError) return error.again ? new JobLaterError(error.message, error.afterMs) : new JobRefusedError(error.message);
  if (error instanceof ConflictException || error instanceof UnprocessableEntityException) return new JobRefusedError(error.message);
  if (error instanceof Error && error.name === 'TimeoutError') return new JobLaterError(TOO_LONG);
  return error;
}
