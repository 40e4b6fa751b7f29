import type { Word, WordRange } from '../transcript/types.js';
import { keptRuns, type PlayedRun } from './cut-list.js';

/** A pause that is cut down: the one after a word, to so many ms. */
export interface PauseCut {
  readonly afterWord: number;
  readonly leftMs: number;
}

/** How a word reads; its time stays. A text with a space reads as two words, an empty one as part of the word before. */
export interface CorrectedWord {
  readonly word: number;
  readonly text: string;
}

/** What a producer makes of a passage between its ends. Words are indices into the transcript. */
export interface Edit {
  /** Words that are taken out. */
  readonly removed: readonly WordRange[];
  readonly pauses: readonly PauseCut[];
  readonly corrected: readonly CorrectedWord[];
  /** Other parts of the recording that are played before the passage, and after it, in this order. */
  readonly before: readonly WordRange[];
  readonly after: readonly WordRange[];
}

export const NO_EDIT: Edit = { removed: [], pauses: [], corrected: [], before: [], after: [] };

/** A passage with its edit. */
export interface EditedPassage extends WordRange {
  readonly edit: Edit;
}

/** Runs in order, each word once; those that touch are one. */
export function joinedRuns(runs: readonly WordRange[]): WordRange[] {
  const joined: WordRange[] = [];
  for (const { firstWord, endWord } of [...runs].sort((a, b) => a.firstWord - b.firstWord)) {
    const last = joined.at(-1);
    if (last !== undefined && firstWord <= last.endWord) joined[joined.length - 1] = { firstWord: last.firstWord, endWord: Math.max(last.endWord, endWord) };
    else joined.push({ firstWord, endWord });
  }
  return joined;
}

/** The runs without some words. */
export const runsWithout = (runs: readonly WordRange[], gone: WordRange): WordRange[] => joinedRuns(runs).flatMap((run) => keptRuns(run, [gone]));

/** The same edit in its one written form: runs joined, everything in the order of the words, nothing said twice (the later counts). */
export function tidyEdit({ removed, pauses, corrected, before, after }: Edit): Edit {
  const shortened = new Map(pauses.map((one) => [one.afterWord, one]));
  const texts = new Map(corrected.map(({ word, text }) => [word, { word, text: text.trim().replace(/\s+/g, ' ') }]));
  return {
    removed: joinedRuns(removed),
    pauses: [...shortened.values()].sort((a, b) => a.afterWord - b.afterWord),
    corrected: [...texts.values()].sort((a, b) => a.word - b.word),
    before,
    after,
  };
}

/** What is played of a passage, in this order: no run holds a word that is taken out, or a pause that is cut down. */
export function playedRuns(words: readonly Word[], { firstWord, endWord, edit }: EditedPassage): PlayedRun[] {
  const left = new Map(edit.pauses.map(({ afterWord, leftMs }) => [afterWord, leftMs]));
  return [...edit.before, { firstWord, endWord }, ...edit.after].flatMap((part) => keptRuns(part, edit.removed).flatMap((run) => atPauses(words, run, left)));
}

/** A run in pieces, where a pause inside it is longer than is left of it. */
function atPauses(words: readonly Word[], { firstWord, endWord }: WordRange, left: ReadonlyMap<number, number>): PlayedRun[] {
  const pieces: PlayedRun[] = [];
  let piece: PlayedRun = { firstWord, endWord };
  if (left.size > 0)
    for (let i = firstWord; i + 1 < endWord; i += 1) {
      const leftMs = left.get(i);
      if (leftMs === undefined || pauseAfter(words, i) <= leftMs) continue;
      const tailMs = Math.ceil(leftMs / 2);
      pieces.push({ ...piece, endWord: i + 1, tailMs });
      piece = { firstWord: i + 1, endWord, leadMs: leftMs - tailMs };
    }
  return [...pieces, piece];
}

/** Silence between a word and the next, in ms; 0 after the last. */
export const pauseAfter = (words: readonly Pick<Word, 'startMs' | 'endMs'>[], word: number): number =>
  Math.max(0, (words[word + 1]?.startMs ?? 0) - words[word]!.endMs);

/** Words as they read once some are corrected. One that has become part of the word before has an empty text. */
export function correctedWords(words: readonly Word[], corrected: readonly CorrectedWord[]): readonly Word[] {
  if (corrected.length === 0) return words;
  const out = [...words];
  for (const { word, text } of corrected) if (out[word] !== undefined) out[word] = { ...out[word], text };
  return out;
}

/** Other parts hold no more words than this together: some half an hour of talk. A short is none any more beyond it. */
const MOST_PART_WORDS = 5_000;

/** What is wrong with an edit, with the path of the field. */
export interface EditProblem {
  readonly field: string;
  readonly detail: string;
}

/** @param words of the transcript; @returns null where the edit can be played */
export function editProblem(words: readonly Word[], passage: EditedPassage): EditProblem | null {
  const { edit } = passage;
  for (const field of ['removed', 'before', 'after'] as const)
    for (const [i, { firstWord, endWord }] of edit[field].entries())
      if (!(firstWord >= 0 && firstWord < endWord && endWord <= words.length))
        return { field: `${field}.${i}`, detail: `is no run of the ${words.length} words` };
  const parts = [...edit.before, ...edit.after].reduce((sum, { firstWord, endWord }) => sum + endWord - firstWord, 0);
  if (parts > MOST_PART_WORDS) return { field: edit.before.length > 0 ? 'before' : 'after', detail: `holds ${parts} words; ${MOST_PART_WORDS} are the most` };
  for (const [i, { afterWord }] of edit.pauses.entries())
    if (afterWord < 0 || afterWord + 1 >= words.length) return { field: `pauses.${i}.afterWord`, detail: `is no word with another after it` };
  for (const [i, { word }] of edit.corrected.entries())
    if (word < 0 || word >= words.length) return { field: `corrected.${i}.word`, detail: `is none of the ${words.length} words` };
  const texts = correctedWords(words, edit.corrected);
  const said = keptRuns(passage, edit.removed).some((run) => texts.slice(run.firstWord, run.endWord).some((word) => word.kind === 'word' && word.text !== ''));
  return said ? null : { field: 'removed', detail: 'leaves nothing of the passage' };
}
