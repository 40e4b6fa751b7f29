import { gunzipSync, gzipSync } from 'node:zlib';
import { draftTranscript, type HeardWord, type Likeness, type PackedTranscript, retime, type SaidLine, spanOfWords, timeText } from '@sift-reel/core';
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

/** Where a run of words begins that begins with each word, and where one ends that ends with it, in ms. */
export interface EdgesOfWords {
  readonly starts: Int32Array;
  readonly ends: Int32Array;
}

/** Of all words, so that they can be reckoned before it is known, under a lock, which runs there are. */
export function edgesOfWords({ talk }: OnTranscript): EdgesOfWords {
  const { words } = unpackTalk(talk);
  const spans = words.map((_, i) => spanOfWords(words, i, i + 1));
  return { starts: Int32Array.from(spans, ({ startMs }) => startMs), ends: Int32Array.from(spans, ({ endMs }) => endMs) };
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
