import {
  bestAround,
  captionCues,
  captionsOfCut,
  type Copy,
  type CopyLimits,
  type CopyRequest,
  type CutCaption,
  cutListOf,
  proposeCopy,
  type ProposedTitle,
  proposeTitlesFor,
  type Candidate,
  scorePassage,
  type SearchHit,
  searchTranscript,
  sentenceTexts,
  type SiftInput,
  type Span,
  spanOfWords,
  type TextUnit,
  unitsOf,
  type Vectors,
  type WordRange,
  type WordRun,
  writeSubRip,
  writeWebVtt,
  wordsText,
} from '@sift-reel/core';

import { type OnTranscript, unpackRow } from './unpack.js';

export { prepareTranscript } from './prepare-task.js';

export { checkCopies } from './check-task.js';

export { drawCard, drawFrame, makeDocument, writeDocument } from './document-tasks.js';

export interface SearchTask extends OnTranscript {
  readonly query: string;
  readonly vectors: { readonly sentences: Vectors; readonly query: Vectors } | null;
}

/** A sentence that was found, with its words and times. */
export interface FoundSentence extends Pick<SearchHit, 'score' | 'by'> {
  readonly firstWord: number;
  readonly endWord: number;
  readonly startMs: number;
  readonly endMs: number;
  readonly text: string;
}

export function search({ packed, query, vectors }: SearchTask): FoundSentence[] {
  const transcript = unpackRow(packed);
  return searchTranscript(transcript, query, vectors).map(({ sentence, score, by }) => {
    const { firstWord, endWord, startMs, endMs } = transcript.sentences[sentence]!;
    return { score, by, firstWord, endWord, startMs, endMs, text: wordsText(transcript.words, firstWord, endWord) };
  });
}

export type SentenceTextsTask = OnTranscript;

export function sentenceTextsOf({ packed }: SentenceTextsTask): string[] {
  return sentenceTexts(unpackRow(packed));
}

export interface OwnPassageTask extends OnTranscript, Omit<SiftInput, 'transcript'>, WordRange {
  /** The best passage that holds the words, in place of exactly those words. */
  readonly around: boolean;
}

/** @returns null when the words are not in the transcript */
export function scoreOwnPassage({ packed, firstWord, endWord, around, ...rest }: OwnPassageTask): Candidate | null {
  const input = { ...rest, transcript: unpackRow(packed) };
  if (endWord > input.transcript.words.length) return null;
  return (around ? bestAround : scorePassage)(input, { firstWord, endWord });
}

export interface ProposeCopyTask extends OnTranscript, CopyRequest {}

export function proposeCopyForShort({ packed, ...request }: ProposeCopyTask): Copy {
  return proposeCopy(unpackRow(packed), request);
}

/** Titles that are offered at once. */
const MOST_TITLES = 5;

/** A title and the words that it was made of. */
export interface OfferedTitle extends ProposedTitle {
  readonly said: string;
}

export function offerTitles({ packed, ...request }: ProposeCopyTask): OfferedTitle[] {
  const transcript = unpackRow(packed);
  return proposeTitlesFor(transcript, request, MOST_TITLES).map((title) => ({ ...title, said: wordsText(transcript.words, title.firstWord, title.endWord) }));
}

export interface MoveEndsTask extends OnTranscript, WordRange {}

export interface MovedEnds {
  readonly startMs: number;
  readonly endMs: number;
  readonly firstLine: string;
  readonly lastLine: string;
}

/** @returns null when the words are not in the transcript */
export function movedEnds({ packed, firstWord, endWord }: MoveEndsTask): MovedEnds | null {
  const transcript = unpackRow(packed);
  if (endWord > transcript.words.length) return null;
  const first = transcript.sentences.find((sentence) => sentence.endWord > firstWord)!;
  const last = transcript.sentences.findLast((sentence) => sentence.firstWord < endWord)!;
  return {
    ...spanOfWords(transcript.words, firstWord, endWord),
    firstLine: wordsText(transcript.words, firstWord, Math.min(endWord, first.endWord)),
    lastLine: wordsText(transcript.words, Math.max(firstWord, last.firstWord), endWord),
  };
}

