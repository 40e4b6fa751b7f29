import { availableParallelism } from 'node:os';
import { defineJobKind } from '../jobs/job-kind.js';

/** Rendering takes whole cores, so as many at once as there are, two at the least. */
const RENDER_QUEUE = { name: 'render', slots: Math.max(2, availableParallelism()), longSlots: 1 } as const;

export const RENDER = defineJobKind({
  name: 'render',
  queue: RENDER_QUEUE,
  attempts: 2,
  backOffMs: () => 2_000,
  lockKey: (renderId) => `render:${renderId}`,
  stages: ['starting', 'drawing', 'measuring', 'rendering', 'checking'],
});

/** Where a run of a job works, inside the folder of rendered files. */
export const workFolder = (renderId: string, attempt: number): string => `${renderId}.${attempt}.work`;
