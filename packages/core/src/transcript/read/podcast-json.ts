import { decodeHTML } from 'entities';
import { type RawCue, type Repair, TranscriptRefusedError } from '../types.js';
import { cleanSpeaker } from './cue-text.js';
import type { ReadCues } from './webvtt.js';

/**
 * Reads the open podcast-namespace transcript: `{"version","segments":[{"startTime","endTime","speaker","body"}]}`, times
 * in seconds. A segment may carry `words: [{"startTime","endTime","word"|"body"|"text"}]`. Where segments are single
 * words (the shape allows it), they are joined to turns by the reader of cues, since each keeps its own time.
 * @throws TranscriptRefusedError `bad-json` with the line of the fault, or `bad-field` with the field's path
 */
export function readPodcastJson(text: string): ReadCues {
  const root = parseJson(text);
  const segments = (root as { segments?: unknown } | null)?.segments;
  if (!Array.isArray(segments)) {
    throw new TranscriptRefusedError(1, 'bad-field', 'expected an object with a list named “segments”', 'segments');
  }
  const lineOf = lineFinder(text);
  const cues: RawCue[] = [];
  const repairs: Repair[] = [];
  segments.forEach((segment: unknown, i) => readSegment(segment, i, lineOf, cues));
  return { cues, repairs };
}

function parseJson(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch (error) {
    const message = error instanceof Error ? error.message : String(error);
    const at = /position (\d+)/.exec(message);
    const line = at === null ? text.split('\n').length : text.slice(0, Number(at[1])).split('\n').length;
    throw new TranscriptRefusedError(line, 'bad-json', `not valid JSON: ${message.replace(/ in JSON at position.*| \(line.*/s, '')}`);
  }
}

/** Lines of the segments, by counting the key each must have. Good enough to point a reader to the place. */
function lineFinder(text: string): (segment: number) => number {
  const lines: number[] = [];
  let line = 1;
  for (const part of text.split('\n')) {
    for (let hits = part.split('"startTime"').length - 1; hits > 0; hits -= 1) lines.push(line);
    line += 1;
  }
  return (segment) => lines[Math.min(segment, lines.length - 1)] ?? 1;
}

type Fields = Record<string, unknown>;

function readSegment(value: unknown, i: number, lineOf: (segment: number) => number, cues: RawCue[]): void {
  const path = `segments[${i}]`;
  if (typeof value !== 'object' || value === null) {
    throw new TranscriptRefusedError(lineOf(i), 'bad-field', 'expected an object', path);
  }
  const fields = value as Fields;
  const startMs = readSeconds(fields['startTime'], `${path}.startTime`, lineOf(i));
  if (startMs === null) throw new TranscriptRefusedError(lineOf(i), 'bad-field', 'a start time in seconds is missing', `${path}.startTime`);
  const endMs = readSeconds(fields['endTime'], `${path}.endTime`, lineOf(i));
  const speaker = typeof fields['speaker'] === 'string' ? cleanSpeaker(fields['speaker']) : null;
  const words = fields['words'];
  const line = lineOf(i);
  if (Array.isArray(words) && words.length > 0) {
    cues.push(cueFromWords(words, { line, startMs, endMs, speaker }, path));
    return;
  }
  if (typeof fields['body'] !== 'string') throw new TranscriptRefusedError(line, 'bad-field', 'expected text', `${path}.body`);
  cues.push({ line, startMs, endMs, speaker, text: decodeHTML(fields['body']) });
}

function cueFromWords(words: readonly unknown[], cue: Omit<RawCue, 'text' | 'stamps'>, path: string): RawCue {
  let text = '';
  const stamps: { at: number; startMs: number }[] = [];
  words.forEach((value, k) => {
    const fields = (value ?? {}) as Fields;
    const body = fields['word'] ?? fields['body'] ?? fields['text'];
    if (typeof body !== 'string') throw new TranscriptRefusedError(cue.line, 'bad-field', 'expected text', `${path}.words[${k}].word`);
    if (text !== '') text += ' ';
    const startMs = readSeconds(fields['startTime'] ?? fields['start'], `${path}.words[${k}].startTime`, cue.line);
    if (startMs !== null) stamps.push({ at: text.length, startMs });
    text += decodeHTML(body.trim());
  });
  return { ...cue, text, stamps };
}

function readSeconds(value: unknown, path: string, line: number): number | null {
  if (value === undefined || value === null) return null;
  const seconds = typeof value === 'string' && /^-?\d+(?:\.\d+)?$/.test(value.trim()) ? Number(value) : value;
  if (typeof seconds !== 'number' || !Number.isFinite(seconds)) {
    throw new TranscriptRefusedError(line, 'bad-field', `expected seconds, found ${JSON.stringify(value)?.slice(0, 30)}`, path);
  }
  return Math.round(seconds * 1_000);
}
