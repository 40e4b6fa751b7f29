import type { Sentence } from '../../transcript/types.js';
import { innerProduct } from '../inner-product.js';
import type { PrefixSums } from '../prefix-sums.js';
import { ROLES } from '../roles/roles.js';
import type { SentenceFeatures } from '../roles/sentence-features.js';
import { SURFACE_FEATURES } from '../roles/surface.js';
import { HASHES, type HashedWords } from '../roles/word-hashes.js';
import type { Vectors } from '../types.js';
import { type Edges, PLACE_FEATURES, placeFeatures } from './place.js';

/** What the model reads of each sentence: its vector, a row of numbers, and its words. */
export interface StandOutFeatures {
  readonly sentences: number;
  /** Null where the vectors themselves are not read. */
  readonly vectors: Vectors | null;
  /** Numbers in a row of `rows`: roles, surface, place. */
  readonly row: number;
  readonly rows: Float32Array;
  readonly words: readonly HashedWords[];
}

export interface StandOutInput {
  readonly sentences: readonly Sentence[];
  readonly features: SentenceFeatures;
  /** Probabilities of the roles, rows of `ROLES.length`. */
  readonly roles: Float32Array;
  /** Unit vectors of the shipped model, or null where others stand for them: those are read for likeness alone. */
  readonly vectors: Vectors | null;
  /** Sums of the vectors, whichever they are. */
  readonly sums: PrefixSums;
  readonly edges: Edges;
}

export function standOutFeatures({ sentences, features, roles, vectors, sums, edges }: StandOutInput): StandOutFeatures {
  const blocks = [
    { data: roles, size: ROLES.length },
    { data: features.surface, size: SURFACE_FEATURES.length },
    { data: placeFeatures(sentences, sums, edges), size: PLACE_FEATURES.length },
  ];
  const row = blocks.reduce((sum, { size }) => sum + size, 0);
  const rows = new Float32Array(sentences.length * row);
  for (let s = 0; s < sentences.length; s += 1) {
    let at = s * row;
    for (const { data, size } of blocks) {
      for (let f = 0; f < size; f += 1) rows[at + f] = data[s * size + f]!;
      at += size;
    }
  }
  return { sentences: sentences.length, vectors, row, rows, words: features.words };
}

/** Sentences on either side that are heard with one. */
export const HEARD = 3;

/**
 * Weights for what a sentence is (its vector, its row, `HASHES` words), and for what is said around it, itself included (the
 * same, less its place).
 */
export interface StandOutModel {
  readonly own: Float32Array;
  readonly around: Float32Array;
}

/** Sum of a sentence's features, each times its weight: of as many numbers of its row as there are weights for. */
export function weigh({ sentences, vectors, row, rows, words }: StandOutFeatures, weights: Float32Array): Float64Array {
  const own = vectors?.dimensions ?? 0;
  const read = weights.length - HASHES;
  const out = new Float64Array(sentences);
  for (let s = 0; s < sentences; s += 1) {
    const { places, weight } = words[s]!;
    let sum = 0;
    for (let k = 0; k < places.length; k += 1) sum += weights[read + places[k]!]!;
    sum = weight * sum + innerProduct(rows, s * row, weights, own, read - own);
    out[s] = vectors === null ? sum : sum + innerProduct(vectors.data, s * own, weights, 0, own);
  }
  return out;
}

/** The mean of each number and those up to `reach` places away; at the ends of as many as there are. */
export function heardAround(values: Float64Array, reach = HEARD): Float64Array {
  const n = values.length;
  const out = new Float64Array(n);
  let sum = 0;
  for (let s = 0; s < Math.min(n, reach); s += 1) sum += values[s]!;
  for (let s = 0; s < n; s += 1) {
    if (s + reach < n) sum += values[s + reach]!;
    if (s > reach) sum -= values[s - reach - 1]!;
    out[s] = sum / (Math.min(n - 1, s + reach) - Math.max(0, s - reach) + 1);
  }
  return out;
}

/**
 * How far each sentence stands out from the recording's own ordinary talk: about the mean grade, 0 to 1, that readers give
 * it, above the mean of the recording. A linear regression, so that each feature's share can be told.
 * @param durations of the sentences, in any unit: the recording's mean is that of its time
 */
export function judgeStandOut(features: StandOutFeatures, model: StandOutModel, durations: ArrayLike<number>): Float64Array {
  const own = weigh(features, model.own);
  const around = heardAround(weigh(features, model.around));
  let sum = 0;
  let total = 0;
  for (let s = 0; s < own.length; s += 1) {
    own[s]! += around[s]!;
    sum += own[s]! * durations[s]!;
    total += durations[s]!;
  }
  const ground = total === 0 ? 0 : sum / total;
  return own.map((value) => value - ground);
}
