import { doubleMetaphone } from 'double-metaphone';
import { SCALES, TENS, UNITS } from '../../text/lists/written.js';
import { normalise } from '../../text/normalise.js';
import { stem } from '../../text/stem.js';
import { readNumber } from '../written/figures.js';
import type { WrittenWord } from '../written/written-word.js';

/** What was said in a passage, as words are checked against it. */
export interface SaidPassage {
  /** Its words, normalised, in order. */
  readonly texts: readonly string[];
  readonly words: ReadonlySet<string>;
  readonly stems: ReadonlySet<string>;
  /** How its words sound (Philips 2000, Double Metaphone), and each two that follow one another as one. */
  readonly sounds: ReadonlySet<string>;
  /** Every number that its words can be read as. */
  readonly numbers: ReadonlySet<number>;
}

/** @param said words of the passage, as they stand in its transcript; @param around words that may be named though the passage does not: of speakers, the recording's title, the client */
export function saidPassage(said: readonly string[], around: readonly string[] = []): SaidPassage {
  const texts = said.map(normalise).filter((text) => text !== '');
  const named = around.flatMap((text) => text.split(/\s+/)).map(normalise);
  const words = new Set([...texts, ...named].flatMap((text) => [text, text.replace(/'s$/, ''), ...text.split('-')]));
  return {
    texts,
    words,
    stems: new Set([...words].map(stem)),
    sounds: new Set([...words, ...texts.slice(1).map((text, i) => texts[i]! + text)].flatMap(soundsOf)),
    numbers: numbersOf(texts),
  };
}

/** Longer ones are no words. */
const LONGEST_SOUND = 40;

/** How a word may sound; nothing for one that is too short to tell. */
export function soundsOf(word: string): string[] {
  const letters = word.replace(/[^\p{L}]/gu, '');
  return letters.length < 3 || letters.length > LONGEST_SOUND ? [] : doubleMetaphone(letters).filter((sound) => sound.length > 1);
}

const ORDINALS = new Map(
  'zeroth first second third fourth fifth sixth seventh eighth ninth tenth eleventh twelfth thirteenth fourteenth fifteenth sixteenth seventeenth eighteenth nineteenth'
    .split(' ')
    .map((word, value) => [word, value] as const),
);

/** "twentieth" 20, "first" 1; null for another word. */
export function ordinal(word: string): number | null {
  const simple = ORDINALS.get(word);
  if (simple !== undefined) return simple;
  const [ten, unit] = word.split('-') as [string, string?];
  if (unit !== undefined && TENS.has(ten)) return TENS.get(ten)! + (ORDINALS.get(unit) ?? Number.NaN);
  return TENS.get(word.replace(/ieth$/, 'y')) ?? null;
}

/** Of whatever begins at each word: as one number, and as figures beside one another ("two fifty": 250 and 2.5). */
function numbersOf(texts: readonly string[]): Set<number> {
  const numbers = new Set<number>();
  const line: WrittenWord[] = texts.map((norm, i) => ({ text: norm, norm, tag: 'NUM', first: i, end: i + 1 }));
  const add = (value: number): void => void (Number.isFinite(value) && numbers.add(value));
  texts.forEach((text, i) => {
    for (const value of figuresIn(text)) for (const scale of [1, SCALES.get(texts[i + 1] ?? '') ?? 1]) add(value * scale);
    add(ordinal(text) ?? Number.NaN);
    if (text === 'half') add(0.5);
    if (text === 'quarter') add(0.25);
    if (text === 'dozen') add(texts[i - 1] === 'half' || (texts[i - 1] === 'a' && texts[i - 2] === 'half') ? 6 : 12);
    const read = readNumber(line, i);
    for (const value of clockTimes(texts, i, read)) add(value);
    if (read === null) return;
    add(read.value);
    if (texts[i + read.length] === 'k') add(1_000 * read.value);
    if (YEARS_FOLLOW.has(texts[i - 1] ?? '') && read.value < 100) add(read.value + (read.value < 50 ? 2000 : 1900));
    const after = readNumber(line, i + read.length);
    if (after === null) return;
    // "two fifty", "twenty seventeen", "nine thirty": one number of two.
    if (after.value < 100) for (const value of [100 * read.value + after.value, read.value + after.value / 100]) add(value);
    // "four two zero"
    let digits = '';
    for (let k = i; (UNITS.get(texts[k] ?? '') ?? 10) < 10; k += 1) {
      digits += UNITS.get(texts[k]!)!;
      if (digits.length > 1) add(Number(digits));
    }
  });
  return numbers;
}

/** After these, two figures may be a year: "since ninety-four". */
const YEARS_FOLLOW: ReadonlySet<string> = new Set(['in', 'since', 'from', 'until', 'of', 'year', 'around', 'before', 'after']);

/** "half past five" 5.3 and 530, "twenty to nine" 8.4 and 840. */
function clockTimes(texts: readonly string[], at: number, read: { readonly value: number; readonly length: number } | null): number[] {
  const minutes = texts[at] === 'half' ? 30 : texts[at] === 'quarter' ? 15 : (read?.value ?? Number.NaN);
  const join = at + (read?.length ?? 1);
  const hour = hourAt(texts, join + 1);
  if (!(minutes > 0 && minutes < 60) || hour === null || (texts[join] !== 'past' && texts[join] !== 'to')) return [];
  const [h, m] = texts[join] === 'past' ? [hour, minutes] : [hour === 1 ? 12 : hour - 1, 60 - minutes];
  return [h + m / 100, 100 * h + m];
}

function hourAt(texts: readonly string[], at: number): number | null {
  const value = UNITS.get(texts[at] ?? '') ?? figuresIn(texts[at] ?? '')[0] ?? 0;
  return value >= 1 && value <= 12 ? value : null;
}

/** Figures written in a word: "£1,250" 1250, "8.30" 8.3 and 830, "9:30" 930 and 9.3, "2.5k" 2500; "5m" may be five metres as well. */
export function figuresIn(text: string): number[] {
  const found: number[] = [];
  for (const [, digits, unit] of text.matchAll(/(\d[\d,.:'’]*\d|\d)(?:(k|m|bn)(?![\p{L}\d]))?/giu)) {
    const plain = Number(digits!.replace(/[,'’]/g, ''));
    const scale = { k: 1e3, m: 1e6, bn: 1e9 }[unit?.toLowerCase() ?? ''];
    if (scale !== undefined) found.push(plain * scale);
    if (scale === undefined || /^m$/i.test(unit!)) found.push(plain);
    if (digits!.includes(':')) found.push(Number(digits!.replaceAll(':', '')), Number(digits!.replace(':', '.')));
    if (/\.\d{2,3}$/.test(digits!)) found.push(Number(digits!.replaceAll('.', '')));
  }
  return [...new Set(found)].filter(Number.isFinite);
}
