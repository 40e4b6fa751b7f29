import { playedTalk } from '../cut/played-talk.js';
import type { EditedPassage } from '../cut/edit.js';
import type { Transcript } from '../transcript/types.js';
import { type CaptionCue, captionCues, type CaptionOptions } from '../transcript/write/captions.js';

/** A caption of what is played: times from its start, half-open. */
export type CutCaption = CaptionCue;

/** Captions on a picture are read at a glance, so lines are short: characters. Common practice. */
export const SHORT_LINE = 28;

/** Captions of a passage as it is played, in played time: none speaks of what is cut out, and none outlasts the last cut. */
export function captionsOfCut(transcript: Transcript, passage: EditedPassage, options: CaptionOptions = {}): CutCaption[] {
  const talk = playedTalk(transcript, passage);
  return captionCues(talk, 0, talk.words.length, 0, { lastMs: talk.durationMs, ...options });
}
