import { BY_THE_HUNDRED, BY_THE_UNIT, MONEY, SCALES } from '../../text/lists/written.js';
import { smallNumber } from './number-words.js';
import type { Line, WrittenWord } from './written-word.js';

/** "two fifty" as it is written, and how many words it takes. */
export interface Price {
  readonly text: string;
  readonly value: number;
  readonly length: number;
}

/** Before these, "two thirty" is a time. */
const TIMES: ReadonlySet<string> = new Set(['at', 'by', 'till', 'until', 'before', 'after', 'past', 'from', 'around']);
/** "Nine thirty a day early" is one, too. */
const BEFORE_OR_AFTER: ReadonlySet<string> = new Set(['early', 'earlier', 'late', 'later', 'before', 'after', 'ahead']);
const PAIR = 2;

/**
 * Prices said as two numbers, by where they begin: "two fifty a tonne" is 250, "four twenty a roll" 4.20, and of what the line
 * sets beside it ("instead of five ten") the same holds. Where nothing tells which, who said it knows, and it stays in words.
 * Common practice: what is sold by weight, by the piece or by the litre has a price of some units, what is paid by the month or the tonne of hundreds.
 */
export function pricesIn(line: Line): ReadonlyMap<number, Price> {
  const places = line.map((_, i) => i).filter((i) => isPair(line, i));
  const told = new Set(places.map((i) => tells(line, i + PAIR)).filter((one) => one !== null));
  if (told.size !== 1) return new Map();
  const [by] = told;
  return new Map(
    places
      .filter((i) => tells(line, i + PAIR) !== null || !TIMES.has(line[i - 1]?.norm ?? ''))
      .map((i) => {
        const value = 100 * smallNumber(line[i]!.norm)! + smallNumber(line[i + 1]!.norm)!;
        return [i, by === 'hundred' ? { text: String(value), value, length: PAIR } : { text: (value / 100).toFixed(2), value: value / 100, length: PAIR }];
      }),
  );
}

/** One to nine and ten to ninety-nine, side by side and no part of a longer number. */
function isPair(line: Line, at: number): boolean {
  const units = smallNumber(line[at]!.norm) ?? 0;
  const next = line[at + 1];
  if (units < 1 || units > 9 || next === undefined || (smallNumber(next.norm) ?? 0) < 10 || /[,.;:?!]$/.test(line[at]!.text)) return false;
  return !isOfIt(line[at - 1], line[at - 1]) && !isOfIt(line[at + PAIR], next);
}

/** A word that makes another number of it: "two fifty five", "two fifty percent". @param before the word with a mark after it that parts them */
const isOfIt = (word: WrittenWord | undefined, before: WrittenWord | undefined): boolean =>
  word !== undefined &&
  !/[,.;:?!]$/.test(before!.text) &&
  (smallNumber(word.norm) !== null || SCALES.has(word.norm) || /^(?:point|percent|o'clock|am|pm)$/.test(word.norm));

/** What the words behind a price say of it. */
function tells(line: Line, at: number): 'hundred' | 'unit' | null {
  if (/[,.;:?!]$/.test(line[at - 1]!.text)) return null;
  const norm = line[at]?.norm ?? '';
  if (MONEY.has(norm)) return 'hundred';
  const from = norm === 'for' ? at + 1 : at;
  if (!/^(?:a|an|per|each)$/.test(line[from]?.norm ?? '')) return null;
  const what = line[from + 1]?.norm ?? '';
  if (BEFORE_OR_AFTER.has(line[from + 2]?.norm ?? '')) return null;
  return BY_THE_HUNDRED.has(what) ? 'hundred' : BY_THE_UNIT.has(what) ? 'unit' : null;
}
