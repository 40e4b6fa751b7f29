import { SCALES } from './scales.js';
import { SIGNAL_WEIGHTS } from './signal-weights.js';
import { roundScore, toScale } from './scale.js';
import { countStrong } from './select.js';
import { SIGNALS } from './types.js';

/** Weights that cannot be used: not six, negative, or all zero. */
export class WeightsRefusedError extends Error {
  override readonly name = 'WeightsRefusedError';
}

/** The weights as they are shipped, in the order of the signals. */
export const FITTED_WEIGHTS: readonly number[] = SIGNALS.map((name) => SIGNAL_WEIGHTS[name]);

/**
 * Weights scaled to sum to one.
 * @param weights six numbers, none negative, not all zero; in the order of the signals
 * @throws WeightsRefusedError
 */
export function normaliseWeights(weights: readonly number[]): number[] {
  const sum = weights.reduce((total, weight) => total + weight, 0);
  if (weights.length !== SIGNALS.length) throw new WeightsRefusedError(`expected ${SIGNALS.length} weights, found ${weights.length}`);
  if (!weights.every((weight) => Number.isFinite(weight) && weight >= 0) || sum <= 0)
    throw new WeightsRefusedError(`weights must be 0 or more and not all 0, found ${weights.join(', ')}`);
  return weights.map((weight) => weight / sum);
}

/** A brief that names topics asks for them: Currency then counts this many times as much, and the weights are scaled back to sum to one. */
export const ASKED_CURRENCY = 8;

/**
 * The weights that a sift scores by: the client's own or the fitted ones, with Currency raised where topics are asked for.
 * @throws WeightsRefusedError
 */
export function weightsFor(topicsAsked: boolean, own: readonly number[] | null = null): number[] {
  return normaliseWeights((own ?? FITTED_WEIGHTS).map((weight, k) => (isRaised(topicsAsked, k) ? weight * ASKED_CURRENCY : weight)));
}

/** The weights before Currency was raised: `weightsFor(asked, baseWeights(asked, used))` gives back `used`. */
export function baseWeights(topicsAsked: boolean, used: readonly number[]): number[] {
  return normaliseWeights(used.map((weight, k) => (isRaised(topicsAsked, k) ? weight / ASKED_CURRENCY : weight)));
}

const isRaised = (topicsAsked: boolean, signal: number): boolean => topicsAsked && SIGNALS[signal] === 'currency';

/** What `reweigh` reads of a candidate. */
export interface Weighable {
  readonly score: number;
  /** Six values of 0 to 100, in the order of the signals. */
  readonly values: readonly number[];
}

export interface Reweighed {
  /** New scores, by the candidates' places; 0 to 100, one decimal. */
  readonly scores: readonly number[];
  /** New ranks from 1, by the candidates' places. */
  readonly ranks: readonly number[];
  readonly strongCount: number;
}

/**
 * Ranks candidates again by other weights, from their six signals alone. What a score has besides the signals, less for
 * dull talk and more for a kind the brief asks for, stays in the same proportion.
 * @param candidates by rank, @param from the weights they were scored with, @param to the wished ones
 * @throws WeightsRefusedError
 */
export function reweigh(candidates: readonly Weighable[], from: readonly number[], to: readonly number[]): Reweighed {
  const [before, after] = [normaliseWeights(from), normaliseWeights(to)];
  const scores = candidates.map(({ score, values }) => {
    const was = scoreOf(values, before);
    return was <= 0 ? score : roundScore((score * scoreOf(values, after)) / was);
  });
  const order = scores.map((_, i) => i).sort((a, b) => scores[b]! - scores[a]! || a - b);
  const ranks = new Array<number>(scores.length);
  order.forEach((place, i) => (ranks[place] = i + 1));
  return { scores, ranks, strongCount: countStrong(order.map((place) => scores[place]!)) };
}

/** Score of six signals by weights that sum to one, before anything is taken off. */
export function scoreOf(values: readonly number[], weights: readonly number[]): number {
  let mean = 0;
  for (let k = 0; k < weights.length; k += 1) mean += weights[k]! * values[k]!;
  return toScale(mean, SCALES.score.ordinary, SCALES.score.rare);
}
