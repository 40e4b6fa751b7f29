import { FITTED_WEIGHTS, reweigh, SIGNALS } from '@sift-reel/core';
import { describe, expect, it } from 'vitest';
import type { CandidateView, RankingView } from '../../app/api.js';
import { NO_FILTER } from './bench-slice.js';
import { arrange, carries } from './rank.js';
import { rankedAgain } from './use-reweighed.js';

const candidate = (rank: number, score: number, values: readonly number[], firstWord: number): CandidateView =>
  ({
    id: `c${rank}`,
    rank,
    score,
    firstWord,
    endWord: firstWord + 10,
    startMs: firstWord * 400,
    endMs: (firstWord + 10) * 400,
    title: `Title ${rank}`,
    firstLine: '',
    lastLine: '',
    reason: '',
    state: 'open',
    kind: 'story',
    signals: SIGNALS.map((signal, k) => ({ signal, value: values[k]!, sentence: '', evidence: [] })),
  }) as unknown as CandidateView;

const ranking = {
  strongCount: 1,
  weights: [...FITTED_WEIGHTS],
  candidates: [candidate(1, 80, [80, 70, 50, 80, 60, 50], 100), candidate(2, 70, [50, 60, 90, 50, 60, 50], 40), candidate(3, 50, [50, 50, 40, 50, 50, 50], 0)],
} as unknown as RankingView;
const weighable = ranking.candidates.map((one) => ({ score: one.score, values: one.signals.map((signal) => signal.value) }));

describe('a ranking by other weights', () => {
  it('is in the order of its new scores, with ranks from one, and leaves the ranking on record alone', () => {
    const again = rankedAgain(ranking, reweigh(weighable, ranking.weights, [0, 0, 1, 0, 0, 0]));
    expect(again.candidates.map((one) => one.id)).toEqual(['c2', 'c1', 'c3']);
    expect(again.candidates.map((one) => one.rank)).toEqual([1, 2, 3]);
    expect(ranking.candidates.map((one) => one.rank)).toEqual([1, 2, 3]);
    expect(again.candidates[0]!.score).toBeGreaterThan(again.candidates[1]!.score);
  });
});

describe('a phrase as a filter', () => {
  it('lets through the candidates that hold one of its places', () => {
    const filter = { ...NO_FILTER, phrase: { text: 'wet wood', firstWords: [44, 205] } };
    expect(arrange(ranking.candidates, filter, 'score').map((one) => one.id)).toEqual(['c2']);
    expect(carries({ firstWord: 40, endWord: 44 }, [44])).toBe(false);
    expect(carries({ firstWord: 40, endWord: 45 }, [44])).toBe(true);
  });
});
