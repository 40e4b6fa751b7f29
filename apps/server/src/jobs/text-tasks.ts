import { gunzipSync, gzipSync } from 'node:zlib';
import {
  bestAround,
  type Copy,
  type CopyLimits,
  type PackedTranscript,
  packTranscript,
  proposeCopy,
  readTranscript,
  type Candidate,
  scorePassage,
  type SearchHit,
  searchTranscript,
  type SiftInput,
  type Vectors,
  type WordRange,
  type Repair,
  type Transcript,
  type TranscriptFormat,
  TranscriptRefusedError,
  unpackTranscript,
} from '@sift-reel/core';

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
}

export type PrepareOutcome =
  | { readonly kind: 'prepared'; readonly transcript: PreparedTranscript }
  | { readonly kind: 'refused'; readonly line: number; readonly field: string | null; readonly code: string; readonly detail: string };

/** A list of repairs longer than this is cut; the count stays whole. */
const MOST_REPAIRS = 1_000;

/** Reads a transcript file. Runs in a thread of its own: 200,000 cues take seconds. */
export function prepareTranscript({ bytes }: { readonly bytes: Uint8Array }): PrepareOutcome {
  try {
    const { transcript, format, encoding, repairs } = readTranscript(bytes);
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
      },
    };
  } catch (error) {
    if (error instanceof TranscriptRefusedError) return { kind: 'refused', line: error.line, field: error.field, code: error.code, detail: error.detail };
    throw error;
  }
}

export function unpackRow(packed: Uint8Array): Transcript {
  return unpackTranscript(JSON.parse(gunzipSync(packed).toString('utf8')) as PackedTranscript);
}

export interface SearchTask {
  readonly packed: Uint8Array;
  readonly query: string;
  readonly vectors: { readonly sentences: Vectors; readonly query: Vectors } | null;
}

export function search({ packed, query, vectors }: SearchTask): SearchHit[] {
  return searchTranscript(unpackRow(packed), query, vectors);
}

export interface ScorePassageTask extends Omit<SiftInput, 'transcript'>, WordRange {
  readonly packed: Uint8Array;
  /** The best passage that holds the words, in place of exactly those words. */
  readonly around: boolean;
}

export function scoreOwnPassage({ packed, firstWord, endWord, around, ...rest }: ScorePassageTask): Candidate {
  const input = { ...rest, transcript: unpackRow(packed) };
  return (around ? bestAround : scorePassage)(input, { firstWord, endWord });
}

export interface ProposeCopyTask {
  readonly packed: Uint8Array;
  readonly firstWord: number;
  readonly endWord: number;
  readonly clientTags: readonly string[];
  readonly limits: CopyLimits;
}

export function proposeCopyForShort({ packed, firstWord, endWord, clientTags, limits }: ProposeCopyTask): Copy {
  return proposeCopy(unpackRow(packed), firstWord, endWord, clientTags, limits);
}
