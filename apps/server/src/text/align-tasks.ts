import { gunzipSync, gzipSync } from 'node:zlib';
import {
  draftTranscript,
  type HeardWord,
  type Likeness,
  type PackedTranscript,
  retime,
  type SaidLine,
  type Span,
  spanOfWords,
  timeText,
  type WordRange,
} from '@sift-reel/core';
import { preparedOf, type PreparedTranscript, type ReadFacts } from './prepare-task.js';
import { type OnTranscript, unpackRow, unpackTalk } from './unpack.js';

/** What was heard in a recording: the gzipped JSON of words in order. */
interface OnHeard {
  readonly heard: Uint8Array;
  /** Of the recording, in ms. */
  readonly lengthMs: number;
}

const unzip = <T>(bytes: Uint8Array): T => JSON.parse(gunzipSync(bytes).toString('utf8')) as T;

export type TimeTextTask = OnHeard & Pick<ReadFacts, 'format' | 'encoding'> & { readonly said: Uint8Array };

/** Text without times, at the times at which it was heard. */
export function timeSaid({ said, heard, lengthMs, format, encoding }: TimeTextTask): PreparedTranscript & Likeness {
  const { transcript, share, used } = timeText(unzip<SaidLine[]>(said), unzip<HeardWord[]>(heard), lengthMs);
  return { ...preparedOf(transcript, { format, encoding, repairs: [] }), share, used };
}

/** A rough transcript of what was heard, or null where nothing was. */
export function draftHeard({ heard, lengthMs }: OnHeard): PreparedTranscript | null {
  const words = unzip<HeardWord[]>(heard);
  return words.length === 0 ? null : preparedOf(draftTranscript(words, lengthMs), { format: 'draft', encoding: 'utf-8', repairs: [] });
}

export type RetimeTask = OnHeard & { readonly packed: Uint8Array };

/** The same transcript at the times at which it was heard. */
export function retimeTranscript({ packed, heard, lengthMs }: RetimeTask): { readonly packed: Uint8Array; readonly durationMs: number } & Likeness {
  const timed = retime(unzip<PackedTranscript>(packed), unzip<HeardWord[]>(heard), lengthMs);
  return { packed: gzipSync(JSON.stringify(timed.packed)), durationMs: timed.packed.durationMs, share: timed.share, used: timed.used };
}

/** Where runs of words begin and end. */
export function spansOfRanges({ talk, ranges }: OnTranscript & { readonly ranges: readonly WordRange[] }): Span[] {
  const { words } = unpackTalk(talk);
  return ranges.map(({ firstWord, endWord }) => spanOfWords(words, firstWord, endWord));
}

export type TalkTask = { readonly packed: Uint8Array } | { readonly said: Uint8Array };

/** The words that are said, and the language where it is not English. */
export async function talkToHear(task: TalkTask): Promise<{ readonly words: string[]; readonly language: string | null }> {
  const words =
    'packed' in task
      ? unpackRow(task.packed).words
      : unzip<SaidLine[]>(task.said)
          .flatMap(({ text }) => text.split(' '))
          .map((text) => ({ text, kind: 'word' as const, speaker: -1, startMs: 0, endMs: 1 }));
  const { findLanguage } = await import('@sift-reel/core/language'); // it takes 60 MB, and most threads never ask
  return { words: words.filter(({ kind }) => kind === 'word').map(({ text }) => text), language: findLanguage(words)?.name ?? null };
}
