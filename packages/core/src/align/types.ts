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
}
