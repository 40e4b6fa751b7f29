import { STOPWORDS } from '../text/lists/talk.js';
import { HASH_BASIS, hashOn } from '../text/hash.js';
import { rememberWords } from '../text/remember.js';
import { stem } from '../text/stem.js';
import type { Sentence } from '../transcript/types.js';
import { innerProduct } from './inner-product.js';
import type { Vectors } from './types.js';

const DIMENSIONS = 128;

/** A word's stem where it carries a topic, else "". */
const topicStem = rememberWords((text) => (text.length > 2 && !STOPWORDS.has(text) && /^\p{L}/u.test(text) ? stem(text) : ''));

const hash = rememberWords((text) => hashOn(HASH_BASIS, text) >>> 0);

/**
 * Vectors by shared words, for when no model is at hand: content stems weighted by how few sentences hold them, hashed
 * with a sign into 128 places (Weinberger et al. 2009, the hashing trick), unit length. A sentence without content words
 * is the zero vector: like nothing.
 */
export function lexicalVectors(sentences: readonly Sentence[], texts: readonly string[]): Vectors {
  const inSentences = new Map<string, number>();
  const stems = sentences.map((sentence) => {
    const list: string[] = [];
    for (let i = sentence.firstWord; i < sentence.endWord; i += 1) {
      const one = topicStem(texts[i]!);
      if (one !== '') list.push(one);
    }
    for (const [k, one] of list.entries()) if (list.indexOf(one) === k) inSentences.set(one, (inSentences.get(one) ?? 0) + 1);
    return list;
  });
  const data = new Float32Array(sentences.length * DIMENSIONS);
  stems.forEach((list, row) => {
    const vector = data.subarray(row * DIMENSIONS, (row + 1) * DIMENSIONS);
    for (const one of list) {
      const h = hash(one);
      vector[h % DIMENSIONS]! += (h & 0x80000000 ? -1 : 1) * Math.log(1 + sentences.length / inSentences.get(one)!);
    }
    scaleToUnit(vector);
  });
  return { dimensions: DIMENSIONS, data };
}

/** Scales a vector to length 1 in place; the zero vector stays as it is. */
export function scaleToUnit(vector: Float32Array): void {
  let square = 0;
  for (let i = 0; i < vector.length; i += 1) square += vector[i]! * vector[i]!;
  if (square === 0) return;
  const factor = 1 / Math.sqrt(square);
  for (let i = 0; i < vector.length; i += 1) vector[i]! *= factor;
}

/** Cosine of two rows of unit vectors, -1 to 1. */
export function cosine(a: Vectors, row: number, b: Vectors, other: number): number {
  return innerProduct(a.data, row * a.dimensions, b.data, other * b.dimensions, a.dimensions);
}
