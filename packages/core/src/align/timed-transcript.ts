import { splitSentences } from '../text/sentences.js';
import { type PosTagger, winkTagger } from '../text/tagger.js';
import { packTranscript, type PackedTranscript, unpackTranscript } from '../transcript/pack.js';
import type { SaidLine } from '../transcript/read/plain-text.js';
import type { Transcript, Word } from '../transcript/types.js';
import { splitIntoPieces } from '../transcript/words.js';
import { alignWords } from './align-words.js';
import type { HeardWord, Likeness } from './types.js';

/** A transcript whose times were heard. */
export interface TimedTranscript extends Likeness {
  readonly transcript: Transcript;
}

/**
 * Gives text without times the times at which it is said.
 * @param said as `readPlainText` gives it
 * @param heard rough words in order
 * @param lengthMs of the recording
 */
export function timeText(said: readonly SaidLine[], heard: readonly HeardWord[], lengthMs: number, tagger: PosTagger = winkTagger): TimedTranscript {
  const speakers = [...new Set(said.flatMap(({ speaker }) => speaker ?? []))];
  const bare: Omit<Word, 'startMs' | 'endMs'>[] = [];
  const lineStarts = new Set<number>();
  for (const { speaker, text } of said) {
    lineStarts.add(bare.length);
    for (const piece of splitIntoPieces(text)) bare.push({ text: piece.text, kind: piece.kind, speaker: speaker === null ? -1 : speakers.indexOf(speaker) });
  }
  const { spans, share, used } = alignWords(bare.map(spokenOf), heard, lengthMs);
  const words = bare.map((word, i) => ({ ...word, ...spans[i]! }));
  return { transcript: finished(words, speakers, lengthMs, lineStarts, tagger), share, used };
}

/**
 * A rough transcript of what a recogniser heard: its words, one after another, and sentences told from the pauses.
 * @throws RangeError when there is no word
 */
export function draftTranscript(heard: readonly HeardWord[], lengthMs: number, tagger: PosTagger = winkTagger): Transcript {
  if (heard.length === 0) throw new RangeError('nothing was heard');
  const words: Word[] = [];
  for (const { text, startMs, endMs } of heard) {
    const start = Math.max(startMs, words.at(-1)?.endMs ?? 0);
    words.push({ text, kind: 'word', speaker: -1, startMs: start, endMs: Math.max(start + 1, endMs) });
  }
  return finished(words, [], lengthMs, new Set(), tagger);
}

/** The same words and sentences as before, at the times at which they were heard. */
export function retime(packed: PackedTranscript, heard: readonly HeardWord[], lengthMs: number): { readonly packed: PackedTranscript } & Likeness {
  const before = unpackTranscript(packed);
  const { spans, share, used } = alignWords(before.words.map(spokenOf), heard, lengthMs, before.words);
  const words = before.words.map((word, i) => ({ ...word, ...spans[i]! }));
  const sentences = before.sentences.map((one) => ({ ...one, startMs: words[one.firstWord]!.startMs, endMs: words[one.endWord - 1]!.endMs }));
  const durationMs = Math.max(lengthMs, words.at(-1)?.endMs ?? 0);
  return { packed: packTranscript({ ...before, words, sentences, durationMs, wordTimes: 'heard' }), share, used };
}

/** A mark is heard, but nobody says it. */
const spokenOf = ({ text, kind }: Pick<Word, 'text' | 'kind'>): string => (kind === 'mark' ? '' : text);

function finished(words: readonly Word[], speakers: readonly string[], lengthMs: number, lineStarts: ReadonlySet<number>, tagger: PosTagger): Transcript {
  const { sentences, sentenceEnds } = splitSentences(words, tagger, { wordTimes: 'heard', lineStarts });
  return { words, sentences, speakers, durationMs: Math.max(lengthMs, words.at(-1)!.endMs), wordTimes: 'heard', sentenceEnds };
}
