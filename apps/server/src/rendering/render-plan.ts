import { createHash } from 'node:crypto';
import type { CardStyle, CutCaption, FrameRate, GroundTexts, Shape, Span } from '@sift-reel/core';

/** A picture of a shape, or the sound alone. */
export const RENDER_SHAPES = ['vertical', 'square', 'portrait', 'wide', 'sound'] as const;
export type RenderShape = Shape | 'sound';

/** All that a rendered file depends on: fixed when it is asked for, so what is changed afterwards makes another file. */
export interface RenderPlan {
  /** Name inside the media folder. */
  readonly source: string;
  /** True where the source has a picture, which then lies on the ground. */
  readonly pictured: boolean;
  readonly shape: RenderShape;
  /** Frames a second of the file: the source's own, or 30. */
  readonly rate: FrameRate;
  readonly cuts: readonly Span[];
  readonly captions: readonly CutCaption[];
  /** What stands on the ground; null beneath a picture. */
  readonly ground: GroundTexts | null;
  readonly style: CardStyle;
  readonly loudness: Loudness;
}

export interface Loudness {
  /** Integrated, LUFS (EBU R 128, ITU-R BS.1770). */
  readonly integrated: number;
  /** True peak, dBTP. */
  readonly peak: number;
}

/** What players even out to. Common practice. */
export const PLAYED_LOUDNESS: Loudness = { integrated: -14, peak: -1 };

/** Changes with everything that makes another file of the same plan. */
const MANNER = 1;

/** The address of a file by its content: the same inputs and programs make the same one. @param program that encodes, with its version */
export function keyOf(plan: RenderPlan, program: string): string {
  return createHash('sha256')
    .update(JSON.stringify([MANNER, program, plan]))
    .digest('hex');
}
