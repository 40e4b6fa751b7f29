import { splitSentences } from '../text/sentences.js';
import { winkTagger, type PosTagger } from '../text/tagger.js';
import { decodeText, type TextEncodingName } from './decode.js';
import { readPodcastJson } from './read/podcast-json.js';
import { hasStamp, readStampedText } from './read/stamped-text.js';
import { readSubRip } from './read/subrip.js';
import { readWebVtt, type ReadCues } from './read/webvtt.js';
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
}

/** A recording is at most 48 hours; a time beyond is a slip of the pen, not a cue. */
const LATEST_MS = 48 * 3_600_000;

/** Far more than the 48 hours a recording may last hold; more is something else, and would take the machine's memory. */
const MOST_CHARACTERS = 12_000_000;
const MOST_CUES = 500_000;

/** @throws TranscriptRefusedError `too-long` at the line where it becomes too much */
function refuseTooMany(cues: readonly { readonly line: number; readonly text: string }[]): void {
  let characters = 0;
  for (const [i, cue] of cues.entries()) {
    characters += cue.text.length;
    if (i >= MOST_CUES || characters > MOST_CHARACTERS)
      throw new TranscriptRefusedError(
        cue.line,
        'too-long',
        `more than ${i >= MOST_CUES ? `${MOST_CUES} cues` : `${MOST_CHARACTERS} characters of talk`}; is it one recording?`,
      );
  }
}

const READERS: Record<TranscriptFormat, (text: string) => ReadCues> = {
  webvtt: readWebVtt,
  subrip: readSubRip,
  'podcast-json': readPodcastJson,
  'stamped-text': readStampedText,
};

/**
 * Reads a transcript file of any of the formats, whatever its name says.
 * @throws TranscriptRefusedError with line and reason when its meaning is not plain
 */
export function readTranscript(bytes: Uint8Array, options: ReadTranscriptOptions = {}): ReadTranscript {
  const decoded = decodeText(bytes);
  const format = detectFormat(decoded.text);
  const read = READERS[format](decoded.text);
  const { cues, repairs } = repairCues(read.cues);
  if (cues.length === 0) throw new TranscriptRefusedError(1, 'no-cues', 'no timed words were found');
  refuseTooMany(cues);
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
export function detectFormat(text: string): TranscriptFormat {
  const head = text.trimStart();
  if (head.startsWith('WEBVTT')) return 'webvtt';
  if (head.startsWith('{') || head.startsWith('[{')) return 'podcast-json';
  const lines = text.split('\n');
  const arrow = lines.findIndex((line) => line.includes('-->'));
  if (arrow >= 0) return /\d,\d{1,3}/.test(lines[arrow]!) || /^\s*\d+\s*$/.test(lines[arrow - 1] ?? '') ? 'subrip' : 'webvtt';
  if (lines.some((line) => hasStamp(line))) return 'stamped-text';
  const first = lines.findIndex((line) => line.trim() !== '');
  throw new TranscriptRefusedError(
    Math.max(1, first + 1),
    'unknown-format',
    first < 0 ? 'the file is empty' : 'no cue timing and no [mm:ss] stamp; expected WebVTT, SubRip, podcast JSON or stamped text',
  );
}
