import { quotationsOver } from './quotations.js';
import { countTells } from './counted-hits.js';
import { readPart, sliceVectors } from './part.js';
import { Sums } from './sums.js';
import { doubtfulStarts } from '../text/ends/doubts.js';
import { stem } from '../text/stem.js';
import type { Language } from '../text/language-name.js';
import { winkTagger, type PartOfSpeech, type PosTagger } from '../text/tagger.js';
import type { Sentence, Word } from '../transcript/types.js';
import { findClosingWord, findOpeningWord, type OpeningWord } from './edges.js';
import { type Hit, normaliseWords } from '../text/tells/find-tells.js';
import { foreignFeatures, noRoles, readForeign } from './foreign.js';
import { lexicalVectors } from './lexical-vectors.js';
import { readRoles, VECTOR_DIMENSIONS } from './roles/read-roles.js';
import { readForRoles } from './roles/reading.js';
import { findDull, roleSums } from './roles/role-sums.js';
import type { Role } from './roles/roles.js';
import { sentenceFeatures } from './roles/sentence-features.js';
import { readStandOut } from './stand-out/read-stand-out.js';
import { foldedSums } from './prefix-sums.js';
import { PRICE, PRICE_BY_WORDS, segmentSentences } from './segments.js';
import { tabulate } from './tabulate.js';
import type { Tell } from '../text/lists/tells.js';
import { spanEndMs, spanStartMs } from '../cut/word-span.js';
import type { Brief, Run, SiftInput, Vectors } from './types.js';

/**
 * Everything the steps of a sift read, computed once: only the part of the recording that counts, so that what lies
 * outside the part can change nothing. Words and sentences are counted from the start of the part; `wordOffset` leads
 * back to the transcript.
 */
export interface SiftContext {
  readonly input: SiftInput;
  readonly brief: Brief;
  /** What the talk is in, where that is not English. */
  readonly language: Language | null;
  readonly words: readonly Word[];
  /** Words as the lists of English have them; in other languages none is in any list. */
  readonly texts: readonly string[];
  /** The same as they are said. */
  readonly spoken: readonly string[];
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
  /** Word behind the last of a candidate that ends with each sentence. */
  readonly closings: Int32Array;
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
  /** How far each sentence stands out from the recording's own ordinary talk: see `judgeStandOut`. */
  readonly standOut: Float64Array;
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

/** The model was made for English: what it says of other talk does not tell sentences apart, and is near to nothing that is looked for. */
export const NO_VECTORS = { sentenceVectors: null, topicVectors: null, tagVectors: null, interestVectors: null } as const;

/** Reads the part of the recording that the brief names. */
export function buildContext(given: SiftInput, tagger: PosTagger = winkTagger): SiftContext {
  const input = (given.language ?? null) === null ? given : { ...given, ...NO_VECTORS };
  const { transcript, brief } = input;
  const { words, sentences, wordOffset, sentenceOffset } = readPart(transcript, brief);
  const language = input.language ?? null;
  const english = language === null;
  const reading = english ? readForRoles(words, sentences, tagger) : readForeign(words, sentences);
  const { texts, tags, hits, hitStarts } = reading;
  const spoken = english ? texts : normaliseWords(words);
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
  const modelVectors = sliceVectors(input.sentenceVectors, sentenceOffset, sentences.length);
  const features = english ? sentenceFeatures(reading) : foreignFeatures(reading);
  const roles = english ? readRoles(features, modelVectors) : noRoles(sentences.length);
  const wordCounts = perSentence((i) => words[i]!.kind === 'word');
  const vectors = modelVectors ?? lexicalVectors(sentences, spoken);
  const sums = foldedSums(vectors);
  let chapterStarts: readonly number[] | null = null;
  const openings = sentences.map((_, s) => findOpeningWord(reading, s));
  const closings = Int32Array.from(sentences, (_, s) => findClosingWord(reading, s));
  return {
    input,
    brief,
    language,
    words,
    texts,
    spoken,
    tags,
    stems: spoken.map(stem),
    sentences,
    wordOffset,
    hits,
    hitStarts,
    count,
    wordCounts,
    graceWords: GRACE_SHARE * WORDS_PER_MS * brief.minMs,
    openings,
    closings,
    quotations: quotationsOver(words, sentences),
    doubts: doubtfulStarts(words, texts, tags, sentences, transcript.wordTimes),
    cutStartsMs: tabulate(sentences.length, (s) => spanStartMs(words, openings[s]!.word)),
    cutEndsMs: tabulate(sentences.length, (s) => spanEndMs(words, closings[s]!)),
    roles,
    roleSums: roleSums(roles, sentences),
    dull: findDull(roles, sentences, hits, hitStarts),
    standOut: readStandOut({
      sentences,
      features,
      roles,
      vectors: modelVectors?.dimensions === VECTOR_DIMENSIONS ? modelVectors : null,
      sums,
      english,
      edges: { start: sentenceOffset === 0, end: brief.partEndMs === null },
    }),
    vectors,
    chapterStarts: () => (chapterStarts ??= segmentSentences(sentences, sums, { price: modelVectors === null ? PRICE_BY_WORDS : PRICE })),
  };
}
