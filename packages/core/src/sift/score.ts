import { type SiftContext, Sums } from './context.js';
import { SCALES, SIGNAL_WEIGHTS } from './fitted.js';
import { roundScore, toScale } from './scale.js';
import type { Signal } from './signals/signal.js';
import { type Run, SIGNALS, type SignalName } from './types.js';

/** How much each signal counts in the score; they sum to 1. Fitted on marked talks, see `SIGNAL_WEIGHTS`. */
export const WEIGHTS: Readonly<Record<SignalName, number>> = SIGNAL_WEIGHTS;

/** A brief that names topics asks for them: Currency then counts this many times as much, and the weights are scaled back to sum to one. */
export const ASKED_CURRENCY = 8;

/** The weights of a sift, in the order of the signals. */
export function weightsFor(topicsAsked: boolean): number[] {
  const raw = SIGNALS.map((name) => WEIGHTS[name] * (topicsAsked && name === 'currency' ? ASKED_CURRENCY : 1));
  const sum = raw.reduce((total, weight) => total + weight, 0);
  return raw.map((weight) => weight / sum);
}

/** Points for a kind of moment that the brief asks for. */
export const WANTED_KIND_POINTS = 7;

/**
 * Sift score of a run, 0 to 100: weighted mean of the signals, spread so that an ordinary mean is 50 and a rare
 * one 90, less what is greeting, housekeeping, sponsor read or sign-off.
 */
export function buildScorer(context: SiftContext, signals: readonly Signal[]): (run: Run) => number {
  const dull = new Sums(context.sentences.map((sentence, s) => context.dull[s]! * (sentence.endMs - sentence.startMs)));
  const weights = weightsFor(context.brief.topics.length > 0);
  return (run) => {
    let mean = 0;
    for (let k = 0; k < signals.length; k += 1) mean += weights[k]! * signals[k]!.value(run);
    const lengthMs = context.sentences[run.end - 1]!.endMs - context.sentences[run.first]!.startMs;
    const share = Math.min(1, dull.sum(run) / lengthMs);
    return roundScore(toScale(mean, SCALES.score.ordinary, SCALES.score.rare) * (1 - 0.85 * share));
  };
}
