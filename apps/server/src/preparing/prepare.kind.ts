import { defineJobKind } from '../jobs/job-kind.js';

/** Decoding hours of picture takes all cores there are; a second slot is for what is short. */
const PREPARE_QUEUE = { name: 'prepare', slots: 2, longSlots: 1 } as const;

export const PREPARE = defineJobKind({
  name: 'prepare',
  queue: PREPARE_QUEUE,
  attempts: 2,
  backOffMs: () => 2_000,
  lockKey: (preparationId) => `prepare:${preparationId}`,
  stages: ['looking', 'hearing', 'converting', 'picturing'],
});

/** More than this is a long job, in ms of the recording. */
export const LONG_MS = 20 * 60_000;

/** What a run is still writing, inside the folder of prepared files. */
export const partialName = (preparationId: string, attempt: number, ending: string): string => `${preparationId}.${attempt}.partial.${ending}`;
