import { MessageChannel } from 'node:worker_threads';
import { Inject, Injectable, type OnModuleDestroy, type OnModuleInit } from '@nestjs/common';
import { BriefRefusedError, NO_VECTORS, type Language, type SiftProgress, type SiftResult, type Vectors } from '@sift-reel/core';
import { Embedder } from '@sift-reel/embedder';
import { Piscina } from 'piscina';
import { CONFIG, type Config } from '../config/config.module.js';
import { Database } from '../database/database.service.js';
import { JobRefusedError } from '../jobs/job-kind.js';
import type { JobRun } from '../jobs/job-run.js';
import { JobWorker } from '../jobs/job-worker.service.js';
import { MediaStore } from '../media/media-store.service.js';
import { TranscriptRow } from '../recordings/recordings.models.js';
import { TextPool } from '../text/text-pool.service.js';
import { toBriefForm } from './brief.js';
import { writeCandidates } from './candidate-rows.js';
import { SIFT, SIFT_QUEUE } from './sift.kind.js';
import type { SiftTask } from './sift-task.js';
import { BriefRow, CandidateRow, Sift } from './sifting.models.js';
import { databaseVectorCache } from './vector-cache.js';
import { hearRecording } from '../preparing/voice-tracks.js';
import { embedWanted, readWanted, type Wanted, type WantedVectors } from './wanted.js';

const TIMES = 'SELECT word_times AS times FROM transcripts WHERE recording_id = $1 FOR SHARE';

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
    const row = await TranscriptRow.findByPk(sift.recordingId, { attributes: ['packed', 'wordTimes'] });
    if (row === null) throw new JobRefusedError('The recording has no transcript.');
    const brief = toBriefForm(sift.brief);
    const wanted = await readWanted(sift.clientId);
    let heardAt = 0;
    const voice = await hearRecording(sift.recordingId, this.media, run.signal, (fraction) => {
      heardAt = HEARD_AT;
      run.report('listening', HEARD_AT * fraction);
    });
    const { signal } = run;
    const language = (await this.threads.run({ packed: row.packed }, { name: 'languageOfTalk', signal })) as Language | null;
    const vectors = language === null ? await this.vectorsFor(sift.clientId, row.packed, brief.topics, wanted, run, heardAt) : NO_VECTORS;
    const input = { packed: row.packed, language, brief, ...wanted, ...vectors, voice };
    const result = await this.compute(input, run);
    await run.complete(async () => {
      // True times that were heard meanwhile have moved all other sifts of the recording; this one is made again with them.
      const [now] = await this.database.run<{ times: string }>(TIMES, [sift.recordingId]);
      if (now?.times !== row.wordTimes) throw new Error('the times of its words were heard while it was sifted');
      await this.writeRanking(sift, result, language);
    });
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
    const texts = await this.text.sentenceTexts(clientId, { packed });
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
