import type { DocumentContent } from '@sift-reel/core';
import { api, type DocumentView } from '../../app/api.js';
import { type Draft, Saver, Savers } from '../../app/saver.js';
import { store } from '../../app/store.js';
import { t } from '../../texts/texts.js';

export type DocumentDraft = Draft<DocumentContent, DocumentView>;
type DocumentSaver = Saver<DocumentContent, DocumentView>;

const SAVE_AFTER_MS = 900;

const savers = new Savers<DocumentView, DocumentSaver>(
  (document) =>
    new Saver(document, {
      afterMs: SAVE_AFTER_MS,
      write: (_, content, version) =>
        store.dispatch(api.endpoints.saveDocument.initiate({ documentId: document.id, documentForm: { content, version } })).unwrap(),
      show: (next) => {
        store.dispatch(api.util.updateQueryData('readDocument', next.id, () => next));
      },
      refusal: t('documents.the-text-could-not-be-saved'),
    }),
);

export const documentSaverOf = (document: DocumentView): DocumentSaver => savers.of(document);
export const forgetDocument = (documentId: string): void => savers.forget(documentId);

/** The text as it is, saved or not. */
export const textOf = (saver: DocumentSaver): DocumentContent => saver.draft(null)?.value ?? (saver.current.content as unknown as DocumentContent);
