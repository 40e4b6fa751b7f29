import {
  checkCopy,
  type Copy,
  type Finding,
  type Language,
  namesOf,
  normalise,
  saidPassage,
  speaksToProgram,
  type Voice,
  type EditedPassage,
  playedTalk,
} from '@sift-reel/core';
import { languageOfWords } from './answer-language.js';
import { spellerFor } from './spelling.js';
import { type OnTranscript, unpackTalk } from './unpack.js';

export interface CheckCopiesTask extends OnTranscript, EditedPassage {
  readonly copies: readonly Copy[];
  readonly voice: Voice;
  /** What may be named though nobody says it: the recording's title, the client. */
  readonly around: readonly string[];
  /** The talk is English, so its spelling is checked. */
  readonly english: boolean;
  /** Also tell the language of the words: they come from somebody else. */
  readonly tellLanguage?: boolean;
}

export interface CheckedCopies {
  /** What is wrong with each, in their order. */
  readonly findings: readonly (readonly Finding[])[];
  /** The passage speaks to a program that may read it. */
  readonly speaksToProgram: boolean;
  /** Of the words, where it was asked for and is surely not English. */
  readonly language: Language | null;
}

/** Checks words of one passage against what was said and against the client's voice. */
export async function checkCopies({ talk, copies, voice, around, english, tellLanguage = false, ...passage }: CheckCopiesTask): Promise<CheckedCopies> {
  const transcript = unpackTalk(talk);
  const { words, speakers } = transcript;
  const names = namesOf(words, speakers);
  const said = saidPassage(
    playedTalk(transcript, passage).words.flatMap((word) => (word.kind === 'mark' ? [] : [word.text])),
    [...around, ...names],
  );
  const speller = english ? await spellerFor(voice.spelling) : null;
  const known = new Set(words.map((word) => normalise(word.text)));
  return {
    findings: copies.map((copy) => checkCopy(copy, { said, voice, speller, known, names, english })),
    speaksToProgram: speaksToProgram(said),
    language: tellLanguage ? await languageOfWords(copies) : null,
  };
}
