import type { Span } from '../time/span.js';

/** `word` is spoken; `mark` is what is heard but not said: "[laughter]", "(applause)", "♪". */
export type WordKind = 'word' | 'mark';

/** One spoken word with its punctuation as written, or one mark. Words are in order and never overlap. */
export interface Word extends Span {
  readonly text: string;
  readonly kind: WordKind;
  /** Index into `Transcript.speakers`, or -1 when nobody is named. */
  readonly speaker: number;
}

/** A run of words that belong together: `firstWord` is inside, `endWord` is not. One speaker, at least one word. */
export interface Sentence extends Span {
  readonly firstWord: number;
  readonly endWord: number;
  readonly speaker: number;
}

/** Where the times of words come from: the file itself, spread over the cue by the length of the words, or heard in the sound. */
export const WORD_TIMES = ['given', 'spread', 'heard'] as const;
export type WordTimes = (typeof WORD_TIMES)[number];

/** How sentence ends were found: as written, restored from pauses, turns and parts of speech, or some of each. */
export type SentenceEnds = 'written' | 'restored' | 'mixed';

export interface Transcript {
  readonly words: readonly Word[];
  readonly sentences: readonly Sentence[];
  readonly speakers: readonly string[];
  /** End of the last word, or of the recording where that is known. */
  readonly durationMs: number;
  readonly wordTimes: WordTimes;
  readonly sentenceEnds: SentenceEnds;
}

export const TRANSCRIPT_FORMATS = ['webvtt', 'subrip', 'podcast-json', 'ttml', 'lrc', 'stamped-text', 'docx', 'odt', 'html', 'plain-text', 'draft'] as const;
export type TranscriptFormat = (typeof TRANSCRIPT_FORMATS)[number];
/** Formats that a whole transcript is written in, too. */
export const WRITTEN_FORMATS = ['webvtt', 'subrip', 'podcast-json', 'stamped-text'] as const satisfies readonly TranscriptFormat[];
export type WrittenFormat = (typeof WRITTEN_FORMATS)[number];

/** A cue as the file has it, before anything is repaired. `line` counts from 1. */
export interface RawCue {
  readonly line: number;
  readonly startMs: number;
  /** null when the format gives no end, or gives one that cannot be meant. */
  readonly endMs: number | null;
  readonly speaker: string | null;
  readonly text: string;
  /** The file says that somebody else begins to speak here, named or not. */
  readonly turn?: boolean;
  /** Times inside the cue: the text from character `at` on starts at `startMs`, and is over at `endMs` where the file says so. */
  readonly stamps?: readonly { readonly at: number; readonly startMs: number; readonly endMs?: number | null }[];
}

type RepairCode =
  | 'unordered'
  | 'overlap'
  | 'empty'
  | 'negative-length'
  | 'endless'
  | 'negative-time'
  | 'repeated-line'
  | 'split-word'
  | 'encoding'
  | 'unreadable-bytes'
  | 'no-header'
  | 'bad-cue-setting'
  | 'missing-end'
  | 'unknown-block';

/** Something in the file that was put right because its meaning was plain. Shown to the producer. */
export interface Repair {
  readonly line: number;
  readonly code: RepairCode;
  readonly detail: string;
}

export type RefusalCode = 'bad-time' | 'not-text' | 'unknown-format' | 'no-cues' | 'bad-json' | 'bad-markup' | 'bad-field' | 'too-long';

/** A transcript file was refused; nothing of it is used. `line` counts from 1. */
export class TranscriptRefusedError extends Error {
  override readonly name = 'TranscriptRefusedError';
  constructor(
    readonly line: number,
    readonly code: RefusalCode,
    readonly detail: string,
    /** Path inside a JSON file, such as `segments[3].startTime`; null elsewhere. */
    readonly field: string | null = null,
  ) {
    super(`line ${line}: ${field === null ? '' : `${field}: `}${detail} (${code})`);
  }
}

/** Words by their index in the transcript: `firstWord` inside, `endWord` not. */
export interface WordRange {
  readonly firstWord: number;
  readonly endWord: number;
}
