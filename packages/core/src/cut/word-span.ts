import type { Span } from '../time/span.js';
import type { Word } from '../transcript/types.js';

/** Air left before the onset of the first word, in ms, where the pause before it allows. Common practice. */
export const LEAD_IN_MS = 120;
/** Air left after the last word, in ms, where the pause after it allows. */
export const LEAD_OUT_MS = 180;

/**
 * The span of source time of a run of words, with a little air at both ends: at most half of the pause, so never into the
 * word before or after, and never outside `bounds`.
 * @param firstWord inside, @param endWord not; 0 <= firstWord < endWord <= words.length
 */
export function spanOfWords(words: readonly Word[], firstWord: number, endWord: number, bounds: Span): Span {
  const onsetMs = words[firstWord]!.startMs;
  const offsetMs = words[endWord - 1]!.endMs;
  const before = words[firstWord - 1]?.endMs ?? Math.max(bounds.startMs, onsetMs - 2 * LEAD_IN_MS);
  const after = words[endWord]?.startMs ?? Math.max(offsetMs, Math.min(bounds.endMs, offsetMs + 2 * LEAD_OUT_MS));
  return {
    startMs: Math.max(Math.min(bounds.startMs, onsetMs), onsetMs - Math.max(0, Math.min(LEAD_IN_MS, Math.floor((onsetMs - before) / 2)))),
    endMs: offsetMs + Math.max(0, Math.min(LEAD_OUT_MS, Math.floor((after - offsetMs) / 2))),
  };
}
