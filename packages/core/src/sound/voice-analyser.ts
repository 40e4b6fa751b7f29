import { pitchAt, pitchWindow } from './pitch.js';
import { pitchCode, VOICE_STEP_MS, type VoiceTrack } from './voice-track.js';

/** Samples a second that the analyser reads: enough for pitch and loudness of speech, little enough for ten hours. */
export const VOICE_RATE = 8_000;

const STEP = (VOICE_RATE * VOICE_STEP_MS) / 1_000;
const QUIETEST_DB = -96;
/** Below this nobody speaks: no pitch is looked for, in dB below full scale. Common practice for speech that was levelled. */
const SPEECH_FROM_DB = -52;
const FULL_SCALE = 32_768;

/**
 * Listens to a voice piece by piece, so that ten hours never stand in memory: level and pitch of each step of
 * `VOICE_STEP_MS`. The pieces may be cut anywhere.
 */
export class VoiceAnalyser {
  private readonly levels: number[] = [];
  private readonly pitches: number[] = [];
  private held = new Float32Array(0);
  private readonly reach: number;

  constructor() {
    const { window, longest } = pitchWindow(VOICE_RATE);
    this.reach = Math.max(STEP, window + longest);
  }

  /** @param samples 16-bit, one channel, `VOICE_RATE` a second */
  push(samples: Int16Array): void {
    const all = new Float32Array(this.held.length + samples.length);
    all.set(this.held);
    for (let i = 0; i < samples.length; i += 1) all[this.held.length + i] = samples[i]! / FULL_SCALE;
    let from = 0;
    for (; from + this.reach <= all.length; from += STEP) this.step(all, from);
    this.held = all.slice(from);
  }

  /** The track of everything that was pushed; what is left at the end is heard against silence. */
  finish(): VoiceTrack {
    const rest = this.held.length;
    const all = new Float32Array(rest + this.reach);
    all.set(this.held);
    for (let from = 0; from + STEP <= rest; from += STEP) this.step(all, from);
    this.held = new Float32Array(0);
    return { levels: Int8Array.from(this.levels), pitches: Uint8Array.from(this.pitches) };
  }

  private step(samples: Float32Array, from: number): void {
    let square = 0;
    for (let i = from; i < from + STEP; i += 1) square += samples[i]! * samples[i]!;
    const level = Math.max(QUIETEST_DB, Math.round(10 * Math.log10(square / STEP)));
    this.levels.push(level);
    this.pitches.push(level < SPEECH_FROM_DB ? 0 : pitchCode(pitchAt(samples, from, VOICE_RATE)));
  }
}
