import { MessageChannel } from 'node:worker_threads';
import { Inject, Injectable, type OnModuleDestroy, type OnModuleInit } from '@nestjs/common';
import { BriefRefusedError, NO_VECTORS, type Language, type SiftProgress, type SiftResult, type Vectors, type VoiceTrack } from '@sift-reel/core';
import { Embedder } from '@sift-reel/embedder';
import { Piscina } from 'piscina';
import { CONFIG, type Config } from '../config/config.module.js';
import { Database } from '../database/database.service.js';
import { JobRefusedError } from '../jobs/job-kind.js';
import type { JobRun } from '../jobs/job-run.js';
import { JobWorker } from '../jobs/job-worker.service.js';
import { MediaStore } from '../media/media-store.service.js';
import { hearRecording } from '../preparing/voice-tracks.js';
import { Recording, TranscriptRow, VoiceTrackRow } from '../recordings/recordings.models.js';
import { heardOf, withLevels } from '../recordings/stored-talk.js';
import type { EdgesOfWords } from '../text/align-tasks.js';
import { TextPool } from '../text/text-pool.service.js';
import { toBriefForm } from './brief.js';
import { writeCandidates } from './candidate-rows.js';
import { moveSifted } from './move-sifted.js';
import { SIFT, SIFT_QUEUE } from './sift.kind.js';
import type { SiftTask } from './sift-task.js';
import { BriefRow, CandidateRow, Sift } from './sifting.models.js';
import { databaseVectorCache } from './vector-cache.js';
import { embedWanted, readWanted, type Wanted, type WantedVectors } from './wanted.js';

/** $1 recording, $2 in which sound it was heard where words end */
const PIN_ENDS = 'UPDATE transcripts SET ends_heard_in = $2 WHERE recording_id = $1';
/** $1 recording */
const HAS_SHORTS = 'SELECT EXISTS (SELECT FROM shorts WHERE recording_id = $1) AS "has"';

/** Where listening, where there is something to listen to, and the vectors end, as shares of the whole; measured on a first sift. */
const HEARD_AT = 0.35;
const VECTORS_AT = 0.85;

/**
 * Sifts, in the worker. One may be killed at any line and run again: vectors that are done are found in the cache, and the
 * ranking is written in the transaction that ends the job, so there is never half of one. Same result every time.
 */
