import { seededChance } from '../math/chance.js';

/** One sentence of a marked talk, as it was said. Numbers of sentences count from 1 in files, from 0 here. */
interface TalkSentence {
  readonly text: string;
  /** Who says it, "" when nobody is named. */
  readonly speaker: string;
  /** True when a longer pause comes before it. */
  readonly afterPause: boolean;
  readonly startMs: number;
  readonly endMs: number;
  readonly words: readonly TimedWord[];
}

interface TimedWord {
  readonly text: string;
  readonly startMs: number;
  readonly endMs: number;
}

export interface Talk {
  readonly sentences: readonly TalkSentence[];
  readonly durationMs: number;
}

/** A talk or a file of marks that cannot be read; `line` counts from 1. */
export class MarkedSetError extends Error {
  override readonly name = 'MarkedSetError';
  constructor(
    readonly file: string,
    readonly line: number,
    detail: string,
  ) {
    super(`${file}, line ${line}: ${detail}`);
  }
}

/** How long a word takes at an even pace: about 146 words a minute with the pauses below. */
const wordMs = (word: string): number => 95 + 38 * Math.min(12, word.replace(/[^\p{L}\p{N}]/gu, '').length);

/**
 * Reads a talk: one sentence a line, `Name: ` or `- ` before it for who speaks, an empty line for a longer pause, `#` for
 * a remark. Words get times at a speaker's pace; pauses vary by a seed, so the same file always has the same times.
 */
export function readTalk(text: string, seed: number): Talk {
  const chance = seededChance(seed);
  const sentences: TalkSentence[] = [];
  let nowMs = 400;
  let afterPause = false;
  let speaker = '';
  for (const line of text.split('\n')) {
    if (line.startsWith('#')) continue;
    if (line.trim() === '') {
      afterPause = sentences.length > 0;
      continue;
    }
    const named = /^(?:([\p{Lu}\p{Lo}][\p{L}]+): |(- ))(.*)$/u.exec(line);
    const said = named === null ? line : named[3]!;
    if (named?.[2] !== undefined) speaker = speaker === 'A' ? 'B' : 'A';
    else if (named !== null) speaker = named[1]!;
    if (sentences.length > 0) {
      const turn = sentences.at(-1)!.speaker !== speaker;
      nowMs += afterPause ? 1_600 : turn ? 250 + 400 * chance() : 220 + 520 * chance();
    }
    const words: TimedWord[] = said.split(/\s+/).map((word) => {
      const startMs = Math.round(nowMs);
      nowMs += word.startsWith('[') ? 1_100 : wordMs(word) * (0.85 + 0.3 * chance());
      const endMs = Math.round(nowMs);
      nowMs += /,$/.test(word) ? 90 + 240 * chance() : 15;
      return { text: word, startMs, endMs };
    });
    sentences.push({ text: said, speaker, afterPause, startMs: words[0]!.startMs, endMs: words.at(-1)!.endMs, words });
    afterPause = false;
  }
  return { sentences, durationMs: sentences.at(-1)?.endMs ?? 0 };
}

export interface CaptionOptions {
  /** `written` as said; `none` all lower case and without a mark of punctuation, as many recognisers give it. */
  punctuation: 'written' | 'none';
  /** `lines` one cue after another; `rolling` each cue repeats the line before it. */
  cues: 'lines' | 'rolling';
  /** Whether the file says who speaks. */
  speakers: 'named' | 'nameless';
}

const clock = (ms: number): string => {
  const pad = (n: number, width = 2): string => String(n).padStart(width, '0');
  return `${pad(Math.floor(ms / 3_600_000))}:${pad(Math.floor(ms / 60_000) % 60)}:${pad(Math.floor(ms / 1_000) % 60)}.${pad(ms % 1_000, 3)}`;
};

const bare = (word: string): string => (word.startsWith('[') ? word : word.toLowerCase().replace(/[^\p{L}\p{N}'’-]/gu, ''));

/** The talk as a WebVTT file, the way such files come: cues of some seconds that care nothing for sentences. */
export function toCaptions(talk: Talk, options: CaptionOptions): string {
  const cues = cutCues(talk, options);
  const lines = ['WEBVTT', ''];
  cues.forEach((cue, k) => {
    const endMs = options.cues === 'rolling' ? (cues[k + 1]?.startMs ?? cue.endMs) : cue.endMs;
    lines.push(`${clock(cue.startMs)} --> ${clock(Math.max(endMs, cue.startMs + 1))}`);
    if (options.cues === 'rolling' && k > 0) lines.push(cues[k - 1]!.text);
    lines.push(options.speakers === 'named' && cue.speaker !== '' ? `<v ${cue.speaker}>${cue.text}` : cue.text, '');
  });
  return lines.join('\n');
}

interface Cue {
  startMs: number;
  endMs: number;
  text: string;
  readonly speaker: string;
}

/** Cues of at most eight words; a new one after each turn, longer pause or, in written talk, sentence. */
function cutCues(talk: Talk, options: CaptionOptions): Cue[] {
  const cues: Cue[] = [];
  let words = 0;
  talk.sentences.forEach((sentence, s) => {
    sentence.words.forEach((word, w) => {
      const text = options.punctuation === 'none' ? bare(word.text) : word.text;
      if (text === '') return;
      const open = cues.at(-1);
      const turn = open !== undefined && options.speakers === 'named' && open.speaker !== sentence.speaker;
      const fresh = w === 0 && (options.punctuation === 'written' || sentence.afterPause);
      if (open === undefined || turn || fresh || words === 8 || (s === 0 && w === 0)) {
        cues.push({ startMs: word.startMs, endMs: word.endMs, text, speaker: sentence.speaker });
        words = 1;
      } else {
        open.text += ` ${text}`;
        open.endMs = word.endMs;
        words += 1;
      }
    });
  });
  return cues;
}
