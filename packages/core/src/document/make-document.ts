import type { PosTagger } from '../text/tagger.js';
import { winkTagger } from '../text/tagger.js';
import { makeArticle } from './make/article.js';
import { makeChapters } from './make/chapters.js';
import { makeNewsletter } from './make/newsletter.js';
import { makeSeries, makeTextPosts } from './make/posts.js';
import { makeQuoteCards } from './make/quote-cards.js';
import { makeShowNotes } from './make/show-notes.js';
import { makeSummary } from './make/summary.js';
import { type DocumentContent, type DocumentKind, NothingToWriteError } from './types.js';
import { type DocumentRequest, type WrittenTalk, writtenTalk } from './written-talk.js';

const MAKERS: Readonly<Record<DocumentKind, (talk: WrittenTalk) => DocumentContent>> = {
  chapters: makeChapters,
  summary: makeSummary,
  'show-notes': makeShowNotes,
  'text-posts': makeTextPosts,
  series: makeSeries,
  article: makeArticle,
  newsletter: makeNewsletter,
  'quote-cards': makeQuoteCards,
};

/**
 * A document of a recording, made only of what is said in it; every piece knows the words that it comes from.
 * @throws NothingToWriteError where the recording does not carry one of this kind
 */
export function makeDocument(kind: DocumentKind, request: DocumentRequest, tagger: PosTagger = winkTagger): DocumentContent {
  if (kind === 'series' && request.language !== null) throw new NothingToWriteError('Advice is found in English only.');
  return MAKERS[kind](writtenTalk(request, tagger));
}
