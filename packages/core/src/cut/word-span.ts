import type { Span } from '../time/span.js';
import type { Word } from '../transcript/types.js';

/** Air left before the onset of the first word, in ms, where the pause before it allows. Common practice. */
export const LEAD_IN_MS = 120;
/** Air left after the last word, in ms, where the pause after it allows. */
export const LEAD_OUT_MS = 180;

/**
 * The span of source time of a run of words, with a little air at both ends: at most half of the pause, so never into the
 * word before or after. At the ends of the list there is no air, since nothing is known of what lies beyond.
 * @param firstWord inside, @param endWord not; 0 <= firstWord < endWord <= words.length
 */
export function spanOfWords(words: readonly Word[], firstWord: number, endWord: number): Span {
  const onsetMs = words[firstWord]!.startMs;
  const offsetMs = words[endWord - 1]!.endMs;
  const before = words[firstWord - 1]?.endMs ?? onsetMs;
  const after = words[endWord]?.startMs ?? offsetMs;
  return {
    startMs: onsetMs - Math.max(0, Math.min(LEAD_IN_MS, Math.floor((onsetMs - before) / 2))),
    endMs: offsetMs + Math.max(0, Math.min(LEAD_OUT_MS, Math.floor((after - offsetMs) / 2))),
  };
}
