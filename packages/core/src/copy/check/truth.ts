import { STOPWORDS } from '../../text/lists/talk.js';
import { SCALES, TENS, UNITS } from '../../text/lists/written.js';
import { normalise } from '../../text/normalise.js';
import { rarity } from '../../text/spoken-words.js';
import { stem } from '../../text/stem.js';
import { readNumber } from '../written/figures.js';
import type { WrittenWord } from '../written/written-word.js';
import { figuresIn, ordinal, type SaidPassage, soundsOf } from './said-passage.js';
import { type Found, foundAt } from './types.js';

/** A written word at its characters. */
interface Token {
  readonly text: string;
  readonly norm: string;
  readonly from: number;
  readonly to: number;
  /** It stands where any word is written with a capital. */
  readonly first: boolean;
}

/**
 * What a written text says that was not said: figures, names, quotations and whole claims that are not found in the passage.
 * Numbers are compared by value, names by letters and by sound, quotations word for word, sentences by their content words. A
 * text that says the opposite with the same words is found only where a "not" is added.
 * @param english else only quotations are looked for, and figures where the transcript has any: names, numbers in words and
 *   content words are known of English alone
 */
export function checkTruth(text: string, said: SaidPassage, english = true): Found[] {
  const tokens = tokensOf(text);
  const ofFigures = english || said.texts.some((norm) => /\d/.test(norm)) ? figures(tokens, text, said, english) : [];
  const exact = [...ofFigures, ...(english ? names(tokens, text, said) : []), ...quotations(text, said)];
  const claims = english ? sentencesOf(text).flatMap(([from, to]) => claim(text, from, to, said)) : [];
  return [...exact, ...claims.filter(({ from, to }) => !exact.some((one) => one.from < to && from < one.to))].sort((a, b) => a.from - b.from);
}

/** Figures in what is no sentence: a hashtag, a search phrase. */
export function checkFigures(text: string, said: SaidPassage): Found[] {
  return figures(tokensOf(text), text, said, false);
}

