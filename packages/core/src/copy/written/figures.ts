import { COUNTED, SCALES, UNITS } from '../../text/lists/written.js';
import { smallNumber } from './number-words.js';
import { pricesIn } from './prices.js';
import type { Line, WrittenWord } from './written-word.js';

/** From here on a number is written in figures whatever it counts. Common practice. */
const ALWAYS_FIGURES = 10;

interface ReadNumber {
  readonly value: number;
  /** Words it takes. */
  readonly length: number;
}

/** Numbers that are said in words become figures: "two hundred and fifty" 250, "eight point six" 8.6, "two and a half thousand" 2,500. */
export function withFigures(line: Line): Line {
  const out: WrittenWord[] = [];
  const prices = pricesIn(line);
  for (let i = 0; i < line.length;) {
    const price = prices.get(i);
    if (price !== undefined) {
      out.push(inFigures(line, i, price.length, price.text));
      i += price.length;
      continue;
    }
    const read = readNumber(line, i);
    const next = read === null ? undefined : line[i + read.length];
    const year = read === null ? null : yearAt(line, i, read);
    if (year !== null) {
      out.push(inFigures(line, i, year.length, year.text));
      i += year.length;
      continue;
    }
    if (read === null || !isWritten(read.value, next, line[i - 1], !/[,.;:?!]$/.test(line[i + read.length - 1]!.text))) {
      const left = read !== null && Number.isNaN(read.value) ? read.length : 1;
      out.push(...line.slice(i, i + left));
      i += left;
      continue;
    }
    const percent = next !== undefined && (next.norm === 'percent' || (next.norm === 'per' && line[i + read.length + 1]?.norm === 'cent'));
    const length = read.length + (percent ? (next.norm === 'per' ? 2 : 1) : 0);
    out.push(inFigures(line, i, length, `${figures(read.value)}${percent ? '%' : ''}`));
    i += length;
  }
  return out;
}

/** Some words as one figure, with the marks that follow them. */
function inFigures(line: Line, at: number, length: number, figure: string): WrittenWord {
  const [first, last] = [line[at]!, line[at + length - 1]!];
  return { text: figure + (/[,.;:?!—–]+$/.exec(last.text)?.[0] ?? ''), norm: figure, tag: 'NUM', first: first.first, end: last.end };
}

/** In figures as English groups them (CLDR: from four digits on, which editors keep for five; years are not told apart). */
const GROUPED = new Intl.NumberFormat('en-GB', { maximumFractionDigits: 3 });
const figures = (value: number): string => GROUPED.format(value);

/** "twenty seventeen": 2017; "nineteen fifty eight": 1958. */
function yearAt(line: Line, at: number, { value, length }: ReadNumber): { readonly text: string; readonly length: number } | null {
  if (length !== 1 || (value !== 19 && value !== 20) || /[,.;:?!]$/.test(line[at]!.text)) return null;
  const rest = readNumber(line, at + 1);
  return rest !== null && rest.value >= 10 && rest.value < 100 && Number.isInteger(rest.value)
    ? { text: `${value}${rest.value}`, length: 1 + rest.length }
    : null;
}

/** "two thirty" may be a price or a time: who said it knows, so it stays in words where no price is told (`prices.ts`). */
const isWritten = (value: number, next: WrittenWord | undefined, before: WrittenWord | undefined, unmarked: boolean): boolean =>
  !Number.isNaN(value) &&
  !(before !== undefined && !/[,.;:?!]$/.test(before.text) && smallNumber(before.norm) !== null) &&
  !(next !== undefined && unmarked && smallNumber(next.norm) !== null) &&
  (value >= ALWAYS_FIGURES || !Number.isInteger(value) || (value !== 1 && next !== undefined && (COUNTED.has(next.norm) || next.norm === 'per'))) &&
  before?.norm !== 'point';

/** Words from a place on that are parts of numbers. */
function numberWords(line: Line, at: number): number {
  let i = at;
  while (i < line.length && (smallNumber(line[i]!.norm) !== null || SCALES.has(line[i]!.norm) || line[i]!.norm === 'and')) i += 1;
  return i - at;
}

/**
 * A number in words at a place, or null. "a hundred" is one; "one" alone is not. Where somebody begins it again in the middle
 * ("four thousand one hundred and four thousand") its value is NaN, and its length is that of all its words.
 */
export function readNumber(line: Line, at: number): ReadNumber | null {
  let i = at;
  const norm = (k: number): string => line[k]?.norm ?? '';
  const breaks = (k: number): boolean => /[,.;:?!]$/.test(line[k - 1]?.text ?? '');
  let total = 0;
  let group: number | null = norm(i) === 'a' && SCALES.has(norm(i + 1)) ? 1 : null;
  if (group !== null) i += 1;
  const from = i;
  let last = Infinity;
  while (i < line.length && (i === from || !breaks(i))) {
    const small = smallNumber(norm(i));
    const scale = SCALES.get(norm(i));
    if (small !== null && canFollow(group, small)) group = (group ?? 0) + small;
    else if (scale === 100 && group !== null && group > 0 && group < 100) group *= 100;
    else if (scale !== undefined && scale > 100 && group !== null) {
      if (scale >= last) return { value: Number.NaN, length: numberWords(line, at) };
      last = scale;
      total += group * scale;
      group = null;
      if (scale > 1_000_000 && total === 0) break;
    } else if (norm(i) === 'and' && i > from && joins(norm(i + 1), norm(i - 1))) {
      if (norm(i + 1) === 'a' && norm(i + 2) === 'half') {
        group = (group ?? 0) + 0.5;
        i += 2;
      }
    } else if (norm(i) === 'point' && group !== null && (UNITS.get(norm(i + 1)) ?? 10) < 10) {
      let digits = '';
      while ((UNITS.get(norm(i + 1)) ?? 10) < 10 && !(digits !== '' && breaks(i + 1))) {
        digits += UNITS.get(norm(i + 1));
        i += 1;
      }
      group += Number(`0.${digits}`);
    } else break;
    i += 1;
  }
  while (i > from && norm(i - 1) === 'and') i -= 1;
  const value = total + (group ?? 0);
  return i === from || (total === 0 && group === null) ? null : { value: Math.round(value * 1e6) / 1e6, length: i - at };
}

/** "twenty" may be followed by "four", "two hundred" by "fifty"; "two" by nothing of the kind. */
const canFollow = (group: number | null, small: number): boolean =>
  group === null || (group >= 100 && group % 100 === 0 && Number.isInteger(group)) || (group % 100 >= 20 && group % 10 === 0 && small < 10 && small > 0);

/** "and" inside a number: "hundred and fifty", "two and a half". */
const joins = (after: string, before: string): boolean =>
  (SCALES.has(before) && smallNumber(after) !== null) || (after === 'a' && (smallNumber(before) !== null || SCALES.has(before)));
