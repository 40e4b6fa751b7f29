import type { SiftContext } from './context.js';
import { addTimes, innerProduct } from './inner-product.js';
import { scaleToUnit } from './lexical-vectors.js';
import type { RunTable, ScoredRun } from './run-table.js';
import type { Run } from './types.js';

/** Two passages this alike (cosine of their mean directions, the recording's own taken out) say the same thing twice. */
const SAME_BY_MEANING = 0.84;
const SAME_BY_WORDS = 0.62;
/** An other cut of a passage shares this much of it (intersection over union), and is not all but the same. */
const OTHER_CUT_FROM = 0.3;
const OTHER_CUT_TO = 0.85;
const MOST_ALTERNATIVES = 3;
/** An alternative further below than this is no alternative. */
const WORTH_A_LOOK = 25;

export interface ChosenRun extends ScoredRun {
  readonly alternatives: readonly AlternativeRun[];
}

export interface AlternativeRun extends ScoredRun {
  /** `other-cut` shares words with the better one; `said-again` says the same elsewhere. */
  readonly why: 'other-cut' | 'said-again';
}

/**
 * Variety: of chosen runs that say the same, the best stays and the others are listed under it; then the best other cuts
 * of each are added. The idea of Carbonell & Goldstein (1998), relevance less likeness to what is already there, with
 * likeness that either counts whole or not at all, so that the order stays the order of the scores.
 * @param chosen by falling score, @param all every scored run
 */
export function withAlternatives(context: SiftContext, chosen: readonly ScoredRun[], all: RunTable): ChosenRun[] {
  const kept: { run: ScoredRun; direction: Direction; alternatives: AlternativeRun[] }[] = [];
  const same = context.input.sentenceVectors === null ? SAME_BY_WORDS : SAME_BY_MEANING;
  const directionOf = directions(context);
  for (const run of chosen) {
    const direction = directionOf(run);
    const twin = kept.find((other) => areAlike(other.direction, direction, same));
    if (twin === undefined) kept.push({ run, direction, alternatives: [] });
    else if (twin.alternatives.length < MOST_ALTERNATIVES) twin.alternatives.push({ ...run, why: 'said-again' });
  }
  const cuts = otherCuts(
    kept.map(({ run }) => run),
    all,
    context.sentences.length,
  );
  return kept.map(({ run, alternatives }, i) => ({
    ...run,
    alternatives: [...alternatives, ...cuts[i]!.map((cut) => ({ ...cut, why: 'other-cut' as const }))].slice(0, MOST_ALTERNATIVES),
  }));
}

/** For each kept run, the best runs that share much of it, each other than those before. */
function otherCuts(kept: readonly ScoredRun[], all: RunTable, sentences: number): ScoredRun[][] {
  const owner = new Int32Array(sentences).fill(-1);
  kept.forEach((run, i) => owner.fill(i, run.first, run.end));
  const found: ScoredRun[][] = kept.map(() => []);
  const { first, end, score } = all;
  const consider = (row: number, i: number): void => {
    if (i < 0 || score[row]! < kept[i]!.score - WORTH_A_LOOK) return;
    const run = all.at(row);
    const alike = shared(run, kept[i]!);
    if (alike >= OTHER_CUT_FROM && alike <= OTHER_CUT_TO) found[i]!.push(run);
  };
  for (let row = 0; row < all.length; row += 1) {
    const [head, tail] = [owner[first[row]!]!, owner[end[row]! - 1]!];
    consider(row, head);
    if (tail !== head) consider(row, tail);
  }
  return found.map((runs) => {
    const best: ScoredRun[] = [];
    for (const run of runs.sort((a, b) => b.score - a.score || a.first - b.first || a.end - b.end)) {
      if (best.length < MOST_ALTERNATIVES && best.every((other) => shared(other, run) <= OTHER_CUT_TO)) best.push(run);
    }
    return best;
  });
}

/** Sentences in both of those in either, 0 to 1. */
function shared(a: Run, b: Run): number {
  const both = Math.min(a.end, b.end) - Math.max(a.first, b.first);
  return both <= 0 ? 0 : both / (Math.max(a.end, b.end) - Math.min(a.first, b.first));
}

interface Direction {
  readonly vector: Float32Array;
  /** Length of what lies behind the first quarter of the vector, and behind its half. */
  readonly behindQuarter: number;
  readonly behindHalf: number;
}

/** Mean direction of a run's sentences, less the mean of the whole recording, at unit length. */
function directions(context: SiftContext): (run: Run) => Direction {
  const { dimensions, data } = context.vectors;
  const middle = meanOf(data, dimensions, 0, context.sentences.length);
  return (run) => {
    const mean = meanOf(data, dimensions, run.first, run.end);
    for (let d = 0; d < dimensions; d += 1) mean[d]! -= middle[d]!;
    scaleToUnit(mean);
    const behind = (from: number): number => Math.sqrt(dot(mean, mean, from, dimensions));
    return { vector: mean, behindQuarter: behind(dimensions >> 2), behindHalf: behind(dimensions >> 1) };
  };
}

function meanOf(data: Float32Array, dimensions: number, first: number, end: number): Float32Array {
  const sum = new Float64Array(dimensions);
  for (let row = first; row < end; row += 1) addTimes(data, row * dimensions, 1, sum, dimensions);
  const mean = new Float32Array(dimensions);
  for (let d = 0; d < dimensions; d += 1) mean[d] = sum[d]! / (end - first);
  return mean;
}

/**
 * Whether the cosine of two directions reaches a threshold. Given up after a quarter or half of the numbers where the rest
 * cannot make it up: it adds at most the product of the lengths (Cauchy–Schwarz).
 */
function areAlike(a: Direction, b: Direction, threshold: number): boolean {
  const n = a.vector.length;
  let sum = dot(a.vector, b.vector, 0, n >> 2);
  if (sum + a.behindQuarter * b.behindQuarter < threshold) return false;
  sum += dot(a.vector, b.vector, n >> 2, n >> 1);
  if (sum + a.behindHalf * b.behindHalf < threshold) return false;
  return sum + dot(a.vector, b.vector, n >> 1, n) >= threshold;
}

/** Inner product of a part of two vectors. */
function dot(a: Float32Array, b: Float32Array, from: number, end: number): number {
  return innerProduct(a, from, b, from, end - from);
}
