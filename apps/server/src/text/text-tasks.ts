import { gunzipSync, gzipSync } from 'node:zlib';
import {
  bestAround,
  type Copy,
  type CopyRequest,
  type EditedPassage,
  playedRuns,
  playedTalk,
  type PackedTranscript,
  renameSpeakers,
  type Span,
  cutListOf,
  proposeCopy,
  proposeTitlesFor,
  type Candidate,
  scorePassage,
  type SearchHit,
  searchTranscript,
  sentenceTexts,
  type SiftInput,
  spanOfWords,
  type TitleWithText,
  type Vectors,
  type WordRange,
  wordsText,
} from '@sift-reel/core';

import { type OnTranscript, unpackTalk } from './unpack.js';

export { prepareTranscript } from './prepare-task.js';

export { layOutShorts } from './plan-tasks.js';
export { readChapterBytes, readFeedBytes } from './feed-task.js';
export { draftHeard, retimeTranscript, edgesOfWords, talkToHear, timeSaid } from './align-tasks.js';
export { checkCopies } from './check-task.js';

export { captionsOf, checkEdit, cutLists, cutOf, framesOfCut, proposeTightening, talkAround, translationUnitsOf } from './cut-tasks.js';

export { readEditList } from './edit-list-task.js';

export { captionStripOf, drawCard, drawFrame, makeDocument, writeDocument } from './document-tasks.js';

export interface NameVoicesTask {
  readonly packed: Uint8Array;
  readonly names: readonly string[];
  readonly unnamed: string | null;
}

/** The packed transcript with its speakers under other names. */
export function nameVoices({ packed, ...names }: NameVoicesTask): { readonly packed: Uint8Array; readonly speakers: readonly string[] } {
  const renamed = renameSpeakers(JSON.parse(gunzipSync(packed).toString('utf8')) as PackedTranscript, names);
  return { packed: gzipSync(JSON.stringify(renamed)), speakers: renamed.speakers };
}

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

export function search({ talk, query, vectors }: SearchTask): FoundSentence[] {
  const transcript = unpackTalk(talk);
  return searchTranscript(transcript, query, vectors).map(({ sentence, score, by }) => {
    const { firstWord, endWord, startMs, endMs } = transcript.sentences[sentence]!;
    return { score, by, firstWord, endWord, startMs, endMs, text: wordsText(transcript.words, firstWord, endWord) };
  });
}

export type SentenceTextsTask = OnTranscript;

export function sentenceTextsOf({ talk }: SentenceTextsTask): string[] {
  return sentenceTexts(unpackTalk(talk));
}

export interface OwnPassageTask extends OnTranscript, Omit<SiftInput, 'transcript'>, WordRange {
  /** The best passage that holds the words, in place of exactly those words. */
  readonly around: boolean;
}

/** @returns null when the words are not in the transcript */
export function scoreOwnPassage({ talk, firstWord, endWord, around, ...rest }: OwnPassageTask): Candidate | null {
  const input = { ...rest, transcript: unpackTalk(talk) };
  if (endWord > input.transcript.words.length) return null;
  return (around ? bestAround : scorePassage)(input, { firstWord, endWord });
}

export interface ProposeCopyTask extends OnTranscript, CopyRequest {}

export function proposeCopyForShort({ talk, ...request }: ProposeCopyTask): Copy {
  return proposeCopy(unpackTalk(talk), request);
}

/** Titles that are offered at once. */
const MOST_TITLES = 5;

/** A title and the words that it was made of. */
export interface OfferedTitle extends TitleWithText {
  readonly said: string;
}

export function offerTitles({ talk, ...request }: ProposeCopyTask): OfferedTitle[] {
  const transcript = unpackTalk(talk);
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
export function movedEnds({ talk, firstWord, endWord }: MoveEndsTask): MovedEnds | null {
  const transcript = unpackTalk(talk);
  if (endWord > transcript.words.length) return null;
  const first = transcript.sentences.find((sentence) => sentence.endWord > firstWord)!;
  const last = transcript.sentences.findLast((sentence) => sentence.firstWord < endWord)!;
  return {
    ...spanOfWords(transcript.words, firstWord, endWord),
    firstLine: wordsText(transcript.words, firstWord, Math.min(endWord, first.endWord)),
    lastLine: wordsText(transcript.words, Math.max(firstWord, last.firstWord), endWord),
  };
}

export interface PassageTask extends OnTranscript, EditedPassage {}

/** A sentence of a passage, as it is played. */
export interface PassageSentence {
  readonly speaker: string | null;
  readonly startMs: number;
  readonly endMs: number;
  readonly text: string;
}

export interface PassageText {
  /** What of the recording is played. */
  readonly cuts: readonly Span[];
  readonly sentences: readonly PassageSentence[];
  /** What is said just before and just after, in words. */
  readonly before: string;
  readonly after: string;
}

/** Words around a passage that tell what it is about. */
const WORDS_AROUND = 80;

/** What is said in a passage, with the times at which it is played. */
export function passageOf({ talk, ...passage }: PassageTask): PassageText {
  const transcript = unpackTalk(talk);
  const { words, sentences, speakers } = playedTalk(transcript, passage);
  const { firstWord, endWord } = passage;
  return {
    cuts: cutListOf(transcript.words, playedRuns(transcript.words, passage)),
    sentences: sentences.map((sentence) => ({
      speaker: speakers[sentence.speaker] ?? null,
      startMs: sentence.startMs,
      endMs: sentence.endMs,
      text: wordsText(words, sentence.firstWord, sentence.endWord),
    })),
    before: wordsText(transcript.words, Math.max(0, firstWord - WORDS_AROUND), firstWord),
    after: wordsText(transcript.words, endWord, Math.min(transcript.words.length, endWord + WORDS_AROUND)),
  };
}

export interface SaidTask extends OnTranscript {
  readonly passages: readonly EditedPassage[];
}

/** The words that are played of some passages, a list each. */
export function wordsOf({ talk, passages }: SaidTask): string[][] {
  const transcript = unpackTalk(talk);
  return passages.map((passage) => playedTalk(transcript, passage).words.map(({ text }) => text));
}

export type TaskName =
  | 'prepareTranscript'
  | 'nameVoices'
  | 'checkCopies'
  | 'makeDocument'
  | 'writeDocument'
  | 'drawCard'
  | 'drawFrame'
  | 'captionStripOf'
  | 'passageOf'
  | 'offerTitles'
  | 'search'
  | 'sentenceTextsOf'
  | 'scoreOwnPassage'
  | 'proposeCopyForShort'
  | 'movedEnds'
  | 'captionsOf'
  | 'cutOf'
  | 'checkEdit'
  | 'cutLists'
  | 'framesOfCut'
  | 'proposeTightening'
  | 'talkAround'
  | 'translationUnitsOf'
  | 'wordsOf'
  | 'timeSaid'
  | 'draftHeard'
  | 'retimeTranscript'
  | 'edgesOfWords'
  | 'talkToHear'
  | 'layOutShorts'
  | 'readEditList'
  | 'readFeedBytes'
  | 'readChapterBytes';
