import { rowsBy, type RunTable, type ScoredRun } from './run-table.js';

/** A score at or below this is worth nothing in the choice. */
const FLOOR = 12;

/**
 * Worth of a score in the choice: its eighth power, so that one strong passage is worth more than two middling ones that lie
 * inside it (one of 90 more than one of 85 with one of 70 beside it), and a fine clip is not split to fill the strip.
 */
export function worthOf(score: number): number {
  const share = Math.max(0, (score - FLOOR) / (100 - FLOOR));
  const square = share * share;
  const fourth = square * square;
  return fourth * fourth;
}

/** 0 would make two halves of a story worth twice the whole, 1 would make half a clip worth half: see bench/editors.mjs, *edges*. */
const LENGTH_COUNTS = 0.5;

/**
 * A cut of `SHORT_MS` and less has seldom room for what leads up to its point: it counts for this share, one of `FULL_MS` and
 * more for all. Of cuts below 25 s that were chosen by score alone, readers kept one in three, above 30 s two in three.
 */
const SHORT_COUNTS = 0.6;
const SHORT_MS = 22_000;
const FULL_MS = 28_000;

/** Far below what any score above the floor is worth. */
const SOMETHING = 1e-9;

/** Worth of a candidate in the choice: by its score, and by a root of its length; short ones count for less. */
export function worthInSet(score: number, lengthMs: number): number {
  // However low the score, something is better than nothing, and more of it covers more: so the ranking holds all of the talk.
  const something = SOMETHING * (lengthMs / 60_000) * (1 + score);
  const full = Math.min(1, Math.max(0, (lengthMs - SHORT_MS) / (FULL_MS - SHORT_MS)));
  return worthOf(score) * lengthMs ** LENGTH_COUNTS * (SHORT_COUNTS + (1 - SHORT_COUNTS) * full) + something;
}

/**
 * The set of runs that do not overlap and are worth most together: weighted interval scheduling, O(sentences + runs)
 * since runs end on sentences. Of two sets of equal worth, the one found first by end and start.
 * @param runs in any order, over sentences 0 to `sentences`
 * @param worth of a run from its score and its sentences, none below 0
 * @returns the chosen runs by start
 */
export function chooseBestSet(runs: RunTable, sentences: number, worth: (score: number, first: number, end: number) => number): ScoredRun[] {
  const { first, score } = runs;
  const { rows, starts } = rowsBy(runs.end, sentences);
  const best = new Float64Array(sentences + 1);
  const taken = new Int32Array(sentences + 1).fill(-1);
  for (let end = 1; end <= sentences; end += 1) {
    best[end] = best[end - 1]!;
    for (let k = starts[end]!; k < starts[end + 1]!; k += 1) {
      const i = rows[k]!;
      const value = best[first[i]!]! + worth(score[i]!, first[i]!, end);
      if (value > best[end]! + 1e-12) {
        best[end] = value;
        taken[end] = i;
      }
    }
  }
  const chosen: ScoredRun[] = [];
  for (let end = sentences; end > 0;) {
    const i = taken[end]!;
    if (i === -1) end -= 1;
    else {
      chosen.push(runs.at(i));
      end = first[i]!;
    }
  }
  return chosen.reverse();
}

/** A candidate below this is not strong, however the others are. */
const STRONG_AT_LEAST = 50;

/**
 * How many scores, falling, stand above the place where they fall away: the split in two groups with the least variance
 * inside them (Otsu 1979, on a list instead of a histogram), looked for in the first `most`, and never below what counts
 * as strong at all.
 * @param scores by rank, falling
 */
export function countStrong(scores: readonly number[], most = 40): number {
  const strong = scores.filter((score) => score >= STRONG_AT_LEAST).length;
  const head = scores.slice(0, most);
  if (strong === 0 || head.length < 3) return strong;
  const total = head.reduce((sum, score) => sum + score, 0);
  let bestSplit = head.length;
  let bestBetween = 0;
  let upper = 0;
  for (let split = 1; split < head.length; split += 1) {
    upper += head[split - 1]!;
    const meanUpper = upper / split;
    const meanLower = (total - upper) / (head.length - split);
    const between = split * (head.length - split) * (meanUpper - meanLower) ** 2;
    if (between > bestBetween) {
      bestBetween = between;
      bestSplit = split;
    }
  }
  return Math.min(strong, bestSplit);
}
