import { describe, expect, it } from 'vitest';
import { DEMO_TALKS, demoTranscript } from '../talk.fixture.js';
import { normaliseWords } from './find-tells.js';
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
