import { defineJobKind } from '../jobs/job-kind.js';

/** A recogniser takes a core for as long as it listens. */
const ALIGN_QUEUE = { name: 'align', slots: 2, longSlots: 1 } as const;

export const ALIGN = defineJobKind({
  name: 'align',
  queue: ALIGN_QUEUE,
  attempts: 3,
  backOffMs: (faults) => 2_000 * faults,
  lockKey: (alignmentId) => `align:${alignmentId}`,
  stages: ['reading', 'hearing-words', 'placing'],
});

/** More than this is a long job, in ms of the recording. */
export const LONG_MS = 20 * 60_000;

/** What a run is still writing, inside the folder of alignments. */
export const workFolder = (alignmentId: string, attempt: number): string => `${alignmentId}.${attempt}.work`;
