import type { DocumentKind } from '@sift-reel/core';
import { t } from '../../texts/texts.js';

/** What each document is called, and what it is for, in a line. */
export const DOCUMENT_NAMES: Readonly<Record<DocumentKind, { readonly name: string; readonly what: string }>> = {
  chapters: { name: t('documents.chapters'), what: t('documents.a-time-list-for-a-description') },
  summary: { name: t('documents.summary'), what: t('documents.in-a-line-in-a-paragraph') },
  'show-notes': { name: t('documents.show-notes'), what: t('documents.summary-chapters-people-figures-quotations-and') },
  'text-posts': { name: t('documents.text-posts'), what: t('documents.three-to-seven-posts-of-one') },
  series: { name: t('documents.series'), what: t('documents.what-the-recording-advises-as-a') },
  article: { name: t('documents.article'), what: t('documents.a-draft-in-sections-that-follow') },
  newsletter: { name: t('documents.newsletter-paragraph'), what: t('documents.what-is-best-in-the-recording') },
  'quote-cards': { name: t('documents.quote-cards'), what: t('documents.quotations-as-pictures-in-the-clients') },
};
