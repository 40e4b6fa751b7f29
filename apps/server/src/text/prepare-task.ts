import { gzipSync } from 'node:zlib';
import { isZip, officeText } from './office-text.js';
import { packTranscript, readTranscript, type Repair, type Transcript, type TranscriptFormat, TranscriptRefusedError } from '@sift-reel/core/reading';

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
  readonly startMs: number;
  readonly speaker: string | null;
  readonly text: string;
}

export type PrepareOutcome =
  | { readonly kind: 'prepared'; readonly transcript: PreparedTranscript }
  | { readonly kind: 'refused'; readonly line: number; readonly field: string | null; readonly code: string; readonly detail: string };

/** A list of repairs longer than this is cut; the count stays whole. */
const MOST_REPAIRS = 1_000;

/** Reads a transcript file. Runs in a thread of its own: 200,000 cues take seconds. */
/** Sentences that show how it was understood. */
const SHOWN = 8;

/** @param bytes read once: a buffer that can be emptied is, as soon as they are text, so that 60 MB are not held twice while it is read */
export async function prepareTranscript({ bytes }: { readonly bytes: Uint8Array }): Promise<PrepareOutcome> {
  try {
    const office = isZip(bytes) ? await officeText(bytes) : null;
    const read = office === null ? bytes : new TextEncoder().encode(office.text);
    const { transcript, format: asText, encoding, repairs } = readTranscript(read, { onDecoded: () => letGo(bytes.buffer) });
    const format = office?.format ?? asText;
    return {
      kind: 'prepared',
      transcript: {
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
      },
    };
  } catch (error) {
    if (error instanceof TranscriptRefusedError) return { kind: 'refused', line: error.line, field: error.field, code: error.code, detail: error.detail };
    throw error;
  }
}

function letGo(buffer: ArrayBufferLike): void {
  if (buffer instanceof ArrayBuffer && buffer.resizable) buffer.resize(0);
}
