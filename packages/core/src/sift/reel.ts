import type { Span } from '../time/span.js';
import { worthOf } from './select.js';
import type { Alternative } from './types.js';

/** What a reel is made of: a candidate as far as it matters here. */
interface ReelSource extends Span {
  readonly rank: number;
  readonly firstWord: number;
  readonly endWord: number;
  readonly score: number;
  readonly alternatives: readonly Alternative[];
}

/** A part of a reel: a candidate, or one of its other cuts, as it is to be played. */
interface ReelPart extends Span {
  readonly rank: number;
  readonly firstWord: number;
  readonly endWord: number;
  readonly score: number;
}

export interface Reel {
  /** In the order of the recording, so that what is said later never comes before what it rests on. */
  readonly parts: readonly ReelPart[];
  readonly lengthMs: number;
}

/** Nothing in the recording adds up to the length that was asked for. */
export class ReelRefusedError extends Error {
  override readonly name = 'ReelRefusedError';
  constructor(
    readonly askedMs: number,
    readonly nearestMs: number,
  ) {
    super(`no parts add up to ${askedMs} ms within ${REEL_WITHIN_MS} ms; the nearest is ${nearestMs} ms`);
  }
}

/** A reel meets the length asked for within this. Common practice: a few seconds. */
export const REEL_WITHIN_MS = 5_000;
/** Lengths are reckoned in these steps. */
const STEP_MS = 200;
const MOST_PARTS_CONSIDERED = 80;

/**
 * One highlight reel: the set of candidates worth most whose lengths add up to what was asked, within five seconds. Each
 * candidate may be taken as it is or in one of its other cuts, or left out: a multiple-choice knapsack, exact by dynamic
 * programming over lengths in steps of 0.2 s.
 * @param candidates by rank, not overlapping, @param lengthMs asked, 10_000 to 1_800_000
 * @throws ReelRefusedError when no set comes within five seconds
 */
export function buildReel(candidates: readonly ReelSource[], lengthMs: number): Reel {
  const choices = candidates.slice(0, MOST_PARTS_CONSIDERED).map((candidate) => partsOf(candidate));
  const most = Math.floor((lengthMs + REEL_WITHIN_MS) / STEP_MS);
  let best = new Float64Array(most + 1).fill(-Infinity);
  best[0] = 0;
  const taken = choices.map(() => new Int8Array(most + 1).fill(-1));
  choices.forEach((parts, c) => {
    const next = best.slice();
    parts.forEach((part, p) => {
      const steps = stepsOf(part);
      const worth = worthOf(part.score) * steps;
      for (let at = steps; at <= most; at += 1) {
        const value = best[at - steps]! + worth;
        if (value > next[at]!) {
          next[at] = value;
          taken[c]![at] = p;
        }
      }
    });
    best = next;
  });
  const least = Math.ceil((lengthMs - REEL_WITHIN_MS) / STEP_MS);
  const reached = Array.from({ length: most - Math.max(1, least) + 1 }, (_, i) => Math.max(1, least) + i).filter((steps) => best[steps]! > -Infinity);
  // The steps are rounded; the promise is kept in ms. So sets are looked at, the worthiest first, until one is within it.
  for (const steps of reached.sort((a, b) => best[b]! - best[a]! || a - b)) {
    const reel = reelAt(choices, taken, steps);
    if (Math.abs(reel.lengthMs - lengthMs) <= REEL_WITHIN_MS) return reel;
  }
  throw new ReelRefusedError(lengthMs, nearestReached(best) * STEP_MS);
}

/** The set of parts that the table holds at a number of steps. */
function reelAt(choices: readonly ReelPart[][], taken: readonly Int8Array[], steps: number): Reel {
  let at = steps;
  const parts: ReelPart[] = [];
  for (let c = choices.length - 1; c >= 0; c -= 1) {
    const p = taken[c]![at]!;
    if (p < 0) continue;
    parts.push(choices[c]![p]!);
    at -= stepsOf(choices[c]![p]!);
  }
  parts.sort((a, b) => a.startMs - b.startMs);
  return { parts, lengthMs: parts.reduce((sum, part) => sum + part.endMs - part.startMs, 0) };
}

const stepsOf = (part: Span): number => Math.max(1, Math.round((part.endMs - part.startMs) / STEP_MS));

function partsOf(candidate: ReelSource): ReelPart[] {
  const { rank, startMs, endMs, firstWord, endWord, score } = candidate;
  const own = { rank, startMs, endMs, firstWord, endWord, score };
  // Another cut may reach into a neighbour, so only those inside the candidate are safe to swap in.
  const inside = candidate.alternatives.filter((one) => one.why === 'other-cut' && one.firstWord >= firstWord && one.endWord <= endWord);
  return [own, ...inside.map((one) => ({ rank, startMs: one.startMs, endMs: one.endMs, firstWord: one.firstWord, endWord: one.endWord, score: one.score }))];
}

function nearestReached(best: Float64Array): number {
  for (let at = best.length - 1; at > 0; at -= 1) if (best[at]! > -Infinity) return at;
  return 0;
}
