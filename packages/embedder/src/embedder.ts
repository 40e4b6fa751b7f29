import { availableParallelism } from 'node:os';
import { Worker } from 'node:worker_threads';
import type { Vectors } from '@sift-reel/core';
import type { EmbedReply, EmbedRequest } from './embed.worker.js';
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

interface Thread {
  readonly worker: Worker;
  pending: { resolve(vectors: Float32Array): void; reject(error: Error): void } | null;
}

/**
 * Sentence vectors from the model that ships inside its package: unit length, 512 numbers. The same text always gets the
 * same vector, however it was batched, since the model looks at one sentence at a time. Threads start with the first call
 * and end with `close`.
 */
export class Embedder {
  private threads: Thread[] = [];
  private nextId = 1;
  constructor(private readonly options: EmbedderOptions = {}) {}

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
    const threads = this.threads;
    this.threads = [];
    await Promise.all(threads.map(({ worker }) => worker.terminate()));
  }

  private async computeAll(
    missing: readonly (readonly [string, string])[],
    known: Map<string, Float32Array>,
    hooks: EmbedHooks,
    onDone: (n: number) => void,
  ): Promise<void> {
    const size = this.options.batch ?? 16;
    let next = 0;
    const work = async (index: number): Promise<void> => {
      while (next < missing.length) {
        hooks.signal?.throwIfAborted();
        const batch = missing.slice(next, next + size);
        next += size;
        const vectors = await this.ask(
          this.thread(index),
          batch.map(([, text]) => text),
        );
        const rows = new Map(batch.map(([key], row) => [key, vectors.slice(row * DIMENSIONS, (row + 1) * DIMENSIONS)]));
        await this.options.cache?.write(rows);
        for (const [key, row] of rows) known.set(key, row);
        onDone(batch.length);
      }
    };
    const threads = Math.min(this.options.threads ?? availableParallelism(), Math.ceil(missing.length / size));
    await Promise.all(Array.from({ length: threads }, (_, index) => work(index)));
  }

  private thread(index: number): Thread {
    const running = this.threads[index];
    if (running !== undefined) return running;
    const thread: Thread = { worker: new Worker(new URL('./embed.worker.js', import.meta.url)), pending: null };
    const fail = (message: string): void => {
      thread.pending?.reject(new EmbedderError(message));
      thread.pending = null;
      if (this.threads[index] === thread) delete this.threads[index];
    };
    thread.worker.on('message', (reply: EmbedReply) => {
      const { pending } = thread;
      thread.pending = null;
      if ('error' in reply) pending?.reject(new EmbedderError(reply.error));
      else pending?.resolve(reply.vectors);
    });
    thread.worker.on('error', (error) => fail(error instanceof Error ? error.message : String(error)));
    thread.worker.on('exit', () => fail('the model’s thread ended'));
    thread.worker.unref();
    this.threads[index] = thread;
    return thread;
  }

  private ask(thread: Thread, texts: readonly string[]): Promise<Float32Array> {
    return new Promise((resolve, reject) => {
      thread.worker.ref();
      const settle = (act: () => void): void => {
        thread.worker.unref();
        act();
      };
      thread.pending = { resolve: (vectors) => settle(() => resolve(vectors)), reject: (error) => settle(() => reject(error)) };
      const request: EmbedRequest = { id: this.nextId, texts };
      this.nextId += 1;
      thread.worker.postMessage(request);
    });
  }
}
