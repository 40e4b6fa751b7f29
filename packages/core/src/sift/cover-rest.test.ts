import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { coverRest } from './cover-rest.js';
import { RunTable } from './run-table.js';
import type { ChosenRun } from './variety.js';

const run = (first: number, end: number, score: number): ChosenRun => ({ first, end, score, alternatives: [] });
const spans = (list: readonly ChosenRun[]): string[] =>
  list.map(({ first, end, alternatives }) => [`${first}-${end}`, ...alternatives.map((one) => `(${one.first}-${one.end})`)].join(' '));

describe('coverRest', () => {
  it('has what lies between as another cut of what it shares most with, or by itself', () => {
    const all = RunTable.of([run(0, 4, 80), run(3, 7, 30), run(7, 9, 10)]);
    expect(spans(coverRest([run(0, 4, 80)], all, 9))).toEqual(['0-4 (3-7)', '7-9']);
  });
  it('of two that are left over and share a sentence has the second as another cut of the first', () => {
    const all = RunTable.of([run(0, 3, 10), run(2, 5, 9)]);
    expect(spans(coverRest([], all, 5))).toEqual(['0-3 (2-5)']);
  });
  it('never lets two overlap, and holds every sentence that some run holds', () => {
    const runs = fc.array(fc.tuple(fc.nat(18), fc.integer({ min: 1, max: 6 }), fc.integer({ min: 1, max: 100 })), { maxLength: 30 });
    fc.assert(
      fc.property(runs, fc.nat(4), (some, chosenOf) => {
        const all = some.map(([first, length, score]) => run(first, Math.min(20, first + length), score));
        const chosen: ChosenRun[] = [];
        for (const one of all) if (chosen.length < chosenOf && chosen.every((other) => other.end <= one.first || one.end <= other.first)) chosen.push(one);
        const list = coverRest(chosen, RunTable.of(all), 20);
        const byStart = [...list].sort((a, b) => a.first - b.first);
        byStart.forEach((one, i) => i > 0 && expect(one.first).toBeGreaterThanOrEqual(byStart[i - 1]!.end));
        const held = new Set(
          list.flatMap((one) => [one, ...one.alternatives]).flatMap(({ first, end }) => Array.from({ length: end - first }, (_, k) => first + k)),
        );
        for (const { first, end } of all) for (let s = first; s < end; s += 1) expect(held.has(s)).toBe(true);
        expect(list.map(({ score }) => score)).toEqual(list.map(({ score }) => score).sort((a, b) => b - a));
      }),
    );
  });
});
