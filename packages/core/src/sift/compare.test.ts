import { describe, expect, it } from 'vitest';
import { demoTranscript } from '../talk.fixture.js';
import { compareSifts, type SiftSide } from './compare.js';
import { sift } from './sift.js';
import { SIGNALS, type SiftResult } from './types.js';

const one = (rank: number, startMs: number, endMs: number, values = [50, 50, 50, 50, 50, 50]) => ({ rank, startMs, endMs, score: 100 - rank, values });
const EVEN = [0.2, 0.2, 0.2, 0.2, 0.1, 0.1];
const sideOf = ({ candidates, weights }: SiftResult): SiftSide => ({
  weights,
  candidates: candidates.map((c) => ({ ...c, values: SIGNALS.map((name) => c.signals[name].value) })),
});

describe('compareSifts', () => {
  it('matches what shares half, each once, and tells what only one has', () => {
    const a = { weights: EVEN, candidates: [one(1, 0, 10_000), one(2, 20_000, 30_000), one(3, 50_000, 60_000)] };
    const b = { weights: EVEN, candidates: [one(1, 21_000, 31_000), one(2, 1_000, 10_000), one(3, 80_000, 90_000)] };
    expect(compareSifts(a, b)).toEqual([
      { kind: 'both', a: 0, b: 1, climbed: -1, moved: null },
      { kind: 'both', a: 1, b: 0, climbed: 1, moved: null },
      { kind: 'only-a', a: 2 },
      { kind: 'only-b', b: 2 },
    ]);
  });
  it('names the signal that moved a passage, with its points', () => {
    const a = { weights: EVEN, candidates: [one(2, 0, 10_000, [50, 50, 50, 50, 50, 40])] };
    const b = { weights: [0.1, 0.1, 0.1, 0.1, 0.1, 0.5], candidates: [one(1, 0, 10_000, [50, 50, 50, 50, 50, 90])] };
    expect(compareSifts(a, b)).toEqual([{ kind: 'both', a: 0, b: 0, climbed: 1, moved: { signal: 'currency', points: 21 } }]);
  });
  it('finds no difference between a sift and itself, and names Currency where a brief asks for a topic', () => {
    const transcript = demoTranscript('up-the-flue-12');
    const brief = { partStartMs: 0, partEndMs: null, minMs: 25_000, maxMs: 60_000, roughCount: 10, topics: [] as string[], kinds: [], avoid: [] };
    const run = (topics: string[]): SiftSide =>
      sideOf(sift({ transcript, brief: { ...brief, topics }, clientTags: [], sentenceVectors: null, topicVectors: null }));
    const [plain, asked] = [run([]), run(['thatch'])];
    expect(compareSifts(plain, plain).every((row) => row.kind === 'both' && row.climbed === 0 && row.moved === null)).toBe(true);
    const climbed = compareSifts(plain, asked).filter((row) => row.kind === 'both' && row.climbed > 3);
    expect(climbed.length).toBeGreaterThan(0);
    expect(climbed.some((row) => row.kind === 'both' && row.moved?.signal === 'currency' && row.moved.points > 0)).toBe(true);
  });
});
