import { decodeHTML } from 'entities';
import { type JSONVisitor, type ParseErrorCode, printParseErrorCode, visit } from 'jsonc-parser';
import { boundWords } from '../bound-words.js';
import { type RawCue, TranscriptRefusedError } from '../types.js';
import { CueList, type ReadCues } from './cue-list.js';
import { cleanSpeaker } from './cue-text.js';

/**
 * Reads the open podcast-namespace transcript: `{"version","segments":[{"startTime","endTime","speaker","body"}]}`, times
 * in seconds. A segment may carry `words: [{"startTime","endTime","word"|"body"|"text"}]`. Where segments are single
 * words (the shape allows it), they are joined to turns by the reader of cues, since each keeps its own time. The text is
 * walked through once and never becomes one object, so that what a reader does not ask for takes no memory.
 * @throws TranscriptRefusedError `bad-json` with the line of the fault, `bad-field` with the field's path and line, or
 * `too-long`
 */
export function readPodcastJson(text: string): ReadCues {
  const reader = new SegmentReader(text);
  visit(text, reader, { disallowComments: true, allowTrailingComma: false });
  if (!reader.sawSegments) refuse(1, 'segments', 'expected an object with a list named “segments”');
  return reader.found;
}

/** What a list or an object is to us. */
type Place = 'root' | 'segments' | 'segment' | 'words' | 'word' | 'other';

/** A value of a field as it stands in the file. */
interface Field {
  readonly name: string;
  readonly line: number;
  /** `undefined` for a list or an object. */
  readonly value: unknown;
}

const SEGMENT_FIELDS = ['startTime', 'endTime', 'speaker', 'body'];
const WORD_FIELDS = ['startTime', 'start', 'endTime', 'end', 'word', 'body', 'text'];
/** Deeper than any transcript; the walk goes down by calls, and there is an end to those. */
const DEEPEST = 200;

class SegmentReader implements JSONVisitor {
  readonly found = new CueList();
  sawSegments = false;
  private readonly places: Place[] = [];
  private key = '';
  private segments = -1;
  private segmentLine = 1;
  private segment = new Map<string, Field>();
  private words: WordRun | null = null;
  private wordLine = 1;
  private word = new Map<string, Field>();

  constructor(private readonly text: string) {}

  onObjectBegin = (_offset: number, _length: number, line: number): void => this.enter(this.placeOf('object', line + 1), line + 1);
  onArrayBegin = (_offset: number, _length: number, line: number): void => this.enter(this.placeOf('list', line + 1), line + 1);

  onObjectEnd = (offset: number): void => {
    if (this.text[offset] !== '}') return; // the text ended; the fault is told next
    const place = this.places.pop();
    if (place === 'word') this.words!.add(this.word, this.wordLine);
    else if (place === 'segment') this.found.add(this.readSegment());
  };
  onArrayEnd = (): void => void this.places.pop();

  onObjectProperty = (property: string): void => void (this.key = property);

  onLiteralValue = (value: unknown, _offset: number, _length: number, line: number): void => {
    const place = this.places.at(-1);
    if (place === undefined) refuse(line + 1, 'segments', 'expected an object with a list named “segments”');
    if (place === 'root' && this.key === 'segments') refuse(line + 1, 'segments', 'expected an object with a list named “segments”');
    if (place === 'segments') refuse(line + 1, `segments[${this.segments + 1}]`, 'expected an object');
    if (place === 'words') this.words!.add(new Map(), line + 1);
    this.keep(value, line + 1);
  };

