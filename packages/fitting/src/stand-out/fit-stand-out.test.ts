import { HASHES, judgeStandOut } from '@sift-reel/core/fitting';
import { describe, expect, it } from 'vitest';
import { seededChance } from '../math/chance.js';
import { fitStandOut, type StandOutExample } from './fit-stand-out.js';

const SHAPE = { vectors: 3, roles: 2, surface: 1 };
const ROW = 2 + 1 + 2; // roles, surface, and two of place
const ALL = SHAPE.vectors + ROW;
const CHEAP = { vector: 1e-6, role: 1e-6, surface: 1e-6, place: 1e-6, word: 1e-6 };

/** A recording whose worth is 0.3 of its vector's first number, −0.2 of its last, and 0.1 of what one word brings. */
function example(seed: number): StandOutExample {
  const chance = seededChance(seed);
  const n = 60;
  const numbers = (size: number): Float32Array => Float32Array.from({ length: n * size }, () => chance() - 0.5);
  const vectors = { dimensions: SHAPE.vectors, data: numbers(SHAPE.vectors) };
  const rows = numbers(ROW);
  const words = Array.from({ length: n }, () => ({ places: chance() < 0.5 ? [7] : [11], weight: 1 }));
  const worth = Float64Array.from(
    words,
    ({ places }, s) => 0.3 * vectors.data[s * SHAPE.vectors]! - 0.2 * rows[s * ROW + ROW - 1]! + (places[0] === 7 ? 0.1 : 0) + seed,
  );
  return { features: { sentences: n, vectors, row: ROW, rows, words }, worth, counts: new Float64Array(n).fill(1) };
}

describe('fitting what stands out', () => {
  const examples = [1, 2, 3].map(example);
  it('finds a plain sum again, in a recording it has not seen, whatever the level of each', () => {
    const fresh = example(9);
    const found = judgeStandOut(fresh.features, fitStandOut(examples, SHAPE, CHEAP), fresh.counts);
    const mean = fresh.worth.reduce((sum, value) => sum + value, 0) / fresh.worth.length;
    found.forEach((value, s) => expect(value).toBeCloseTo(fresh.worth[s]! - mean, 2));
  });
  it('is least squares with a penalty: no step from it is better', () => {
    const prices = { vector: 3, role: 2, surface: 1, place: 4, word: 5 };
    const model = fitStandOut(examples, SHAPE, prices);
    const loss = (own: Float32Array): number => {
      const errors = examples.flatMap((one) => {
        const mean = one.worth.reduce((sum, value) => sum + value, 0) / one.worth.length;
        return [...judgeStandOut(one.features, { ...model, own }, one.counts)].map((value, s) => (value - one.worth[s]! + mean) ** 2);
      });
      const ridge = [...own].reduce((sum, value, i) => sum + value ** 2 * (i < 3 ? 3 : i < 5 ? 2 : i < 6 ? 1 : i < ALL ? 0 : 5), 0);
      return errors.reduce((sum, value) => sum + value, 0) + ridge;
    };
    const best = loss(model.own);
    for (const place of [0, 1, 3, 5, ALL + 7, ALL + 11])
      for (const step of [0.02, -0.02]) {
        const moved = model.own.slice();
        moved[place]! += step;
        expect(loss(moved)).toBeGreaterThan(best);
      }
  });
  it('gives the same weights each time, and as many as are read', () => {
    const [a, b] = [1, 2].map(() => fitStandOut(examples, SHAPE, CHEAP));
    expect(a).toEqual(b);
    expect([a!.own.length, a!.around.length]).toEqual([ALL + HASHES, ALL - 2 + HASHES]);
  });
});
