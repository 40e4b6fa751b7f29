import type { PackedTranscript } from './pack.js';
import { cleanSpeaker } from './read/cue-text.js';

/** Speakers under other names. */
export interface SpeakerNames {
  /** A name for each speaker, in the transcript's order. Those of one name become one. */
  readonly names: readonly string[];
  /** For what nobody is named for; null leaves it so. */
  readonly unnamed: string | null;
}

/**
 * The same words by speakers of other names: given, corrected, or joined where two come to the same name.
 * @throws RangeError when there are not as many names as speakers, or one is empty
 */
export function renameSpeakers(packed: PackedTranscript, { names, unnamed }: SpeakerNames): PackedTranscript {
  if (names.length !== packed.speakers.length) throw new RangeError(`${names.length} names for ${packed.speakers.length} speakers`);
  const speakers: string[] = [];
  const indexOf = (given: string): number => {
    const name = cleanSpeaker(given);
    if (name === null) throw new RangeError('a speaker without a name');
    const known = speakers.indexOf(name);
    return known >= 0 ? known : speakers.push(name) - 1;
  };
  const moved = names.map(indexOf);
  const turns: number[] = [];
  for (let i = 0; i < packed.turns.length; i += 2) {
    const was = packed.turns[i + 1]!;
    const speaker = was >= 0 ? moved[was]! : unnamed === null ? -1 : indexOf(unnamed);
    if (turns.length === 0 || turns.at(-1) !== speaker) turns.push(packed.turns[i]!, speaker);
  }
  return { ...packed, speakers, turns };
}
