import { TranscriptRefusedError } from '../types.js';
import { CueList, type ReadCues } from './cue-list.js';
import { parseCueText, splitSpeakerLabel } from './cue-text.js';
import { LineCursor } from './line-cursor.js';

const TIMESTAMP = /^(?:(\d{2,}):)?(\d{2}):(\d{2})[.,](\d{3})$/;
const LOOSE = /^(-)?(?:(\d+):)?(\d{1,3}):(\d{1,2})(?:[.,](\d{1,6}))?$/;

/**
 * WebVTT timestamp, W3C Candidate Recommendation 4 April 2019, section 4.1 (and `,` for `.`, which is common).
 * @returns integer ms, or null when the text is no timestamp
 */
export function parseVttTimestamp(text: string): number | null {
  const match = TIMESTAMP.exec(text);
  if (match === null) return null;
  const [, h, m, s, f] = match;
  if (Number(m) > 59 || Number(s) > 59) return null;
  return ((Number(h ?? 0) * 60 + Number(m)) * 60 + Number(s)) * 1_000 + Number(f);
}

/** A timestamp that is not to the letter but can only mean one thing: one-digit parts, no fraction, a minus sign. */
export function parseLooseTimestamp(text: string): number | null {
  const match = LOOSE.exec(text);
  if (match === null) return null;
  const [, minus, h, m, s, f] = match;
  if (Number(s) > 59 || (h !== undefined && Number(m) > 59)) return null;
  const millis = f === undefined ? 0 : Math.floor(Number(`0.${f}`) * 1_000 + 1e-6);
  const ms = ((Number(h ?? 0) * 60 + Number(m)) * 60 + Number(s)) * 1_000 + millis;
  return minus === undefined ? ms : -ms;
}

function isNoteLine(line: string): boolean {
  return line === 'NOTE' || line.startsWith('NOTE ') || line.startsWith('NOTE\t');
}

/**
 * Reads WebVTT (text already decoded, `\n` line ends). Notes, styles, regions and cue settings are skipped.
 * @throws TranscriptRefusedError `bad-time` with the line of a cue timing that cannot be read
 */
export function readWebVtt(text: string): ReadCues {
  const found = new CueList();
  const lines = new LineCursor(text);
  if (/^WEBVTT(?:[ \t].*)?$/.test(lines.text)) lines.next();
  else found.note({ line: 1, code: 'no-header', detail: 'the WEBVTT line is missing' });
  skipText(lines); // rest of the header block
  while (!lines.done) {
    if (lines.text.trim() === '') lines.next();
    else if (lines.text.includes('-->') || lines.following.includes('-->')) readCue(text, lines, found);
    else skipBlock(lines, found);
  }
  return found;
}

/** Goes on to the next line that is empty or a timing. */
function skipText(lines: LineCursor): void {
  while (!lines.done && lines.text.trim() !== '' && !lines.text.includes('-->')) lines.next();
}

function skipBlock(lines: LineCursor, found: CueList): void {
  const known = isNoteLine(lines.text) || /^(?:STYLE|REGION)\s*$/.test(lines.text);
  if (!known) found.note({ line: lines.number, code: 'unknown-block', detail: `“${lines.text.slice(0, 40)}” belongs to no cue and was left out` });
  lines.next();
  skipText(lines);
}

function readCue(text: string, lines: LineCursor, found: CueList): void {
  if (!lines.text.includes('-->')) lines.next(); // its name
  const line = lines.number;
  const { startMs, endMs } = readTiming(lines.text, line, found);
  lines.next();
  const from = lines.start;
  skipText(lines);
  pushCueParts(found, line, startMs, endMs, text.slice(from, Math.max(from, lines.start - 1)));
}

function readTiming(line: string, lineNumber: number, found: CueList): { startMs: number; endMs: number | null } {
  const arrow = line.indexOf('-->');
  const startText = line.slice(0, arrow).trim();
  const endText = /\S+/.exec(line.slice(arrow + 3))?.[0] ?? '';
  const startMs = parseVttTimestamp(startText) ?? parseLooseTimestamp(startText);
  if (startMs === null) {
    throw new TranscriptRefusedError(lineNumber, 'bad-time', `“${startText.slice(0, 30)}” is no start time; expected hh:mm:ss.ttt`);
  }
  if (endText === '') {
    found.note({ line: lineNumber, code: 'missing-end', detail: 'no end time; the next cue ends it' });
    return { startMs, endMs: null };
  }
  const endMs = parseVttTimestamp(endText) ?? parseLooseTimestamp(endText);
  if (endMs === null) {
    throw new TranscriptRefusedError(lineNumber, 'bad-time', `“${endText.slice(0, 30)}” is no end time; expected hh:mm:ss.ttt`);
  }
  return { startMs, endMs };
}

/** Adds a cue, split where the voice changes; the parts share the cue's time by the length of their words. */
export function pushCueParts(found: CueList, line: number, startMs: number, endMs: number | null, payload: string): void {
  const parts = parseCueText(found.payload(payload, line)).flatMap((part) =>
    part.speaker === null ? splitTurns(part.text).map((turn, _, all) => ({ ...turn, stamps: all.length === 1 ? shiftStamps(part, turn.offset) : [] })) : [part],
  );
  if (parts.length === 0) {
    found.add({ line, startMs, endMs, speaker: null, text: '' });
    return;
  }
  const total = parts.reduce((sum, part) => sum + part.text.length, 0);
  let at = 0;
  for (const part of parts) {
    const share = (ms: number): number => (endMs === null ? startMs : Math.round(startMs + ((endMs - startMs) * ms) / total));
    const partEnd = endMs === null ? null : share(at + part.text.length);
    const turn = 'turn' in part && part.turn ? { turn: true } : {};
    const cue = { line, startMs: share(at), endMs: partEnd, speaker: part.speaker, text: part.text, ...turn };
    found.add(part.stamps.length > 0 ? { ...cue, stamps: part.stamps } : cue);
    at += part.text.length;
  }
}

function shiftStamps(part: { stamps: readonly { at: number; startMs: number }[] }, offset: number): { at: number; startMs: number }[] {
  return part.stamps.map((stamp) => ({ at: Math.max(0, stamp.at - offset), startMs: stamp.startMs }));
}

interface Turn {
  readonly speaker: string | null;
  text: string;
  /** Where its words begin in its line. */
  readonly offset: number;
  /** Marked as a turn, by arrows or a dash. */
  readonly turn: boolean;
}

/** Turns typed into one cue: a new one at each `>>`, and at each line that starts with a dash or a speaker's label. */
function splitTurns(text: string): Turn[] {
  const lines = text.split(/\n|(?=>>)/);
  const turns: Turn[] = [];
  for (const line of lines) {
    const dash = lines.length > 1 && /^\s*[-–—]\s+\S/.test(line);
    const arrows = /^\s*>>/.test(line);
    const bare = dash ? line.replace(/^\s*[-–—]\s+/, '') : line;
    const label = splitSpeakerLabel(bare);
    const previous = turns.at(-1);
    if (previous !== undefined && !dash && !arrows && label.speaker === null) previous.text += `\n${label.text}`;
    else {
      if (previous?.text.trim() === '') turns.pop(); // nothing was said
      turns.push({ speaker: label.speaker, text: label.text, offset: line.length - label.text.length, turn: dash || arrows });
    }
  }
  return turns.filter((turn) => turn.text.trim() !== '');
}
