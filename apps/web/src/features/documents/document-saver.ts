import type { DocumentContent } from '@sift-reel/core';
import { useSyncExternalStore } from 'react';
import { api, type DocumentView } from '../../app/api.js';
import { problemText } from '../../app/problems.js';
import { store } from '../../app/store.js';
import { staleCurrent } from '../../ui/stale.js';

/** A text that the server does not have yet. */
export interface DocumentDraft {
  readonly content: DocumentContent;
  readonly state: 'typing' | 'saving' | 'failed' | 'stale';
  readonly trouble: string | null;
  /** What the document is now, where somebody else changed it. */
  readonly theirs: DocumentView | null;
}

const SAVE_AFTER_MS = 900;

/**
 * Saves one document. It lives outside of the screen, so leaving the page loses nothing; writes go one after the other, each
 * with the version that the one before it made.
 */
class DocumentSaver {
  private draft_: DocumentDraft | null = null;
  private readonly listeners = new Set<() => void>();
  private chain: Promise<unknown> = Promise.resolve();
  private timer: ReturnType<typeof setTimeout> | undefined;
  private version: number;

  constructor(
    private readonly documentId: string,
    version: number,
  ) {
    this.version = version;
  }

  /** The document as it was loaded; what is on its way knows better. */
  seen({ version }: DocumentView): void {
    if (this.draft_ === null && version > this.version) this.version = version;
  }
  get draft(): DocumentDraft | null {
    return this.draft_;
  }
  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** Takes what was typed; it is saved when the hand rests. */
  change(content: DocumentContent): void {
    const stale = this.draft_?.state === 'stale' ? this.draft_ : null;
    this.put(stale === null ? { content, state: 'typing', trouble: null, theirs: null } : { ...stale, content });
    clearTimeout(this.timer);
    if (stale === null) this.timer = setTimeout(() => void this.flush(), SAVE_AFTER_MS);
  }

  /** Saves now. @returns whether all is saved */
  async flush(): Promise<boolean> {
    clearTimeout(this.timer);
    this.chain = this.chain.then(() => this.save());
    await this.chain;
    return this.draft_ === null;
  }

  /** Saves, then does something with the version that came of it. @throws what `act` throws, or Error when the text could not be saved */
  async then(act: (version: number) => Promise<DocumentView>): Promise<DocumentView> {
    if (!(await this.flush())) throw new Error('The text could not be saved yet, so this was not done.');
    const turn = this.chain.then(() => act(this.version));
    this.chain = turn.then(
      (document) => this.take(document),
      () => undefined,
    );
    return turn;
  }

  /** Somebody else changed the document: their text stays, or ours is saved over it. */
  async choose(whose: 'theirs' | 'mine'): Promise<void> {
    const draft = this.draft_;
    if (draft?.theirs == null) return;
    this.take(draft.theirs);
    if (whose === 'theirs') this.put(null);
    else {
      this.put({ ...draft, state: 'typing', theirs: null });
      await this.flush();
    }
  }

  /** Nothing is sent any more. */
  rest(): void {
    clearTimeout(this.timer);
    this.draft_ = null;
  }

  private async save(): Promise<void> {
    const draft = this.draft_;
    if (draft === null || draft.state === 'stale') return;
    this.put({ ...draft, state: 'saving' });
    try {
      const documentForm = { content: draft.content, version: this.version };
      const document = await store.dispatch(api.endpoints.saveDocument.initiate({ documentId: this.documentId, documentForm })).unwrap();
      this.take(document);
      if (this.draft?.content === draft.content)
        this.put(null); // nothing was typed meanwhile
      else this.timer = setTimeout(() => void this.flush(), SAVE_AFTER_MS);
    } catch (error) {
      const theirs = staleCurrent<DocumentView>(error);
      this.put({ ...(this.draft_ ?? draft), state: theirs === null ? 'failed' : 'stale', trouble: problemText(error), theirs });
    }
  }

  /** What the server says the document is now, shown without loading it again; at once, so that what was there before never shows in between. */
  private take(document: DocumentView): void {
    this.version = document.version;
    store.dispatch(api.util.updateQueryData('readDocument', document.id, () => document));
  }

  private put(draft: DocumentDraft | null): void {
    this.draft_ = draft;
    for (const listener of this.listeners) listener();
  }
}

const savers = new Map<string, DocumentSaver>();

export function documentSaverOf(document: DocumentView): DocumentSaver {
  let saver = savers.get(document.id);
  if (saver === undefined) savers.set(document.id, (saver = new DocumentSaver(document.id, document.version)));
  saver.seen(document);
  return saver;
}

export const useDocumentDraft = (saver: DocumentSaver): DocumentDraft | null => useSyncExternalStore(saver.subscribe, () => saver.draft);

/** Forgets all, unsaved texts too; for tests. */
export function forgetDocumentSavers(): void {
  for (const saver of savers.values()) saver.rest();
  savers.clear();
}

if (typeof window !== 'undefined')
  window.addEventListener('beforeunload', (event) => {
    const unsaved = [...savers.values()].filter((saver) => saver.draft !== null);
    if (unsaved.length === 0) return;
    for (const saver of unsaved) void saver.flush();
    event.preventDefault();
  });
