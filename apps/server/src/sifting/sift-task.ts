import type { MessagePort } from 'node:worker_threads';
import { type Language, type SiftInput, type SiftResult, siftSteps } from '@sift-reel/core';
import { findLanguage } from '@sift-reel/core/language';
import { type StoredTalk, unpackRow, unpackTalk } from '../text/unpack.js';

export interface SiftTask extends Omit<SiftInput, 'transcript'> {
  readonly talk: StoredTalk;
  /** Each step is told here as it ends. */
  readonly progress: MessagePort;
}

/** What the talk is in, where that is not English. */
export function languageOfTalk({ packed }: { readonly packed: Uint8Array }): Language | null {
  return findLanguage(unpackRow(packed).words);
}

/** The computation of one sift, in a thread of its own: seconds to minutes. Ended with its thread when nobody wants it any more. */
export default function runSiftTask({ talk, progress, ...input }: SiftTask): SiftResult {
  const steps = siftSteps({ ...input, transcript: unpackTalk(talk) });
  for (;;) {
    const step = steps.next();
    if (step.done === true) {
      progress.close();
      return step.value;
    }
    progress.postMessage(step.value);
  }
}
