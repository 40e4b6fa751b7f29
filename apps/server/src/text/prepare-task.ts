import { gzipSync } from 'node:zlib';
import { htmlText, isHtml } from './html-text.js';
import { isZip, officeText } from './office-text.js';
import {
  packTranscript,
  readTalk,
  type Repair,
  type Transcript,
  type TranscriptFormat,
  TranscriptRefusedError,
  type UntimedText,
} from '@sift-reel/core/reading';

// A file of its own: the thread for large transcripts loads no more than reading needs.

/** What of a transcript goes into its row. */
export interface PreparedTranscript {
  readonly packed: Uint8Array;
  readonly format: TranscriptFormat;
  readonly encoding: string;
  readonly wordCount: number;
  readonly sentenceCount: number;
  readonly speakers: readonly string[];
  readonly wordTimes: Transcript['wordTimes'];
  readonly sentenceEnds: Transcript['sentenceEnds'];
  readonly durationMs: number;
  readonly repairCount: number;
  readonly repairs: readonly Repair[];
  /** How it begins, as it was understood. */
  readonly excerpt: readonly SaidFirst[];
}

export interface SaidFirst {
  /** Null where nothing says when. */
  readonly startMs: number | null;
  readonly speaker: string | null;
  readonly text: string;
}

/** Text without times: what is kept of it until it was heard. */
export interface UntimedTranscript extends ReadFacts {
  /** The gzipped JSON of what is said, paragraph by paragraph. */
  readonly said: Uint8Array;
  readonly wordCount: number;
  readonly speakers: readonly string[];
  readonly excerpt: readonly SaidFirst[];
}

export type PrepareOutcome =
  | { readonly kind: 'untimed'; readonly text: UntimedTranscript }
  | { readonly kind: 'prepared'; readonly transcript: PreparedTranscript }
  | { readonly kind: 'refused'; readonly line: number; readonly field: string | null; readonly code: string; readonly detail: string };

/** A list of repairs longer than this is cut; the count stays whole. */
const MOST_REPAIRS = 1_000;
/** Of one paragraph, where it is shown. */
const SHOWN_CHARACTERS = 300;

/** Sentences that show how it was understood. */
const SHOWN = 8;

/** What is known of a transcript beside its words. */
export interface ReadFacts {
  readonly format: TranscriptFormat;
  readonly encoding: string;
  readonly repairs: readonly Repair[];
}

/** A transcript as it goes into its row. */
export function preparedOf(transcript: Transcript, { format, encoding, repairs }: ReadFacts): PreparedTranscript {
  return {
    packed: gzipSync(JSON.stringify(packTranscript(transcript))),
    format,
    encoding,
    wordCount: transcript.words.length,
    sentenceCount: transcript.sentences.length,
    speakers: transcript.speakers,
    wordTimes: transcript.wordTimes,
    sentenceEnds: transcript.sentenceEnds,
    durationMs: transcript.durationMs,
    repairCount: repairs.length,
    repairs: repairs.slice(0, MOST_REPAIRS),
    excerpt: transcript.sentences.slice(0, SHOWN).map(({ firstWord, endWord, startMs, speaker }) => ({
      startMs,
      speaker: transcript.speakers[speaker] ?? null,
      text: transcript.words
        .slice(firstWord, endWord)
        .map((word) => word.text)
        .join(' '),
    })),
  };
}

/**
 * Reads a transcript file. Runs in a thread of its own: 200,000 cues take seconds.
 * @param bytes read once: a buffer that can be emptied is, as soon as they are text, so that 60 MB are not held twice while it is read
 */
export async function prepareTranscript({ bytes }: { readonly bytes: Uint8Array }): Promise<PrepareOutcome> {
  try {
    const written = isZip(bytes) ? await officeText(bytes) : isHtml(bytes) ? ({ format: 'html', text: htmlText(bytes) } as const) : null;
    const read = readTalk(written === null ? bytes : new TextEncoder().encode(written.text), { onDecoded: () => letGo(bytes.buffer) });
    if (read.kind === 'untimed') return { kind: 'untimed', text: untimedOf(read, written?.format ?? 'plain-text') };
    const { transcript, format, encoding, repairs } = read;
    return { kind: 'prepared', transcript: preparedOf(transcript, { format: written?.format ?? format, encoding, repairs }) };
  } catch (error) {
    if (error instanceof TranscriptRefusedError) return { kind: 'refused', line: error.line, field: error.field, code: error.code, detail: error.detail };
    throw error;
  }
}

function untimedOf({ said, encoding, repairs }: UntimedText, format: TranscriptFormat): UntimedTranscript {
  return {
    said: gzipSync(JSON.stringify(said)),
    format,
    encoding,
    wordCount: said.reduce((sum, { text }) => sum + text.split(' ').length, 0),
    speakers: [...new Set(said.flatMap(({ speaker }) => speaker ?? []))],
    repairs: repairs.slice(0, MOST_REPAIRS),
    excerpt: said.slice(0, SHOWN).map(({ speaker, text }) => ({ startMs: null, speaker, text: beginningOf(text) })),
  };
}

const beginningOf = (text: string): string => (text.length <= SHOWN_CHARACTERS ? text : `${text.slice(0, text.lastIndexOf(' ', SHOWN_CHARACTERS))} …`);

function letGo(buffer: ArrayBufferLike): void {
  if (buffer instanceof ArrayBuffer && buffer.resizable) buffer.resize(0);
}
