import { STOPWORDS } from './lists/talk.js';
import { rememberWords } from './remember.js';
import { normalise } from './normalise.js';

/** True when the words of a phrase stand in the texts from `i` on; the last one may carry a plural or an ending. */
export function phraseAt(texts: readonly string[], i: number, phrase: readonly string[]): boolean {
  return phrase.every((word, k) => {
    const text = texts[i + k];
    return text !== undefined && (text === word || stem(text) === stem(word));
  });
}

/** Crude English stem, for matching a topic with its inflections; not for showing. */
export const stem = rememberWords(cut);

function cut(word: string): string {
  if (word.length <= 3) return word;
  return word
    .replace(/'s$/, '')
    .replace(/(?:ies)$/, 'y')
    .replace(/(?<=[^s])s$/, '')
    .replace(/(?<=.{3})(?:ing|ed|er)$/, '')
    .replace(/(?<=.{3})e$/, '')
    .replace(/(.)\1$/, '$1');
}

/** A typed topic as the words that are looked for; function words inside it are kept, at its ends dropped. */
export function topicWords(topic: string): string[] {
  const parts = topic
    .split(/\s+/)
    .map(normalise)
    .filter((word) => word !== '');
  while (parts.length > 1 && STOPWORDS.has(parts[0]!)) parts.shift();
  while (parts.length > 1 && STOPWORDS.has(parts.at(-1)!)) parts.pop();
  return parts;
}
