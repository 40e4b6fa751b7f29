import type { FrameRate } from './frames.js';

/** Whole frames that a second of timecode counts: 30 for 30000/1001. */
const nominal = ({ numerator, denominator }: FrameRate): number => Math.round(numerator / denominator);

/** Only of rates that fall short of a multiple of 30 numbers are dropped, so that the clock keeps up (SMPTE ST 12-1). */
export const canDrop = (rate: FrameRate): boolean => rate.denominator === 1_001 && nominal(rate) % 30 === 0;

/** Numbers left out at the start of each minute but every tenth: 2 at 29.97, 4 at 59.94. */
const dropped = (rate: FrameRate): number => nominal(rate) / 15;

/**
 * Timecode of a frame, `hh:mm:ss:ff`, or `hh:mm:ss;ff` where numbers are dropped (SMPTE ST 12-1).
 * @param frame from 0; a day and more goes on counting hours
 */
export function formatSmpte(frame: number, rate: FrameRate, drop: boolean): string {
  const fps = nominal(rate);
  let number = frame;
  if (drop && canDrop(rate)) {
    const inMinute = fps * 60 - dropped(rate);
    const inTen = inMinute * 10 + dropped(rate);
    const [tens, rest] = [Math.floor(frame / inTen), frame % inTen];
    // The first minute of ten drops nothing, so it is longer.
    number += dropped(rate) * (tens * 9 + (rest < fps * 60 ? 0 : Math.floor((rest - dropped(rate)) / inMinute)));
  }
  const two = (value: number): string => String(value).padStart(2, '0');
  const seconds = Math.floor(number / fps);
  const clock = [Math.floor(seconds / 3_600), Math.floor(seconds / 60) % 60, seconds % 60].map(two).join(':');
  return `${clock}${drop && canDrop(rate) ? ';' : ':'}${two(number % fps)}`;
}

/**
 * The frame of a timecode. A `;` or `.` before the frames says that numbers are dropped.
 * @returns null when it is none at this rate: a field too large, or a number that is dropped
 */
export function parseSmpte(text: string, rate: FrameRate): number | null {
  const found = /^(\d{2,}):([0-5]\d):([0-5]\d)([:;.])(\d{2,3})$/.exec(text);
  if (found === null) return null;
  const fps = nominal(rate);
  const [hours, minutes, seconds, frames] = [found[1], found[2], found[3], found[5]].map(Number) as [number, number, number, number];
  if (frames >= fps) return null;
  const number = ((hours * 60 + minutes) * 60 + seconds) * fps + frames;
  if (found[4] === ':') return number;
  if (!canDrop(rate) || (seconds === 0 && frames < dropped(rate) && minutes % 10 !== 0)) return null;
  const whole = hours * 60 + minutes;
  return number - dropped(rate) * (whole - Math.floor(whole / 10));
}
