import { lastAtOrBefore, type Transcript } from '@sift-reel/core';

/** A block of the transcript as it is shown: one speaker, whole sentences. */
export interface Paragraph {
  readonly firstWord: number;
  readonly endWord: number;
  readonly startMs: number;
  readonly speaker: string | null;
  /** False where the same speaker goes on from the block above. */
  readonly opensTurn: boolean;
}

/** Where words and sentences begin, for steps through what is said. */
export const beginningsOf = ({ words, sentences }: Transcript): { readonly words: number[]; readonly sentences: number[] } => ({
  words: words.map(({ startMs }) => startMs),
  sentences: sentences.map(({ startMs }) => startMs),
});

const LONGEST_WORDS = 70;

/** Blocks of at most about 70 words, cut between sentences, so that a long turn is drawn piece by piece. */
export function toParagraphs(transcript: Transcript): Paragraph[] {
  const paragraphs: Paragraph[] = [];
  let open: { firstWord: number; endWord: number; startMs: number; speaker: number } | null = null;
  let previousSpeaker: number | null = null;
  const flush = (): void => {
    if (open === null) return;
    paragraphs.push({
      firstWord: open.firstWord,
      endWord: open.endWord,
      startMs: open.startMs,
      speaker: transcript.speakers[open.speaker] ?? null,
      opensTurn: open.speaker !== previousSpeaker || paragraphs.length === 0,
    });
    previousSpeaker = open.speaker;
    open = null;
  };
  for (const sentence of transcript.sentences) {
    if (open !== null && (open.speaker !== sentence.speaker || sentence.endWord - open.firstWord > LONGEST_WORDS)) flush();
    if (open === null) open = { firstWord: sentence.firstWord, endWord: sentence.endWord, startMs: sentence.startMs, speaker: sentence.speaker };
    else open.endWord = sentence.endWord;
  }
  flush();
  return paragraphs;
}

/** Index of the block a word stands in. `firstWords` are the blocks' first words. */
export function paragraphOf(firstWords: readonly number[], word: number): number {
  return Math.max(0, lastAtOrBefore(firstWords, word));
}
