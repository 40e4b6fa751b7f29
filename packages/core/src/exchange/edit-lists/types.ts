import type { FrameRate, FrameSpan } from '../../cut/frames.js';

/** A passage as an editing program takes it over: its name, and what of the source is played. */
export interface EditPassage {
  readonly title: string;
  readonly spans: readonly FrameSpan[];
}

/** Passages of one source, one after the other. */
export interface EditList {
  readonly title: string;
  /** Name of the source's file, as its owner knows it. */
  readonly source: string;
  /** Length of the source in frames. */
  readonly sourceFrames: number;
  readonly rate: FrameRate;
  /** False for sound alone. */
  readonly pictured: boolean;
  readonly passages: readonly EditPassage[];
}

/** An edit list that cannot be read: where, and why. */
export class EditListRefusedError extends Error {
  override readonly name = 'EditListRefusedError';
  constructor(
    /** From 1; 0 where the whole of it is meant. */
    readonly line: number,
    readonly detail: string,
  ) {
    super(line === 0 ? detail : `line ${line}: ${detail}`);
  }
}