  onError = (code: ParseErrorCode, offset: number): never => {
    const line = lineAt(this.text.trimEnd(), offset);
    const what = printParseErrorCode(code).replace(/\B[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`);
    throw new TranscriptRefusedError(line, 'bad-json', `not valid JSON: ${what.charAt(0).toLowerCase()}${what.slice(1)}`);
  };

  private placeOf(kind: 'object' | 'list', line: number): Place {
    const around = this.places.at(-1);
    if (around === undefined && kind === 'object') return 'root';
    if (around === 'root' && this.key === 'segments' && kind === 'list') return 'segments';
    if (around === undefined || (around === 'root' && this.key === 'segments'))
      return refuse(line, 'segments', 'expected an object with a list named “segments”');
    if (around === 'segments') return kind === 'object' ? 'segment' : refuse(line, `segments[${this.segments + 1}]`, 'expected an object');
    if (around === 'segment' && this.key === 'words' && kind === 'list') return 'words';
    if (around === 'words') return 'word';
    this.keep(undefined, line);
    return 'other';
  }

  private enter(place: Place, line: number): void {
    if (this.places.length >= DEEPEST) throw new TranscriptRefusedError(line, 'bad-json', `more than ${DEEPEST} lists and objects inside one another`);
    this.places.push(place);
    if (place === 'segments') this.sawSegments = true;
    else if (place === 'segment') {
      this.segments += 1;
      this.segmentLine = line;
      this.segment = new Map();
      this.words = null;
    } else if (place === 'words') this.words = new WordRun(`segments[${this.segments}].words`, this.found);
    else if (place === 'word') {
      this.wordLine = line;
      this.word = new Map();
    }
  }

  private keep(value: unknown, line: number): void {
    const place = this.places.at(-1);
    if (place === 'segment' && SEGMENT_FIELDS.includes(this.key)) this.segment.set(this.key, { name: this.key, line, value });
    else if (place === 'word' && WORD_FIELDS.includes(this.key)) this.word.set(this.key, { name: this.key, line, value });
  }

  private readSegment(): RawCue {
    const path = `segments[${this.segments}]`;
    const line = this.segmentLine;
    const startMs = readSeconds(this.segment.get('startTime'), path) ?? refuse(line, `${path}.startTime`, 'a start time in seconds is missing');
    const endMs = readSeconds(this.segment.get('endTime'), path);
    const named = this.segment.get('speaker');
    const speaker = typeof named?.value === 'string' ? cleanSpeaker(readText(named, path, line)) : null;
    if (this.words !== null && this.words.length > 0) return { line, startMs, endMs, speaker, ...this.words.cue() };
    return { line, startMs, endMs, speaker, text: boundWords(decodeHTML(readText(this.segment.get('body') ?? 'body', path, line))) };
  }
}

/** The words of a segment, gathered one by one. */
class WordRun {
  length = 0;
  private readonly pieces: string[] = [];
  private readonly stamps: { at: number; startMs: number; endMs: number | null }[] = [];
  private at = 0;

  constructor(
    private readonly path: string,
    private readonly found: CueList,
  ) {}

  add(fields: ReadonlyMap<string, Field>, line: number): void {
    const path = `${this.path}[${this.length}]`;
    const given = (...names: string[]): Field | undefined => names.map((name) => fields.get(name)).find((field) => field !== undefined && field.value !== null);
    const startMs = readSeconds(given('startTime', 'start'), path);
    const endMs = readSeconds(given('endTime', 'end'), path);
    const piece = boundWords(decodeHTML(readText(given('word', 'body', 'text') ?? 'word', path, line).trim()));
    if (startMs !== null) this.stamps.push({ at: this.at, startMs, endMs: endMs !== null && endMs > startMs ? endMs : null });
    this.pieces.push(piece);
    this.at += piece.length + 1;
    this.length += 1;
    this.found.expect(this.at, line);
  }

  cue(): Pick<RawCue, 'text' | 'stamps'> {
    return { text: this.pieces.join(' '), stamps: this.stamps };
  }
}

function refuse(line: number, field: string, detail: string): never {
  throw new TranscriptRefusedError(line, 'bad-field', detail, field);
}

/** Line of a place in a text, from 1. */
function lineAt(text: string, offset: number): number {
  let line = 1;
  for (let at = text.indexOf('\n'); at >= 0 && at < offset; at = text.indexOf('\n', at + 1)) line += 1;
  return line;
}

/**
 * Text that can be kept and shown: JSON can write a zero character, or half of a pair, that no file of text holds.
 * @param field what stands there, or the name of what is missing
 * @param lineAround where the object begins that should hold it
 */
function readText(field: Field | string, path: string, lineAround: number): string {
  if (typeof field === 'string') return refuse(lineAround, `${path}.${field}`, 'expected text');
  const at = `${path}.${field.name}`;
  if (typeof field.value !== 'string') return refuse(field.line, at, 'expected text');
  if (/[\0\p{Surrogate}]/u.test(field.value)) refuse(field.line, at, 'holds a character that is no text (zero, or half of a pair)');
  return field.value;
}

function readSeconds(field: Field | undefined, path: string): number | null {
  if (field === undefined || field.value === null) return null;
  const { name, line, value } = field;
  const seconds = typeof value === 'string' && /^-?\d+(?:\.\d+)?$/.test(value.trim()) ? Number(value) : value;
  if (typeof seconds !== 'number' || !Number.isFinite(seconds))
    return refuse(line, `${path}.${name}`, `expected seconds, found ${value === undefined ? 'a list or an object' : JSON.stringify(value).slice(0, 30)}`);
  return Math.round(seconds * 1_000);
}
