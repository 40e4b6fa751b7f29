import { availableParallelism } from 'node:os';
import type { Vectors } from '@sift-reel/core';
import { Piscina } from 'piscina';
import { DIMENSIONS, foldSpace, sentenceKey } from './sentence-key.js';

/** Where vectors are kept between runs, by sentence key. A missing key is simply computed. */
export interface VectorCache {
  read(keys: readonly string[]): Promise<ReadonlyMap<string, Float32Array>>;
  write(rows: ReadonlyMap<string, Float32Array>): Promise<void>;
}

export interface EmbedderOptions {
  /** Worker threads, 1 to 16. Default: one a core. */
  threads?: number;
  cache?: VectorCache;
  /** Sentences handed to a thread at once, 1 to 256. Default 16: about a quarter of a second of work. */
  batch?: number;
}

export interface EmbedHooks {
  /** Called after each batch with the sentences done and all of them. */
  onProgress?: (done: number, total: number) => void;
  signal?: AbortSignal;
}

/** The model failed or its thread died; nothing of the batch is used. */
export class EmbedderError extends Error {
  override readonly name = 'EmbedderError';
}

/**
 * Sentence vectors from the model that ships inside its package: unit length, 512 numbers. The same text always gets the
 * same vector, however it was batched, since the model looks at one sentence at a time. Threads start with the first call
 * and end with `close`; which answer belongs to which question is the pool's to know, so callers may ask at the same time.
 */
export class Embedder {
  private readonly pool: Piscina<readonly string[], Float32Array>;
  private readonly threads: number;

  constructor(private readonly options: EmbedderOptions = {}) {
    this.threads = options.threads ?? availableParallelism();
    this.pool = new Piscina({ filename: new URL('./embed.worker.js', import.meta.url).href, minThreads: 0, maxThreads: this.threads, idleTimeout: 60_000 });
  }

  /**
   * Vectors of texts, a row each, in order.
   * @throws EmbedderError, or the signal's reason when it is aborted (batches that are done stay in the cache)
   */
  async embed(texts: readonly string[], hooks: EmbedHooks = {}): Promise<Vectors> {
    const keys = texts.map(sentenceKey);
    const known = new Map(await (this.options.cache?.read([...new Set(keys)]) ?? Promise.resolve(new Map<string, Float32Array>())));
    const missing = [...new Map(texts.map((text, i) => [keys[i]!, foldSpace(text)])).entries()].filter(([key]) => !known.has(key));
    let done = texts.length - missing.length;
    hooks.onProgress?.(done, texts.length);
    await this.computeAll(missing, known, hooks, (n) => {
      done += n;
      hooks.onProgress?.(Math.min(done, texts.length), texts.length);
    });
    const data = new Float32Array(texts.length * DIMENSIONS);
    keys.forEach((key, row) => data.set(known.get(key)!, row * DIMENSIONS));
    return { dimensions: DIMENSIONS, data };
  }

  async close(): Promise<void> {
    await this.pool.destroy();
  }

  private async computeAll(
    missing: readonly (readonly [string, string])[],
    known: Map<string, Float32Array>,
    { signal }: EmbedHooks,
    onDone: (n: number) => void,
  ): Promise<void> {
    const size = this.options.batch ?? 16;
    const failed = new AbortController();
    const stop = signal === undefined ? failed.signal : AbortSignal.any([signal, failed.signal]);
    let next = 0;
    const work = async (): Promise<void> => {
      while (next < missing.length) {
        stop.throwIfAborted();
        const batch = missing.slice(next, next + size);
        next += size;
        const vectors = await untilAborted(this.ask(batch.map(([, text]) => text)), stop);
        const rows = new Map(batch.map(([key], row) => [key, vectors.slice(row * DIMENSIONS, (row + 1) * DIMENSIONS)]));
        await this.options.cache?.write(rows);
        for (const [key, row] of rows) known.set(key, row);
        stop.throwIfAborted();
        onDone(batch.length);
      }
    };
    const takers = Array.from({ length: Math.min(this.threads, Math.ceil(missing.length / size)) }, () =>
      work().catch((error: unknown) => {
        failed.abort(error); // the other takers stop, too
        throw error;
      }),
    );
    await Promise.allSettled(takers);
    signal?.throwIfAborted();
    if (failed.signal.aborted) throw failed.signal.reason;
  }

  private async ask(texts: readonly string[]): Promise<Float32Array> {
    try {
      return await this.pool.run(texts);
    } catch (error) {
      throw new EmbedderError(error instanceof Error ? error.message : String(error));
    }
  }
}

/** The promise's value, or the signal's reason as soon as it is aborted; what the promise gives later goes nowhere. */
function untilAborted<T>(promise: Promise<T>, signal: AbortSignal): Promise<T> {
  return new Promise((resolve, reject) => {
    const stop = (): void => reject(signal.reason as Error);
    signal.addEventListener('abort', stop, { once: true });
    promise.then(resolve, reject).finally(() => signal.removeEventListener('abort', stop));
  });
}
