import type { MessagePort } from 'node:worker_threads';
import { type Language, type SiftInput, type SiftResult, siftSteps } from '@sift-reel/core';
import { findLanguage } from '@sift-reel/core/language';
import { unpackRow } from '../text/text-tasks.js';

export interface SiftTask extends Omit<SiftInput, 'transcript'> {
  readonly packed: Uint8Array;
  /** Each step is told here as it ends. */
  readonly progress: MessagePort;
}

export interface Sifted {
  readonly result: SiftResult;
  readonly language: Language | null;
}

/** The computation of one sift, in a thread of its own: seconds to minutes. Ended with its thread when nobody wants it any more. */
export default function runSiftTask({ packed, progress, ...input }: SiftTask): Sifted {
  const transcript = unpackRow(packed);
  const language = findLanguage(transcript.words);
  const steps = siftSteps({ ...input, transcript, language });
  for (;;) {
    const step = steps.next();
    if (step.done === true) {
      progress.close();
      return { result: step.value, language };
    }
    progress.postMessage(step.value);
  }
}
