import type { Sentence, Transcript, Word } from '../transcript/types.js';
import type { Brief, Vectors } from './types.js';

/** The part of a recording that counts, its words and sentences counted from its own start. */
export interface Part {
  readonly words: readonly Word[];
  readonly sentences: readonly Sentence[];
  /** Lead back to the transcript. */
  readonly wordOffset: number;
  readonly sentenceOffset: number;
}

/** The sentences that lie wholly inside the part that the brief names; what lies outside can change nothing. */
export function readPart({ words, sentences }: Transcript, { partStartMs, partEndMs }: Pick<Brief, 'partStartMs' | 'partEndMs'>): Part {
  const inside = (sentence: Sentence): boolean => sentence.startMs >= partStartMs && sentence.endMs <= (partEndMs ?? Infinity);
  const sentenceOffset = Math.max(0, sentences.findIndex(inside));
  let end = sentenceOffset;
  while (end < sentences.length && inside(sentences[end]!)) end += 1;
  const wordOffset = sentences[sentenceOffset]?.firstWord ?? 0;
  const own = sentences
    .slice(sentenceOffset, end)
    .map((sentence) => ({ ...sentence, firstWord: sentence.firstWord - wordOffset, endWord: sentence.endWord - wordOffset }));
  return { words: words.slice(wordOffset, wordOffset + (own.at(-1)?.endWord ?? 0)), sentences: own, wordOffset, sentenceOffset };
}

/** The rows of the part's sentences, without copying them. */
export function sliceVectors(vectors: Vectors | null, first: number, rows: number): Vectors | null {
  if (vectors === null) return null;
  const { dimensions, data } = vectors;
  return { dimensions, data: data.subarray(first * dimensions, (first + rows) * dimensions) };
}
