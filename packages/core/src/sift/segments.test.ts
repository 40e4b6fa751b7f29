import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { DEMO_TALKS, demoTranscript } from '../talk.fixture.js';
import { normaliseWords } from '../text/tells/find-tells.js';
import { lexicalVectors } from './lexical-vectors.js';
import { foldedSums } from './prefix-sums.js';
import { PRICE_BY_WORDS, segmentSentences } from './segments.js';
import type { Vectors } from './types.js';

const sentence = (i: number): { firstWord: number; endWord: number; startMs: number; endMs: number; speaker: number } => ({
  firstWord: i,
  endWord: i + 1,
  startMs: i * 10_000,
  endMs: (i + 1) * 10_000,
  speaker: 0,
});

/** Vectors that point one way for each topic, with a little of a neighbour's direction. */
function topicVectors(topics: readonly number[]): Vectors {
  const data = new Float32Array(topics.length * 8);
  topics.forEach((topic, row) => {
    data[row * 8 + topic] = 0.96;
    data[row * 8 + ((topic + 1 + (row % 3)) % 8)] = 0.28;
  });
  return { dimensions: 8, data };
}

describe('segmentSentences', () => {
  it('cuts exactly where the topic changes', () => {
    const topics = [...Array<number>(20).fill(0), ...Array<number>(26).fill(3), ...Array<number>(14).fill(6)];
    expect(
      segmentSentences(
        topics.map((_, i) => sentence(i)),
        foldedSums(topicVectors(topics)),
      ),
    ).toEqual([0, 20, 46]);
  });
  it('leaves a short recording whole', () => expect(segmentSentences([0, 1, 2].map(sentence), foldedSums(topicVectors([0, 3, 6])))).toEqual([0]));
  it('gives nothing for nothing', () => expect(segmentSentences([], foldedSums(topicVectors([])))).toEqual([]));
  it('finds what trying every division finds, whatever starts it gives up on the way', () => {
    const gain = (sums: ReturnType<typeof foldedSums>, starts: readonly number[], n: number, price: number): number =>
      starts.reduce((sum, first, k) => sum + sums.square(first, starts[k + 1] ?? n) / ((starts[k + 1] ?? n) - first) - price, 0);
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 7 }), { minLength: 2, maxLength: 12 }),
        fc.integer({ min: 1, max: 4 }),
        fc.double({ min: 0.05, max: 0.6, noNaN: true }),
        (topics, shortest, price) => {
          const n = topics.length;
          const sums = foldedSums(topicVectors(topics));
          const found = segmentSentences(
            topics.map((_, i) => sentence(i)),
            sums,
            { shortestMs: 10_000 * shortest, longestMs: 80_000, price },
          );
          let best = n < 2 * shortest ? gain(sums, [0], n, price * Math.log(n)) : -Infinity;
          for (let cuts = 0; cuts < 2 ** (n - 1); cuts += 1) {
            const starts = [0, ...Array.from({ length: n - 1 }, (_, i) => i + 1).filter((i) => (cuts >> (i - 1)) & 1)];
            const lengths = starts.map((first, k) => (starts[k + 1] ?? n) - first);
            if (lengths.every((length) => length >= shortest && length <= 8)) best = Math.max(best, gain(sums, starts, n, price * Math.log(n)));
          }
          if (best > -Infinity) expect(gain(sums, found, n, price * Math.log(n))).toBeCloseTo(best, 6);
        },
      ),
      { numRuns: 60 },
    );
  });
  it.each(DEMO_TALKS)('%s: segments are not shorter than asked, and start on sentences', (name) => {
    const t = demoTranscript(name);
    const starts = segmentSentences(t.sentences, foldedSums(lexicalVectors(t.sentences, normaliseWords(t.words))), {
      shortestMs: 45_000,
      price: PRICE_BY_WORDS,
    });
    expect(starts[0]).toBe(0);
    starts.forEach((first, k) => {
      const last = (starts[k + 1] ?? t.sentences.length) - 1;
      expect(t.sentences[last]!.endMs - t.sentences[first]!.startMs).toBeGreaterThanOrEqual(45_000);
    });
  });
  it('finds the seam between two talks again', () => {
    const a = demoTranscript('what-goes-down-31');
    const b = demoTranscript('the-last-and-the-welt-07');
    const shift = a.durationMs + 500;
    const sentences = [
      ...a.sentences,
      ...b.sentences.map((s) => ({
        ...s,
        firstWord: s.firstWord + a.words.length,
        endWord: s.endWord + a.words.length,
        startMs: s.startMs + shift,
        endMs: s.endMs + shift,
      })),
    ];
    const starts = segmentSentences(sentences, foldedSums(lexicalVectors(sentences, normaliseWords([...a.words, ...b.words]))), { price: PRICE_BY_WORDS });
    const nearest = Math.min(...starts.map((first) => Math.abs(sentences[first]!.startMs - shift)));
    expect(nearest).toBeLessThan(60_000);
  });
});
