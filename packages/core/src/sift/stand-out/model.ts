import { innerProduct } from '../inner-product.js';
import { ROLES } from '../roles/roles.js';
import { type RoleInput, SURFACE_FEATURES, writeSurface } from '../roles/surface.js';
import { HASHES, wordHashes } from '../roles/word-hashes.js';
import type { Vectors } from '../types.js';
import { type Edges, PLACE_FEATURES, placeFeatures } from './place.js';

/** What the model reads of each sentence: a row of numbers, and the places of its words. */
export interface StandOutFeatures {
  readonly sentences: number;
  /** Numbers in a row: the vector (where it is read), roles, surface, place. */
  readonly row: number;
  readonly rows: Float32Array;
  /** Places of the words of each sentence, each counting `weight`. */
  readonly words: readonly { readonly places: readonly number[]; readonly weight: number }[];
}

export interface StandOutInput {
  readonly reading: RoleInput;
  /** Probabilities of the roles, rows of `ROLES.length`. */
  readonly roles: Float32Array;
  /** Unit vectors, of the model or by shared words. */
  readonly vectors: Vectors;
  /** Whether the vectors themselves are read: those of the shipped model are, others only for likeness. */
  readonly readsVectors: boolean;
  readonly edges: Edges;
}

export function standOutFeatures({ reading, roles, vectors, readsVectors, edges }: StandOutInput): StandOutFeatures {
  const n = reading.sentences.length;
  const own = readsVectors ? vectors.dimensions : 0;
  const row = own + ROLES.length + SURFACE_FEATURES.length + PLACE_FEATURES.length;
  const rows = new Float32Array(n * row);
  const place = placeFeatures(reading.sentences, vectors, edges);
  for (let s = 0; s < n; s += 1) {
    const at = s * row;
    if (own > 0) rows.set(vectors.data.subarray(s * own, (s + 1) * own), at);
    rows.set(roles.subarray(s * ROLES.length, (s + 1) * ROLES.length), at + own);
    writeSurface(reading, s, rows, at + own + ROLES.length);
    rows.set(place.subarray(s * PLACE_FEATURES.length, (s + 1) * PLACE_FEATURES.length), at + row - PLACE_FEATURES.length);
  }
  return { sentences: n, row, rows, words: reading.sentences.map((_, s) => wordHashes(reading, s)) };
}

/** Sentences on either side that are heard with one. */
export const HEARD = 3;

/**
 * Weights for what a sentence is (`row + HASHES` numbers), and for what is said around it, itself included (as many, less
 * those of its place).
 */
export interface StandOutModel {
  readonly own: Float32Array;
  readonly around: Float32Array;
}

/** Sum of a sentence's features, each times its weight: of as many numbers of its row as there are weights for, and its words. */
export function weigh(features: StandOutFeatures, weights: Float32Array): Float64Array {
  const { sentences, row, rows, words } = features;
  const read = weights.length - HASHES;
  const out = new Float64Array(sentences);
  for (let s = 0; s < sentences; s += 1) {
    const { places, weight } = words[s]!;
    let sum = 0;
    for (let k = 0; k < places.length; k += 1) sum += weights[read + places[k]!]!;
    out[s] = innerProduct(rows, s * row, weights, 0, read) + weight * sum;
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
