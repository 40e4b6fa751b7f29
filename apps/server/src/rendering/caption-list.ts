import { playedMs } from '@sift-reel/core';
import type { RenderPlan } from './render-plan.js';

/** ffmpeg's list of pictures with how long each is shown. The names are our own, so they hold no quotes. */
export function captionList(plan: RenderPlan, paths: readonly string[], blank: string): string {
  const shown: [string, number][] = [];
  let at = 0;
  for (const [i, { startMs, endMs }] of plan.captions.entries()) {
    if (startMs > at) shown.push([blank, startMs - at]);
    shown.push([paths[i]!, endMs - Math.max(at, startMs)]);
    at = endMs;
  }
  shown.push([blank, Math.max(1_000, playedMs(plan.cuts) - at)]);
  // The length of the last is not kept unless it is named once more.
  return ['ffconcat version 1.0', ...shown.flatMap(([path, ms]) => [`file '${path}'`, `duration ${(ms / 1_000).toFixed(3)}`]), `file '${blank}'`, ''].join(
    '\n',
  );
}
