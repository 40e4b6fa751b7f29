import { document } from '../build.js';
import { type DocumentContent, NothingToWriteError } from '../types.js';
import type { WrittenTalk } from '../written-talk.js';
import { bestQuotations, quotationBlock } from './quotations.js';

const MOST_CARDS = 8;

/** Quotations to be drawn as pictures, one block each, in order of time. */
export function makeQuoteCards(talk: WrittenTalk): DocumentContent {
  const quotations = bestQuotations(talk, MOST_CARDS);
  if (quotations.length === 0) throw new NothingToWriteError('No sentence of this recording can be quoted by itself.');
  return document(...quotations.map((one) => quotationBlock(talk, one)));
}
