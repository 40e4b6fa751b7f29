import type { Span } from '../time/span.js';
import type { Word } from '../transcript/types.js';

/** Air left before the onset of the first word, in ms, where the pause before it allows. Common practice. */
const LEAD_IN_MS = 120;
/** Air left after the last word, in ms, where the pause after it allows. */
const LEAD_OUT_MS = 180;

/**
 * The span of source time of a run of words, with a little air at both ends: at most half of the pause, so never into the
 * word before or after. At the ends of the list there is no air, since nothing is known of what lies beyond.
 * @param firstWord inside, @param endWord not; 0 <= firstWord < endWord <= words.length
 */
export function spanOfWords(words: readonly Word[], firstWord: number, endWord: number): Span {
  return { startMs: spanStartMs(words, firstWord), endMs: spanEndMs(words, endWord) };
}

/** Start of a span whose first word is `firstWord`. */
export function spanStartMs(words: readonly Word[], firstWord: number): number {
  const onsetMs = words[firstWord]!.startMs;
  if (firstWord === 0) return onsetMs;
  return onsetMs - Math.max(0, Math.min(LEAD_IN_MS, Math.floor((onsetMs - words[firstWord - 1]!.endMs) / 2)));
}

/** End of a span whose last word is the one before `endWord`. */
export function spanEndMs(words: readonly Word[], endWord: number): number {
  const offsetMs = words[endWord - 1]!.endMs;
  if (endWord === words.length) return offsetMs;
  return offsetMs + Math.max(0, Math.min(LEAD_OUT_MS, Math.floor((words[endWord]!.startMs - offsetMs) / 2)));
}
