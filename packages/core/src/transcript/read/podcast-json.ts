import { decodeHTML } from 'entities';
import { findNodeAtLocation, type JSONPath, parse, type ParseError, parseTree, visit } from 'jsonc-parser';
import { boundWords } from '../bound-words.js';
import { type RawCue, type Repair, TranscriptRefusedError } from '../types.js';
import { cleanSpeaker } from './cue-text.js';
import type { ReadCues } from './webvtt.js';

/**
 * Reads the open podcast-namespace transcript: `{"version","segments":[{"startTime","endTime","speaker","body"}]}`, times
 * in seconds. A segment may carry `words: [{"startTime","endTime","word"|"body"|"text"}]`. Where segments are single
 * words (the shape allows it), they are joined to turns by the reader of cues, since each keeps its own time.
 * @throws TranscriptRefusedError `bad-json` with the line of the fault, or `bad-field` with the field's path and line
 */
export function readPodcastJson(text: string): ReadCues {
  const root = parseJson(text);
  const segments = (root as { segments?: unknown } | null)?.segments;
  const refuse = refuserOf(text);
  if (!Array.isArray(segments)) refuse(['segments'], 'expected an object with a list named “segments”');
  const lines = segmentLines(text);
  const cues: RawCue[] = [];
  const repairs: Repair[] = [];
  (segments as unknown[]).forEach((segment, i) => cues.push(readSegment(segment, ['segments', i], lines[i] ?? 1, refuse)));
  return { cues, repairs };
}

function parseJson(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch (error) {
    const faults: ParseError[] = [];
    parse(text, faults, { disallowComments: true, allowTrailingComma: false });
    const line = lineAt(text.trimEnd(), faults[0]?.offset ?? text.length);
    const message = (error instanceof Error ? error.message : String(error)).replace(/ in JSON at position.*| \(line.*|, \.\.\..*/s, '');
    throw new TranscriptRefusedError(line, 'bad-json', `not valid JSON: ${message}`);
  }
}

/** Line of a place in a text, from 1. */
function lineAt(text: string, offset: number): number {
  let line = 1;
  for (let at = text.indexOf('\n'); at >= 0 && at < offset; at = text.indexOf('\n', at + 1)) line += 1;
  return line;
}

/** The line on which each segment begins. */
function segmentLines(text: string): number[] {
  const lines: number[] = [];
  let depth = 0; // of objects and lists around: a segment is an object in a list in the root
  visit(text, {
    onObjectBegin: (_offset, _length, line, _character, pathOf) => {
      if (depth === 2 && pathOf()[0] === 'segments') lines.push(line + 1);
      depth += 1;
    },
    onObjectEnd: () => void (depth -= 1),
    onArrayBegin: () => void (depth += 1),
    onArrayEnd: () => void (depth -= 1),
  });
  return lines;
}

type Refuse = (path: JSONPath, detail: string) => never;

/** Refuses a field, at its own line; a field that is missing, at the line of what should hold it. */
function refuserOf(text: string): Refuse {
  return (path, detail) => {
    const tree = parseTree(text);
    let node = tree;
    for (let length = path.length; length >= 0; length -= 1) {
      node = tree === undefined ? undefined : findNodeAtLocation(tree, path.slice(0, length));
      if (node !== undefined) break;
    }
    throw new TranscriptRefusedError(lineAt(text, node?.offset ?? 0), 'bad-field', detail, pathText(path));
  };
}

function pathText(path: JSONPath): string {
  return path.map((part, i) => (typeof part === 'number' ? `[${part}]` : i === 0 ? part : `.${part}`)).join('');
}

type Fields = Record<string, unknown>;

function readSegment(value: unknown, path: JSONPath, line: number, refuse: Refuse): RawCue {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) refuse(path, 'expected an object');
  const fields = value as Fields;
  const startMs = readSeconds(fields['startTime'], [...path, 'startTime'], refuse) ?? refuse([...path, 'startTime'], 'a start time in seconds is missing');
  const endMs = readSeconds(fields['endTime'], [...path, 'endTime'], refuse);
  const speaker =
    fields['speaker'] == null || typeof fields['speaker'] !== 'string' ? null : cleanSpeaker(readText(fields['speaker'], [...path, 'speaker'], refuse));
  const words = fields['words'];
  if (Array.isArray(words) && words.length > 0) return cueFromWords(words, { line, startMs, endMs, speaker }, [...path, 'words'], refuse);
  return { line, startMs, endMs, speaker, text: boundWords(decodeHTML(readText(fields['body'], [...path, 'body'], refuse))) };
}

function cueFromWords(words: readonly unknown[], cue: Omit<RawCue, 'text' | 'stamps'>, path: JSONPath, refuse: Refuse): RawCue {
  const pieces: string[] = [];
  const stamps: { at: number; startMs: number; endMs: number | null }[] = [];
  let at = 0;
  words.forEach((value, k) => {
    const fields = (value ?? {}) as Fields;
    const key = ['word', 'body', 'text'].find((name) => fields[name] != null) ?? 'word';
    const startMs = readSeconds(fields['startTime'] ?? fields['start'], [...path, k, 'startTime'], refuse);
    const endMs = readSeconds(fields['endTime'] ?? fields['end'], [...path, k, 'endTime'], refuse);
    const piece = boundWords(decodeHTML(readText(fields[key], [...path, k, key], refuse).trim()));
    if (startMs !== null) stamps.push({ at, startMs, endMs: endMs !== null && endMs > startMs ? endMs : null });
    pieces.push(piece);
    at += piece.length + 1;
  });
  return { ...cue, text: pieces.join(' '), stamps };
}

/** Text that can be kept and shown: JSON can write a zero character, or half of a pair, that no file of text holds. */
function readText(value: unknown, path: JSONPath, refuse: Refuse): string {
  if (typeof value !== 'string') return refuse(path, 'expected text');
  if (/[\0\p{Surrogate}]/u.test(value)) refuse(path, 'holds a character that is no text (zero, or half of a pair)');
  return value;
}

function readSeconds(value: unknown, path: JSONPath, refuse: Refuse): number | null {
  if (value === undefined || value === null) return null;
  const seconds = typeof value === 'string' && /^-?\d+(?:\.\d+)?$/.test(value.trim()) ? Number(value) : value;
  if (typeof seconds !== 'number' || !Number.isFinite(seconds)) return refuse(path, `expected seconds, found ${JSON.stringify(value)?.slice(0, 30)}`);
  return Math.round(seconds * 1_000);
}
