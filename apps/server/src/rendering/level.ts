import { type HeardLoudness, LoudnessReader } from '../media/heard-loudness.js';
import { FfmpegError } from '../media/run-ffmpeg.js';
import type { Loudness } from './render-plan.js';

/** What a first pass measured, as ffmpeg's loudnorm says it. */
export interface EvenMeasures {
  readonly input_i: string;
  readonly input_tp: string;
  readonly input_lra: string;
  readonly input_thresh: string;
  readonly target_offset: string;
}

/**
 * What is done to the sound to make it as loud as asked: nothing, where it is silent; one gain over all of it; the same with
 * a limiter, where its peaks would go too high; or evened out as it goes, where one voice is far louder than another.
 */
export type Level =
  | { readonly kind: 'none' }
  | { readonly kind: 'gain'; readonly db: number }
  | { readonly kind: 'limited'; readonly db: number; readonly peak: number }
  | { readonly kind: 'even'; readonly loudness: Loudness; readonly measured: EvenMeasures };

export const UNTOUCHED = { kind: 'none' } as const satisfies Level;

/** Of what is made, in Hz. */
export const SAMPLE_RATE = 48_000;
/** An encoder's wave goes a little beyond the one it was given. */
const ENCODER_DB = 0.5;
/** LU; what ranges further is evened out. What loudnorm itself takes for its longest range of talk. */
const WIDEST_RANGE = 11;
/** dB that a limiter may take off a peak before one hears it. By judgement. */
const MOST_LIMITED = 8;
/** A limiter that looks at samples alone lets the wave between them through; at twice the rate, little of it. */
const LIMITER_RATE = 2 * SAMPLE_RATE;

/**
 * How sound that was heard so becomes as loud as asked.
 * @param heard null for silence
 * @returns `'even'` where loudnorm has to measure first; a limiter's gain is right when what it takes off is given back
 */
export function levelFor({ integrated, peak }: Loudness, heard: HeardLoudness | null): Exclude<Level, { kind: 'even' }> | 'even' {
  if (heard === null) return UNTOUCHED;
  const db = integrated - heard.integrated;
  const highest = peak - ENCODER_DB;
  const over = heard.truePeak + db - highest;
  if (heard.range > WIDEST_RANGE || over > MOST_LIMITED) return 'even';
  return over <= 0 ? { kind: 'gain', db } : { kind: 'limited', db, peak: highest };
}

/**
 * The filters that do it, for what plays at `SAMPLE_RATE`.
 * @param limiterRate of the limiter, in Hz; to measure what it takes off, the sound's own does as well, and sooner
 */
export function levelFilter(level: Level, limiterRate = LIMITER_RATE): string {
  switch (level.kind) {
    case 'none':
      return 'anull';
    case 'gain':
      return `volume=${level.db.toFixed(2)}dB`;
    case 'limited':
      // It looks 5 ms ahead, and gives back what that delays.
      return `volume=${level.db.toFixed(2)}dB,aresample=${limiterRate},alimiter=limit=${(10 ** (level.peak / 20)).toFixed(6)}:attack=5:release=50:level=false:latency=true,aresample=${SAMPLE_RATE}`;
    case 'even': {
      const { input_i, input_tp, input_lra, input_thresh, target_offset } = level.measured;
      return `${evenFilter(level.loudness)}:measured_I=${input_i}:measured_TP=${input_tp}:measured_LRA=${input_lra}:measured_thresh=${input_thresh}:offset=${target_offset}:linear=true`;
    }
  }
}

export const evenFilter = ({ integrated, peak }: Loudness): string => `loudnorm=I=${integrated}:TP=${peak - ENCODER_DB}:LRA=${WIDEST_RANGE}`;

/** What a measuring said, out of all that ffmpeg said. @returns null where nothing is loud enough to be measured */
export function heardOf(said: string): HeardLoudness | null {
  const reader = new LoudnessReader();
  reader.push(said);
  return reader.finish();
}

/** The measures of loudnorm's first pass, out of all that ffmpeg said. */
export function evenMeasuresOf(said: string): EvenMeasures {
  const json = /\{[^{}]*"input_i"[^{}]*\}/.exec(said)?.[0];
  if (json === undefined) throw new FfmpegError('its loudness could not be measured');
  return JSON.parse(json) as EvenMeasures;
}

/**
 * Measures until it is known what makes the sound as loud as asked: once where a gain does, twice where more is needed.
 * @param measure what ffmpeg says of the sound after a level
 * @param measureEven what loudnorm says of it
 */
export async function findLevel(asked: Loudness, measure: (after: Level) => Promise<string>, measureEven: () => Promise<string>): Promise<Level> {
  const level = levelFor(asked, heardOf(await measure(UNTOUCHED)));
  if (level === 'even') return { kind: 'even', loudness: asked, measured: evenMeasuresOf(await measureEven()) };
  if (level.kind !== 'limited') return level;
  const limited = heardOf(await measure(level));
  return limited === null ? level : { ...level, db: level.db + asked.integrated - limited.integrated };
}
