import { decodeHTML } from 'entities';
import { parseClock } from '../../time/timecode.js';
import { type RawCue, type Repair, TranscriptRefusedError } from '../types.js';
import { boundWords } from '../bound-words.js';
import { splitSpeakerLabel } from './cue-text.js';
import type { ReadCues } from './webvtt.js';

const STAMP = /[[(]((?:\d{1,2}:)?\d{1,3}:\d{2}(?:[.,]\d{1,3})?)[\])]/g;
/** Without the `g` flag, which would carry a position from one line to the next. */
const ANY_STAMP = new RegExp(STAMP.source);
const BARE_LINE = /^\s*((?:\d{1,2}:)?\d{1,3}:\d{2}(?:[.,]\d{1,3})?)\s+(?=\S)/;

const LONGEST_NAME = 200;
/** A speaker's name before a stamp: capitalised words, nothing else, and no full stop. */
const NAME_ALONE = /^\s*(\p{Lu}[\p{L}\p{N}'’-]*(?: [\p{Lu}\p{N}][\p{L}\p{N}'’-]*){0,3})\s*:?\s*$/u;

/** True when a line carries a stamp `[mm:ss]` or `[hh:mm:ss]`, or starts with a bare one. */
export function hasStamp(line: string): boolean {
  return ANY_STAMP.test(line) || BARE_LINE.test(line);
}

/**
 * Reads plain text with times in brackets, anywhere in the line; text runs on until the next stamp. A speaker may be
 * named before or after the stamp ("Obi [02:14]: Right", "[02:14] Obi: Right"). Text before the first stamp is a title
 * block and is left out, which is said in the repairs.
 * @throws TranscriptRefusedError `bad-time` for a stamp that is no time, such as [02:75]
 */
export function readStampedText(text: string): ReadCues {
  const cues: RawCue[] = [];
  const repairs: Repair[] = [];
  let speaker: string | null = null;
  // Text that runs on over lines is gathered, and joined once: a text of a million lines would be copied as often else.
  const runOn = new Map<number, string[]>();
  text.split('\n').forEach((rawLine, index) => {
    const line = boundWords(decodeHTML(rawLine.replace(BARE_LINE, '[$1] ')));
    const pieces = cutAtStamps(line, index + 1);
    if (pieces.lead.trim() !== '') {
      const lead = pieces.lead.trim();
      const named = lead.length <= LONGEST_NAME ? NAME_ALONE.exec(lead) : null;
      if (named !== null && pieces.stamped.length > 0) speaker = named[1]!;
      else if (cues.length === 0)
        repairs.push({ line: index + 1, code: 'unknown-block', detail: `“${lead.slice(0, 40)}” stands before the first time and was left out` });
      else gather(runOn, cues.length - 1, lead);
    }
    for (const piece of pieces.stamped) {
      const label = splitSpeakerLabel(piece.text.replace(/^\s*[:\-–—]\s+/, ''));
      if (label.speaker !== null) speaker = label.speaker;
      cues.push({ line: index + 1, startMs: piece.startMs, endMs: null, speaker, text: label.text.trim() });
    }
  });
  for (const [at, lines] of runOn) cues[at] = { ...cues[at]!, text: `${cues[at]!.text} ${lines.join(' ')}`.trim() };
  return { cues, repairs };
}

function cutAtStamps(line: string, lineNumber: number): { lead: string; stamped: { startMs: number; text: string }[] } {
  const marks = [...line.matchAll(STAMP)];
  if (marks.length === 0) return { lead: line, stamped: [] };
  const stamped = marks.map((mark, k) => {
    const startMs = parseClock(mark[1]!);
    if (startMs === null) throw new TranscriptRefusedError(lineNumber, 'bad-time', `“${mark[0]}” is no time; expected [mm:ss] or [hh:mm:ss]`);
    return { startMs, text: line.slice(mark.index + mark[0].length, marks[k + 1]?.index ?? line.length) };
  });
  return { lead: line.slice(0, marks[0]!.index), stamped };
}

function gather(runOn: Map<number, string[]>, at: number, line: string): void {
  const lines = runOn.get(at);
  if (lines === undefined) runOn.set(at, [line]);
  else lines.push(line);
}
