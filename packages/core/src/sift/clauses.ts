import { CLAUSE_JOINERS, LEANS_ON_MAIN, RELATIVES, STANDING_STARTS, TAILS, TAILS_AFTER_PAUSE, TAKES_SO } from '../text/lists/clauses.js';
import { PERSONS, STANDS_FOR } from '../text/lists/edges.js';
import { CANNOT_END } from '../text/lists/talk.js';
import { phrasesBy } from '../text/phrases-by.js';
import type { PartOfSpeech } from '../text/tagger.js';
import type { Word } from '../transcript/types.js';

/** Words as clauses are read off them. */
export interface SpokenWords {
  readonly words: readonly Word[];
  readonly texts: readonly string[];
  readonly tags: readonly PartOfSpeech[];
}

const PAUSES = /[,;:—–-]["'”’)]*$/;
const pausesAfter = (words: readonly Word[], i: number): boolean => i >= 0 && PAUSES.test(words[i]!.text);

/** Words behind a pause that is written. */
export function* pausesIn({ words }: SpokenWords, from: number, endWord: number): Generator<number> {
  for (let i = from; i < endWord; i += 1) if (pausesAfter(words, i - 1)) yield i;
}

/**
 * Where clauses may begin inside a sentence: behind a comma, or with a word that joins ("and I was…"). Not behind a condition
 * ("if it is cold, you wait") or a word of saying ("he said, I was"), on which what follows leans.
 */
export function* clauseStarts({ words, texts, tags }: SpokenWords, from: number, endWord: number): Generator<number> {
  let first = from - 1;
  for (let i = from; i < endWord; i += 1) {
    const paused = pausesAfter(words, i - 1);
    const joined = CLAUSE_JOINERS.has(texts[i]!);
    if (!paused && !joined) continue;
    const leans = !joined && (LEANS_ON_MAIN.has(texts[first]!) || tags[i - 1] === 'VERB');
    if (!leans) yield i;
    if (paused) first = i;
  }
}

/** A subject has its verb within so many words, and what it speaks of is not said in words that stand for something. */
const VERB_WITHIN = 6;

/**
 * Whether what begins at a word is a clause that can stand by itself: a subject with its verb, no word that ties it to the one
 * before, and none that stands for something named there.
 */
export function standsAsClause({ words, texts, tags }: SpokenWords, at: number, endWord: number): boolean {
  if (RELATIVES.has(texts[at]!)) return false;
  const end = Math.min(endWord, at + VERB_WITHIN);
  for (let i = at; i < end; i += 1) if (STANDS_FOR.has(texts[i]!) || PERSONS.has(texts[i]!)) return false;
  if (STANDING_STARTS.has(texts[at]!)) return true;
  if (!/^(?:PRON|DET|NOUN|PROPN)$/.test(tags[at]!)) return false;
  if (texts[at]!.includes("'")) return true; // "we're": subject and verb
  for (let i = at + 1; i < end; i += 1) {
    if (pausesAfter(words, i - 1)) return false;
    if (/^(?:VERB|AUX)$/.test(tags[i]!)) return !pausesAfter(words, i); // "I think, because"
  }
  return false;
}

/** What is left of a sentence without its tail has at least so many words, or the tail is all there is. */
const LEAST_POINT = 3;

/**
 * Where the tail of a sentence begins: words that trail behind its point ("so, yeah", "or whatever", "you know"). `endWord`
 * where there is none, `firstWord` where the sentence is nothing else.
 */
export function tailStart(spoken: SpokenWords, firstWord: number, endWord: number): number {
  let end = endWord;
  for (;;) {
    const length = tailLength(spoken, firstWord, end);
    if (length === 0) break;
    end -= length;
  }
  if (end === endWord) return endWord;
  if (end === firstWord) return firstWord;
  // What is left must be able to end: else the tail belongs to it ("and I was like, yeah").
  return end - firstWord >= LEAST_POINT && !CANNOT_END.has(spoken.texts[end - 1]!) ? end : endWord;
}

const ANYWHERE = phrasesBy(-1, TAILS);
const AFTER_PAUSE = phrasesBy(-1, TAILS_AFTER_PAUSE);

/** Words of the tail that ends a stretch, 0 where none does. */
function tailLength({ words, texts }: SpokenWords, firstWord: number, end: number): number {
  if (end === firstWord) return 0;
  const last = texts[end - 1]!;
  const endsWith = (tail: readonly string[]): boolean =>
    tail.length <= end - firstWord && tail.every((word, k) => texts[end - tail.length + k] === word && words[end - tail.length + k]!.kind === 'word');
  const alone = ANYWHERE.get(last)?.find((tail) => endsWith(tail) && !(tail[0] === 'so' && TAKES_SO.has(texts[end - tail.length - 1] ?? '')));
  if (alone !== undefined) return alone.length;
  const set = AFTER_PAUSE.get(last)?.find((tail) => endsWith(tail) && (end - tail.length === firstWord || pausesAfter(words, end - tail.length - 1)));
  return set?.length ?? 0;
}
