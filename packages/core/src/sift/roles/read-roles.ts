import type { Vectors } from '../types.js';
import { judgeRoles, type RoleModel } from './model.js';
import { unpackNumbers } from '../../text/pack-weights.js';
import { smoothRoles } from './smooth.js';
import type { SentenceFeatures } from './sentence-features.js';
import { ROLE_WEIGHTS } from './weights.js';

/** Of the shipped embedder; other vectors are read for likeness alone. */
export const VECTOR_DIMENSIONS = 512;
const models = new Map<number, RoleModel>();
let transitions: Float32Array | undefined;

/** The trained model for vectors of the shipped embedder, or for words alone. */
export function trainedRoles(vectors: Vectors | null): RoleModel {
  const dimensions = vectors?.dimensions === VECTOR_DIMENSIONS ? VECTOR_DIMENSIONS : 0;
  let model = models.get(dimensions);
  if (model === undefined) {
    model = { vectors: dimensions, weights: unpackNumbers(dimensions > 0 ? ROLE_WEIGHTS.withVectors : ROLE_WEIGHTS.wordsAlone) };
    models.set(dimensions, model);
  }
  return model;
}

/**
 * Probabilities of the roles of each sentence, neighbours heard: rows of `ROLES.length` that sum to 1.
 * @param vectors the shipped model's, a row a sentence, or null to judge by words alone
 */
export function readRoles(features: SentenceFeatures, vectors: Vectors | null): Float32Array {
  transitions ??= unpackNumbers(ROLE_WEIGHTS.transitions);
  return smoothRoles(judgeRoles(features, vectors, trainedRoles(vectors)), transitions);
}
