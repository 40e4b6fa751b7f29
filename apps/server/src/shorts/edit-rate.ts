import type { FrameRate } from '@sift-reel/core';
import type { Picture } from '../media/probe.js';

/** What programs that edit sound alone count it in. Common practice. */
const SOUND_ALONE_RATE: FrameRate = { numerator: 25, denominator: 1 };

/** Frames a second that edit lists of a recording count in: those of its picture. */
export const editRateOf = ({ picture }: { readonly picture: Picture | null }): FrameRate => picture?.rate ?? SOUND_ALONE_RATE;
