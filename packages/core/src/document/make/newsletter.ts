import { document, heading, paragraph, text } from '../build.js';
import { summarise } from '../summarise.js';
import type { DocumentContent } from '../types.js';
import type { WrittenTalk } from '../written-talk.js';
import { bestQuotations, quotationBlock } from './quotations.js';
import { pieces, summaryOf } from './summary.js';

/** A paragraph of a newsletter is read in half a minute. Common practice. */
const LONGEST = 450;
/** Passages that are worth telling of. */
const MOST_MOMENTS = 8;

/** A paragraph of what is best in the recording, under its name, with one quotation. */
export function makeNewsletter(talk: WrittenTalk): DocumentContent {
  const best = [...talk.moments].sort((a, b) => Number(b.kept) - Number(a.kept) || b.score - a.score).slice(0, MOST_MOMENTS);
  const strong = talk.sentences.filter(({ said }) => best.some((one) => one.firstWord <= said.firstWord && said.endWord <= one.endWord));
  const quotation = bestQuotations({ ...talk, sentences: strong }, 1)[0] ?? null;
  const told = summarise({ ...talk, sentences: strong.filter((one) => one !== quotation?.sentence) }, LONGEST);
  return document(
    heading(2, text(talk.title)),
    paragraph(...pieces(told.length > 0 ? told : summaryOf(talk, LONGEST))!),
    ...(quotation === null ? [] : [quotationBlock(talk, quotation)]),
  );
}
