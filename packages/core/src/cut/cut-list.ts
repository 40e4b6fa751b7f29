import type { Span } from '../time/span.js';
import type { Word, WordRange } from '../transcript/types.js';
import { spanEndMs, spanStartMs } from './word-span.js';

/**
 * What of a recording is played, in this order: spans of source time. Spans of one part follow one another; a later part of the
 * recording may stand before an earlier one.
 */
export type CutList = readonly Span[];

/** Words in a row that are played, with the silence that stays at their ends, in ms: where it is not told, a little air. */
export interface PlayedRun extends WordRange {
  readonly leadMs?: number;
  readonly tailMs?: number;
}

/** What stays of a run of words when others are taken out; those may overlap, and reach beyond it. In the order of the words. */
export function keptRuns({ firstWord, endWord }: WordRange, removed: readonly WordRange[]): WordRange[] {
  const kept: WordRange[] = [];
  let at = firstWord;
  for (const one of [...removed].sort((a, b) => a.firstWord - b.firstWord)) {
    if (Math.min(one.firstWord, endWord) > at) kept.push({ firstWord: at, endWord: Math.min(one.firstWord, endWord) });
    at = Math.max(at, one.endWord);
  }
  if (at < endWord) kept.push({ firstWord: at, endWord });
  return kept;
}

/**
 * The cut list of parts that are said, in their order. Each run has a little air at both ends, at most half of the pause beside
 * it, so no cut falls into a word. What lies side by side is one span.
 */
export function cutListOf(words: readonly Word[], runs: readonly PlayedRun[]): Span[] {
  const spans: Span[] = [];
  for (const run of runs) {
    const span = spanOfRun(words, run);
    const last = spans.at(-1);
    if (last?.endMs === span.startMs) spans[spans.length - 1] = { startMs: last.startMs, endMs: span.endMs };
    else spans.push(span);
  }
  return spans;
}

/** The span of source time of a run: never into the word before it or after it. */
export function spanOfRun(words: readonly Word[], { firstWord, endWord, leadMs, tailMs }: PlayedRun): Span {
  const [first, last] = [words[firstWord]!, words[endWord - 1]!];
  return {
    startMs: leadMs === undefined ? spanStartMs(words, firstWord) : Math.max(words[firstWord - 1]?.endMs ?? 0, first.startMs - leadMs),
    endMs: tailMs === undefined ? spanEndMs(words, endWord) : Math.min(words[endWord]?.startMs ?? last.endMs, last.endMs + tailMs),
  };
}

/** Length of what is played, in ms. */
export const playedMs = (cuts: CutList): number => cuts.reduce((sum, { startMs, endMs }) => sum + endMs - startMs, 0);

/** The place in the source that is heard after so much was played; the very end for what lies beyond it. */
export function sourceAt(cuts: CutList, played: number): number {
  let left = played;
  for (const { startMs, endMs } of cuts) {
    if (left < endMs - startMs) return startMs + left;
    left -= endMs - startMs;
  }
  return cuts.at(-1)?.endMs ?? 0;
}

/** How much was played when a place of the source is heard first; null where it is cut out. */
export function playedAt(cuts: CutList, sourceMs: number): number | null {
  let played = 0;
  for (const { startMs, endMs } of cuts) {
    if (sourceMs >= startMs && sourceMs < endMs) return played + sourceMs - startMs;
    played += endMs - startMs;
  }
  return null;
}
