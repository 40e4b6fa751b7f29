import type { DocumentKind } from '@sift-reel/core';

/** What each document is called, and what it is for, in a line. */
export const DOCUMENT_NAMES: Readonly<Record<DocumentKind, { readonly name: string; readonly what: string }>> = {
  chapters: { name: 'Chapters', what: 'A time list for a description, and chapters for podcast players.' },
  summary: { name: 'Summary', what: 'In a line, in a paragraph and in full.' },
  'show-notes': { name: 'Show notes', what: 'Summary, chapters, people, figures, quotations and links that were said.' },
  'text-posts': { name: 'Text posts', what: 'Three to seven posts of one thought each, with its quotation.' },
  series: { name: 'Series', what: 'What the recording advises, as a numbered series.' },
  article: { name: 'Article', what: 'A draft in sections that follow the chapters.' },
  newsletter: { name: 'Newsletter paragraph', what: 'What is best in the recording, in half a minute.' },
  'quote-cards': { name: 'Quote cards', what: 'Quotations as pictures, in the client’s type.' },
};
