import { defineJobKind } from '../jobs/job-kind.js';

/** Sending is mostly waiting for others; what is due first goes first. */
const POST_QUEUE = { name: 'posts', slots: 16, longSlots: 4, neededAt: '(SELECT p.at FROM posts p WHERE p.id = jobs.subject_id)' } as const;

/** One look at a post that is on its way, or whose time comes. When it is looked at again stands with the post, not with the job. */
export const POST = defineJobKind({
  name: 'post',
  queue: POST_QUEUE,
  attempts: 20,
  backOffMs: (faults) => Math.min(500 * 2 ** faults, 60_000),
  lockKey: (postId) => `post:${postId}`,
  stages: ['sending'],
});

/** A file of more than this is a long job, in bytes. */
export const LONG_BYTES = 80_000_000;
/** So long before it is handed over its file is asked for. */
export const FILE_AHEAD_MS = 30 * 60_000;
/** So long before it is handed over it is fixed, and what can be done before is done: the upload. */
export const FIX_AHEAD_MS = 60_000;

export const stopsLock = 'posting-stops';
