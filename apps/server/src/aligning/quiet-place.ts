import type { HeardWord } from '@sift-reel/core';

/** The cut lies in the last so many ms of a piece. */
const WITHIN_MS = 40_000;
/** A pause in which nothing is lost. */
const ENOUGH_MS = 250;

/**
 * Where a piece of sound is best left, so that no word is cut: in the last pause that is long enough, else in the longest there is.
 * @param heard words of the piece, in ms of it
 * @returns a place in ms of the piece, greater than 0
 */
export function quietPlace(heard: readonly HeardWord[], lengthMs: number): number {
  const fromMs = Math.max(lengthMs / 2, lengthMs - WITHIN_MS);
  let best = { ms: lengthMs, long: 0 };
  const pauses = heard.map(({ endMs }, i) => ({ startMs: Math.max(fromMs, endMs), endMs: heard[i + 1]?.startMs ?? lengthMs }));
  for (const { startMs, endMs } of pauses) {
    const long = endMs - startMs;
    if (startMs < fromMs || long <= 0) continue;
    const enough = long >= ENOUGH_MS;
    if (enough || long > best.long) best = { ms: Math.round((startMs + endMs) / 2), long: enough ? Infinity : long };
  }
  return Math.max(1, best.ms);
}
