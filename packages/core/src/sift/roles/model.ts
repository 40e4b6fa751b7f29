import type { Vectors } from '../types.js';
import { ROLES } from './roles.js';
import { type RoleReading, SURFACE_FEATURES, writeSurface } from './surface.js';
import { HASHES, wordHashes } from './word-hashes.js';

/**
 * Weights of a multinomial logistic regression: a row of `vectors + surface + HASHES + 1` numbers for each role, in the
 * order of `ROLES`; the last is the constant. `vectors` is the number of dimensions it reads, 0 for words alone.
 */
export interface RoleModel {
  readonly vectors: number;
  readonly weights: Float32Array;
}

const rowLength = (vectors: number): number => vectors + SURFACE_FEATURES.length + HASHES + 1;

/** Probabilities of the roles of each sentence by itself, rows of `ROLES.length` that sum to 1. */
export function judgeRoles(reading: RoleReading, vectors: Vectors | null, model: RoleModel): Float32Array {
  const n = reading.sentences.length;
  const roles = ROLES.length;
  const row = rowLength(model.vectors);
  const out = new Float32Array(n * roles);
  const surface = new Float32Array(SURFACE_FEATURES.length);
  const scores = new Float64Array(roles);
  for (let s = 0; s < n; s += 1) {
    writeSurface(reading, s, surface, 0);
    const { places, weight } = wordHashes(reading, s);
    for (let r = 0; r < roles; r += 1) {
      let at = r * row;
      let sum = 0;
      for (let d = 0; d < model.vectors; d += 1) sum += model.weights[at + d]! * vectors!.data[s * model.vectors + d]!;
      at += model.vectors;
      for (let f = 0; f < surface.length; f += 1) sum += model.weights[at + f]! * surface[f]!;
      at += surface.length;
      for (let k = 0; k < places.length; k += 1) sum += weight * model.weights[at + places[k]!]!;
      scores[r] = sum + model.weights[at + HASHES]!;
    }
    softmax(scores, out, s * roles);
  }
  return out;
}

/** Writes the softmax of scores into `into` from `at`. */
export function softmax(scores: Float64Array, into: Float32Array, at: number): void {
  let most = -Infinity;
  for (const score of scores) most = Math.max(most, score);
  let sum = 0;
  for (let r = 0; r < scores.length; r += 1) {
    const value = Math.exp(scores[r]! - most);
    into[at + r] = value;
    sum += value;
  }
  for (let r = 0; r < scores.length; r += 1) into[at + r]! /= sum;
}
