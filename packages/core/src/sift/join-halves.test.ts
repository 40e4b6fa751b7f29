import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { SiftContext } from './context.js';
import { joinHalves } from './join-halves.js';
import { RunTable, type ScoredRun } from './run-table.js';
import type { Run } from './types.js';

/** Twenty sentences of 5 s each; between the tenth and the next lie seven seconds. */
const context = {
  sentences: Array.from({ length: 20 }, (_, s) => {
    const startMs = 5_000 * s + (s >= 10 ? 7_000 : 0);
    return { firstWord: s, endWord: s + 1, startMs, endMs: startMs + 5_000, speaker: 0 };
  }),
} as unknown as SiftContext;

const run = (first: number, end: number, score: number): ScoredRun => ({ first, end, score });
/** A whole stands better than its parts. */
const byLength = ({ first, end }: Run): number => 10 * (end - first);
const join = (chosen: ScoredRun[], wholes: ScoredRun[], standsAlone = byLength): ScoredRun[] =>
  joinHalves(context, chosen, RunTable.of([...chosen, ...wholes]), standsAlone);

describe('joinHalves', () => {
  const [a, b] = [run(0, 4, 90), run(4, 8, 88)];
  it('makes one of two halves, where the whole is as good as the better one', () => {
    expect(join([a, b], [run(0, 8, 89)])).toEqual([run(0, 8, 89)]);
  });
  it('takes in a line between them', () => {
    expect(join([a, run(5, 8, 88)], [run(0, 8, 92)])).toEqual([run(0, 8, 92)]);
  });
  it('goes on with a third part', () => {
    expect(join([a, b, run(8, 10, 90)], [run(0, 8, 90), run(0, 10, 91)])).toEqual([run(0, 10, 91)]);
  });
  it.each<[string, ScoredRun[], ScoredRun[]]>([
    ['the whole is too long or ends badly, so that it is no candidate', [a, b], []],
    ['the whole is weaker', [a, b], [run(0, 8, 80)]],
    ['too much lies between', [run(6, 10, 90), run(10, 14, 90)], [run(6, 14, 95)]],
  ])('leaves two where %s', (_, chosen, wholes) => expect(join(chosen, wholes)).toEqual(chosen));
  it('leaves two that stand as well alone', () => {
    expect(join([a, b], [run(0, 8, 95)], () => 70)).toEqual([a, b]);
  });
  it('never loses, overlaps or disorders anything, and joining again changes nothing', () => {
    const cuts = fc.uniqueArray(fc.nat({ max: 20 }), { minLength: 2, maxLength: 10 });
    fc.assert(
      fc.property(cuts, fc.array(fc.nat({ max: 100 }), { minLength: 500, maxLength: 500 }), (places, scores) => {
        places.sort((x, y) => x - y);
        const scoreOf = (first: number, end: number): number => scores[21 * first + end]!;
        const all: ScoredRun[] = [];
        for (let first = 0; first < 20; first += 1) for (let end = first + 1; end <= 20; end += 1) all.push(run(first, end, scoreOf(first, end)));
        const chosen = places.slice(1).map((end, i) => run(places[i]!, end, scoreOf(places[i]!, end)));
        const joined = joinHalves(context, chosen, RunTable.of(all), byLength);
        const held = (list: readonly ScoredRun[]): number[] => list.flatMap(({ first, end }) => Array.from({ length: end - first }, (_, i) => first + i));
        expect(held(joined)).toEqual(held(chosen));
        expect(joinHalves(context, joined, RunTable.of(all), byLength)).toEqual(joined);
      }),
    );
  });
});
