import { semitonesOf, VOICE_STEP_MS, type VoiceTrack } from '../sound/voice-track.js';
import type { Sentence } from '../transcript/types.js';
import { Sums } from './sums.js';
import type { Run } from './types.js';

/** What is heard of a run, beside how the same people speak elsewhere in the recording. */
export interface HeardVoice {
  /** How far the pitch moves: standard deviation in semitones about each speaker's own middle. */
  readonly movesSemitones: number;
  /** How much louder than the speakers' usual level, in dB. */
  readonly liftDb: number;
}

/** A run of which less than this is voiced tells nothing, in steps of the track. */
const ENOUGH_STEPS = 12;
/** Steps this far below the loudest tenth of a recording are pauses and room. */
const SPEECH_BELOW_DB = 28;

/**
 * Measures of the voice for runs of sentences, in constant time for a run. Pitch and level are taken about each speaker's
 * own median, so that a run with two voices is not lively by that alone.
 * @returns a function that gives null where too little is voiced
 */
export function hearVoice(track: VoiceTrack, sentences: readonly Sentence[]): (run: Run) => HeardVoice | null {
  const floor = loudestTenth(track.levels.subarray(stepAt(sentences[0]?.startMs ?? 0), stepAt(sentences.at(-1)?.endMs ?? 0))) - SPEECH_BELOW_DB;
  const usual = usualOf(track, sentences, floor);
  const sums = { voiced: zeros(sentences), pitch: zeros(sentences), pitchSquare: zeros(sentences), level: zeros(sentences) };
  sentences.forEach((sentence, s) => {
    const middle = usual.get(sentence.speaker);
    if (middle === undefined) return;
    forVoiced(track, sentence, floor, (pitch, level) => {
      const [high, loud] = [pitch - middle.pitch, level - middle.level];
      sums.voiced[s]! += 1;
      sums.pitch[s]! += high;
      sums.pitchSquare[s]! += high * high;
      sums.level[s]! += loud;
    });
  });
  const [voiced, pitch, pitchSquare, level] = [sums.voiced, sums.pitch, sums.pitchSquare, sums.level].map((values) => new Sums(values)) as [
    Sums,
    Sums,
    Sums,
    Sums,
  ];
  return (run) => {
    const n = voiced.sum(run);
    if (n < ENOUGH_STEPS) return null;
    return {
      movesSemitones: Math.sqrt(Math.max(0, pitchSquare.sum(run) / n - (pitch.sum(run) / n) ** 2)),
      liftDb: level.sum(run) / n,
    };
  };
}

/** First step that begins at or after a moment. */
const stepAt = (ms: number): number => Math.max(0, Math.ceil(ms / VOICE_STEP_MS));
const zeros = (sentences: readonly Sentence[]): Float64Array => new Float64Array(sentences.length);

/** Calls with semitones and dB for each voiced step that begins in a sentence. */
function forVoiced(track: VoiceTrack, { startMs, endMs }: Sentence, floor: number, act: (pitch: number, level: number) => void): void {
  const end = Math.min(track.levels.length, stepAt(endMs));
  for (let i = stepAt(startMs); i < end; i += 1) {
    if (track.pitches[i]! > 0 && track.levels[i]! >= floor) act(semitonesOf(track.pitches[i]!), track.levels[i]!);
  }
}

function usualOf(track: VoiceTrack, sentences: readonly Sentence[], floor: number): Map<number, { pitch: number; level: number }> {
  const bySpeaker = new Map<number, { pitch: number[]; level: number[] }>();
  for (const sentence of sentences) {
    const of = bySpeaker.get(sentence.speaker) ?? bySpeaker.set(sentence.speaker, { pitch: [], level: [] }).get(sentence.speaker)!;
    forVoiced(track, sentence, floor, (pitch, level) => {
      of.pitch.push(pitch);
      of.level.push(level);
    });
  }
  return new Map(
    Array.from(bySpeaker)
      .filter(([, { pitch }]) => pitch.length > 0)
      .map(([speaker, { pitch, level }]) => [speaker, { pitch: median(pitch), level: median(level) }]),
  );
}

function median(values: readonly number[]): number {
  const sorted = Float64Array.from(values).sort();
  return sorted[sorted.length >> 1]!;
}

/** The level that a tenth of the steps reach. */
function loudestTenth(levels: Int8Array): number {
  return levels.length === 0 ? 0 : levels.slice().sort()[Math.floor(0.9 * (levels.length - 1))]!;
}
