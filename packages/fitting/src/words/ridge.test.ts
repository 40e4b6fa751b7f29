import { expect, it } from 'vitest';
import { fitRidge } from './ridge.js';

// y = 2a − 3b + c, c another constant in each group, which must not matter.
const group = (c: number): { rows: number[][]; worth: number[] } => {
  const rows = Array.from({ length: 30 }, (_, i) => [Math.sin(i + c), Math.cos(2 * i + c), 0]);
  return { rows, worth: rows.map(([a, b]) => 2 * a! - 3 * b! + c) };
};

it('finds the weights that made the worth, group by group, and nothing for what never varies', () => {
  const [a, b, c] = fitRidge([group(0), group(5), group(-2)], 1e-9);
  expect(a).toBeCloseTo(2, 5);
  expect(b).toBeCloseTo(-3, 5);
  expect(c).toBe(0);
});
it('holds weights the more the dearer they are', () => {
  const [cheap, dear] = [0.1, 10].map((price) => fitRidge([group(0), group(5)], price));
  expect(Math.abs(dear![0]!)).toBeLessThan(Math.abs(cheap![0]!));
  expect(cheap![0]).toBeGreaterThan(0);
});