export interface CaptionsTask extends OnTranscript, WordRange {
  readonly startMs: number;
  readonly format: 'subrip' | 'webvtt';
  /** Other texts for the captions, in their order. */
  readonly texts?: readonly string[];
}

export function captionsOf({ packed, firstWord, endWord, startMs, format, texts }: CaptionsTask): string {
  const cues = captionCues(unpackRow(packed), firstWord, endWord, startMs).map((cue, i) => ({ ...cue, text: texts?.[i] ?? cue.text }));
  return format === 'subrip' ? writeSubRip(cues, 'leave-out') : writeWebVtt(cues);
}

export interface CutTask extends OnTranscript {
  readonly runs: readonly WordRun[];
}

/** What is played of some runs of words, and what is read meanwhile. */
export interface CutOfWords {
  readonly cuts: readonly Span[];
  readonly captions: readonly CutCaption[];
}

export function cutOf({ packed, runs }: CutTask): CutOfWords {
  const transcript = unpackRow(packed);
  return { cuts: cutListOf(transcript.words, runs), captions: captionsOfCut(transcript, runs) };
}

export interface TranslationUnitsTask extends OnTranscript, WordRange {
  readonly startMs: number;
  readonly copy: Copy;
  readonly limits: CopyLimits;
}

export function translationUnitsOf({ packed, firstWord, endWord, startMs, copy, limits }: TranslationUnitsTask): TextUnit[] {
  return unitsOf(copy, limits, captionCues(unpackRow(packed), firstWord, endWord, startMs));
}

export interface PassageTask extends OnTranscript, WordRange {}

/** A sentence of a passage, cut to it. */
export interface PassageSentence {
  readonly speaker: string | null;
  readonly startMs: number;
  readonly endMs: number;
  readonly text: string;
}

export interface PassageText {
  readonly sentences: readonly PassageSentence[];
  /** What is said just before and just after, in words. */
  readonly before: string;
  readonly after: string;
}

/** Words around a passage that tell what it is about. */
const WORDS_AROUND = 80;

export function passageOf({ packed, firstWord, endWord }: PassageTask): PassageText {
  const { words, sentences, speakers } = unpackRow(packed);
  return {
    sentences: sentences
      .filter((sentence) => sentence.firstWord < endWord && firstWord < sentence.endWord)
      .map((sentence) => {
        const [from, to] = [Math.max(firstWord, sentence.firstWord), Math.min(endWord, sentence.endWord)];
        return { speaker: speakers[sentence.speaker] ?? null, ...spanOfWords(words, from, to), text: wordsText(words, from, to) };
      }),
    before: wordsText(words, Math.max(0, firstWord - WORDS_AROUND), firstWord),
    after: wordsText(words, endWord, Math.min(words.length, endWord + WORDS_AROUND)),
  };
}

export interface SaidTask extends OnTranscript {
  readonly spans: readonly WordRange[];
}

export function wordsOf({ packed, spans }: SaidTask): string[][] {
  const { words } = unpackRow(packed);
  return spans.map(({ firstWord, endWord }) => words.slice(firstWord, endWord).map((word) => word.text));
}

export type TaskName =
  | 'prepareTranscript'
  | 'checkCopies'
  | 'makeDocument'
  | 'writeDocument'
  | 'drawCard'
  | 'drawFrame'
  | 'passageOf'
  | 'offerTitles'
  | 'search'
  | 'sentenceTextsOf'
  | 'scoreOwnPassage'
  | 'proposeCopyForShort'
  | 'movedEnds'
  | 'captionsOf'
  | 'cutOf'
  | 'translationUnitsOf'
  | 'wordsOf';
