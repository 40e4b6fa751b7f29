import type { Sentence, SentenceEnds, Word, WordTimes } from '../transcript/types.js';
import { restoreEnds } from './ends/restore.js';
import { ABBREVIATIONS, TITLES } from './lists/talk.js';
import type { PosTagger } from './tagger.js';

/** A word that ends a sentence, unless it is an abbreviation or the like. */
export const TERMINAL = /[.!?…؟۔।。！？]["'”’)\]]*$/;
/** A run this long without a comma or a full stop inside was not punctuated; spoken sentences seldom pass 40 words. Common practice. */
const LONGEST_WRITTEN = 45;

interface KnownOfWords {
  /**
   * `given` or `heard` when each word has its own times: then the lack of a pause tells something too, if pauses are shown at all
   * (some tools let each word last until the next begins).
   */
  readonly wordTimes?: WordTimes;
  /** Words at which somebody else begins to speak, though nobody is named. */
  readonly turnStarts?: ReadonlySet<number>;
  /** Words that begin a line or a cue of the file: a capital there may be the tool's habit. */
  readonly lineStarts?: ReadonlySet<number>;
}

const NONE: ReadonlySet<number> = new Set();

/**
 * Sentences of a list of words: where ends are written, as written; a stretch without any is restored from pauses, turns,
 * capitals, discourse markers and parts of speech. A sentence never spans two speakers. A mark such as "[laughter]" stays with the
 * sentence it follows.
 * @param known what is known beside the words
 */
export function splitSentences(
  words: readonly Word[],
  tagger: PosTagger,
  { wordTimes = 'spread', turnStarts = NONE, lineStarts = NONE }: KnownOfWords = {},
): { sentences: Sentence[]; sentenceEnds: SentenceEnds } {
  const terminals = countTerminals(words);
  const ends: number[] = [];
  const bare: [number, number][] = [];
  for (const [from, to] of turns(words, turnStarts)) {
    for (const [first, end] of writtenRuns(words, from, to)) {
      const around = terminals[Math.min(words.length, end + REACH)]! - terminals[Math.max(0, first - REACH)]!;
      const own = terminals[end]! - terminals[first]!;
      if ((own <= 1 && end - first > LONGEST_WRITTEN && !hasComma(words, first, end)) || (around === 0 && end - first > 3)) bare.push([first, end]);
      else ends.push(end);
    }
  }
  ends.push(...restoreEnds(words, bare, tagger, { wordTimes, lineStarts }));
  ends.sort((a, b) => a - b);
  const restored = bare.reduce((sum, [first, end]) => sum + end - first, 0);
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
  if (/[!?؟！？]["'”’)\]]*$/.test(text)) return !(nextLower && /["”’')\]]$/.test(text)); // “Really?” he said
  if (/(?:\.\.+|…)["'”’)\]]*$/.test(text)) return !nextLower && next !== '';
  const bare = text
    .toLowerCase()
    .replace(/^[^\p{L}\p{N}]+/u, '')
    .replace(/\.["'”’)\]]*$/, '');
  if (bare === 'no' && /^#?\d/.test(next)) return false; // “no. 12”; else it is an answer: “I said no. Then he left.”
  if (TITLES.has(bare)) return false;
  if (/^\p{L}$/u.test(bare) && bare !== 'i') return next === '' || false; // an initial: "J. Okoro"
  if (ABBREVIATIONS.has(bare) || /^(?:\p{L}\.)+\p{L}$/u.test(bare)) return !nextLower && (next === '' || nextLetter !== nextLetter.toLowerCase());
  return !nextLower || !/^\p{Ll}/u.test(next) || text.length > 3;
}

function toSentences(words: readonly Word[], ends: readonly number[]): Sentence[] {
  let firstWord = 0;
  return ends.map((endWord) => {
    const sentence = { firstWord, endWord, startMs: words[firstWord]!.startMs, endMs: words[endWord - 1]!.endMs, speaker: words[firstWord]!.speaker };
    firstWord = endWord;
    return sentence;
  });
}