@Injectable()
export class SiftWork implements OnModuleInit, OnModuleDestroy {
  private readonly embedder: Embedder;
  private readonly threads = new Piscina({
    filename: new URL('./sift-task.js', import.meta.url).href,
    minThreads: 0,
    maxThreads: SIFT_QUEUE.slots,
    idleTimeout: 30_000,
  });

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(JobWorker) private readonly worker: JobWorker,
    @Inject(TextPool) private readonly text: TextPool,
    @Inject(MediaStore) private readonly media: MediaStore,
    @Inject(CONFIG) config: Config,
  ) {
    this.embedder = new Embedder({ threads: config.vectorThreads, cache: databaseVectorCache(database) });
  }

  onModuleInit(): void {
    this.worker.register(SIFT, (siftId, run) => this.sift(siftId, run));
  }

  private async sift(siftId: string, run: JobRun): Promise<void> {
    const sift = await Sift.findOne({ where: { id: siftId }, include: [BriefRow] });
    if (sift === null) throw new JobRefusedError('The recording is gone.');
    run.report('reading', 0);
    const { recordingId, clientId } = sift;
    const brief = toBriefForm(sift.brief);
    const wanted = await readWanted(clientId);
    let heardAt = 0;
    const voice = await hearRecording(recordingId, this.media, run.signal, (fraction) => {
      heardAt = HEARD_AT;
      run.report('listening', HEARD_AT * fraction);
    });
    const row = await TranscriptRow.findByPk(recordingId, { attributes: ['packed', 'wordTimes', 'endsHeardIn'] });
    if (row === null) throw new JobRefusedError('The recording has no transcript.');
    const endsHeardIn = await this.endsFor(recordingId, row, voice);
    const { signal } = run;
    const language = (await this.threads.run({ packed: row.packed }, { name: 'languageOfTalk', signal })) as Language | null;
    const vectors = language === null ? await this.vectorsFor(clientId, row.packed, brief.topics, wanted, run, heardAt) : NO_VECTORS;
    const talk = await withLevels(recordingId, { packed: row.packed, endsHeardIn });
    const result = await this.compute({ talk, language, brief, ...wanted, ...vectors, voice }, run);
    const edges = endsHeardIn === row.endsHeardIn ? null : await this.text.edgesOfWords(clientId, { talk });
    // The recording first, then the job, then the transcript: whoever removes a recording, or gives it true times, holds them in this order.
    await this.database.transaction(async () => {
      const recording = await Recording.findByPk(recordingId, { attributes: ['soundFile', 'soundTrack'], lock: true });
      await run.complete(async () => {
        const now = await TranscriptRow.findByPk(recordingId, { attributes: ['wordTimes', 'endsHeardIn'], lock: true });
        // What was heard meanwhile has moved all other sifts of the recording; this one is made again with it.
        if (now?.wordTimes !== row.wordTimes || now.endsHeardIn !== row.endsHeardIn) throw new Error('the times of its words were heard while it was sifted');
        if (edges !== null) {
          if (recording === null || heardOf(recording) !== endsHeardIn) throw new Error('the recording was given another sound while it was sifted');
          await this.pinEnds(recordingId, endsHeardIn, edges);
        }
        await this.writeRanking(sift, result, language);
      });
    });
  }

  /** Words are cut where they were heard to end, from the first sift with a sound on; cuts do not change under a short any more. */
  private async endsFor(recordingId: string, row: Pick<TranscriptRow, 'endsHeardIn'>, voice: VoiceTrack | null): Promise<string | null> {
    if (voice === null || (await this.hasShorts(recordingId))) return row.endsHeardIn;
    const heardIn = heardOf(await Recording.findByPk(recordingId, { attributes: ['soundFile', 'soundTrack'], rejectOnEmpty: true }));
    return (await VoiceTrackRow.count({ where: { recordingId, soundFile: heardIn } })) > 0 ? heardIn : row.endsHeardIn;
  }

  /** Nobody keeps a short meanwhile: the recording is held, which a new one names. */
  private async pinEnds(recordingId: string, endsHeardIn: string, edges: EdgesOfWords): Promise<void> {
    if (await this.hasShorts(recordingId)) throw new Error('a short was kept while it was sifted');
    await this.database.run(PIN_ENDS, [recordingId, endsHeardIn]);
    await moveSifted(this.database, recordingId, edges);
  }

  private async hasShorts(recordingId: string): Promise<boolean> {
    return (await this.database.rows<{ has: boolean }>(HAS_SHORTS, [recordingId]))[0]!.has;
  }

  /** @param from where listening ended, as a share of the whole */
  private async vectorsFor(
    clientId: string,
    packed: Uint8Array,
    topics: readonly string[],
    wanted: Wanted,
    run: JobRun,
    from: number,
  ): Promise<WantedVectors & { readonly sentenceVectors: Vectors }> {
    const { signal } = run;
    const texts = await this.text.sentenceTexts(clientId, { talk: { packed, levels: null } });
    const sentenceVectors = await this.embedder.embed(texts, {
      signal,
      onProgress: (done, total) => run.report('vectors', from + ((VECTORS_AT - from) * done) / Math.max(1, total)),
    });
    return { sentenceVectors, ...(await embedWanted(topics, wanted, (some) => this.embedder.embed(some, { signal }))) };
  }

  private async compute(input: Omit<SiftTask, 'progress'>, run: JobRun): Promise<SiftResult> {
    const { port1, port2 } = new MessageChannel();
    port1.on('message', ({ stage, fraction }: SiftProgress) => {
      if (!run.signal.aborted) run.report(stage, VECTORS_AT + fraction * (1 - VECTORS_AT));
    });
    try {
      return (await this.threads.run({ ...input, progress: port2 }, { transferList: [port2], signal: run.signal })) as SiftResult;
    } catch (error) {
      run.signal.throwIfAborted();
      if (error instanceof Error && error.name === BriefRefusedError.name) throw new JobRefusedError(`The brief cannot be used: ${error.message}`);
      throw error;
    } finally {
      port1.close();
    }
  }

  private async writeRanking(sift: Sift, result: SiftResult, language: Language | null): Promise<void> {
    const { chapters, ridge, strongCount, limits, weights, keyPhrases, makeUp, subject } = result;
    await CandidateRow.destroy({ where: { siftId: sift.id } });
    await sift.update({
      chapters: [...chapters],
      ridge: [...ridge],
      strongCount,
      limits: [...limits],
      weights: [...weights],
      keyPhrases: [...keyPhrases],
      makeUp,
      subject,
      language: language?.code ?? null,
    });
    await writeCandidates(sift, result.candidates, 'sift');
  }

  async onModuleDestroy(): Promise<void> {
    await this.embedder.close();
    await this.threads.destroy();
  }
}
