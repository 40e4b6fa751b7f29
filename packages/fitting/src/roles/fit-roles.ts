import { ROLES, type Vectors } from '@sift-reel/core';
import { HASHES, type RoleInput, SURFACE_FEATURES, wordHashes, writeSurface } from '@sift-reel/core/fitting';
import { seededChance } from '../math/chance.js';
import { type Example, fitLogistic } from '../math/logistic.js';
import type { LabelledSentence } from './labelled.js';

/**
 * Examples of one subject in one form, with vectors or without.
 * @param counts how much each sentence counts, above 0
 */
export function examplesOf(
  sentences: readonly LabelledSentence[],
  reading: RoleInput,
  vectors: Vectors | null,
  counts: (s: number) => number = () => 1,
): Example[] {
  const dimensions = vectors?.dimensions ?? 0;
  return sentences.map((sentence, s) => {
    const dense = new Float32Array(dimensions + SURFACE_FEATURES.length);
    if (vectors !== null) dense.set(vectors.data.subarray(s * dimensions, (s + 1) * dimensions));
    writeSurface(reading, s, dense, dimensions);
    const { places, weight } = wordHashes(reading, s);
    return { dense, places: Int32Array.from(places), weight, label: sentence.role, counts: counts(s) };
  });
}

/** Trains the role model. Classes with few examples count more, by the square root of how few. */
export function fitRoles(examples: readonly Example[], dimensions: number, seed = 11): Float32Array {
  const seen = new Array<number>(ROLES.length).fill(0);
  for (const example of examples) seen[example.label]! += 1;
  const even = examples.length / ROLES.length;
  return fitLogistic(
    examples.map((example) => ({ ...example, counts: example.counts * Math.sqrt(even / seen[example.label]!) })),
    {
      classes: ROLES.length,
      dense: dimensions + SURFACE_FEATURES.length,
      sparse: HASHES,
      epochs: 24,
      pull: { head: 0.2, tail: 0.1, sparse: 0.2, split: dimensions },
      rate: 0.02,
      chance: seededChance(seed),
    },
  );
}

/**
 * How often each role follows each, relative to how common the second is: from × to, 1 where one tells nothing of the
 * other. Counted inside stretches, with two of each added.
 */
export function countTransitions(subjects: readonly (readonly LabelledSentence[])[]): Float32Array {
  const roles = ROLES.length;
  const pairs = new Float64Array(roles * roles).fill(2);
  for (const sentences of subjects) {
    for (let s = 1; s < sentences.length; s += 1) if (!sentences[s]!.opens) pairs[sentences[s - 1]!.role * roles + sentences[s]!.role]! += 1;
  }
  const all = pairs.reduce((sum, n) => sum + n, 0);
  const from = Array.from({ length: roles }, (_, a) => pairs.slice(a * roles, (a + 1) * roles).reduce((sum, n) => sum + n, 0));
  const to = Array.from({ length: roles }, (_, b) => from.reduce((sum, _n, a) => sum + pairs[a * roles + b]!, 0));
  return Float32Array.from(pairs, (n, i) => (n * all) / (from[Math.floor(i / roles)]! * to[i % roles]!));
}
