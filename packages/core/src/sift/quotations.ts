import type { Sentence, Word } from '../transcript/types.js';

const OPENS = /^[([]*["“„«]/;
const CLOSES = /["”»][.,;:!?)\]]*$/;
/** A quotation that is not closed within so many sentences was never one: the mark stands for something else, or its fellow is missing. */
const LONGEST = 12;

/**
 * Whether a quotation runs on over the start of each sentence: 1 where one was opened before it by the same speaker and is
 * closed in it or later; one more for the end of the text, which is 0. Nothing is known of talk whose transcript has no
 * quotation marks.
 */
export function quotationsOver(words: readonly Word[], sentences: readonly Sentence[]): Uint8Array {
  const over = new Uint8Array(sentences.length + 1);
  let openedIn = -1;
  sentences.forEach(({ firstWord, endWord, speaker }, s) => {
    if (openedIn !== -1 && (speaker !== sentences[openedIn]!.speaker || s - openedIn > LONGEST)) openedIn = -1;
    for (let i = firstWord; i < endWord; i += 1) {
      const { text } = words[i]!;
      // Each paragraph of a long quotation may open again.
      if (openedIn === -1 && OPENS.test(text)) openedIn = s;
      if (openedIn !== -1 && CLOSES.test(text)) {
        over.fill(1, openedIn + 1, s + 1);
        openedIn = -1;
      }
    }
  });
  return over;
}
