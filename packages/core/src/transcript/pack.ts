import type { Sentence, SentenceEnds, Transcript, Word, WordTimes } from './types.js';

/**
 * A transcript as it is stored and sent: one string and flat lists of small numbers, about a tenth of the size of a list
 * of words. `starts` are differences to the start before, in ms.
 */
export interface PackedTranscript {
  /** Texts of the words, joined by line feeds; no word holds one. */
  readonly text: string;
  readonly starts: readonly number[];
  readonly lengths: readonly number[];
  /** Indices of words that are marks. */
  readonly marks: readonly number[];
  /** Pairs: first word of a turn, its speaker. */
  readonly turns: readonly number[];
  /** First words of the sentences. */
  readonly sentences: readonly number[];
  readonly speakers: readonly string[];
  readonly durationMs: number;
  readonly wordTimes: WordTimes;
  readonly sentenceEnds: SentenceEnds;
}

export function packTranscript(transcript: Transcript): PackedTranscript {
  const { words, sentences } = transcript;
  const turns: number[] = [];
  const marks: number[] = [];
  let speaker: number | null = null;
  words.forEach((word, i) => {
    if (word.kind === 'mark') marks.push(i);
    if (word.speaker !== speaker) {
      turns.push(i, word.speaker);
      speaker = word.speaker;
    }
  });
  return {
    text: words.map((word) => word.text).join('\n'),
    starts: words.map((word, i) => word.startMs - (words[i - 1]?.startMs ?? 0)),
    lengths: words.map((word) => word.endMs - word.startMs),
    marks,
    turns,
    sentences: sentences.map((sentence) => sentence.firstWord),
    speakers: transcript.speakers,
    durationMs: transcript.durationMs,
    wordTimes: transcript.wordTimes,
    sentenceEnds: transcript.sentenceEnds,
  };
}

/** The inverse of `packTranscript`: gives back an equal transcript. */
export function unpackTranscript(packed: PackedTranscript): Transcript {
  const marks = new Set(packed.marks);
  const texts = packed.text === '' ? [] : packed.text.split('\n');
  let startMs = 0;
  let turn = 0;
  const words: Word[] = texts.map((text, i) => {
    startMs += packed.starts[i]!;
    while (turn + 2 < packed.turns.length && packed.turns[turn + 2]! <= i) turn += 2;
    const kind = marks.has(i) ? 'mark' : 'word';
    return { text, kind, speaker: packed.turns[turn + 1] ?? -1, startMs, endMs: startMs + packed.lengths[i]! };
  });
  const sentences: Sentence[] = packed.sentences.map((firstWord, k) => {
    const endWord = packed.sentences[k + 1] ?? words.length;
    return { firstWord, endWord, startMs: words[firstWord]!.startMs, endMs: words[endWord - 1]!.endMs, speaker: words[firstWord]!.speaker };
  });
  const { speakers, durationMs, wordTimes, sentenceEnds } = packed;
  return { words, sentences, speakers, durationMs, wordTimes, sentenceEnds };
}
