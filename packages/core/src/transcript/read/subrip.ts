import { type RawCue, type Repair, TranscriptRefusedError } from '../types.js';
import { parseLooseTimestamp, pushCueParts, type ReadCues } from './webvtt.js';

const TIMING = /^\s*(-?[\d:.,]+)\s*-{1,2}>\s*(\S*)/;

/**
 * Reads SubRip (text already decoded, `\n` line ends). Counters may be missing, repeated or out of order; blank lines
 * inside a cue are kept with it as long as no timing follows. Formatting tags fall away.
 * @throws TranscriptRefusedError `bad-time` with the line of a timing that cannot be read
 */
export function readSubRip(text: string): ReadCues {
  const lines = text.split('\n');
  const timings: number[] = [];
  lines.forEach((line, i) => {
    if (line.includes('-->') || TIMING.test(line)) timings.push(i);
  });
  const cues: RawCue[] = [];
  const repairs: Repair[] = [];
  timings.forEach((at, k) => {
    const { startMs, endMs } = readTiming(lines[at]!, at + 1, repairs);
    const nextAt = timings[k + 1] ?? lines.length;
    const body = lines.slice(at + 1, nextAt);
    if (k + 1 < timings.length) dropCounter(body);
    pushCueParts(
      cues,
      at + 1,
      startMs,
      endMs,
      body
        .join('\n')
        .replace(/\{\\[^{}]*\}/g, '')
        .trim(),
    );
  });
  return { cues, repairs };
}

/** The number above the next timing belongs to the next cue, not to this one's text. */
function dropCounter(body: string[]): void {
  while (body.length > 0 && body.at(-1)!.trim() === '') body.pop();
  if (body.length > 0 && /^\s*\d+\s*$/.test(body.at(-1)!)) body.pop();
}

function readTiming(line: string, lineNumber: number, repairs: Repair[]): { startMs: number; endMs: number | null } {
  const match = TIMING.exec(line);
  const startMs = match === null ? null : parseLooseTimestamp(match[1]!);
  if (match === null || startMs === null) {
    throw new TranscriptRefusedError(lineNumber, 'bad-time', `“${line.trim().slice(0, 40)}” is no timing; expected hh:mm:ss,ttt --> hh:mm:ss,ttt`);
  }
  if (match[2] === '') {
    repairs.push({ line: lineNumber, code: 'missing-end', detail: 'no end time; the next cue ends it' });
    return { startMs, endMs: null };
  }
  const endMs = parseLooseTimestamp(match[2]!);
  if (endMs === null) {
    throw new TranscriptRefusedError(lineNumber, 'bad-time', `“${match[2]!.slice(0, 30)}” is no end time; expected hh:mm:ss,ttt`);
  }
  return { startMs, endMs };
}
