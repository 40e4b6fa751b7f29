const GRAPHEMES = new Intl.Segmenter('en', { granularity: 'grapheme' });

/** Characters as a person counts them (UAX 29): an emoji or a letter with its accent is one. */
export function characters(text: string): number {
  return [...GRAPHEMES.segment(text)].length;
}
