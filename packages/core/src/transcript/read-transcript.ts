import { splitSentences } from '../text/sentences.js';
import { winkTagger, type PosTagger } from '../text/tagger.js';
import { type DecodedText, decodeText, type TextEncodingName } from './decode.js';
import type { ReadCues } from './read/cue-list.js';
import { LineCursor } from './read/line-cursor.js';
import { isLrc, readLrc } from './read/lrc.js';
import { readPlainText, type SaidLine } from './read/plain-text.js';
import { readPodcastJson } from './read/podcast-json.js';
import { hasStamp, readStampedText } from './read/stamped-text.js';
import { readSubRip } from './read/subrip.js';
import { isTtml, readTtml } from './read/ttml.js';
import { readWebVtt } from './read/webvtt.js';
import { repairCues } from './repair-cues.js';
import { type Repair, type Transcript, type TranscriptFormat, TranscriptRefusedError } from './types.js';
import { wordsFromCues } from './words.js';

export interface ReadTranscript {
  readonly transcript: Transcript;
  readonly format: TranscriptFormat;
  readonly encoding: TextEncodingName;
  readonly cueCount: number;
  readonly repairs: readonly Repair[];
}

interface ReadTranscriptOptions {
  /** Length of the recording where it is known, in ms; else the end of the last word counts. */
  durationMs?: number;
  /** Tagger for stretches without punctuation. Default: wink-nlp. */
  tagger?: PosTagger;
  /** Called when the bytes have become text and are not looked at again: who gave them may let go of them. */
  onDecoded?: () => void;
}

/** A recording is at most 48 hours; a time beyond is a slip of the pen, not a cue. */
const LATEST_MS = 48 * 3_600_000;

/** Formats that are text with times. Office documents and web pages become text before they come here; what has no times is heard. */
type TextFormat = Exclude<TranscriptFormat, 'docx' | 'odt' | 'html' | 'plain-text' | 'draft'>;

const READERS: Record<TextFormat, (text: string) => ReadCues> = {
  webvtt: readWebVtt,
  subrip: readSubRip,
  'podcast-json': readPodcastJson,
  ttml: readTtml,
  lrc: readLrc,
  'stamped-text': readStampedText,
};

/**
 * Reads a transcript file of any of the formats, whatever its name says.
 * @param bytes of the whole file; line ends may be changed in them, which changes nothing for one who reads them again
 * @throws TranscriptRefusedError with line and reason when its meaning is not plain
 */
export function readTranscript(bytes: Uint8Array, options: ReadTranscriptOptions = {}): ReadTranscript {
  const decoded = decodeText(bytes);
  options.onDecoded?.();
  return readDecoded(decoded, options);
}

/** Text without times, which can be heard in the sound. */
export interface UntimedText {
  readonly said: readonly SaidLine[];
  readonly encoding: TextEncodingName;
  readonly repairs: readonly Repair[];
}

/**
 * Reads a transcript file, or talk that has no times.
 * @throws TranscriptRefusedError as `readTranscript`, where it is not plain talk either
 */
export function readTalk(
  bytes: Uint8Array,
  options: ReadTranscriptOptions = {},
): ({ readonly kind: 'timed' } & ReadTranscript) | ({ readonly kind: 'untimed' } & UntimedText) {
  const decoded = decodeText(bytes);
  options.onDecoded?.();
  try {
    return { kind: 'timed', ...readDecoded(decoded, options) };
  } catch (error) {
    if (!(error instanceof TranscriptRefusedError) || error.code !== 'unknown-format') throw error;
    const said = untimed(decoded.text);
    if (said === null) throw error;
    return { kind: 'untimed', said, encoding: decoded.encoding, repairs: decoded.repairs };
  }
}

/** Null where it is no talk. */
function untimed(text: string): SaidLine[] | null {
  try {
    return readPlainText(text);
  } catch (error) {
    if (error instanceof TranscriptRefusedError) return null;
    throw error;
  }
}

function readDecoded(decoded: DecodedText, options: ReadTranscriptOptions): ReadTranscript {
  const format = detectFormat(decoded.text);
  const read = READERS[format](decoded.text);
  const { cues, repairs } = repairCues(read.cues);
  if (cues.length === 0) throw new TranscriptRefusedError(1, 'no-cues', 'no timed words were found');
  const late = cues.find((cue) => cue.endMs > LATEST_MS);
  if (late !== undefined) throw new TranscriptRefusedError(late.line, 'too-long', 'a time beyond 48 hours; is it in another unit?');
  const { words, speakers, wordTimes, turnStarts, lineStarts } = wordsFromCues(cues);
  if (words.length === 0) throw new TranscriptRefusedError(1, 'no-cues', 'the cues hold no words');
  const { sentences, sentenceEnds } = splitSentences(words, options.tagger ?? winkTagger, { wordTimes, turnStarts, lineStarts });
  const durationMs = Math.max(words.at(-1)!.endMs, options.durationMs ?? 0);
  const all = [...decoded.repairs, ...read.repairs, ...repairs].sort((a, b) => a.line - b.line);
  return {
    transcript: { words, sentences, speakers, durationMs, wordTimes, sentenceEnds },
    format,
    encoding: decoded.encoding,
    cueCount: cues.length,
    repairs: all,
  };
}

/** @throws TranscriptRefusedError `unknown-format` with what was looked for */
export function detectFormat(text: string): TextFormat {
  const head = text.trimStart();
  if (head.startsWith('WEBVTT')) return 'webvtt';
  if (head.startsWith('{') || head.startsWith('[{')) return 'podcast-json';
  if (head.startsWith('<')) {
    if (isTtml(head)) return 'ttml';
  } else if (isLrc(text)) return 'lrc';
  let first = 0;
  let before = '';
  let stamped = false;
  for (const lines = new LineCursor(text); !lines.done; lines.next()) {
    const line = lines.text;
    if (line.includes('-->')) return /\d,\d{1,3}/.test(line) || /^\s*\d+\s*$/.test(before) ? 'subrip' : 'webvtt';
    stamped ||= hasStamp(line);
    if (first === 0 && line.trim() !== '') first = lines.number;
    before = line;
  }
  if (stamped) return 'stamped-text';
  throw new TranscriptRefusedError(
    Math.max(1, first),
    'unknown-format',
    first === 0 ? 'the file is empty' : 'no cue timing and no time before what is said; expected WebVTT, SubRip, podcast JSON, TTML, LRC or text with [mm:ss]',
  );
}
