import { createHash } from 'node:crypto';
import { isDeepStrictEqual } from 'node:util';
import type { CardStyle, CutCaption, EditedPassage, FrameRate, GroundTexts, Shape, Span } from '@sift-reel/core';

/** A picture of a shape, or the sound alone. */
export const RENDER_SHAPES = ['vertical', 'square', 'portrait', 'wide', 'sound'] as const;
export type RenderShape = Shape | 'sound';

/** What a producer decides of a file: what is played, where from, and how it looks and sounds. */
export interface RenderInputs {
  /** Name inside the media folder. */
  readonly source: string;
  /** True where the source has a picture, which then lies on the ground. */
  readonly pictured: boolean;
  readonly shape: RenderShape;
  /** Which sound track, where it is not the first; null for a picture without sound. */
  readonly track?: number | null;
  /** Frames a second of the file: the source's own, or 30. */
  readonly rate: FrameRate;
  readonly passage: EditedPassage;
  /** What stands on the ground; null beneath a picture. */
  readonly ground: GroundTexts | null;
  readonly style: CardStyle;
  readonly loudness: Loudness;
}

/** All that a rendered file depends on: fixed when it is asked for, so what is changed afterwards makes another file. */
export interface RenderPlan extends RenderInputs {
  readonly cuts: readonly Span[];
  readonly captions: readonly CutCaption[];
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
const MANNER = 3;

/** True where a file would be made of the same today: cuts and captions follow from the rest. */
export function isMadeOf({ cuts: _, captions: __, ...made }: RenderPlan, inputs: RenderInputs): boolean {
  return isDeepStrictEqual(made, inputs);
}

/** The address of a file by its content: the same inputs and programs make the same one. @param program that encodes, with its version */
export function keyOf(plan: RenderPlan, program: string): string {
  return createHash('sha256')
    .update(JSON.stringify([MANNER, program, plan]))
    .digest('hex');
}
