import type { Word } from './types.js';

/** Words as a line, with single spaces between them. @param endWord the first word that is not part of it */
export function wordsText(words: readonly Pick<Word, 'text'>[], firstWord = 0, endWord = words.length): string {
  let text = '';
  for (let i = firstWord; i < endWord && i < words.length; i += 1) text += i === firstWord ? words[i]!.text : ` ${words[i]!.text}`;
  return text;
}
