import type { SignalName } from '../types.js';

/**
 * What one unit of standing out from the recording's own talk weighs in the raw measure of each signal that is measured by
 * parts. Set by judgement between two aims: more of it ranks a recording's own passages better (`npm run bench -- flat`), and
 * takes weight from what tells a dull recording from a rich one. An opening is read off its first line, which by itself
 * tells little of what stands out.
 */
export const STAND_OUT_SHARES = { opening: 0, standsAlone: 1, substance: 1, charge: 1 } as const;

/** How much each signal counts in the score; they sum to 1. Delivery and Currency: nothing in the marks tells of them. */
export const SIGNAL_WEIGHTS = {
  opening: 0.1,
  standsAlone: 0.19,
  substance: 0.29,
  charge: 0.28,
  delivery: 0.05,
  currency: 0.09,
} as const satisfies Readonly<Record<SignalName, number>>;
