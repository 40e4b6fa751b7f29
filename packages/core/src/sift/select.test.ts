import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { RunTable, type ScoredRun } from './run-table.js';
import { chooseBestSet, countStrong, worthInSet } from './select.js';

/** Every subset, for a few runs: the witness that nothing beats the chosen set. */
function bruteForce(runs: readonly ScoredRun[]): number {
  let best = 0;
  for (let mask = 0; mask < 1 << runs.length; mask += 1) {
    const taken = runs.filter((_, i) => mask & (1 << i)).sort((a, b) => a.first - b.first);
    if (taken.some((run, i) => i > 0 && run.first < taken[i - 1]!.end)) continue;
    best = Math.max(
      best,
      taken.reduce((sum, run) => sum + run.score, 0),
    );
  }
  return best;
}

describe('chooseBestSet', () => {
  it('solves the textbook example of weighted interval scheduling: Kleinberg & Tardos, Algorithm Design (2005), figure 6.2 (from memory)', () => {
    // Six intervals with values 2, 4, 4, 7, 2, 1 and p(j) = 0, 0, 1, 0, 3, 3: the best total is 8, intervals 5, 3 and 1.
    const runs = [
      { first: 0, end: 3, score: 2 },
      { first: 1, end: 5, score: 4 },
      { first: 3, end: 6, score: 4 },
      { first: 2, end: 8, score: 7 },
      { first: 6, end: 9, score: 2 },
      { first: 7, end: 10, score: 1 },
    ];
    const chosen = chooseBestSet(RunTable.of(runs), 10, (score) => score);
    expect(chosen.reduce((sum, run) => sum + run.score, 0)).toBe(8);
    expect(chosen).toEqual([runs[0], runs[2], runs[4]]);
  });
  it('is as good as trying every set, and never overlaps', () => {
    const run = fc
      .tuple(fc.integer({ min: 0, max: 14 }), fc.integer({ min: 1, max: 6 }), fc.integer({ min: 1, max: 100 }))
      .map(([first, length, score]) => ({ first, end: first + length, score }));
    fc.assert(
      fc.property(fc.array(run, { maxLength: 11 }), (runs) => {
        const chosen = chooseBestSet(RunTable.of(runs), 20, (score) => score);
        chosen.forEach((one, i) => {
          if (i > 0) expect(one.first).toBeGreaterThanOrEqual(chosen[i - 1]!.end);
        });
        expect(chosen.reduce((sum, one) => sum + one.score, 0)).toBe(bruteForce(runs));
      }),
    );
  });
});

describe('worth in the set', () => {
  // Sentences of twenty seconds each.
  const choose = (runs: ScoredRun[]) => chooseBestSet(RunTable.of(runs), 10, (score, first, end) => worthInSet(score, (end - first) * 20_000));
  const halves = [
    { first: 0, end: 2, score: 85 },
    { first: 2, end: 4, score: 85 },
  ];
  it.each([
    [90, 'whole'],
    [85, 'halves'],
  ])('a whole of %d beside two halves of 85: %s', (score, kept) => {
    const whole = { first: 0, end: 4, score };
    expect(choose([...halves, whole])).toEqual(kept === 'whole' ? [whole] : halves);
    expect(choose([whole, ...halves])).toEqual(kept === 'whole' ? [whole] : halves);
  });
  it('grows with the score and, more slowly, with the length', () => {
    expect(worthInSet(90, 20_000)).toBeGreaterThan(worthInSet(89, 20_000));
    expect(worthInSet(90, 80_000)).toBeGreaterThan(1.2 * worthInSet(90, 40_000));
    expect(worthInSet(90, 80_000)).toBeLessThan(1.5 * worthInSet(90, 40_000));
    // However low a score, it is worth more than nothing, and less than anything above the floor.
    expect(worthInSet(5, 60_000)).toBeGreaterThan(0);
    expect(worthInSet(5, 60_000)).toBeLessThan(worthInSet(20, 15_000));
    expect(worthInSet(5, 60_000)).toBeGreaterThan(worthInSet(4, 60_000));
  });
});

describe('a short cut', () => {
  it('counts for less, ever less so up to half a minute', () => {
    const perLength = (ms: number): number => worthInSet(90, ms) / ms;
    expect(worthInSet(90, 21_000)).toBeLessThan(0.65 * worthInSet(90, 28_000));
    expect(worthInSet(90, 25_000)).toBeGreaterThan(1.2 * worthInSet(90, 21_000));
    // Beyond that, and below, only the root of the length counts.
    expect(perLength(60_000)).toBeLessThan(perLength(30_000));
    expect(worthInSet(90, 15_000) / worthInSet(90, 20_000)).toBeCloseTo(0.75 ** 0.5, 6);
  });
});

describe('countStrong', () => {
  it('finds the place where scores fall away', () => expect(countStrong([88, 86, 84, 83, 61, 60, 58, 55])).toBe(4));
  it('calls nothing strong in a dull hour', () => expect(countStrong([41, 38, 35, 30])).toBe(0));
  it('never counts what is not strong', () => expect(countStrong([90, 45, 44, 43])).toBe(1));
  it.each([
    [[], 0],
    [[70], 1],
    [[70, 30], 1],
  ])('%j', (scores, n) => expect(countStrong(scores)).toBe(n));
});
