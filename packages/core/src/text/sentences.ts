import type { Sentence, SentenceEnds, Word, WordTimes } from '../transcript/types.js';
import { readGaps } from './ends/gap-model.js';
import { ruleStrength } from './ends/gap-rules.js';
import { ABBREVIATIONS, CANNOT_END, normalise, TITLES } from './lexicon.js';
import type { PartOfSpeech, PosTagger } from './tagger.js';

const TERMINAL = /[.!?…]["'”’)\]]*$/;
/** A run this long without a comma or a full stop inside was not punctuated; spoken sentences seldom pass 40 words. Common practice. */
const LONGEST_WRITTEN = 45;

export interface KnownOfWords {
  /**
   * `given` when each word has its own times: then the lack of a pause tells something too, if pauses are shown at all
   * (some tools let each word last until the next begins).
   */
  readonly wordTimes?: WordTimes;
  /** Words at which somebody else begins to speak, though nobody is named. */
  readonly turnStarts?: ReadonlySet<number>;
}

const NONE: ReadonlySet<number> = new Set();

/**
 * Sentences of a list of words: where ends are written, as written; a stretch without any is restored from pauses, turns,
 * discourse markers and parts of speech. A sentence never spans two speakers. A mark such as "[laughter]" stays with the
 * sentence it follows.
 * @param known what is known beside the words
 */
export function splitSentences(
  words: readonly Word[],
  tagger: PosTagger,
  { wordTimes = 'spread', turnStarts = NONE }: KnownOfWords = {},
): { sentences: Sentence[]; sentenceEnds: SentenceEnds } {
  const terminals = countTerminals(words);
  const timed = wordTimes === 'given' && showsPauses(words);
  const ends: number[] = [];
  let restored = 0;
  for (const [from, to] of turns(words, turnStarts)) {
    for (const [first, end] of writtenRuns(words, from, to)) {
      const around = terminals[Math.min(words.length, end + REACH)]! - terminals[Math.max(0, first - REACH)]!;
      const own = terminals[end]! - terminals[first]!;
      const bare = (own <= 1 && end - first > LONGEST_WRITTEN && !hasComma(words, first, end)) || (around === 0 && end - first > 3);
      if (bare) {
        ends.push(...restoreEnds(words, first, end, tagger, timed));
        restored += end - first;
      } else ends.push(end);
    }
  }
  const sentenceEnds = restored === 0 ? 'written' : restored > 0.9 * words.length ? 'restored' : 'mixed';
  return { sentences: toSentences(words, ends), sentenceEnds };
}

/** A stretch counts as unpunctuated when no full stop stands within this many words of it. */
const REACH = 60;

function hasComma(words: readonly Word[], first: number, end: number): boolean {
  for (let i = first; i < end; i += 1) if (/,$/.test(words[i]!.text)) return true;
  return false;
}

/** Number of words that end in a full stop before each word. */
function countTerminals(words: readonly Word[]): Int32Array {
  const counts = new Int32Array(words.length + 1);
  words.forEach((word, i) => {
    counts[i + 1] = counts[i]! + (word.kind === 'word' && TERMINAL.test(word.text) ? 1 : 0);
  });
  return counts;
}

function* turns(words: readonly Word[], turnStarts: ReadonlySet<number>): Generator<[number, number]> {
  let from = 0;
  for (let i = 1; i <= words.length; i += 1) {
    if (i === words.length || words[i]!.speaker !== words[from]!.speaker || turnStarts.has(i)) {
      yield [from, i];
      from = i;
    }
  }
}

function* writtenRuns(words: readonly Word[], from: number, to: number): Generator<[number, number]> {
  let first = from;
  for (let i = from; i < to; i += 1) {
    if (i + 1 < to && words[i + 1]!.kind === 'mark') continue; // the laugh belongs to what it follows
    const ended = endsSentence(lastSpoken(words, first, i), words[i + 1]?.text ?? '');
    if (i + 1 === to || ended) {
      yield [first, i + 1];
      first = i + 1;
    }
  }
}

function lastSpoken(words: readonly Word[], first: number, i: number): string {
  let k = i;
  while (k > first && words[k]!.kind === 'mark') k -= 1;
  return words[k]!.kind === 'mark' ? '' : words[k]!.text;
}

/**
 * True when a sentence ends after `text`, judged with the word that follows. Abbreviations, initials, decimals and
 * ellipses as in Unicode UAX #29 (rules SB6 to SB8a), with lists of titles and abbreviations, which UAX #29 leaves open.
 * @example endsSentence('Dr.', 'Osei') // false
 */
export function endsSentence(text: string, next: string): boolean {
  if (!TERMINAL.test(text)) return false;
  const nextLetter = /[\p{L}\p{N}]/u.exec(next)?.[0] ?? '';
  const nextLower = nextLetter !== '' && nextLetter === nextLetter.toLowerCase() && nextLetter !== nextLetter.toUpperCase();
  if (/[!?]["'”’)\]]*$/.test(text)) return !(nextLower && /["”’')\]]$/.test(text)); // “Really?” he said
  if (/(?:\.\.+|…)["'”’)\]]*$/.test(text)) return !nextLower && next !== '';
  const bare = text
    .toLowerCase()
    .replace(/^[^\p{L}\p{N}]+/u, '')
    .replace(/\.["'”’)\]]*$/, '');
  if (TITLES.has(bare)) return false;
  if (/^\p{L}$/u.test(bare) && bare !== 'i') return next === '' || false; // an initial: "J. Okoro"
  if (ABBREVIATIONS.has(bare) || /^(?:\p{L}\.)+\p{L}$/u.test(bare)) return !nextLower && (next === '' || nextLetter !== nextLetter.toLowerCase());
  return !nextLower || !/^\p{Ll}/u.test(next) || text.length > 3;
}

const MAX_RESTORED = 60;

/** What it costs to make one more sentence of `n` words: short ones need strong ends, long ones grow ever less likely. */
function lengthCost(n: number): number {
  if (n <= 2) return 1.1;
  if (n <= 4) return 0.35;
  if (n <= 16) return 0;
  return (n - 16) * 0.035;
}

/** How much the rules of grammar count beside the model, how far the sum leans towards an end, and what a sentence without a verb costs. */
const RULES = 0.4;
const LEAN = 1.2;
const VERBLESS = 0.8;

/** How long pauses count beside the words: nothing is heard in a short one, and a second of silence outweighs most words. */
const PAUSE_FROM_MS = 160;
const PAUSE_SCALE_MS = 90;
const MOST_FOR_PAUSE = 4;
/** Where pauses are shown, an end is asked to be heard too; a mean between what suits talk in short sentences and in long ones. */
const LEAN_TIMED = -0.1;
/** Share of the gaps that are pauses, from which on a text shows them. */
const SHOWN_FROM = 0.02;

function showsPauses(words: readonly Word[]): boolean {
  let heard = 0;
  for (let i = 1; i < words.length; i += 1) if (words[i]!.startMs - words[i - 1]!.endMs >= PAUSE_FROM_MS) heard += 1;
  return heard >= SHOWN_FROM * words.length;
}

/**
 * Best ends for a stretch without written ones: dynamic programming over the strengths of the gaps less the cost of each
 * length. O(n × 60).
 */
export function restoreEnds(words: readonly Word[], first: number, end: number, tagger: PosTagger, timed: boolean): number[] {
  const texts: string[] = [];
  for (let i = first; i < end; i += 1) texts.push(normalise(words[i]!.text));
  const tags = tagger(texts);
  const endsBefore = readEndStrengths(words, texts, tags, first);
  const lean = timed ? LEAN_TIMED : LEAN;
  const verbs = new Int32Array(texts.length + 1);
  tags.forEach((tag, i) => (verbs[i + 1] = verbs[i]! + (tag === 'VERB' || tag === 'AUX' || texts[i]!.includes("'") ? 1 : 0)));
  const n = end - first;
  const best = new Float64Array(n + 1).fill(-Infinity);
  const back = new Int32Array(n + 1);
  best[0] = 0;
  for (let to = 1; to <= n; to += 1) {
    const strength = to === n ? 0 : endsBefore(to) + lean - (CANNOT_END.has(texts[to - 1]!) ? 1.5 : 0);
    for (let from = Math.max(0, to - MAX_RESTORED); from < to; from += 1) {
      const value = best[from]! + strength - lengthCost(to - from) - (verbs[to] === verbs[from] ? VERBLESS : 0);
      if (value > best[to]!) {
        best[to] = value;
        back[to] = from;
      }
    }
  }
  const ends: number[] = [];
  for (let to = n; to > 0; to = back[to]!) ends.push(first + to);
  return ends.reverse();
}

/**
 * How doubtful it is that a sentence begins where one was restored, 0 to 1: 0 where the end before it was written or
 * somebody else speaks, little where a long pause is heard; one more for the end of the text, which is certain. About as
 * many are wrong as it says: of the marked talks without punctuation, 28 % of those below 0.3 and 66 % of those above 0.6.
 * @param texts normalised words, @param tags their parts of speech
 */
export function doubtfulStarts(words: readonly Word[], texts: readonly string[], tags: readonly PartOfSpeech[], sentences: readonly Sentence[]): Float64Array {
  const doubts = new Float64Array(sentences.length + 1);
  const restored = sentences.map(({ firstWord, speaker }, s) => {
    const before = words[firstWord - 1];
    return s > 0 && before !== undefined && before.speaker === speaker && before.kind !== 'mark' && !TERMINAL.test(before.text);
  });
  if (!restored.includes(true)) return doubts;
  const endsBefore = readEndStrengths(words, texts, tags, 0);
  sentences.forEach(({ firstWord }, s) => {
    if (restored[s]!) doubts[s] = 1 / (1 + Math.exp(endsBefore(firstWord)));
  });
  return doubts;
}

/** Log-odds that a sentence ends before the `k`th of the texts, which begin with word `first`: by words, grammar and what is heard. */
function readEndStrengths(words: readonly Word[], texts: readonly string[], tags: readonly PartOfSpeech[], first: number): (k: number) => number {
  const byWords = readGaps(texts, tags);
  return (k) => byWords(k) + RULES * ruleStrength(texts, tags, k) + heardAt(words, first + k);
}

/** What is heard before word `i`: its pause, and marks such as a laugh, which stay with what they follow. */
function heardAt(words: readonly Word[], i: number): number {
  if (words[i]!.kind === 'mark') return -6;
  const pauseMs = words[i]!.startMs - words[i - 1]!.endMs;
  const pause = Math.min(MOST_FOR_PAUSE, Math.max(0, (pauseMs - PAUSE_FROM_MS) / PAUSE_SCALE_MS));
  return pause + (words[i - 1]!.kind === 'mark' ? 2 : 0);
}

function toSentences(words: readonly Word[], ends: readonly number[]): Sentence[] {
  let firstWord = 0;
  return ends.map((endWord) => {
    const sentence = { firstWord, endWord, startMs: words[firstWord]!.startMs, endMs: words[endWord - 1]!.endMs, speaker: words[firstWord]!.speaker };
    firstWord = endWord;
    return sentence;
  });
}
