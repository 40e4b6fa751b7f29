import { CANNOT_END, SUBJECT_PRONOUNS } from '../text/lists/talk.js';
import type { Passage } from './phrases.js';
import { ASKS_ROOM, DID, ENDS_IN_ING, LEANING, SAYING, UNSURE, VAGUE, WAITING } from '../text/lists/titles.js';

/** A tell at its place, as far as wording needs to know it. */
export interface Tell {
  readonly tell: string;
  readonly firstWord: number;
  readonly endWord: number;
}

/** What a line says more by each of these. */
const WORTH: Readonly<Record<string, number>> = {
  promise: 0.8,
  figure: 0.7,
  surprise: 0.8,
  opinion: 0.8,
  feeling: 0.6,
  question: 0.6,
  superlative: 0.5,
  advice: 0.6,
  contrast: 0.3,
  name: 0.2,
  address: 0.2,
  greeting: -2,
  housekeeping: -2,
  sponsor: -2,
  signoff: -2,
};
const PER_NOUN = 0.22;
const MOST_NOUNS = 4;
/** What the end of a passage loses against its start. */
const LATER = 0.5;

const ASKS_ANYBODY = /^(?:do|did) you know$|^have you ever$/;

/**
 * How much a range of words says as a line of its own, about -3 to 4: by what it holds, and by how whole it is.
 * @param first where its leading fillers end, @param to where it ends (not inside)
 */
export function lineWorth(passage: Passage, tells: readonly Tell[], first: number, to: number): number {
  const { texts, tags } = passage;
  let worth = (-LATER * (first - passage.firstWord)) / (passage.endWord - passage.firstWord);
  let asks = false;
  let said = 0;
  for (const { tell, firstWord, endWord } of tells) {
    if (firstWord >= to) break; // they are in order
    if (firstWord < first || endWord > to) continue;
    worth += WORTH[tell] ?? 0;
    asks ||= tell === 'question';
    said += tell === 'question' ? 0 : 1;
  }
  const nouns = countOf(first, to, (i) => tags[i] === 'NOUN' || tags[i] === 'PROPN');
  worth += PER_NOUN * Math.min(MOST_NOUNS, nouns);
  const one = texts[first]!;
  if (LEANING.has(one)) worth -= 0.8;
  const asksRoom = ASKS_ROOM.has(one) && !ASKS_ANYBODY.test(texts.slice(first, first + 3).join(' '));
  if (asks && (asksRoom || nouns + said === 0)) worth -= asksRoom ? 3 : 0.8;
  const two = texts[first + 1] ?? '';
  if (SUBJECT_PRONOUNS.has(one) && (SAYING.has(two) || UNSURE.has(two))) worth -= 0.5;
  if (one === 'i' && two === 'want' && texts[first + 3] === 'say') worth -= 1; // "I want to say seven months"
  const without = (tags[first] === 'VERB' && (DID.has(one) || one.endsWith('ed'))) || (tags[first] === 'AUX' && !asks);
  if (without) worth -= 1.6;
  worth -= 0.4 * countOf(first, to, (i) => VAGUE.has(texts[i]!));
  if (CANNOT_END.has(texts[to - 1]!) || tags[to - 1] === 'DET' || tags[to - 1] === 'CCONJ') worth -= 0.8;
  if (!isClause(passage, first, to)) worth -= 0.5;
  if (isHalf(passage, first, to)) worth -= 1.2;
  return worth;
}

/** True where a comma cuts a line off before its other half has come. */
function isHalf({ texts, words }: Passage, first: number, to: number): boolean {
  if (!/[,;:—–]["'”’)]*$/.test(words[to - 1]!.text)) return false;
  if (WAITING.has(texts[first]!)) return true;
  for (let i = first + 1; i + 1 < to; i += 1) if (WAITING.has(texts[i + 1]!) && (texts[i] === 'and' || texts[i] === 'but')) return true;
  return false;
}

function countOf(from: number, to: number, test: (i: number) => boolean): number {
  let n = 0;
  for (let i = from; i < to; i += 1) if (test(i)) n += 1;
  return n;
}

/** A verb that says something of somebody: not "to save", nor "working" without "is". */
function isVerb({ tags, texts }: Passage, i: number): boolean {
  if (/[a-z]'(?:s|re|ve|d|ll|m)$/.test(texts[i]!) || tags[i] === 'AUX') return true;
  return tags[i] === 'VERB' && texts[i - 1] !== 'to' && (!texts[i]!.endsWith('ing') || ENDS_IN_ING.has(texts[i]!));
}

/** True where something is said of something: a verb that is not inside "a man that was". */
function isClause(passage: Passage, first: number, to: number): boolean {
  const { tags, texts } = passage;
  let inside: 'nothing' | 'before its verb' | 'its verb' = 'nothing';
  for (let i = first; i < to; i += 1) {
    const verb = isVerb(passage, i);
    if (i > first && (tags[i - 1] === 'NOUN' || tags[i - 1] === 'PROPN') && /^(?:that|who|which)(?:$|')/.test(texts[i]!)) {
      inside = verb ? 'its verb' : 'before its verb';
    } else if (verb) {
      if (inside === 'nothing') return true;
      inside = 'its verb';
    } else if (inside === 'its verb' && tags[i] !== 'ADV') inside = 'nothing';
  }
  return false;
}
