import type { Word, WordTimes } from '../../transcript/types.js';
import type { PauseOdds } from './pauses.js';

/** What is heard before word `i`, as log-odds of an end there: its pause, and marks such as a laugh, which stay with what they follow. */
export type Heard = (i: number, clause: number) => number;
const NO_END = -6;
const AFTER_MARK = 2;

/** Time between word `i` and the one before, in ms; below 0 where two speak at once. */
export const pauseBefore = (words: readonly Word[], i: number): number => words[i]!.startMs - words[i - 1]!.endMs;

export function heardWith(words: readonly Word[], told: PauseOdds, wordTimes: WordTimes): Heard {
  return (i, clause) => {
    if (words[i]!.kind === 'mark') return NO_END;
    const odds = told(pauseBefore(words, i), clause);
    // Where times are spread over a cue, words inside it seem to follow each other at once, and nothing is known of that.
    return (wordTimes !== 'spread' ? odds : Math.max(0, odds)) + (words[i - 1]!.kind === 'mark' ? AFTER_MARK : 0);
  };
}
