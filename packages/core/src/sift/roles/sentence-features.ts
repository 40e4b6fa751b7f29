import { type RoleInput, SURFACE_FEATURES, writeSurface } from './surface.js';
import { type HashedWords, wordHashes } from './word-hashes.js';

/** What the models read off each sentence by itself; read once for all of them. */
export interface SentenceFeatures {
  readonly sentences: number;
  /** Rows of `SURFACE_FEATURES.length`. */
  readonly surface: Float32Array;
  readonly words: readonly HashedWords[];
}

export function sentenceFeatures(reading: RoleInput): SentenceFeatures {
  return { ...surfaceFeatures(reading), words: reading.sentences.map((_, s) => wordHashes(reading, s)) };
}

/** Of those, what is not its words. */
export function surfaceFeatures(reading: RoleInput): Pick<SentenceFeatures, 'sentences' | 'surface'> {
  const sentences = reading.sentences.length;
  const surface = new Float32Array(sentences * SURFACE_FEATURES.length);
  for (let s = 0; s < sentences; s += 1) writeSurface(reading, s, surface, s * SURFACE_FEATURES.length);
  return { sentences, surface };
}
