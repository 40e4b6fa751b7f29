/** What a voice does over a recording, in steps of `VOICE_STEP_MS`: how loud, and how high. */
export interface VoiceTrack {
  /** Root mean square of each step in dB below full scale, -96 to 0. A sine at full scale is -3. */
  readonly levels: Int8Array;
  /** Quarters of a semitone above 50 Hz, from 1; 0 where nothing is voiced. See `pitchCode` and `semitonesOf`. */
  readonly pitches: Uint8Array;
}

export const VOICE_STEP_MS = 40;
const BASE_HZ = 50;
const PARTS = 4;

/** A pitch as it is kept. @param hz 0 for unvoiced */
export function pitchCode(hz: number): number {
  return hz <= BASE_HZ ? 0 : Math.min(255, 1 + Math.round(12 * PARTS * Math.log2(hz / BASE_HZ)));
}

/** Semitones above 50 Hz of a kept pitch. @param code 1 to 255 */
export const semitonesOf = (code: number): number => (code - 1) / PARTS;
