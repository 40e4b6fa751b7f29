import type { Transcript, Word, WordTimes } from '../transcript/types.js';
import { VOICE_STEP_MS } from './voice-track.js';

/** How much the sound may move ends, by where the times come from: those that were spread over a cue are rough, the others are not. */
interface Trust {
  /** How far beyond a word's end its sound is looked for, in ms, at most half of a word. */
  readonly reachMs: number;
  /** Where there is no pause, how far from the border the deepest place is looked for, in ms. 0 leaves the border where it is. */
  readonly dipMs: number;
  /** Where floor and voice lie closer together, in dB, nothing can be told: music, or noise. */
  readonly rangeDb: number;
}
const EXACT: Trust = { reachMs: 160, dipMs: 0, rangeDb: 15 };
const TRUST: Readonly<Record<WordTimes, Trust>> = { given: EXACT, heard: EXACT, spread: { reachMs: 400, dipMs: 160, rangeDb: 9 } };
/** Loud and quiet are told from so much of the recording on both sides, in steps: a room changes, and so does a voice. */
const BLOCK = 125;
const BLOCKS_BESIDE = 2;
const QUIETEST_DB = -96;
/** Nothing is so quiet: where nothing can be told. */
const NOTHING_DB = QUIETEST_DB - 1;
/** Of the levels around, these shares lie below what is called the floor and the voice. */
const FLOOR_SHARE = 0.1;
const VOICE_SHARE = 0.9;
/** A step is quiet up to this share of the way from the floor to the voice, in dB. */
const QUIET_SHARE = 0.35;
/** A closed mouth inside a word ("stop", "act") is quiet, too, but not for so many steps. */
const PAUSE_STEPS = 3;
/** A place is deep if it lies so far below the border, in dB. */
const DIP_DB = 6;

/**
 * The transcript with its words ending where their sound does: between two words the quiet is looked for, near where the times say
 * that the one ends and the other begins. So a cut falls into it, and a pause is as long as it is heard. Words stay in order, none
 * loses or gains more than half of itself and of what lies beside it, and where nothing is quiet the times stay.
 * @param levels of a `VoiceTrack` of the same recording; none beyond its end
 */
export function withHeardEnds(transcript: Transcript, levels: Int8Array): Transcript {
  if (levels.length === 0) return transcript;
  const { words, wordTimes } = transcript;
  const trust = TRUST[wordTimes];
  const quietUpTo = thresholds(levels, trust.rangeDb);
  const out: Word[] = [...words];
  for (let i = 1; i < words.length; i += 1) {
    const between = quietBetween(words[i - 1]!, words[i]!, trust, levels, quietUpTo);
    if (between === null) continue;
    out[i - 1] = { ...out[i - 1]!, endMs: between.fromMs };
    out[i] = { ...out[i]!, startMs: between.toMs };
  }
  const sentences = transcript.sentences.map((one) => ({ ...one, startMs: out[one.firstWord]!.startMs, endMs: out[one.endWord - 1]!.endMs }));
  return { ...transcript, words: out, sentences };
}

interface Quiet {
  readonly fromMs: number;
  readonly toMs: number;
}

/** The quiet between two words, inside their middles; null where the times stay as they are. */
function quietBetween(before: Word, after: Word, { reachMs, dipMs }: Trust, levels: Int8Array, quietUpTo: Int8Array): Quiet | null {
  const fromMs = before.endMs - Math.min(reachMs, (before.endMs - before.startMs) >> 1);
  const toMs = after.startMs + Math.min(reachMs, (after.endMs - after.startMs) >> 1);
  const [first, end] = [Math.floor(fromMs / VOICE_STEP_MS), Math.min(levels.length, Math.ceil(toMs / VOICE_STEP_MS))];
  let best: Quiet | null = null;
  let bestWorth = -Infinity;
  for (let step = first; step < end; step += 1) {
    if (!isQuiet(levels, quietUpTo, step)) continue;
    const opens = step;
    while (step + 1 < end && isQuiet(levels, quietUpTo, step + 1)) step += 1;
    if (step + 1 - opens < PAUSE_STEPS) continue;
    const quiet = { fromMs: Math.max(fromMs, opens * VOICE_STEP_MS), toMs: Math.min(toMs, (step + 1) * VOICE_STEP_MS) };
    const worth = worthOf(quiet, before.endMs, after.startMs);
    if (worth > bestWorth) [best, bestWorth] = [quiet, worth];
  }
  return best ?? (dipMs === 0 ? null : dipBetween(before, after, dipMs, levels, quietUpTo));
}

