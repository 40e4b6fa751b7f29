import {
  captionsOfCut,
  type CardStyle,
  type Copy,
  type CopyLimits,
  type CutCaption,
  cutListOf,
  drawCaption,
  drawGround,
  type EditedPassage,
  editProblem,
  type EditProblem,
  type GroundTexts,
  playedMs,
  playedRuns,
  proposeTightening as proposed,
  type Shape,
  type Span,
  type TextUnit,
  type Tightening,
  type TightenOptions,
  unitsOf,
  type WordTimes,
  writeSubRip,
  writeWebVtt,
  SHORT_LINE,
} from '@sift-reel/core';
import { typefaceOf } from './typefaces.js';
import { type OnTranscript, unpackTalk } from './unpack.js';

/** A short's passage of a transcript. */
type OnPassage = OnTranscript & EditedPassage;

export type CaptionsTask = OnPassage & {
  readonly format: 'subrip' | 'webvtt';
  /** Other texts for the captions, in their order. */
  readonly texts?: readonly string[];
};

export function captionsOf({ talk, format, texts, ...passage }: CaptionsTask): string {
  const cues = captionsOfCut(unpackTalk(talk), passage).map((cue, i) => ({ ...cue, text: texts?.[i] ?? cue.text }));
  return format === 'subrip' ? writeSubRip(cues, 'leave-out') : writeWebVtt(cues);
}

export type CutTask = OnPassage & {
  /** What its captions are drawn in, with the other texts of the picture; null where nothing is drawn. */
  readonly drawn: { readonly typeface: CardStyle['typeface']; readonly texts: readonly string[] } | null;
};

/** What is played of a passage, and what is read meanwhile on its picture. */
export interface CutOfWords {
  readonly cuts: readonly Span[];
  readonly captions: readonly CutCaption[];
  /** Letters that cannot be drawn. */
  readonly lacking: readonly string[];
}

export async function cutOf({ talk, drawn, ...passage }: CutTask): Promise<CutOfWords> {
  const transcript = unpackTalk(talk);
  const captions = captionsOfCut(transcript, passage, { longestLine: SHORT_LINE });
  return {
    cuts: cutListOf(transcript.words, playedRuns(transcript.words, passage)),
    captions,
    lacking: drawn === null ? [] : (await typefaceOf(drawn.typeface)).lacks([...captions.map(({ text }) => text), ...drawn.texts].join(' ')),
  };
}

export interface CutListsTask extends OnTranscript {
  readonly passages: readonly EditedPassage[];
}

export function cutLists({ talk, passages }: CutListsTask): Span[][] {
  const { words } = unpackTalk(talk);
  return passages.map((passage) => cutListOf(words, playedRuns(words, passage)));
}

export type CheckEditTask = OnPassage;

/** How long an edited passage plays; or why it cannot be played. */
export type CheckedEdit = { readonly problem: null; readonly playedMs: number } | { readonly problem: EditProblem };

export function checkEdit({ talk, ...passage }: CheckEditTask): CheckedEdit {
  const { words } = unpackTalk(talk);
  if (passage.endWord > words.length) return { problem: { field: 'endWord', detail: `is beyond the ${words.length} words` } };
  const problem = editProblem(words, passage);
  return problem === null ? { problem, playedMs: playedMs(cutListOf(words, playedRuns(words, passage))) } : { problem };
}

export type TighteningTask = OnPassage & { readonly options: TightenOptions };

export function proposeTightening({ talk, options, ...passage }: TighteningTask): Tightening[] {
  return proposed(unpackTalk(talk), passage, options);
}

export interface TalkAroundTask extends OnPassage {
  /** How many words before and after the passage. */
  readonly around: number;
}

/** A word of the recording, in source time. */
export interface SpokenWord {
  readonly text: string;
  readonly startMs: number;
  readonly endMs: number;
  /** Which sentence it belongs to, as a number that changes with it. */
  readonly sentence: number;
  readonly mark: boolean;
}

/** Words in a row, and who says them. */
export interface Talk {
  readonly firstWord: number;
  readonly words: readonly SpokenWord[];
  /** Who speaks from a word on; empty for nobody who is named. */
  readonly turns: readonly { readonly word: number; readonly speaker: string }[];
}

export interface TalkAround {
  /** The passage and what is said around it; then each other part of the edit, with a word more at both ends. */
  readonly talks: readonly Talk[];
  /** Words of the whole recording. */
  readonly wordCount: number;
  readonly wordTimes: WordTimes;
}

export function talkAround({ talk, around, firstWord, endWord, edit }: TalkAroundTask): TalkAround {
  const { words, sentences, speakers, wordTimes } = unpackTalk(talk);
  const talkOf = (from: number, to: number): Talk => {
    const [first, end] = [Math.max(0, from), Math.min(words.length, to)];
    let sentence = sentences.findIndex((one) => one.endWord > first);
    const said = words.slice(first, end).map(({ text, startMs, endMs, kind }, i): SpokenWord => {
      while (sentences[sentence]!.endWord <= first + i) sentence += 1;
      return { text, startMs, endMs, sentence, mark: kind === 'mark' };
    });
    const turns = words
      .slice(first, end)
      .flatMap(({ speaker }, i) => (i > 0 && words[first + i - 1]!.speaker === speaker ? [] : [{ word: first + i, speaker: speakers[speaker] ?? '' }]));
    return { firstWord: first, words: said, turns };
  };
  const parts = [...edit.before, ...edit.after].map((part) => talkOf(part.firstWord - 1, part.endWord + 1));
  return { talks: [talkOf(firstWord - around, endWord + around), ...parts], wordCount: words.length, wordTimes };
}

export type CutFramesTask = OnPassage & {
  readonly shape: Shape;
  readonly style: CardStyle;
  /** What stands on the ground; null beneath a picture. */
  readonly ground: GroundTexts | null;
};

/** What is seen of a passage beside its picture, as SVG. */
export interface CutFrames {
  /** Letters that cannot be drawn. */
  readonly lacking: readonly string[];
  readonly ground: string;
  readonly captions: readonly (CutCaption & { readonly svg: string })[];
}

export async function framesOfCut({ talk, shape, style, ground, ...passage }: CutFramesTask): Promise<CutFrames> {
  const typeface = await typefaceOf(style.typeface);
  const place = ground === null ? 'picture' : 'ground';
  const captions = captionsOfCut(unpackTalk(talk), passage, { longestLine: SHORT_LINE });
  return {
    lacking: typeface.lacks([...captions.map(({ text }) => text), ...(ground === null ? [] : [ground.title, ...ground.credits])].join(' ')),
    ground: drawGround(ground, shape, style, typeface),
    captions: captions.map((caption) => ({
      ...caption,
      svg: drawCaption(caption.text, place, shape, style, typeface),
    })),
  };
}

export type TranslationUnitsTask = OnPassage & {
  readonly copy: Copy;
  readonly limits: CopyLimits;
};

export function translationUnitsOf({ talk, copy, limits, ...passage }: TranslationUnitsTask): TextUnit[] {
  return unitsOf(copy, limits, captionsOfCut(unpackTalk(talk), passage));
}
