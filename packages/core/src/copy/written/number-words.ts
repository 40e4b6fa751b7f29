import { TENS, UNITS } from '../../text/lists/written.js';

/** Nought to ninety-nine in a word: "seven", "twenty", "twenty-four"; null for any other. */
export function smallNumber(word: string): number | null {
  const simple = UNITS.get(word) ?? TENS.get(word);
  if (simple !== undefined) return simple;
  const [ten, unit] = word.split('-');
  const [tens, units] = [TENS.get(ten ?? ''), UNITS.get(unit ?? '')];
  return tens !== undefined && units !== undefined && units > 0 && units < 10 ? tens + units : null;
}
