import type { Transcript } from './types.js';
import { wordsText } from './words-text.js';

/** A transcript with more capitals than this among its letters was typed in capitals throughout. */
const ALL_CAPITALS = 0.7;

/**
 * The sentences of a transcript as text, one each, for the model of sentence vectors: words with single spaces between
 * them. Text typed all in capitals is put in small letters, since the model has seldom read such.
 */
export function sentenceTexts(transcript: Transcript): string[] {
  const lower = isAllCapitals(transcript);
  return transcript.sentences.map(({ firstWord, endWord }) => {
    const text = wordsText(transcript.words, firstWord, endWord);
    return lower ? capitalised(text.toLowerCase()) : text;
  });
}

function isAllCapitals({ words }: Transcript): boolean {
  let [upper, letters] = [0, 0];
  for (const { text } of words) {
    for (const character of text) {
      if (character.toLowerCase() === character.toUpperCase()) continue;
      letters += 1;
      if (character === character.toUpperCase()) upper += 1;
    }
  }
  return letters > 0 && upper / letters > ALL_CAPITALS;
}

const capitalised = (text: string): string => text.replace(/\p{L}/u, (letter) => letter.toUpperCase());
