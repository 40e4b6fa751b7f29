import { STOPWORDS } from '../text/lexicon.js';
import { winkTagger, type PartOfSpeech, type PosTagger } from '../text/tagger.js';
import type { Sentence, Word } from '../transcript/types.js';
import { findTells, type Hit, normaliseWords } from './find-tells.js';
import { lexicalVectors } from './lexical-vectors.js';
import { DULL_TELLS, type Tell } from './tells.js';
import type { Brief, Run, SiftInput, Vectors } from './types.js';

/** Sums over sentences in constant time: `sum(run)` is the total of the values of its sentences. */
export class Sums {
  private readonly totals: Float64Array;
  constructor(values: ArrayLike<number>) {
    this.totals = new Float64Array(values.length + 1);
    for (let i = 0; i < values.length; i += 1) this.totals[i + 1] = this.totals[i]! + values[i]!;
  }
  sum(run: Run): number {
    return this.totals[run.end]! - this.totals[run.first]!;
  }
}

/**
 * Everything the steps of a sift read, computed once: only the part of the recording that counts, so that what lies
 * outside the part can change nothing. Words and sentences are counted from the start of the part; `wordOffset` leads
 * back to the transcript.
 */
export interface SiftContext {
  readonly input: SiftInput;
  readonly brief: Brief;
  readonly words: readonly Word[];
  readonly texts: readonly string[];
  readonly tags: readonly PartOfSpeech[];
  readonly sentences: readonly Sentence[];
  readonly wordOffset: number;
  readonly hits: readonly Hit[];
  /** First hit of each sentence in `hits`, and one more for the end. */
  readonly hitStarts: Int32Array;
  readonly wordCounts: Sums;
  readonly contentCounts: Sums;
  /** 0 to 1 for each sentence: how surely it is greeting, housekeeping, sponsor read or sign-off. */
  readonly dull: Float64Array;
  /** Unit vectors of the sentences: the model's where given, else by shared words. */
  readonly vectors: Vectors;
  /** Number of hits of a tell in a run. Constant time. */
  count(tell: Tell, run: Run): number;
}

/** Reads the part of the recording that the brief names. */
export function buildContext(input: SiftInput, tagger: PosTagger = winkTagger): SiftContext {
  const { transcript, brief } = input;
  const partEndMs = brief.partEndMs ?? Infinity;
  const inside = (sentence: Sentence): boolean => sentence.startMs >= brief.partStartMs && sentence.endMs <= partEndMs;
  const firstSentence = Math.max(0, transcript.sentences.findIndex(inside));
  let endSentence = firstSentence;
  while (endSentence < transcript.sentences.length && inside(transcript.sentences[endSentence]!)) endSentence += 1;
  const wordOffset = transcript.sentences[firstSentence]?.firstWord ?? 0;
  const sentences = transcript.sentences
    .slice(firstSentence, endSentence)
    .map((sentence) => ({ ...sentence, firstWord: sentence.firstWord - wordOffset, endWord: sentence.endWord - wordOffset }));
  const words = transcript.words.slice(wordOffset, wordOffset + (sentences.at(-1)?.endWord ?? 0));
  const texts = normaliseWords(words);
  const tags = tagger(texts);
  const hits = findTells(words, texts, tags);
  const hitStarts = indexHits(hits, sentences);
  const counts = new Map<Tell, Sums>();
  const count = (tell: Tell, run: Run): number => {
    let sums = counts.get(tell);
    if (sums === undefined) counts.set(tell, (sums = countTell(tell, hits, hitStarts, sentences.length)));
    return sums.sum(run);
  };
  const isContent = (i: number): boolean => words[i]!.kind === 'word' && texts[i]!.length > 2 && !STOPWORDS.has(texts[i]!);
  const perSentence = (test: (i: number) => boolean): Sums =>
    new Sums(
      sentences.map((s) => {
        let n = 0;
        for (let i = s.firstWord; i < s.endWord; i += 1) if (test(i)) n += 1;
        return n;
      }),
    );
  return {
    input,
    brief,
    words,
    texts,
    tags,
    sentences,
    wordOffset,
    hits,
    hitStarts,
    count,
    wordCounts: perSentence((i) => words[i]!.kind === 'word'),
    contentCounts: perSentence(isContent),
    dull: findDull(sentences, hits, hitStarts),
    vectors: sliceVectors(input.sentenceVectors, firstSentence, sentences.length) ?? lexicalVectors(sentences, texts),
  };
}

function sliceVectors(vectors: Vectors | null, first: number, rows: number): Vectors | null {
  if (vectors === null) return null;
  const { dimensions, data } = vectors;
  return { dimensions, data: data.subarray(first * dimensions, (first + rows) * dimensions) };
}

function indexHits(hits: readonly Hit[], sentences: readonly Sentence[]): Int32Array {
  const starts = new Int32Array(sentences.length + 1);
  let h = 0;
  sentences.forEach((sentence, s) => {
    while (h < hits.length && hits[h]!.firstWord < sentence.firstWord) h += 1;
    starts[s] = h;
  });
  starts[sentences.length] = hits.length;
  return starts;
}

function countTell(tell: Tell, hits: readonly Hit[], starts: Int32Array, sentences: number): Sums {
  const values = new Float64Array(sentences);
  for (let s = 0; s < sentences; s += 1) {
    for (let h = starts[s]!; h < starts[s + 1]!; h += 1) if (hits[h]!.tell === tell) values[s]! += 1;
  }
  return new Sums(values);
}

/** A sponsor read colours the sentences around it: it takes about half a minute, and names its sponsor early on. */
const SPONSOR_REACH_MS = 25_000;

function findDull(sentences: readonly Sentence[], hits: readonly Hit[], starts: Int32Array): Float64Array {
  const dull = new Float64Array(sentences.length);
  const raise = (s: number, value: number): void => {
    dull[s] = Math.max(dull[s]!, value);
  };
  sentences.forEach((sentence, s) => {
    for (let h = starts[s]!; h < starts[s + 1]!; h += 1) {
      const { tell } = hits[h]!;
      if (!(DULL_TELLS as readonly Tell[]).includes(tell)) continue;
      raise(s, tell === 'housekeeping' ? 0.7 : 1);
      const reach = tell === 'sponsor' ? SPONSOR_REACH_MS : tell === 'housekeeping' ? 0 : 8_000;
      for (let k = s + 1; k < sentences.length && sentences[k]!.startMs - sentence.endMs < reach; k += 1) raise(k, tell === 'sponsor' ? 0.9 : 0.4);
      for (let k = s - 1; k >= 0 && sentence.startMs - sentences[k]!.endMs < Math.min(reach, 5_000); k -= 1) raise(k, 0.4);
    }
  });
  return dull;
}

/** Hits of some tells in a range of words, in order. */
export function hitsWithin(context: SiftContext, run: Run, tells: readonly Tell[]): Hit[] {
  const found: Hit[] = [];
  for (let h = context.hitStarts[run.first]!; h < context.hitStarts[run.end]!; h += 1) {
    if (tells.includes(context.hits[h]!.tell)) found.push(context.hits[h]!);
  }
  return found;
}
