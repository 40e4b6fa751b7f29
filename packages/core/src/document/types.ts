/** What can be made of a recording beside its shorts. */
export const DOCUMENT_KINDS = ['chapters', 'summary', 'show-notes', 'text-posts', 'series', 'article', 'newsletter', 'quote-cards'] as const;
export type DocumentKind = (typeof DOCUMENT_KINDS)[number];

/** Words of the recording that a piece of text comes from: `firstWord` inside, `endWord` not. */
export interface MomentMark {
  readonly type: 'moment';
  readonly attrs: { readonly firstWord: number; readonly endWord: number };
}
export type TextMark = { readonly type: 'bold' } | { readonly type: 'italic' } | MomentMark;

export interface TextPiece {
  readonly type: 'text';
  readonly text: string;
  readonly marks?: readonly TextMark[];
}
export type Inline = TextPiece | { readonly type: 'hardBreak' };

export interface Heading {
  readonly type: 'heading';
  readonly attrs: { readonly level: 1 | 2 | 3 };
  readonly content?: readonly Inline[];
}
export interface Paragraph {
  readonly type: 'paragraph';
  readonly content?: readonly Inline[];
}
export interface BlockQuote {
  readonly type: 'blockquote';
  readonly content: readonly Block[];
}
export interface List {
  readonly type: 'bulletList' | 'orderedList';
  readonly content: readonly ListItem[];
}
export interface ListItem {
  readonly type: 'listItem';
  readonly content: readonly Block[];
}
export type Block = Heading | Paragraph | BlockQuote | List | { readonly type: 'horizontalRule' };

/** The text of a document, as a tree that a rich-text editor takes as it is. */
export interface DocumentContent {
  readonly type: 'doc';
  readonly content: readonly Block[];
}

/** What was handed in is no document. `path` tells where: `content.3.marks.0`. */
export class DocumentRefusedError extends Error {
  override readonly name = 'DocumentRefusedError';
  constructor(
    readonly path: string,
    detail: string,
  ) {
    super(`${path === '' ? 'the document' : path}: ${detail}`);
  }
}

/** A document of this kind cannot be made of this recording, and why. */
export class NothingToWriteError extends Error {
  override readonly name = 'NothingToWriteError';
}
