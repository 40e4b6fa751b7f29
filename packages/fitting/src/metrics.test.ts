import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { discountedGain, ndcg } from './editors/agreement.js';
import { calibrationError, classScores, confusion, macroF1, reliability } from './math/metrics.js';
import { pk, windowDiff } from './math/segmentation-error.js';

describe('nDCG: Järvelin & Kekäläinen (2002)', () => {
  // The example that textbooks give with the log2(rank + 1) discount: gains 3 2 3 0 1 2, ideal 3 3 2 2 1 0 (value from memory: 0.961).
  const gains = [3, 2, 3, 0, 1, 2];
  it('worked example', () => {
    expect(discountedGain(gains)).toBeCloseTo(6.861, 3);
    expect(ndcg(gains, gains)).toBeCloseTo(0.961, 3);
  });
  it('is 1 for the ideal order and never more', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 5 }), { minLength: 1, maxLength: 12 }), (list) => {
        const best = [...list].sort((a, b) => b - a);
        expect(ndcg(list, list)).toBeLessThanOrEqual(1 + 1e-12);
        if (best[0]! > 0) expect(ndcg(best, list)).toBeCloseTo(1, 12);
      }),
    );
  });
});

describe('Pk (Beeferman, Berger & Lafferty 1999) and WindowDiff (Pevzner & Hearst 2002)', () => {
  it('are 0 for the same segmentation', () => {
    expect([pk([4, 4, 4], [4, 4, 4]), windowDiff([4, 4, 4], [4, 4, 4])]).toEqual([0, 0]);
  });
  it('reckoned by hand: one boundary missed of two, windows of 2', () => {
    // 8 places, k = 2: pairs (i, i+2), i = 0…5. Truth 4|4, found 8: the pairs across the boundary are i = 2 and 3.
    expect(pk([4, 4], [8], 2)).toBeCloseTo(2 / 6, 12);
    expect(windowDiff([4, 4], [8], 2)).toBeCloseTo(2 / 6, 12);
  });
  // The examples that NLTK's documentation gives for its segmentation metrics, k = 3 and 2 (from memory). Its strings mark
  // each gap between two units with 1 or 0.
  const lengthsOf = (gaps: string): number[] => `${gaps}1`.match(/0*1/g)!.map((part) => part.length);
  it.each([
    ['000100000010', '000100000010', 0],
    ['000100000010', '000010000100', 0.3],
    ['000010000100', '100000010000', 0.8],
  ])('WindowDiff of %s and %s is %f, as NLTK has it', (truth, found, value) => {
    expect(windowDiff(lengthsOf(truth), lengthsOf(found), 3)).toBeCloseTo(value, 12);
  });
  it.each([
    ['0100'.repeat(100), '1'.repeat(400), 0.5],
    ['0100'.repeat(100), '0'.repeat(400), 0.5],
    ['0100'.repeat(100), '0100'.repeat(100), 0],
  ])('Pk of a text with every fourth gap a boundary (case %#), as NLTK has it', (truth, found, value) => {
    expect(pk(lengthsOf(truth), lengthsOf(found), 2)).toBeCloseTo(value, 2);
  });
  it('WindowDiff punishes a false boundary near a true one, which Pk forgives in part (the paper’s point)', () => {
    const [truth, found] = [
      [10, 10],
      [9, 1, 10],
    ];
    expect(windowDiff(truth, found, 5)).toBeGreaterThan(pk(truth, found, 5));
  });
  it('stay between 0 and 1', () => {
    const lengths = fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 2, maxLength: 8 });
    fc.assert(
      fc.property(lengths, (truth) => {
        const total = truth.reduce((sum, n) => sum + n, 0);
        for (const found of [[total], new Array<number>(total).fill(1)]) {
          expect(pk(truth, found)).toBeGreaterThanOrEqual(0);
          expect(windowDiff(truth, found)).toBeLessThanOrEqual(1);
        }
      }),
    );
  });
});

describe('classification scores', () => {
  const table = confusion([0, 0, 0, 1, 1, 2], [0, 0, 1, 1, 1, 0], 3);
  it('counts truth by row and finding by column', () =>
    expect(table).toEqual([
      [2, 1, 0],
      [0, 2, 0],
      [1, 0, 0],
    ]));
  it('precision, recall, F1 and their mean, reckoned by hand', () => {
    const [a, b, c] = classScores(table);
    expect([a!.precision, a!.recall]).toEqual([2 / 3, 2 / 3]);
    expect(b!.f1).toBeCloseTo(0.8, 12);
    expect(c!.f1).toBe(0);
    expect(macroF1(table)).toBeCloseTo((2 / 3 + 0.8 + 0) / 3, 12);
  });
  it('calibration error is the gap between said and right, weighted by how many (Naeini et al. 2015)', () => {
    const bins = reliability([0.95, 0.95, 0.55, 0.55], [true, true, true, false]);
    expect(bins.map(({ count, right }) => [count, right])).toEqual([
      [2, 0.5],
      [2, 1],
    ]);
    expect(calibrationError(bins)).toBeCloseTo(0.05, 12);
  });
});
