import { afterAll, describe, expect, it } from 'vitest';
import { DIMENSIONS, Embedder, MODEL_NAME, sentenceKey, type VectorCache } from '../dist/index.js';

// The built package: threads start from its own worker file.
const embedder = new Embedder({ threads: 2, batch: 3 });
afterAll(() => embedder.close());

const row = (data: Float32Array, i: number): Float32Array => data.slice(i * DIMENSIONS, (i + 1) * DIMENSIONS);
const dot = (a: Float32Array, b: Float32Array): number => a.reduce((sum, value, i) => sum + value * b[i]!, 0);
const memoryCache = (): VectorCache & { kept: Map<string, Float32Array>; reads: number } => {
  const kept = new Map<string, Float32Array>();
  const cache = {
    kept,
    reads: 0,
    read: (keys: readonly string[]) => {
      cache.reads += 1;
      return Promise.resolve(new Map(keys.filter((key) => kept.has(key)).map((key) => [key, kept.get(key)!] as const)));
    },
    write: (rows: ReadonlyMap<string, Float32Array>) => {
      for (const [key, vector] of rows) kept.set(key, vector);
      return Promise.resolve();
    },
  };
  return cache;
};

describe('Embedder', () => {
  it('gives unit vectors, nearer for what means the same', async () => {
    const { data, dimensions } = await embedder.embed([
      'The chimney is full of soot.',
      'There is a lot of soot in the flue.',
      'She plays the cello on Thursdays.',
    ]);
    expect(dimensions).toBe(512);
    for (let i = 0; i < 3; i += 1) expect(dot(row(data, i), row(data, i))).toBeCloseTo(1, 4);
    expect(dot(row(data, 0), row(data, 1))).toBeGreaterThan(dot(row(data, 0), row(data, 2)) + 0.2);
  });
  it('gives a sentence the same vector, however it is batched', async () => {
    const texts = ['One.', 'A second, rather longer sentence about bread.', 'Three?', 'Four little words here.', 'Five.', 'Six and a half.', 'Seven.'];
    const together = await embedder.embed(texts);
    for (const [i, text] of texts.entries()) {
      const alone = await embedder.embed([text]);
      expect(dot(row(together.data, i), alone.data)).toBeCloseTo(1, 4);
    }
  });
  it('takes nothing for nothing', async () => expect((await embedder.embed([])).data).toHaveLength(0));
  it('computes each different text once, and none that the cache has', async () => {
    const cache = memoryCache();
    const own = new Embedder({ threads: 1, cache });
    const done: number[] = [];
    const first = await own.embed(['Same.', 'Other.', 'Same.'], { onProgress: (n) => done.push(n) });
    expect(cache.kept.size).toBe(2);
    expect(row(first.data, 0)).toEqual(row(first.data, 2));
    expect(done.at(0)).toBe(1);
    cache.kept.set(sentenceKey('Same.'), new Float32Array(DIMENSIONS).fill(0.5));
    const second = await own.embed(['  Same. ']);
    expect(second.data[0]).toBe(0.5); // from the cache, not from the model
    await own.close();
  });
  it('tells its progress up to all of it', async () => {
    const seen: [number, number][] = [];
    await embedder.embed(
      Array.from({ length: 10 }, (_, i) => `Sentence number ${i}.`),
      { onProgress: (n, total) => seen.push([n, total]) },
    );
    expect(seen.at(0)).toEqual([0, 10]);
    expect(seen.at(-1)).toEqual([10, 10]);
    expect(seen.map(([n]) => n)).toEqual([...seen.map(([n]) => n)].sort((a, b) => a - b));
  });
  it('stops when it is asked to, and keeps in the cache what was done', async () => {
    const cache = memoryCache();
    const own = new Embedder({ threads: 1, batch: 2, cache });
    const stop = new AbortController();
    const texts = Array.from({ length: 40 }, (_, i) => `A sentence to be interrupted, number ${i}.`);
    await expect(
      own.embed(texts, {
        signal: stop.signal,
        onProgress: (n) => {
          if (n >= 4) stop.abort(new Error('enough'));
        },
      }),
    ).rejects.toThrow('enough');
    expect(cache.kept.size).toBeGreaterThanOrEqual(4);
    expect(cache.kept.size).toBeLessThan(40);
    expect((await own.embed(texts)).data).toHaveLength(40 * DIMENSIONS); // and goes on from there
    await own.close();
  });
});

describe('sentenceKey', () => {
  it('folds white space, and differs for different words and models', () => {
    expect(sentenceKey(' a\n b ')).toBe(sentenceKey('a b'));
    expect(sentenceKey('a b')).not.toBe(sentenceKey('a B'));
    expect(sentenceKey('a')).toMatch(/^[0-9a-f]{64}$/);
    expect(MODEL_NAME).toContain('0.2.0');
  });
});