function tokensOf(text: string): Token[] {
  const tokens: Token[] = [];
  let first = true;
  for (const match of text.matchAll(/[\p{L}\p{N}$€£][\p{L}\p{N}'’.,:-]*[\p{L}\p{N}%]|[\p{L}\p{N}]%?|[.!?…:“"\n]/gu)) {
    if (/^[.!?…:“"\n]$/.test(match[0])) {
      first = true;
      continue;
    }
    const [word] = match;
    tokens.push({ text: word, norm: normalise(word), from: match.index, to: match.index + word.length, first });
    first = /[.!?…]$/.test(word);
  }
  return tokens;
}

/** @param inWords numbers in words count as well, not in figures alone */
function figures(tokens: readonly Token[], text: string, said: SaidPassage, inWords: boolean): Found[] {
  const found: Found[] = [];
  const line: WrittenWord[] = tokens.map(({ text: word, norm }, i) => ({ text: word, norm, tag: 'NUM', first: i, end: i + 1 }));
  const mark = (from: number, to: number): void => void found.push(foundAt('figure', text, from, to, `“${text.slice(from, to)}” was not said.`));
  for (let i = 0; i < tokens.length; i += 1) {
    const { norm, from, to } = tokens[i]!;
    const inFigures = figuresIn(norm);
    if (inFigures.length > 0) {
      const scale = SCALES.get(tokens[i + 1]?.norm ?? '') ?? 1; // "1.1 million"
      const values = inFigures.flatMap((value) => [value * scale, ...(norm.endsWith('%') ? [value / 100] : [])]); // "50%": a half
      if (!values.some((value) => said.numbers.has(value)) && !said.words.has(norm)) mark(from, to);
      continue;
    }
    const read = inWords ? readNumber(line, i) : null;
    if (read === null || countsNothing(read, norm)) continue;
    const words = tokens.slice(i, i + read.length);
    if (
      !said.numbers.has(read.value) &&
      !isRun(
        words.map((word) => word.norm),
        said.texts,
      )
    )
      mark(from, words.at(-1)!.to);
    i += read.length - 1;
  }
  return found;
}

/** "one" is no figure: "the one thing", "no one". "half" and "a" may count nothing either. */
const countsNothing = ({ value, length }: { readonly value: number; readonly length: number }, norm: string): boolean =>
  length === 1 && (value === 1 || !(UNITS.has(norm) || TENS.has(norm) || norm.includes('-')));

/** Said just so, one word after another. */
const isRun = (words: readonly string[], texts: readonly string[]): boolean => texts.some((_, i) => words.every((word, k) => texts[i + k] === word));

/** Words that everybody knows are no names where any word has a capital: some eight thousand of them. */
const KNOWN_WORD = 9;

function names(tokens: readonly Token[], text: string, said: SaidPassage): Found[] {
  const titled = isTitled(tokens);
  return tokens
    .filter(({ text: word, norm, first }) => {
      if (!/^\p{Lu}/u.test(word) || /^I(?:$|['’])/.test(word) || figuresIn(norm).length > 0 || ordinal(norm) !== null) return false;
      const plain = norm.replace(/'s$/, '');
      if (STOPWORDS.has(norm) || NO_NAMES.has(plain) || plain.includes("'") || said.words.has(plain) || said.stems.has(stem(plain))) return false;
      if (/^\p{Lu}{2,5}s?$/u.test(word) && isSpelled(plain, said)) return false;
      if ((first || titled) && rarity(plain) < KNOWN_WORD) return false;
      return !soundsOf(plain).some((sound) => said.sounds.has(sound));
    })
    .map(({ from, to, text: word }) => foundAt('name', text, from, to, `“${word}” was not named.`));
}

const NO_NAMES: ReadonlySet<string> = new Set(['ok', 'okay', 'mr', 'mrs', 'ms', 'dr']);

/** "CPR" said letter by letter. */
const isSpelled = (word: string, { texts }: SaidPassage): boolean => ` ${texts.join(' ')} `.includes(` ${[...word.replace(/s$/, '')].join(' ')}`);

/** Written in the manner of a headline, every word with a capital: then a capital tells no name. */
function isTitled(tokens: readonly Token[]): boolean {
  const words = tokens.filter(({ norm }) => /^\p{L}/u.test(norm) && !STOPWORDS.has(norm));
  return words.length >= 3 && words.filter(({ text }) => /^\p{Lu}/u.test(text)).length > 0.7 * words.length;
}

/** A quotation may leave out so many of the words that were said between its own; it adds none. */
const LEFT_OUT = 3;

function quotations(text: string, said: SaidPassage): Found[] {
  return [...text.matchAll(/“([^”]+)”|"([^"]+)"|„([^“]+)“|«([^»]+)»/g)]
    .filter((match) => {
      const words = (match[1] ?? match[2] ?? match[3] ?? match[4] ?? '')
        .split(/[\s—–-]+/)
        .map(normalise)
        .filter(Boolean);
      return words.length > 1 && !isSaidInOrder(words, said);
    })
    .map((match) => foundAt('quotation', text, match.index, match.index + match[0].length, 'This was not said in these words.'));
}

function isSaidInOrder(words: readonly string[], { texts, numbers }: SaidPassage): boolean {
  const same = (word: string, at: number): boolean => texts[at] === word || (figuresIn(word).some((value) => numbers.has(value)) && isNumeral(texts[at]!));
  return texts.some((_, from) => {
    let at = from;
    return words.every((word, k) => {
      for (let skipped = 0; skipped <= (k === 0 ? 0 : LEFT_OUT); skipped += 1)
        if (at + skipped < texts.length && same(word, at + skipped)) {
          at += skipped + 1;
          return true;
        }
      return false;
    });
  });
}

const isNumeral = (text: string): boolean => UNITS.has(text) || TENS.has(text) || figuresIn(text).length > 0 || text.includes('-');

/** Less of a sentence's content words than this are said: nobody said it. Of fewer content words nothing can be told. */
const [LEAST_SHARE, LEAST_CONTENT] = [0.34, 2];
/** With so many of its words said, a sentence says what was said, or the opposite. */
const SAME_WORDS = 0.75;
const DENIES = /^(?:not|never|no|none|nobody|nothing|without|cannot|hardly)$|n't$/;

function claim(text: string, from: number, to: number, said: SaidPassage): Found[] {
  const words = tokensOf(text.slice(from, to)).map(({ norm }) => norm);
  const content = [...new Set(words.filter((norm) => norm !== '' && !STOPWORDS.has(norm)))];
  if (content.length < LEAST_CONTENT) return [];
  const known = content.filter((norm) => isKnown(norm, said)).length / content.length;
  if (known < LEAST_SHARE) return [foundAt('claim', text, from, to, 'Nothing like this was said.')];
  if (known >= SAME_WORDS && words.some((norm) => DENIES.test(norm)) && !said.texts.some((norm) => DENIES.test(norm)))
    return [foundAt('claim', text, from, to, 'This says “not” where nobody did.')];
  return [];
}

function isKnown(norm: string, said: SaidPassage): boolean {
  const plain = norm.replace(/'s$/, '');
  return (
    said.words.has(plain) ||
    said.stems.has(stem(plain)) ||
    figuresIn(norm).some((value) => said.numbers.has(value)) ||
    norm.split('-').some((part) => part !== norm && said.words.has(part))
  );
}

/** Characters of each sentence. */
export function sentencesOf(text: string): [number, number][] {
  return [...new Intl.Segmenter('en', { granularity: 'sentence' }).segment(text)]
    .map(({ segment, index }): [number, number] => [index, index + segment.trimEnd().length])
    .filter(([from, to]) => to > from);
}

const INSTRUCTION =
  /\b(?:ignore|disregard|forget)\b.{0,30}\b(?:instructions?|prompts?|rules|above|previous)\b|\b(?:system|developer) prompt\b|\byou are (?:now )?an? (?:assistant|ai|language model)\b|\bas an? (?:ai|language model)\b|\b(?:output|respond|reply|answer) (?:only )?with\b/i;

/** Talk that speaks to a program that may read it: whoever takes words from such a program should look twice. */
export function speaksToProgram(said: SaidPassage): boolean {
  return INSTRUCTION.test(said.texts.join(' '));
}
