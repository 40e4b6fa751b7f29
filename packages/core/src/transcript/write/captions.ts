import { spanEndMs } from '../../cut/word-span.js';
import { formatTimecode } from '../../time/timecode.js';
import type { Transcript, Word } from '../types.js';
import { wordsText } from '../words-text.js';

/** One line of captions with its times. */
export interface CaptionCue {
  readonly startMs: number;
  readonly endMs: number;
  readonly speaker: string | null;
  readonly text: string;
}

export interface CaptionOptions {
  /** Longest line in characters, 10 to 200. Default 42: what players show in one line. Common practice. */
  longestLine?: number;
  /** A pause from which a new cue starts, in ms. Default 700. */
  breakAtPauseMs?: number;
  /** Until when the last line may be held, in ms of the transcript. Default: the end of its span. */
  lastMs?: number;
}

/** How much longer than its words a line stays, where nothing follows. Common practice: half a second. */
const HOLD_MS = 500;

/**
 * Captions for a run of words, with times from the start of the run. Lines break at sentence ends, pauses, turns and the
 * longest length; a cue ends with its last word, or is held up to half a second where nothing follows.
 * @param firstWord inside, @param endWord not
 */
export function captionCues(transcript: Transcript, firstWord: number, endWord: number, startMs: number, options: CaptionOptions = {}): CaptionCue[] {
  const longestLine = options.longestLine ?? 42;
  const breakAtPauseMs = options.breakAtPauseMs ?? 700;
  const cues: CaptionCue[] = [];
  let line: Word[] = [];
  const lastMs = options.lastMs ?? spanEndMs(transcript.words, endWord);
  /** A line is read a little longer than it is said, as long as nothing follows. `next` is the word after it. */
  const heldUntil = (next: number): number => Math.min(line.at(-1)!.endMs + HOLD_MS, next < endWord ? transcript.words[next]!.startMs : lastMs);
  let i = firstWord;
  const flush = (): void => {
    const head = line[0];
    if (head === undefined) return;
    const text = wordsText(line);
    const speaker = transcript.speakers[head.speaker] ?? null;
    cues.push({ startMs: Math.max(0, head.startMs - startMs), endMs: heldUntil(i) - startMs, speaker, text });
    line = [];
  };
  const sentenceEnds = new Set(transcript.sentences.map((sentence) => sentence.endWord));
  for (; i < endWord; i += 1) {
    const word = transcript.words[i]!;
    const last = line.at(-1);
    const length = line.reduce((sum, w) => sum + w.text.length + 1, 0) + word.text.length;
    if (last !== undefined && (length > longestLine || word.speaker !== last.speaker || word.startMs - last.endMs >= breakAtPauseMs)) flush();
    line.push(word);
    if (sentenceEnds.has(i + 1)) {
      i += 1; // the word after the line
      flush();
      i -= 1;
    }
  }
  flush();
  return cues;
}

/** Who speaks, in a format that has no place for it: `label` writes “Name: ” where the voice changes, as readers know it; `leave-out` is for captions on a picture. */
type SpeakersInText = 'label' | 'leave-out';

/** SubRip text of cues: counter, `hh:mm:ss,ttt` times, CRLF line ends. */
export function writeSubRip(cues: readonly CaptionCue[], speakers: SpeakersInText): string {
  const label = (i: number): string => {
    const { speaker } = cues[i]!;
    return speakers === 'leave-out' || speaker === null || speaker === cues[i - 1]?.speaker ? '' : `${speaker}: `;
  };
  return cues
    .map((cue, i) => `${i + 1}\r\n${formatTimecode(cue.startMs, 'srt')} --> ${formatTimecode(cue.endMs, 'srt')}\r\n${label(i)}${cue.text}\r\n`)
    .join('\r\n');
}

/** WebVTT text of cues (W3C), speakers as voice spans. */
export function writeWebVtt(cues: readonly CaptionCue[]): string {
  const escape = (text: string): string => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');
  const body = cues.map((cue) => {
    const voice = cue.speaker === null ? '' : `<v ${escape(cue.speaker)}>`;
    return `${formatTimecode(cue.startMs, 'vtt')} --> ${formatTimecode(cue.endMs, 'vtt')}\n${voice}${escape(cue.text)}\n`;
  });
  return ['WEBVTT\n', ...body].join('\n');
}
