import { FfmpegError } from '../media/run-ffmpeg.js';
import type { MeasuredLoudness } from './ffmpeg-args.js';

/** What is quieter is silence: there is nothing to even out. LUFS; the gate of EBU R 128. */
const SILENCE = -70;

/** The measures of loudnorm's first pass, out of all that ffmpeg said. @returns null where nothing is loud enough to be measured */
export function measuredOf(said: string): MeasuredLoudness | null {
  const json = /\{[^{}]*"input_i"[^{}]*\}/.exec(said)?.[0];
  if (json === undefined) throw new FfmpegError('its loudness could not be measured');
  const measured = JSON.parse(json) as MeasuredLoudness;
  return Number(measured.input_i) > SILENCE ? measured : null;
}
