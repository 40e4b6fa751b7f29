import { gunzipSync } from 'node:zlib';
import { type PackedTranscript, type Transcript, unpackTranscript, withHeardEnds } from '@sift-reel/core';

/** A stored transcript: the row's bytes, and how loud its recording is, where somebody has listened. */
export interface StoredTalk {
  readonly packed: Uint8Array;
  /** Levels of a `VoiceTrack`. */
  readonly levels: Int8Array | null;
}

/** What every task on a stored transcript is given. */
export interface OnTranscript {
  readonly talk: StoredTalk;
}

/** The transcript with its words as they are cut: ending where their sound does, as far as it was heard. */
export function unpackTalk({ packed, levels }: StoredTalk): Transcript {
  const transcript = unpackRow(packed);
  return levels === null ? transcript : withHeardEnds(transcript, levels);
}

/** The transcript as it is stored. */
export function unpackRow(packed: Uint8Array): Transcript {
  return unpackTranscript(JSON.parse(gunzipSync(packed).toString('utf8')) as PackedTranscript);
}
