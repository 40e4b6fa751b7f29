import type { WordRange } from '../transcript/types.js';
import type { Block, BlockQuote, DocumentContent, Heading, Inline, List, Paragraph, TextMark, TextPiece } from './types.js';

// Short ways to write a document down.

/** A piece of text with the words that it comes from, where it comes from any. */
export function text(value: string, said?: WordRange, ...marks: readonly ('bold' | 'italic')[]): TextPiece {
  const all: TextMark[] = marks.map((type) => ({ type }));
  if (said !== undefined) all.push({ type: 'moment', attrs: { firstWord: said.firstWord, endWord: said.endWord } });
  return all.length === 0 ? { type: 'text', text: value } : { type: 'text', text: value, marks: all };
}

export const heading = (level: 1 | 2 | 3, ...content: readonly Inline[]): Heading => ({ type: 'heading', attrs: { level }, content });
export const paragraph = (...content: readonly Inline[]): Paragraph => ({ type: 'paragraph', content });
export const quote = (...content: readonly Block[]): BlockQuote => ({ type: 'blockquote', content });
export const list = (type: List['type'], ...items: readonly (readonly Inline[])[]): List => ({
  type,
  content: items.map((content) => ({ type: 'listItem', content: [paragraph(...content)] })),
});
export const document = (...content: readonly Block[]): DocumentContent => ({ type: 'doc', content });

/** Pieces one after another, with a space between. */
export const spaced = (pieces: readonly Inline[]): Inline[] => pieces.flatMap((piece, i) => (i === 0 ? [piece] : [text(' '), piece]));
