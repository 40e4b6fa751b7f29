import { createHash } from 'node:crypto';

/** Key of a sentence in a cache of vectors: SHA-256 of its text with folded white space, and of the model's name. */
export function sentenceKey(text: string): string {
  return createHash('sha256')
    .update(`${MODEL_NAME}\n${foldSpace(text)}`)
    .digest('hex');
}

/**
 * Changes when the vectors change, so that an old cache is not read with a new model. The part
 * after `+` is ours: caches of before could hold a vector under another sentence's key.
 */
export const MODEL_NAME = 'energetic-ai-en-0.2.0+2';
export const DIMENSIONS = 512;

export function foldSpace(text: string): string {
  return text.replace(/\s+/g, ' ').trim();
}
