import { availableParallelism } from 'node:os';
import { defineJobKind } from '../jobs/job-kind.js';

/** The first post of the short that waits to go out. */
const POSTED_AT = `SELECT min(p.at) FROM renders r JOIN posts p ON p.short_id = r.short_id WHERE r.id = jobs.subject_id AND p.state IN ('planned', 'waiting')`;

/** Rendering takes whole cores, so as many at once as there are, two at the least. */
const RENDER_QUEUE = { name: 'render', slots: Math.max(2, availableParallelism()), longSlots: 1, neededAt: POSTED_AT } as const;

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
