import { cutListOf, type WordRun } from '../cut/cut-list.js';
import { spanStartMs } from '../cut/word-span.js';
import type { Transcript } from '../transcript/types.js';
import { captionCues, type CaptionOptions } from '../transcript/write/captions.js';

/** A caption of what is played: times from its start, half-open. */
export interface CutCaption {
  readonly startMs: number;
  readonly endMs: number;
  readonly text: string;
}

/** Captions on a picture are read at a glance, so lines are short: characters. Common practice. */
const SHORT_LINE = 28;

/**
 * Captions of the parts that are played, in played time: none is longer on the screen than its part, and none speaks of what is cut
 * out.
 * @param runs as given to `cutListOf`
 */
export function captionsOfCut(transcript: Transcript, runs: readonly WordRun[], options: CaptionOptions = {}): CutCaption[] {
  let playedMs = 0;
  return runs.flatMap((run) => {
    const [span] = cutListOf(transcript.words, [run]);
    const cues = captionCues(transcript, run.firstWord, run.endWord, spanStartMs(transcript.words, run.firstWord), { longestLine: SHORT_LINE, ...options });
    const from = playedMs;
    playedMs += span!.endMs - span!.startMs;
    return cues.map(({ startMs, endMs, text }) => ({ startMs: from + startMs, endMs: Math.min(from + endMs, playedMs), text }));
  });
}
