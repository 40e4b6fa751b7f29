const GRAPHEMES = new Intl.Segmenter('en', { granularity: 'grapheme' });
/** Here each is one by itself, and nothing need be taken apart. */
const PLAIN = /^[\n\x20-\x7e]*$/;

/** Characters as a person counts them (UAX 29): an emoji or a letter with its accent is one. */
export function characters(text: string): number {
  if (PLAIN.test(text)) return text.length;
  let count = 0;
  for (const _ of GRAPHEMES.segment(text)) count += 1;
  return count;
}

/** Where the character begins that is the `n`th from 0, in UTF-16 units; the end of the text where there are not so many. */
export function placeOfCharacter(text: string, n: number): number {
  if (PLAIN.test(text)) return Math.min(n, text.length);
  let count = 0;
  for (const { index } of GRAPHEMES.segment(text)) {
    if (count === n) return index;
    count += 1;
  }
  return text.length;
}
