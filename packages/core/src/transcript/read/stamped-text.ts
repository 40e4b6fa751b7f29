import { decodeHTML } from 'entities';
import { parseClock } from '../../time/timecode.js';
import { TranscriptRefusedError } from '../types.js';
import { boundWords } from '../bound-words.js';
import { CueList, type ReadCues } from './cue-list.js';
import { splitSpeakerLabel } from './cue-text.js';
import { LineCursor } from './line-cursor.js';

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
  const found = new CueList();
  const { cues } = found;
  let speaker: string | null = null;
  // Text that runs on over lines is gathered, and joined once: a text of a million lines would be copied as often else.
  const runOn = new Map<number, string[]>();
  for (const lines = new LineCursor(text); !lines.done; lines.next()) {
    const number = lines.number;
    const line = boundWords(decodeHTML(found.payload(lines.text, number).replace(BARE_LINE, '[$1] ')));
    const lead = line.slice(0, ANY_STAMP.exec(line)?.index).trim();
    if (lead !== '') {
      const named = lead.length <= LONGEST_NAME ? NAME_ALONE.exec(lead) : null;
      if (named !== null && ANY_STAMP.test(line)) speaker = named[1]!;
      else if (cues.length === 0)
        found.note({ line: number, code: 'unknown-block', detail: `“${lead.slice(0, 40)}” stands before the first time and was left out` });
      else {
        found.count(lead.length, number);
        gather(runOn, cues.length - 1, lead);
      }
    }
    for (const piece of cutAtStamps(line, number)) {
      const label = splitSpeakerLabel(piece.text.replace(/^\s*[:\-–—]\s+/, ''));
      if (label.speaker !== null) speaker = label.speaker;
      found.add({ line: number, startMs: piece.startMs, endMs: null, speaker, text: label.text.trim() });
    }
  }
  for (const [at, lines] of runOn) cues[at] = { ...cues[at]!, text: `${cues[at]!.text} ${lines.join(' ')}`.trim() };
  return found;
}

/** What is said from each stamp of a line to the next, one after another. */
function* cutAtStamps(line: string, lineNumber: number): Generator<{ startMs: number; text: string }> {
  let last: { startMs: number; from: number } | null = null;
  for (const mark of line.matchAll(STAMP)) {
    if (last !== null) yield { startMs: last.startMs, text: line.slice(last.from, mark.index) };
    const startMs = parseClock(mark[1]!);
    if (startMs === null) throw new TranscriptRefusedError(lineNumber, 'bad-time', `“${mark[0]}” is no time; expected [mm:ss] or [hh:mm:ss]`);
    last = { startMs, from: mark.index + mark[0].length };
  }
  if (last !== null) yield { startMs: last.startMs, text: line.slice(last.from) };
}

function gather(runOn: Map<number, string[]>, at: number, line: string): void {
  const lines = runOn.get(at);
  if (lines === undefined) runOn.set(at, [line]);
  else lines.push(line);
}
