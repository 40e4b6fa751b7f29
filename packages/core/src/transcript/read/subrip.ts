import { TranscriptRefusedError } from '../types.js';
import { CueList, type ReadCues } from './cue-list.js';
import { LineCursor } from './line-cursor.js';
import { parseLooseTimestamp, pushCueParts } from './webvtt.js';

const TIMING = /^\s*(-?[\d:.,]+)\s*-{1,2}>\s*(\S*)/;

/**
 * Reads SubRip (text already decoded, `\n` line ends). Counters may be missing, repeated or out of order; blank lines
 * inside a cue are kept with it as long as no timing follows. Formatting tags fall away.
 * @throws TranscriptRefusedError `bad-time` with the line of a timing that cannot be read
 */
export function readSubRip(text: string): ReadCues {
  const found = new CueList();
  const lines = new LineCursor(text);
  skipText(lines);
  while (!lines.done) {
    const line = lines.number;
    const { startMs, endMs } = readTiming(lines.text, line, found);
    lines.next();
    const from = lines.start;
    skipText(lines);
    const body = found.payload(text.slice(from, Math.max(from, lines.start - 1)), line);
    pushCueParts(found, line, startMs, endMs, (lines.done ? body : withoutCounter(body)).replace(/\{\\[^{}]*\}/g, '').trim());
  }
  return found;
}

/** Goes on to the next timing. */
function skipText(lines: LineCursor): void {
  while (!lines.done && !lines.text.includes('-->') && !TIMING.test(lines.text)) lines.next();
}

/** The number above the next timing belongs to the next cue, not to this one's text. */
function withoutCounter(body: string): string {
  const text = body.trimEnd();
  const last = text.lastIndexOf('\n') + 1;
  return /^\s*\d+$/.test(text.slice(last)) ? text.slice(0, last) : text;
}

function readTiming(line: string, lineNumber: number, found: CueList): { startMs: number; endMs: number | null } {
  const match = TIMING.exec(line);
  const startMs = match === null ? null : parseLooseTimestamp(match[1]!);
  if (match === null || startMs === null) {
    throw new TranscriptRefusedError(lineNumber, 'bad-time', `“${line.trim().slice(0, 40)}” is no timing; expected hh:mm:ss,ttt --> hh:mm:ss,ttt`);
  }
  if (match[2] === '') {
    found.note({ line: lineNumber, code: 'missing-end', detail: 'no end time; the next cue ends it' });
    return { startMs, endMs: null };
  }
  const endMs = parseLooseTimestamp(match[2]!);
  if (endMs === null) {
    throw new TranscriptRefusedError(lineNumber, 'bad-time', `“${match[2]!.slice(0, 30)}” is no end time; expected hh:mm:ss,ttt`);
  }
  return { startMs, endMs };
}
