import type { Copy } from '../types.js';
import { COVER_LINE_LIMIT, type CopyLimits } from '../types.js';

/** One piece of a short that is translated by itself: a field of its words, or a caption. */
export interface TextUnit {
  /** `title`, `description`, `cover-line`, `hashtags`, `keywords`, or `caption-1` and so on. */
  readonly id: string;
  /** As a person would call it. */
  readonly name: string;
  readonly source: string;
  /** Characters that it may have at most; null for no limit. */
  readonly limit: number | null;
  /** When a caption is shown, from the start of the short; null for words. */
  readonly time: { readonly startMs: number; readonly endMs: number } | null;
}

/** Faster than this nobody reads: characters a second. Common practice of subtitling. */
export const READING_SPEED = 17;

interface CaptionLine {
  readonly startMs: number;
  readonly endMs: number;
  readonly text: string;
}

/** A caption may have so many characters in its time. */
export const captionLimit = ({ startMs, endMs }: { readonly startMs: number; readonly endMs: number }): number =>
  Math.max(1, Math.floor((READING_SPEED * (endMs - startMs)) / 1_000));

/** What of a short is translated, in order; fields that are empty are left out. Hashtags and keywords are lists with commas. */
export function unitsOf(copy: Copy, limits: CopyLimits, captions: readonly CaptionLine[]): TextUnit[] {
  const words: TextUnit[] = [
    { id: 'title', name: 'Title', source: copy.title, limit: limits.title, time: null },
    { id: 'cover-line', name: 'Cover line', source: copy.coverLine, limit: COVER_LINE_LIMIT, time: null },
    { id: 'description', name: 'Description', source: copy.description, limit: limits.description, time: null },
    { id: 'hashtags', name: 'Hashtags', source: copy.hashtags.join(', '), limit: null, time: null },
    { id: 'keywords', name: 'Keywords', source: copy.keywords.join(', '), limit: null, time: null },
  ];
  const lines = captions.map((cue, i): TextUnit => {
    const time = { startMs: cue.startMs, endMs: cue.endMs };
    return { id: `caption-${i + 1}`, name: `Caption ${i + 1}`, source: cue.text, limit: captionLimit(time), time };
  });
  return [...words, ...lines].filter(({ source }) => source !== '');
}

/** Texts of a translation by the unit. */
export type Targets = Readonly<Record<string, string>>;

const listed = (text: string | undefined): string[] =>
  (text ?? '')
    .split(/[,;，、]/)
    .map((one) => one.trim().replace(/^#/, ''))
    .filter((one) => one !== '');

/** The words of a short in another language; hashtags lose what no hashtag may hold. */
export function translatedCopy(targets: Targets): Copy {
  return {
    title: targets['title'] ?? '',
    description: targets['description'] ?? '',
    coverLine: targets['cover-line'] ?? '',
    hashtags: listed(targets['hashtags']).map((tag) => tag.replace(/[^\p{L}\p{M}\p{N}_]/gu, '')),
    keywords: listed(targets['keywords']),
  };
}

/** What is heard but not said stands in brackets, between notes, and is set apart: "[laughter]". */
const SOUNDS = /(\[[^\]]*\]|♪[^♪]*♪?)/;

export interface TextRun {
  readonly text: string;
  readonly emphasis: boolean;
}

/** A text as runs that are set alike. */
export const runsOf = (text: string): TextRun[] =>
  text
    .split(SOUNDS)
    .map((part, i) => ({ text: part, emphasis: i % 2 === 1 }))
    .filter((run) => run.text !== '');
