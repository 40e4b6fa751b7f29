import { defineJobKind } from '../jobs/job-kind.js';

/** Asking the writing service for words: it waits more than it works, so it has slots of its own. */
const WRITING_QUEUE = { name: 'writing', slots: 4, longSlots: 1 } as const;

export const WRITING = defineJobKind({
  name: 'writing',
  queue: WRITING_QUEUE,
  attempts: 2,
  backOffMs: () => 1_500,
  lockKey: (writingId) => `writing:${writingId}`,
  stages: ['starting', 'asking', 'checking'],
});
