import { GENERIC_NOUNS, STOPWORDS } from '../../text/lists/talk.js';
import { stem } from '../../text/stem.js';
import type { Passage } from '../phrases.js';

/** Stems of the words that say something. */
export const contentOf = (norms: readonly string[]): ReadonlySet<string> => new Set(norms.filter((norm) => norm !== '' && !STOPWORDS.has(norm)).map(stem));

/** It says something, and not of whatever. */
export const isContent = (text: string): boolean => text.length > 1 && /^[\p{L}\p{N}]/u.test(text) && !STOPWORDS.has(text) && !GENERIC_NOUNS.has(text);

/** How often each stem that says something is said in a passage. */
export function stemCounts({ texts, firstWord, endWord }: Pick<Passage, 'texts' | 'firstWord' | 'endWord'>): Map<string, number> {
  const counts = new Map<string, number>();
  for (const key of texts.slice(firstWord, endWord).filter(isContent).map(stem)) counts.set(key, (counts.get(key) ?? 0) + 1);
  return counts;
}

/** Two lines of so much in common say the same. */
export const SAME = 0.5;

/** What a line says: its letters and figures, and the stems of its words that say something. */
export interface ReadLine {
  readonly letters: string;
  readonly words: ReadonlySet<string>;
}

export function readLine(line: string): ReadLine {
  const letters = line
    .toLowerCase()
    .replace(/[^\p{L}\p{N}']+/gu, ' ')
    .trim();
  return { letters, words: contentOf(letters.split(' ')) };
}

/** True where one line says the other again: its very words, or half of what the shorter says. */
export const saysAgain = (line: ReadLine, other: ReadLine): boolean =>
  (other.letters !== '' && line.letters.includes(other.letters)) || shared(line.words, other.words) >= SAME;

/** How much of the shorter of two lines stands in the other, 0 to 1. */
export const shared = (a: ReadonlySet<string>, b: ReadonlySet<string>): number =>
  [...a].filter((word) => b.has(word)).length / Math.max(1, Math.min(a.size, b.size));
