import { SIFT_STAGES } from '@sift-reel/core';
import { defineJobKind, type JobSize } from '../jobs/job-kind.js';

/** Scoring: two at once on a worker, one of them at most a long one, so that a recording of ten hours keeps nobody waiting. */
export const SIFT_QUEUE = { name: 'sift', slots: 2, longSlots: 1 } as const;

export const SIFT = defineJobKind({
  name: 'sift',
  queue: SIFT_QUEUE,
  attempts: 2,
  backOffMs: (faults) => 2_000 * 4 ** (faults - 1),
  lockKey: (siftId) => `sift:${siftId}`,
  stages: ['starting', 'reading', 'listening', 'vectors', ...SIFT_STAGES],
});

/** About three hours of talk. */
const LONG_WORDS = 30_000;

export function siftSize(wordCount: number): JobSize {
  return wordCount > LONG_WORDS ? 'long' : 'short';
}
