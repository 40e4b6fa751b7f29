import { addTimes } from '../inner-product.js';
import type { Vectors } from '../types.js';
import { ROLES } from './roles.js';
import type { SentenceFeatures } from './sentence-features.js';
import { SURFACE_FEATURES } from './surface.js';
import { HASHES } from './word-hashes.js';

/**
 * Weights of a multinomial logistic regression: a row of `vectors + surface + HASHES + 1` numbers for each role, in the
 * order of `ROLES`; the last is the constant. `vectors` is the number of dimensions it reads, 0 for words alone.
 */
export interface RoleModel {
  readonly vectors: number;
  readonly weights: Float32Array;
}

const rowLength = (vectors: number): number => vectors + SURFACE_FEATURES.length + HASHES + 1;

const turnedRows = new WeakMap<RoleModel, Float32Array>();

/** The weights with a row of `ROLES.length` for each feature: most features are 0, and what is read then lies together. */
function byFeature(model: RoleModel): Float32Array {
  let turned = turnedRows.get(model);
  if (turned === undefined) {
    const row = rowLength(model.vectors);
    turned = new Float32Array(model.weights.length);
    for (let r = 0; r < ROLES.length; r += 1) for (let f = 0; f < row; f += 1) turned[f * ROLES.length + r] = model.weights[r * row + f]!;
    turnedRows.set(model, turned);
  }
  return turned;
}

/** Probabilities of the roles of each sentence by itself, rows of `ROLES.length` that sum to 1. */
export function judgeRoles({ sentences: n, surface, words }: SentenceFeatures, vectors: Vectors | null, model: RoleModel): Float32Array {
  const roles = ROLES.length;
  const weights = byFeature(model);
  const hashed = model.vectors + SURFACE_FEATURES.length;
  const out = new Float32Array(n * roles);
  const scores = new Float64Array(roles);
  for (let s = 0; s < n; s += 1) {
    const { places, weight } = words[s]!;
    const at = s * SURFACE_FEATURES.length;
    for (let r = 0; r < roles; r += 1) scores[r] = 0;
    for (let d = 0; d < model.vectors; d += 1) addRow(weights, d, vectors!.data[s * model.vectors + d]!, scores);
    for (let f = 0; f < SURFACE_FEATURES.length; f += 1) if (surface[at + f] !== 0) addRow(weights, model.vectors + f, surface[at + f]!, scores);
    for (let k = 0; k < places.length; k += 1) addRow(weights, hashed + places[k]!, weight, scores);
    addRow(weights, hashed + HASHES, 1, scores);
    softmax(scores, out, s * roles);
  }
  return out;
}

/** Adds a feature's row of weights, times its value, to the scores of the roles. */
function addRow(weights: Float32Array, feature: number, value: number, scores: Float64Array): void {
  addTimes(weights, feature * scores.length, value, scores, scores.length);
}

/** Writes the softmax of scores into `into` from `at`. */
function softmax(scores: Float64Array, into: Float32Array, at: number): void {
  let most = -Infinity;
  for (let r = 0; r < scores.length; r += 1) if (scores[r]! > most) most = scores[r]!;
  let sum = 0;
  for (let r = 0; r < scores.length; r += 1) {
    const value = Math.exp(scores[r]! - most);
    into[at + r] = value;
    sum += value;
  }
  for (let r = 0; r < scores.length; r += 1) into[at + r]! /= sum;
}
