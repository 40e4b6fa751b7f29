import type { MessagePort } from 'node:worker_threads';
import { type Language, type SiftInput, type SiftResult, siftSteps } from '@sift-reel/core';
import { findLanguage } from '@sift-reel/core/language';
import { unpackRow } from '../text/unpack.js';

export interface SiftTask extends Omit<SiftInput, 'transcript'> {
  readonly packed: Uint8Array;
  /** Each step is told here as it ends. */
  readonly progress: MessagePort;
}

/** What the talk is in, where that is not English. */
export function languageOfTalk({ packed }: Pick<SiftTask, 'packed'>): Language | null {
  return findLanguage(unpackRow(packed).words);
}

/** The computation of one sift, in a thread of its own: seconds to minutes. Ended with its thread when nobody wants it any more. */
export default function runSiftTask({ packed, progress, ...input }: SiftTask): SiftResult {
  const steps = siftSteps({ ...input, transcript: unpackRow(packed) });
  for (;;) {
    const step = steps.next();
    if (step.done === true) {
      progress.close();
      return step.value;
    }
    progress.postMessage(step.value);
  }
}
