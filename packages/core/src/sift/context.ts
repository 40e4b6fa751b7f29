import { quotationsOver } from './quotations.js';
import { doubtfulStarts } from '../text/ends/doubts.js';
import { stem } from '../text/stem.js';
import { winkTagger, type PartOfSpeech, type PosTagger } from '../text/tagger.js';
import type { Sentence, Word } from '../transcript/types.js';
import { findOpeningWord, type OpeningWord } from './edges.js';
import { findTells, type Hit, normaliseWords } from './find-tells.js';
import { lexicalVectors } from './lexical-vectors.js';
import { readRoles } from './roles/read-roles.js';
import { indexHits } from './roles/reading.js';
import { DULL_ROLES, type Role, roleAt, ROLES } from './roles/roles.js';
import { foldedSums } from './prefix-sums.js';
import { PRICE, PRICE_BY_WORDS, segmentSentences } from './segments.js';
import { tabulate } from './tabulate.js';
import { DULL_TELLS, type Tell } from './tells.js';
import { spanEndMs, spanStartMs } from '../cut/word-span.js';
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
  /** The values it was made from. */
  values(): Float64Array {
    return tabulate(this.totals.length - 1, (i) => this.totals[i + 1]! - this.totals[i]!);
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
  /** Stem of every word. */
  readonly stems: readonly string[];
  readonly sentences: readonly Sentence[];
  readonly wordOffset: number;
  readonly hits: readonly Hit[];
  /** First hit of each sentence in `hits`, and one more for the end. */
  readonly hitStarts: Int32Array;
  readonly wordCounts: Sums;
  /**
   * Words added to the length of a run where something is counted for each of its words, so that the shortest are not
   * rich by one sentence alone, and a whole story is worth more than its richest third: see bench/editors.mjs, *edges*.
   */
  readonly graceWords: number;
  /** Where a candidate that begins with each sentence is cut in. */
  readonly openings: readonly OpeningWord[];
  /** How doubtful the start of each sentence is, 0 to 1, where ends had to be restored; one more for the end of the talk. */
  readonly doubts: Float64Array;
  /** 1 where a quotation runs on over the start of a sentence; one more for the end of the talk. */
  readonly quotations: Uint8Array;
  /** Start of a candidate that begins with each sentence, and end of one that ends with it, in ms, with their air. */
  readonly cutStartsMs: Float64Array;
  readonly cutEndsMs: Float64Array;
  /** Probabilities of the roles of each sentence, rows of `ROLES.length`. */
  readonly roles: Float32Array;
  /** Words of the sentences times the probability of a role, summed. */
  roleSums(role: Role): Sums;
  /** 0 to 1 for each sentence: how surely nobody should post it (see `DULL_ROLES`). */
  readonly dull: Float64Array;
  /** Unit vectors of the sentences: the model's where given, else by shared words. */
  readonly vectors: Vectors;
  /** First sentences of the chapters. Computed when first asked for. */
  chapterStarts(): readonly number[];
  /** Number of hits of a tell in a run. Constant time. */
  count(tell: Tell, run: Run): number;
}

