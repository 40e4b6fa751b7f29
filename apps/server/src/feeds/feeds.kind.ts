import { defineJobKind } from '../jobs/job-kind.js';

/** Reading a feed is mostly waiting. */
const FEED_QUEUE = { name: 'feeds', slots: 4, longSlots: 1 } as const;
/** Bringing files in: the line is what is short, and no client's files take all of it. */
const FETCH_QUEUE = { name: 'fetch', slots: 3, longSlots: 2 } as const;

export const FEED = defineJobKind({
  name: 'feed',
  queue: FEED_QUEUE,
  attempts: 2,
  backOffMs: () => 5_000,
  lockKey: (feedId) => `feed:${feedId}`,
  stages: ['reading-feed'],
});

export const FETCH = defineJobKind({
  name: 'fetch',
  queue: FETCH_QUEUE,
  attempts: 6,
  backOffMs: (faults) => Math.min(2_000 * 4 ** faults, 15 * 60_000),
  lockKey: (fetchId) => `fetch:${fetchId}`,
  stages: ['asking', 'fetching', 'looking'],
});

/** More than this is a long job, in bytes. */
export const LONG_BYTES = 400_000_000;
/** No file is larger, wherever it comes from. */
export const LARGEST_FILE = 12 * 1_024 ** 3;

/** What has come of a file so far, inside the folder of what is being fetched. */
export const partName = (fetchId: string): string => `${fetchId}.part`;
