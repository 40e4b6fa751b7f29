import type { RunTable } from './run-table.js';
import type { Run } from './types.js';
import type { AlternativeRun, ChosenRun } from './variety.js';

/**
 * What lies between the chosen runs, or was left out because it says the same as others, is in the list, too: the best run
 * that holds it, as another cut of the chosen one it shares most with, or by itself where it shares nothing. So whatever
 * was said can be had, however little it is worth.
 * @param chosen by falling score, @param all every scored run
 * @returns by falling score
 */
export function coverRest(chosen: readonly ChosenRun[], all: RunTable, sentences: number): ChosenRun[] {
  const held = new Uint8Array(sentences);
  const owners = new Int32Array(sentences).fill(-1);
  chosen.forEach((one, i) => {
    for (const run of [one, ...one.alternatives]) held.fill(1, run.first, run.end);
    owners.fill(i, one.first, one.end);
  });
  const bare = nextBare(held);
  const best = bestRowFor(bare, all, sentences);
  const more = new Map<number, AlternativeRun[]>();
  const list = [...chosen];
  for (let s = bare[0]!; s < sentences; s = bare[s + 1]!) {
    const row = best[s]!;
    if (row < 0 || held[s] === 1) continue;
    const run = all.at(row);
    held.fill(1, run.first, run.end);
    const owner = ownerOf(run, owners);
    if (owner < 0) {
      owners.fill(list.length, run.first, run.end); // what shares with it is another cut of it
      list.push({ ...run, alternatives: [] });
    } else more.set(owner, [...(more.get(owner) ?? []), { ...run, why: 'other-cut' }]);
  }
  return list.map((one, i) => ({ ...one, alternatives: [...one.alternatives, ...(more.get(i) ?? [])] })).sort((a, b) => b.score - a.score || a.first - b.first);
}

/** The chosen run that holds most sentences of a run, the first of equals; -1 where none holds any. */
function ownerOf(run: Run, owners: Int32Array): number {
  const shared = new Map<number, number>();
  for (let s = run.first; s < run.end; s += 1) if (owners[s]! >= 0) shared.set(owners[s]!, (shared.get(owners[s]!) ?? 0) + 1);
  let owner = -1;
  for (const [one, n] of shared) if (owner < 0 || n > shared.get(owner)!) owner = one;
  return owner;
}

/** For each sentence the next one, itself included, that is not held; `held.length` for none. */
function nextBare(held: Uint8Array): Int32Array {
  const next = new Int32Array(held.length + 1).fill(held.length);
  for (let s = held.length - 1; s >= 0; s -= 1) next[s] = held[s] === 0 ? s : next[s + 1]!;
  return next;
}

/** The row of the best run that holds each uncovered sentence, or -1. */
function bestRowFor(bare: Int32Array, { first, end, score, length }: RunTable, sentences: number): Int32Array {
  const best = new Int32Array(sentences).fill(-1);
  for (let row = 0; row < length; row += 1)
    for (let s = bare[first[row]!]!; s < end[row]!; s = bare[s + 1]!) if (best[s]! < 0 || score[row]! > score[best[s]!]!) best[s] = row;
  return best;
}
