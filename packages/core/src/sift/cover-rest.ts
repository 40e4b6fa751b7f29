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
  const bare = uncovered(chosen, sentences);
  const best = bestRowFor(bare, all, sentences);
  const more: AlternativeRun[][] = chosen.map(() => []);
  const alone: ChosenRun[] = [];
  for (let s = bare[0]!; s < sentences; s = bare[s + 1]!) {
    const row = best[s]!;
    if (row < 0) continue;
    const run = all.at(row);
    if ([...more.flat(), ...alone].some((other) => other.first <= s && s < other.end)) continue;
    const owner = chosen.reduce((most, other, i) => (common(other, run) > (most < 0 ? 0 : common(chosen[most]!, run)) ? i : most), -1);
    if (owner < 0) alone.push({ ...run, alternatives: [] });
    else more[owner]!.push({ ...run, why: 'other-cut' });
  }
  return [...chosen.map((one, i) => ({ ...one, alternatives: [...one.alternatives, ...more[i]!] })), ...alone].sort(
    (a, b) => b.score - a.score || a.first - b.first,
  );
}

const common = (a: Run, b: Run): number => Math.min(a.end, b.end) - Math.max(a.first, b.first);

/** For each sentence the next one, itself included, that lies in no chosen run and in no other cut of one; `sentences` for none. */
function uncovered(chosen: readonly ChosenRun[], sentences: number): Int32Array {
  const next = new Int32Array(sentences + 1).fill(sentences);
  const held = new Uint8Array(sentences);
  for (const one of chosen) for (const run of [one, ...one.alternatives]) held.fill(1, run.first, run.end);
  for (let s = sentences - 1; s >= 0; s -= 1) next[s] = held[s] === 0 ? s : next[s + 1]!;
  return next;
}

/** The row of the best run that holds each uncovered sentence, or -1. */
function bestRowFor(bare: Int32Array, { first, end, score, length }: RunTable, sentences: number): Int32Array {
  const best = new Int32Array(sentences).fill(-1);
  for (let row = 0; row < length; row += 1)
    for (let s = bare[first[row]!]!; s < end[row]!; s = bare[s + 1]!) if (best[s]! < 0 || score[row]! > score[best[s]!]!) best[s] = row;
  return best;
}
