import type { Hit } from '../text/tells/find-tells.js';
import type { Tell } from '../text/lists/tells.js';
import { Sums } from './sums.js';
import type { Run } from './types.js';

/** How often each tell is hit, summed over sentences. `starts` as from `indexHits`. */
export function countTells(hits: readonly Hit[], starts: Int32Array, sentences: number): ReadonlyMap<Tell, Sums> {
  const values = new Map<Tell, Float64Array>();
  for (let s = 0; s < sentences; s += 1) {
    for (let h = starts[s]!; h < starts[s + 1]!; h += 1) {
      const { tell } = hits[h]!;
      const of = values.get(tell) ?? values.set(tell, new Float64Array(sentences)).get(tell)!;
      of[s]! += 1;
    }
  }
  return new Map(Array.from(values, ([tell, of]) => [tell, new Sums(of)]));
}

/** Hits of some tells in a range of words, in order. */
export function hitsWithin(
  { hits, hitStarts }: { readonly hits: readonly Hit[]; readonly hitStarts: Int32Array },
  run: Run,
  tells: readonly Tell[] | ReadonlySet<Tell>,
): Hit[] {
  const wanted = (tell: Tell): boolean => ('has' in tells ? tells.has(tell) : tells.includes(tell));
  const found: Hit[] = [];
  for (let h = hitStarts[run.first]!; h < hitStarts[run.end]!; h += 1) {
    if (wanted(hits[h]!.tell)) found.push(hits[h]!);
  }
  return found;
}
