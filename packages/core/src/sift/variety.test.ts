import { describe, expect, it } from 'vitest';
import { demoTranscript, toVtt, transcriptOf } from '../talk.fixture.js';
import { buildReel, REEL_WITHIN_MS, ReelRefusedError } from './reel.js';
import { worthOf } from './select.js';
import { sift } from './sift.js';
import type { Candidate, SiftResult } from './types.js';

const brief = { partStartMs: 0, partEndMs: null, minMs: 20_000, maxMs: 60_000, roughCount: 10, topics: [], kinds: [], avoid: [] };
const siftOf = (transcript: ReturnType<typeof transcriptOf>): SiftResult =>
  sift({ transcript, brief, clientTags: [], sentenceVectors: null, topicVectors: null });

describe('alternatives', () => {
  const transcript = demoTranscript('what-goes-down-31');
  const { candidates } = siftOf(transcript);
  it('are at most three besides those that hold what nothing else does, within the band, none the candidate itself', () => {
    expect(candidates.some((one) => one.alternatives.length > 0)).toBe(true);
    const shown = candidates.flatMap((one) => [one, ...one.alternatives.slice(0, 3)]);
    for (const one of candidates) {
      for (const more of one.alternatives.slice(3)) {
        const words = Array.from({ length: more.endWord - more.firstWord }, (_, i) => more.firstWord + i);
        expect(words.some((word) => shown.every((other) => word < other.firstWord || other.endWord <= word))).toBe(true);
      }
      for (const other of one.alternatives) {
        expect(other.endMs - other.startMs).toBeGreaterThanOrEqual(brief.minMs);
        expect(other.endMs - other.startMs).toBeLessThanOrEqual(brief.maxMs);
        expect([other.firstWord, other.endWord]).not.toEqual([one.firstWord, one.endWord]);
        if (other.why === 'other-cut') expect(Math.min(one.endWord, other.endWord)).toBeGreaterThan(Math.max(one.firstWord, other.firstWord));
      }
    }
  });
  it('lists what is said again under the better one, instead of ranking it', () => {
    const said = [
      'I was standing on the roof when the ladder went, and my brother said hold on to the gutter.',
      'I held on to that gutter for eleven minutes and I could not feel my hands any more.',
      'And the neighbour came out and he said to my brother, is he paid by the hour?',
      'We laughed so much that I nearly let go, and I have been afraid of roofs since then.',
    ];
    const between = Array.from({ length: 12 }, (_, i) => `There are a few kinds of slate number ${i}, and each has got its own size and colour.`);
    const lines = [...said, ...between, ...said].map((text) => ({ speaker: 'Ann', text }));
    const transcript = transcriptOf(toVtt(lines));
    const holds = (one: { firstWord: number; endWord: number }): boolean =>
      transcript.words.slice(one.firstWord, one.endWord).some((word) => word.text === 'gutter');
    const roofs = siftOf(transcript).candidates.filter(holds);
    expect(roofs).toHaveLength(1);
    expect(roofs[0]!.alternatives.some((other) => other.why === 'said-again' && holds(other))).toBe(true);
  });
});

describe('highlight reel', () => {
  const candidate = (rank: number, startMs: number, lengthMs: number, score: number): Candidate =>
    ({ rank, startMs, endMs: startMs + lengthMs, firstWord: startMs, endWord: startMs + lengthMs, score, alternatives: [] }) as unknown as Candidate;
  it('takes the set worth most that meets the length, in the order of the recording, as brute force finds it', () => {
    const list = [
      candidate(1, 500_000, 31_000, 90),
      candidate(2, 100_000, 44_000, 82),
      candidate(3, 300_000, 27_000, 71),
      candidate(4, 900_000, 52_000, 66),
      candidate(5, 700_000, 38_000, 58),
      candidate(6, 50_000, 33_000, 41),
    ];
    for (const asked of [60_000, 100_000, 130_000, 180_000]) {
      let best = 0;
      for (let mask = 1; mask < 64; mask += 1) {
        const set = list.filter((_, i) => mask & (1 << i));
        const lengthMs = set.reduce((sum, one) => sum + one.endMs - one.startMs, 0);
        if (Math.abs(lengthMs - asked) <= REEL_WITHIN_MS)
          best = Math.max(
            best,
            set.reduce((sum, one) => sum + worthOf(one.score) * (one.endMs - one.startMs), 0),
          );
      }
      if (best === 0) expect(() => buildReel(list, asked)).toThrow(ReelRefusedError);
      else {
        const reel = buildReel(list, asked);
        expect(reel.parts.reduce((sum, part) => sum + worthOf(part.score) * (part.endMs - part.startMs), 0)).toBeCloseTo(best, 3);
        expect(Math.abs(reel.lengthMs - asked)).toBeLessThanOrEqual(REEL_WITHIN_MS);
        expect(reel.parts.map((part) => part.startMs)).toEqual(reel.parts.map((part) => part.startMs).sort((a, b) => a - b));
      }
    }
  });
  it('makes four minutes of a real sift, without overlaps', () => {
    const reel = buildReel(siftOf(demoTranscript('up-the-flue-12')).candidates, 240_000);
    expect(Math.abs(reel.lengthMs - 240_000)).toBeLessThanOrEqual(REEL_WITHIN_MS);
    reel.parts.forEach((part, i) => i > 0 && expect(part.startMs).toBeGreaterThanOrEqual(reel.parts[i - 1]!.endMs));
    expect(reel.parts.length).toBeGreaterThan(3);
  });
  it('refuses a length that nothing adds up to, with the nearest', () => {
    expect(() => buildReel([candidate(1, 0, 20_000, 80)], 60_000)).toThrow(expect.objectContaining({ askedMs: 60_000, nearestMs: 20_000 }));
  });
});
