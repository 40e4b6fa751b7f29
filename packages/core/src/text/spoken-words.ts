import { SPOKEN_WORDS } from './spoken-words-list.js';

/** A word that is not among the twelve thousand commonest is taken to stand here. */
const BEYOND = 30_000;
const RANKS = new Map(SPOKEN_WORDS.split(' ').map((word, rank) => [word, rank + 1] as const));

/** Whether a word of three letters or more is among the commonest of English. Lower case. */
export const isCommon = (word: string): boolean => RANKS.has(word) || RANKS.has(word.replace(/s$/, ''));

/** How seldom a word is said in English at large: the logarithm of its rank (Zipf), 0 for the commonest to about 10.3. Lower case. */
export function rarity(word: string): number {
  const rank = RANKS.get(word) ?? RANKS.get(word.replace(/(?:'s|s)$/, '')) ?? BEYOND;
  return Math.log(rank);
}