/** Talk runs at some 160 words a minute (common practice). */
const WORDS_PER_MS = 160 / 60_000;
/** Words of grace, as a share of those of the shortest candidate that is asked for. */
const GRACE_SHARE = 0.55;

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
  const counts = countTells(hits, hitStarts, sentences.length);
  const count = (tell: Tell, run: Run): number => counts.get(tell)?.sum(run) ?? 0;
  const perSentence = (test: (i: number) => boolean): Sums =>
    new Sums(
      sentences.map((s) => {
        let n = 0;
        for (let i = s.firstWord; i < s.endWord; i += 1) if (test(i)) n += 1;
        return n;
      }),
    );
  const reading = { words, texts, tags, sentences, hits, hitStarts };
  const modelVectors = sliceVectors(input.sentenceVectors, firstSentence, sentences.length);
  const roles = readRoles(reading, modelVectors);
  const roleSums = new Map<Role, Sums>();
  const wordCounts = perSentence((i) => words[i]!.kind === 'word');
  const vectors = modelVectors ?? lexicalVectors(sentences, texts);
  let chapterStarts: readonly number[] | null = null;
  const openings = sentences.map((_, s) => findOpeningWord(reading, s));
  return {
    input,
    brief,
    words,
    texts,
    tags,
    stems: texts.map(stem),
    sentences,
    wordOffset,
    hits,
    hitStarts,
    count,
    wordCounts,
    graceWords: GRACE_SHARE * WORDS_PER_MS * brief.minMs,
    openings,
    quotations: quotationsOver(words, sentences),
    doubts: doubtfulStarts(words, texts, tags, sentences, input.transcript.wordTimes),
    cutStartsMs: tabulate(sentences.length, (s) => spanStartMs(words, openings[s]!.word)),
    cutEndsMs: tabulate(sentences.length, (s) => spanEndMs(words, sentences[s]!.endWord)),
    roles,
    roleSums: (role) => {
      let sums = roleSums.get(role);
      if (sums === undefined) roleSums.set(role, (sums = sumRole(roles, role, sentences)));
      return sums;
    },
    dull: findDull(roles, sentences, hits, hitStarts),
    vectors,
    chapterStarts: () => (chapterStarts ??= segmentSentences(sentences, foldedSums(vectors), { price: modelVectors === null ? PRICE_BY_WORDS : PRICE })),
  };
}

function sliceVectors(vectors: Vectors | null, first: number, rows: number): Vectors | null {
  if (vectors === null) return null;
  const { dimensions, data } = vectors;
  return { dimensions, data: data.subarray(first * dimensions, (first + rows) * dimensions) };
}

function countTells(hits: readonly Hit[], starts: Int32Array, sentences: number): ReadonlyMap<Tell, Sums> {
  const values = new Map<Tell, Float64Array>();
  for (let s = 0; s < sentences; s += 1) {
    for (let h = starts[s]!; h < starts[s + 1]!; h += 1) {
      const { tell } = hits[h]!;
      const of = values.get(tell) ?? values.set(tell, new Float64Array(sentences)).get(tell)!;
      of[s]! += 1;
    }
  }
  return new Map(Array.from(values, ([tell, of]) => [tell, new Sums(of)]));
}

function sumRole(roles: Float32Array, role: Role, sentences: readonly Sentence[]): Sums {
  const at = roleAt(role);
  return new Sums(sentences.map(({ firstWord, endWord }, s) => roles[s * ROLES.length + at]! * (endWord - firstWord)));
}

/** A phrase that is plainly of a greeting or an offer makes a sentence at least this dull, whatever the model says. */
const PLAIN_PHRASE = 0.35;

function findDull(roles: Float32Array, sentences: readonly Sentence[], hits: readonly Hit[], starts: Int32Array): Float64Array {
  const places = DULL_ROLES.map(roleAt);
  return tabulate(sentences.length, (s) => {
    let sum = 0;
    for (const place of places) sum += roles[s * ROLES.length + place]!;
    let plain = false;
    for (let h = starts[s]!; h < starts[s + 1]!; h += 1) plain ||= (DULL_TELLS as readonly Tell[]).includes(hits[h]!.tell);
    return plain ? Math.max(PLAIN_PHRASE, sum) : sum;
  });
}

/** Hits of some tells in a range of words, in order. */
export function hitsWithin(context: SiftContext, run: Run, tells: readonly Tell[] | ReadonlySet<Tell>): Hit[] {
  const wanted = (tell: Tell): boolean => ('has' in tells ? tells.has(tell) : tells.includes(tell));
  const found: Hit[] = [];
  for (let h = context.hitStarts[run.first]!; h < context.hitStarts[run.end]!; h += 1) {
    if (wanted(context.hits[h]!.tell)) found.push(context.hits[h]!);
  }
  return found;
}
