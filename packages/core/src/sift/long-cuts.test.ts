import { describe, expect, it } from 'vitest';
import { DEMO_TALKS, demoTranscript } from '../talk.fixture.js';
import { buildContext } from './context.js';
import { buildScorer } from './score.js';
import { sift } from './sift.js';
import { buildSignals } from './signals/index.js';
import type { SiftInput } from './types.js';

const inputOf = (talk: (typeof DEMO_TALKS)[number], minMs: number, maxMs: number): SiftInput => ({
  transcript: demoTranscript(talk),
  brief: { partStartMs: 0, partEndMs: null, minMs, maxMs, roughCount: 4, topics: [], kinds: [], avoid: [] },
  clientTags: [],
  sentenceVectors: null,
  topicVectors: null,
});

describe.each(DEMO_TALKS)('long cuts of %s', (talk) => {
  const input = inputOf(talk, 180_000, 900_000);
  const { candidates, chapters } = sift(input);
  it('are 3 to 15 minutes long and do not overlap', () => {
    expect(candidates.length).toBeGreaterThan(0);
    for (const { startMs, endMs } of candidates) {
      expect(endMs - startMs).toBeGreaterThanOrEqual(180_000);
      expect(endMs - startMs).toBeLessThanOrEqual(900_000);
    }
    const byStart = candidates.toSorted((a, b) => a.firstWord - b.firstWord);
    byStart.slice(1).forEach((one, i) => expect(one.firstWord).toBeGreaterThanOrEqual(byStart[i]!.endWord));
  });
  it('say so where they begin or end with a chapter, and only there', () => {
    const [firsts, ends] = [new Set(chapters.map(({ firstWord }) => firstWord)), new Set(chapters.map(({ endWord }) => endWord))];
    const { sentences } = input.transcript;
    const sentenceOf = (word: number): number => sentences.find(({ endWord }) => endWord > word)!.firstWord; // fillers are cut off the start
    for (const { firstWord, endWord, reason } of candidates) {
      expect(reason.includes('from the start of a chapter'), reason).toBe(firsts.has(sentenceOf(firstWord)));
      expect(/to the end of (?:a chapter|one)/.test(reason), reason).toBe(ends.has(endWord));
    }
  });
});

describe('the score of a long cut', () => {
  const score = (maxMs: number, first: number, end: number): number => {
    const context = buildContext(inputOf('what-goes-down-31', 30_000, maxMs));
    return buildScorer(context, buildSignals(context))({ first, end });
  };
  const context = buildContext(inputOf('what-goes-down-31', 30_000, 900_000));
  const starts = context.chapterStarts();
  it('gains five points at either end that lies where chapters meet; a short does not', () => {
    const first = starts[1]!;
    const end = starts.find((one) => one > first && context.sentences[one - 2]!.endMs - context.sentences[first]!.startMs > 120_000)!;
    expect(score(900_000, first, end) - score(60_000, first, end)).toBeCloseTo(10, 6);
    expect(score(900_000, first, end - 1) - score(60_000, first, end - 1)).toBeCloseTo(5, 6);
    expect(score(900_000, first + 1, first + 4)).toBe(score(60_000, first + 1, first + 4));
  });
});
