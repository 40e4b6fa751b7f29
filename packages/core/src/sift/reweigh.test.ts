import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoTranscript } from '../talk.fixture.js';
import { baseWeights, FITTED_WEIGHTS, normaliseWeights, reweigh, weightsFor, WeightsRefusedError } from './reweigh.js';
import { sift } from './sift.js';
import { SIGNALS } from './types.js';

const brief = { partStartMs: 0, partEndMs: null, minMs: 25_000, maxMs: 60_000, roughCount: 10, topics: [], kinds: [], avoid: [] };
const input = { transcript: demoTranscript('what-goes-down-31'), brief, clientTags: [], sentenceVectors: null, topicVectors: null };
const result = sift(input);
const weighable = result.candidates.map((one) => ({ score: one.score, values: SIGNALS.map((name) => one.signals[name].value) }));

describe('reweigh', () => {
  it('changes nothing with the same weights', () => {
    const again = reweigh(weighable, FITTED_WEIGHTS, FITTED_WEIGHTS);
    expect(again.scores).toEqual(weighable.map((one) => one.score));
    expect(again.ranks).toEqual(result.candidates.map((one) => one.rank));
    expect(again.strongCount).toBe(result.strongCount);
  });
  it('puts the candidate with the most of a signal first when only that one counts', () => {
    for (let k = 0; k < SIGNALS.length - 1; k += 1) {
      const only = SIGNALS.map((_, i) => (i === k ? 1 : 0));
      const { ranks } = reweigh(weighable, FITTED_WEIGHTS, only);
      const first = weighable[ranks.indexOf(1)]!;
      expect(ranks).toHaveLength(weighable.length);
      expect(first.values[k]).toBeGreaterThan(40);
    }
  });
  it('comes near what a sift with those weights says of the same passages', () => {
    const own = [0.1, 0.1, 0.6, 0.1, 0.05, 0.05];
    const again = reweigh(weighable, FITTED_WEIGHTS, own);
    const sifted = sift({ ...input, weights: own });
    let met = 0;
    result.candidates.forEach((one, i) => {
      const same = sifted.candidates.find((other) => other.firstWord === one.firstWord && other.endWord === one.endWord);
      if (same === undefined) return;
      met += 1;
      expect(Math.abs(same.score - again.scores[i]!)).toBeLessThan(3); // the signals are rounded to whole numbers
    });
    expect(met).toBeGreaterThan(2);
    expect(sifted.weights).toEqual(normaliseWeights(own));
  });
  it('weights go to those of a brief with topics and back, whatever they are', () => {
    for (const own of [FITTED_WEIGHTS, normaliseWeights([3, 1, 0, 2, 0, 5])]) {
      for (const asked of [true, false]) baseWeights(asked, weightsFor(asked, own)).forEach((weight, k) => expect(weight).toBeCloseTo(own[k]!, 12));
      expect(weightsFor(true, own)[5]!).toBeGreaterThan(own[5]!);
    }
  });
  it('gives every rank once', () => {
    const weights = fc.array(fc.integer({ min: 0, max: 100 }), { minLength: 6, maxLength: 6 }).filter((list) => list.some((one) => one > 0));
    fc.assert(
      fc.property(weights, (to) => {
        expect([...reweigh(weighable, FITTED_WEIGHTS, to).ranks].sort((a, b) => a - b)).toEqual(weighable.map((_, i) => i + 1));
      }),
    );
  });
  it.each([[[1, 1, 1, 1, 1]], [[0, 0, 0, 0, 0, 0]], [[-1, 1, 1, 1, 1, 1]], [[Number.NaN, 1, 1, 1, 1, 1]]])('refuses %j', (weights) => {
    expect(() => normaliseWeights(weights)).toThrow(WeightsRefusedError);
  });
});