/** How likely a quiet is the one between the words: long, and near to where the times say that it is. */
const worthOf = ({ fromMs, toMs }: Quiet, endMs: number, startMs: number): number => toMs - fromMs - Math.max(0, fromMs - startMs, endMs - toMs) / 2;

/** Where two words run into one another: the deepest place near their border, if there is one. */
function dipBetween(before: Word, after: Word, reachMs: number, levels: Int8Array, quietUpTo: Int8Array): Quiet | null {
  const borderMs = (before.endMs + after.startMs) >> 1;
  const border = Math.floor(borderMs / VOICE_STEP_MS);
  // Words with a pause between them, by their times, are not torn together; where nothing can be told, nothing is moved.
  if (after.startMs - before.endMs > VOICE_STEP_MS || border >= levels.length || quietUpTo[blockOf(border)]! === NOTHING_DB) return null;
  const fromMs = Math.max(borderMs - reachMs, (before.startMs + before.endMs) >> 1);
  const toMs = Math.min(borderMs + reachMs, (after.startMs + after.endMs) >> 1);
  const middleOf = (step: number): number => step * VOICE_STEP_MS + VOICE_STEP_MS / 2;
  let deepest = border;
  for (let step = Math.floor(fromMs / VOICE_STEP_MS); middleOf(step) <= toMs && step < levels.length; step += 1)
    if (middleOf(step) >= fromMs && levels[step]! < levels[deepest]!) deepest = step;
  return levels[border]! - levels[deepest]! < DIP_DB ? null : { fromMs: middleOf(deepest), toMs: middleOf(deepest) };
}

const blockOf = (step: number): number => Math.floor(step / BLOCK);
const isQuiet = (levels: Int8Array, quietUpTo: Int8Array, step: number): boolean => levels[step]! <= quietUpTo[blockOf(step)]!;

/** Up to which level each block of steps is quiet; under every level where nothing can be told. */
function thresholds(levels: Int8Array, leastRangeDb: number): Int8Array {
  const blocks = Math.ceil(levels.length / BLOCK);
  const counted = Array.from({ length: blocks }, (_, k) => {
    const counts = new Uint16Array(1 - QUIETEST_DB);
    for (const level of levels.subarray(k * BLOCK, (k + 1) * BLOCK)) counts[level - QUIETEST_DB]! += 1;
    return counts;
  });
  return Int8Array.from(counted, (_, k) => {
    const around = counted.slice(Math.max(0, k - BLOCKS_BESIDE), k + BLOCKS_BESIDE + 1);
    const [floor, voice] = [levelBelow(around, FLOOR_SHARE), levelBelow(around, VOICE_SHARE)];
    return voice - floor < leastRangeDb ? NOTHING_DB : Math.round(floor + QUIET_SHARE * (voice - floor));
  });
}

/** The level under which a share of the steps lie. */
function levelBelow(counted: readonly Uint16Array[], share: number): number {
  const all = counted.reduce((sum, counts) => sum + counts.reduce((a, b) => a + b, 0), 0);
  let seen = 0;
  for (let at = 0; at < 1 - QUIETEST_DB; at += 1) {
    for (const counts of counted) seen += counts[at]!;
    if (seen > share * all) return at + QUIETEST_DB;
  }
  return 0;
}
