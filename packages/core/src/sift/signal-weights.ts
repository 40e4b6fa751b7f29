import type { SignalName } from './types.js';

/**
 * How much each signal counts in the score; they sum to 1. By judgement, after those that were fitted before a recording was
 * its own ground; Delivery and Currency were never fitted: nothing in the marks tells of them.
 */
export const SIGNAL_WEIGHTS = {
  opening: 0.1,
  standsAlone: 0.19,
  substance: 0.29,
  charge: 0.28,
  delivery: 0.05,
  currency: 0.09,
} as const satisfies Readonly<Record<SignalName, number>>;
