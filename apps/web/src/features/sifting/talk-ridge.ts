import type { Transcript } from '@sift-reel/core';

const STEPS = 240;
/** Height of the liveliest step, of 100: worth, where it is known, may stand higher. */
const HIGHEST = 80;

/** How fast is talked over the recording, in equal steps, 0 to 100: what the seam shows until a sift knows what it is worth. */
export function talkRidge({ words }: Transcript, durationMs: number): number[] {
  if (durationMs <= 0 || words.length === 0) return [];
  const said = new Array<number>(STEPS).fill(0);
  for (const { startMs } of words) said[Math.min(STEPS - 1, Math.floor((startMs / durationMs) * STEPS))]! += 1;
  const most = said.reduce((a, b) => Math.max(a, b), 1);
  return said.map((n) => Math.round((n / most) * HIGHEST));
}
