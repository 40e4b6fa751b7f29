import { gunzipSync } from 'node:zlib';
import { type PackedTranscript, type Transcript, unpackTranscript } from '@sift-reel/core';

/** What every task on a stored transcript is given: the row's bytes. */
export interface OnTranscript {
  readonly packed: Uint8Array;
}

export function unpackRow(packed: Uint8Array): Transcript {
  return unpackTranscript(JSON.parse(gunzipSync(packed).toString('utf8')) as PackedTranscript);
}
