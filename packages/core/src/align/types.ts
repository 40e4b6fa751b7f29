import type { Span } from '../time/span.js';

/** A word as a recogniser heard it: roughly what, and when. */
export interface HeardWord extends Span {
  readonly text: string;
}

/** Words of a text with the times at which they were heard. */
export interface Aligned {
  /** One for each word of the text, in order, never overlapping. */
  readonly spans: readonly Span[];
  /** Of the words that can be heard, the share that was, from 0 to 1. What was not lies between what was. */
  readonly share: number;
  /**
   * Of the words that were heard, the share that is in the text. A recogniser that expects a text hears it in whatever it is given;
   * where both do not belong together, little of what it heard is in its order.
   */
  readonly used: number;
}

/** Two shares that tell whether a text is that of a sound. */
export type Likeness = Pick<Aligned, 'share' | 'used'>;

/**
 * Below these a text is that of another sound. Of others' talks, spoken by a machine, texts of the right sound had 0.99 and, where only a
 * third of it was written down, 0.29; those of a wrong one at most 0.30 and 0.10 (`bench/align.mjs`).
 */
const LEAST_SHARE = 0.4;
const LEAST_USED = 0.18;

/** Whether a text belongs to the sound it was looked for in. */
export const belongs = ({ share, used }: Likeness): boolean => share >= LEAST_SHARE && used >= LEAST_USED;
