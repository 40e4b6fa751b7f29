import { cutListOf, type Edit, pauseAfter, playedRuns, type Span, type Word, type WordRange } from '@sift-reel/core';
import type { ShortView, SpokenWordView, TalkAroundView } from '../../app/api.js';

/** Words of a recording by their index in the transcript: those that are known here, and holes. */
export type Spoken = readonly Word[];

export function spokenOf({ talks, wordCount }: Pick<TalkAroundView, 'talks' | 'wordCount'>): Spoken {
  const words: Word[] = [];
  words.length = wordCount;
  for (const { firstWord, words: said } of talks)
    for (const [i, { text, startMs, endMs, mark }] of said.entries()) words[firstWord + i] = { text, startMs, endMs, kind: mark ? 'mark' : 'word', speaker: 0 };
  return words;
}

/** True where words can be played: what is said beside them says how much air they may have. */
export const isKnown = (words: Spoken, { firstWord, endWord }: WordRange): boolean =>
  (firstWord === 0 || words[firstWord - 1] !== undefined) && words[firstWord] !== undefined && (endWord === words.length || words[endWord] !== undefined);

/** What is played of a short with an edit: the same reckoning as the server's, so that it plays before it is saved. */
export function cutsOf(words: Spoken, { firstWord, endWord }: Pick<ShortView, 'firstWord' | 'endWord'>, edit: Edit): Span[] {
  // A part that was added just now is not loaded yet.
  const known = (part: WordRange): boolean => isKnown(words, part);
  const parts = { ...edit, before: edit.before.filter(known), after: edit.after.filter(known) };
  return cutListOf(words, playedRuns(words, { firstWord, endWord, edit: parts }));
}

export const isRemoved = (edit: Edit, word: number): boolean => edit.removed.some(({ firstWord, endWord }) => word >= firstWord && word < endWord);

/** How a word reads, with what was corrected. */
export const textOf = (edit: Edit, word: number, said: Pick<SpokenWordView, 'text'>): string =>
  edit.corrected.find((one) => one.word === word)?.text ?? said.text;

/** Shorter pauses are no pause to anybody. */
const SHOWN_PAUSE_MS = 400;

/** The pause after a word, where it is long enough to be shown, and what is left of it. */
export function pauseOf(words: Spoken, edit: Edit, word: number): { readonly ms: number; readonly leftMs: number | null } | null {
  if (words[word + 1] === undefined) return null;
  const ms = pauseAfter(words, word);
  return ms < SHOWN_PAUSE_MS ? null : { ms, leftMs: edit.pauses.find(({ afterWord }) => afterWord === word)?.leftMs ?? null };
}

/** How far from the place that was pointed at a thought may begin, or end, to be meant. */
const SNAP_MS = 350;

/** The word whose start, or end, is meant by a place: that of a sentence where one is near. @returns an index into the transcript */
export function wordNear({ firstWord, words }: TalkAroundView['talks'][number], ms: number, edge: 'start' | 'end'): number {
  const place = (i: number): number => (edge === 'start' ? words[i]!.startMs : words[i]!.endMs);
  const ends = (i: number): boolean => words[edge === 'start' ? i - 1 : i + 1]?.sentence !== words[i]!.sentence;
  let [best, away] = [0, Infinity];
  for (const i of words.keys()) {
    const off = Math.abs(place(i) - ms);
    const from = ends(i) && off <= SNAP_MS ? off - SNAP_MS : off;
    if (from < away) [best, away] = [i, from];
  }
  return firstWord + best;
}
