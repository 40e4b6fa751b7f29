import {
  cutListOf,
  type Edit,
  EditListRefusedError,
  editOfFrames,
  editProblem,
  type FrameRate,
  type FrameSpan,
  frameStartMs,
  playedMs,
  playedRuns,
  readEdl,
  readOtio,
  wordsText,
} from '@sift-reel/core';
import { type OnTranscript, unpackTalk } from './unpack.js';

export interface ReadEditListTask extends OnTranscript {
  /** An edit decision list, or OpenTimelineIO JSON: what begins with a brace is the latter. */
  readonly text: string;
  readonly rate: FrameRate;
  /** All that it plays is one passage, whatever its events are called. */
  readonly asOne: boolean;
  /** Where the recording ends, in ms. */
  readonly lengthMs: number;
  /** Other parts that one passage may have, before it and after it. */
  readonly mostParts: number;
}

/** What an edit list plays, in words of the transcript. */
export interface ReadPassage {
  readonly title: string;
  /** Of the source, as it was cut. */
  readonly startMs: number;
  readonly endMs: number;
  readonly spans: number;
  /** Null where it cannot become a short: `problem` says why. */
  readonly found: { readonly firstWord: number; readonly endWord: number; readonly edit: Edit; readonly playedMs: number; readonly said: string } | null;
  /** How far ends lie from where they were cut, at most, in ms. */
  readonly offMs: number;
  readonly problem: EditListProblem | null;
}

/** Why a passage of an edit list cannot become a short: it begins after the recording's end, nobody speaks in it, it has too many parts, or too many words. */
export const EDIT_LIST_PROBLEMS = ['beyond-the-end', 'nothing-said', 'too-many-parts', 'too-long'] as const;
export type EditListProblem = (typeof EDIT_LIST_PROBLEMS)[number];

export type EditListOutcome =
  { readonly refused: { readonly line: number; readonly detail: string } } | { readonly refused: null; readonly passages: ReadPassage[] };

const SAID_WORDS = 24;
/** As many as an edit decision list can number, and one. */
const MOST_SPANS = 1_000;

/** Reads an edit list that was made elsewhere, or here, of a recording. */
export function readEditList({ talk, text, rate, asOne, lengthMs, mostParts }: ReadEditListTask): EditListOutcome {
  const { words } = unpackTalk(talk);
  const read = (): { title: string; spans: readonly FrameSpan[] }[] => {
    const { title, passages } = /^\s*\{/.test(text) ? readOtio(text, rate) : readEdl(text, rate);
    return asOne ? [{ title, spans: passages.flatMap(({ spans }) => spans) }] : passages.map((one) => ({ ...one }));
  };
  try {
    return { refused: null, passages: read().map(({ title, spans }) => passageOf(title, spans)) };
  } catch (error) {
    if (error instanceof EditListRefusedError) return { refused: { line: error.line, detail: error.detail } };
    throw error;
  }

  function passageOf(title: string, spans: readonly FrameSpan[]): ReadPassage {
    const times = spans.flatMap(({ startFrame, endFrame }) => [frameStartMs(startFrame, rate), frameStartMs(endFrame, rate)]);
    const about = { title, startMs: Math.min(...times), endMs: Math.max(...times), spans: spans.length };
    const cannot = (problem: EditListProblem): ReadPassage => ({ ...about, found: null, offMs: 0, problem });
    if (spans.length > MOST_SPANS) return cannot('too-many-parts');
    if (about.startMs >= lengthMs) return cannot('beyond-the-end');
    const found = editOfFrames(words, spans, rate);
    if (found === null) return cannot('nothing-said');
    const { passage, offMs } = found;
    if (Math.max(passage.edit.before.length, passage.edit.after.length) > mostParts) return cannot('too-many-parts');
    if (editProblem(words, passage) !== null) return cannot('too-long');
    const { firstWord, endWord, edit } = passage;
    const runs = playedRuns(words, passage);
    const [first] = runs;
    const said = wordsText(words, first!.firstWord, Math.min(first!.endWord, first!.firstWord + SAID_WORDS));
    return { ...about, found: { firstWord, endWord, edit, playedMs: playedMs(cutListOf(words, runs)), said }, offMs, problem: null };
  }
}
