import type { SiftContext } from './context.js';
import { Sums } from './sums.js';
import { FITTED_WEIGHTS, scoreOf, weightsFor } from './reweigh.js';
import { kindOf } from './kinds.js';
import { raised, roundScore } from './scale.js';
import type { Signal } from './signals/signal.js';
import { type Run, SIGNALS, type SignalName } from './types.js';

/** How much each signal counts in the score; they sum to 1. See `SIGNAL_WEIGHTS`. */
export const WEIGHTS = Object.fromEntries(SIGNALS.map((name, k) => [name, FITTED_WEIGHTS[k]!])) as Readonly<Record<SignalName, number>>;

/**
 * Log-odds that a kind of moment the brief asks for adds to a score: twelve points at 50, seven at 80, less towards 100, so
 * that of the best ones each still has a score of its own.
 */
const WANTED_KIND_ODDS = 0.5;

/** What talk that nobody should post takes off a score when a whole passage is made of it. */
const DULL_TAKES = 0.85;
/**
 * Share of that which is left where all of the recording is such talk: a walk-through is dull all through, and that may
 * lower its scores, but not take away what tells them apart.
 */
const DULL_GROUND_LEAVES = 0.3;

/** A sentence as surely dull as this is no good end of a cut: what a score loses for one, where the recording is otherwise not. */
const TOO_DULL = 0.8;
const DULL_END_TAKES = 0.5;

/** From this length on a candidate is a long cut. */
export const LONG_CUT_FROM_MS = 120_000;
/** Points of a long cut for beginning where a chapter begins, and for ending where one ends. By judgement. */
const CHAPTER_POINTS = 5;

/** Which ends of a run lie where chapters meet. */
export function chapterEnds(context: SiftContext, run: Run): { begins: boolean; ends: boolean } {
  const starts = context.chapterStarts();
  return { begins: starts.includes(run.first), ends: run.end === context.sentences.length || starts.includes(run.end) };
}

/**
 * Sift score of a run, 0 to 100: weighted mean of the signals, spread so that an ordinary mean is 50 and a rare one 90,
 * less what is greeting, housekeeping, sponsor read or sign-off; more where it is of a kind that the brief asks for. A long
 * cut is to be a whole thing: it gains where it begins and ends with a chapter.
 */
export function buildScorer(context: SiftContext, signals: readonly Signal[]): (run: Run) => number {
  const dull = new Sums(context.sentences.map((sentence, s) => context.dull[s]! * (sentence.endMs - sentence.startMs)));
  const wholeMs = context.sentences.reduce((sum, sentence) => sum + sentence.endMs - sentence.startMs, 0);
  const ground = dull.sum({ first: 0, end: context.sentences.length }) / Math.max(1, wholeMs);
  const takes = DULL_TAKES * (1 - (1 - DULL_GROUND_LEAVES) * ground);
  const weights = weightsFor(context.brief.topics.length > 0, context.input.weights ?? null);
  const starts = new Uint8Array(context.sentences.length + 1);
  if (context.brief.maxMs >= LONG_CUT_FROM_MS) for (const first of [...context.chapterStarts(), context.sentences.length]) starts[first] = 1;
  const wanted: ReadonlySet<string> = new Set(context.brief.kinds);
  const values = new Array<number>(signals.length);
  return (run) => {
    for (let k = 0; k < signals.length; k += 1) values[k] = signals[k]!.value(run);
    const lengthMs = context.sentences[run.end - 1]!.endMs - context.sentences[run.first]!.startMs;
    const share = Math.min(1, dull.sum(run) / lengthMs);
    const whole = lengthMs < LONG_CUT_FROM_MS ? 0 : CHAPTER_POINTS * (starts[run.first]! + starts[run.end]!);
    const dullEnd = context.dull[run.first]! >= TOO_DULL || context.dull[run.end - 1]! >= TOO_DULL;
    const score = scoreOf(values, weights) * (1 - takes * share) * (dullEnd ? 1 - DULL_END_TAKES * (1 - ground) : 1);
    return roundScore((wanted.size > 0 && wanted.has(kindOf(context, run)) ? raised(score, WANTED_KIND_ODDS) : score) + whole);
  };
}
