import { useSyncExternalStore } from 'react';
import { api, type CopyView, type ShortView } from '../../app/api.js';
import { problemText } from '../../app/problems.js';
import { store } from '../../app/store.js';
import { staleCurrent } from '../../ui/stale.js';

/** The words for all channels, or one channel's own, by its id. */
export type Slot = string | null;

/** Words that the server does not have yet. */
export interface Draft {
  readonly copy: CopyView;
  readonly state: 'typing' | 'saving' | 'failed' | 'stale';
  /** Why it could not be saved. */
  readonly trouble: string | null;
  /** What the short is now, where somebody else changed it. */
  readonly theirs: ShortView | null;
}

const SAVE_AFTER_MS = 700;

/**
 * Saves the words of one short. It lives outside of the screen, so leaving a field, a tab, a short or the page loses
 * nothing; writes go one after the other, each with the version that the one before it made, so none overtakes another.
 */
class CopySaver {
  private readonly drafts = new Map<Slot, Draft>();
  private readonly listeners = new Set<() => void>();
  private chain: Promise<unknown> = Promise.resolve();
  private timer: ReturnType<typeof setTimeout> | undefined;
  private version: number;

  constructor(private short: ShortView) {
    this.shortId = short.id;
    this.version = short.version;
  }
  private readonly shortId: string;

  /** The short as it was loaded; what is on its way knows better. */
  seen(short: ShortView): void {
    if (this.drafts.size === 0) this.version = short.version;
    if (short.version >= this.short.version) this.short = short;
  }

  /** The words of a slot as they are now, saved or not. */
  words(slot: Slot): CopyView {
    const channel = this.short.channels.find(({ channelId }) => channelId === slot);
    return this.drafts.get(slot)?.copy ?? channel?.variant ?? channel?.translated ?? this.short.copy;
  }

  draft(slot: Slot): Draft | null {
    return this.drafts.get(slot) ?? null;
  }
  get unsaved(): boolean {
    return this.drafts.size > 0;
  }
  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** Takes what was typed; it is saved when the hand rests. */
  change(slot: Slot, copy: CopyView): void {
    this.put(slot, { copy, state: 'typing', trouble: null, theirs: null });
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.flush(), SAVE_AFTER_MS);
  }

  /** Saves everything now. @returns whether all of it is saved */
  async flush(): Promise<boolean> {
    clearTimeout(this.timer);
    for (const slot of [...this.drafts.keys()]) this.chain = this.chain.then(() => this.save(slot));
    await this.chain;
    return this.drafts.size === 0;
  }

  /** Saves all, then does something with the version that came of it. @throws what `act` throws, or Error when words could not be saved */
  async then<T extends ShortView>(act: (version: number) => Promise<T>): Promise<T> {
    if (!(await this.flush())) throw new Error('Its words could not be saved yet, so this was not done.');
    const turn = this.chain.then(() => act(this.version));
    this.chain = turn.then(
      (short) => this.take(short),
      () => undefined,
    );
    return turn;
  }

  /** Somebody else changed the short: their words stay, or ours are saved over them. */
  async choose(slot: Slot, whose: 'theirs' | 'mine'): Promise<void> {
    const draft = this.drafts.get(slot);
    if (draft?.theirs == null) return;
    this.take(draft.theirs);
    if (whose === 'theirs') this.put(slot, null);
    else {
      this.put(slot, { ...draft, state: 'typing', theirs: null });
      await this.flush();
    }
  }

  private async save(slot: Slot): Promise<void> {
    const draft = this.drafts.get(slot);
    if (draft === undefined || draft.state === 'stale') return;
    this.put(slot, { ...draft, state: 'saving' });
    try {
      const copyForm = { ...draft.copy, version: this.version };
      const short = await store
        .dispatch(
          slot === null
            ? api.endpoints.saveCopy.initiate({ shortId: this.shortId, copyForm })
            : api.endpoints.saveVariant.initiate({ shortId: this.shortId, channelId: slot, copyForm }),
        )
        .unwrap();
      this.take(short);
      if (this.drafts.get(slot)?.copy === draft.copy) this.put(slot, null); // nothing was typed meanwhile
    } catch (error) {
      const now = this.drafts.get(slot) ?? draft;
      const theirs = staleCurrent<ShortView>(error);
      this.put(slot, { ...now, state: theirs === null ? 'failed' : 'stale', trouble: problemText(error), theirs });
    }
  }

  /** What the server says the short is now goes into what is shown, without waiting for it to be loaded again. */
  private take(short: ShortView): void {
    this.version = short.version;
    this.short = short;
    store.dispatch(
      api.util.updateQueryData('listShorts', {}, (shorts) => {
        const at = shorts.findIndex((one) => one.id === short.id);
        if (at >= 0) shorts[at] = short;
      }),
    );
  }

  private put(slot: Slot, draft: Draft | null): void {
    if (draft === null) this.drafts.delete(slot);
    else this.drafts.set(slot, draft);
    for (const listener of this.listeners) listener();
  }
}

/** The same in every field. */
export const sameWords = (a: CopyView, b: CopyView): boolean => JSON.stringify(takenBack(a, a, a)) === JSON.stringify(takenBack(b, b, b));

/** A change taken back: what was typed over it since then stays. */
export function takenBack(now: CopyView, before: CopyView, after: CopyView): CopyView {
  const back = <K extends keyof CopyView>(field: K): CopyView[K] => (JSON.stringify(now[field]) === JSON.stringify(after[field]) ? before[field] : now[field]);
  return { title: back('title'), description: back('description'), hashtags: back('hashtags'), keywords: back('keywords'), coverLine: back('coverLine') };
}

const savers = new Map<string, CopySaver>();

export function saverOf(short: ShortView): CopySaver {
  let saver = savers.get(short.id);
  if (saver === undefined) savers.set(short.id, (saver = new CopySaver(short)));
  saver.seen(short);
  return saver;
}

/** The unsaved words of a slot, or null. */
export function useDraft(saver: CopySaver, slot: Slot): Draft | null {
  return useSyncExternalStore(saver.subscribe, () => saver.draft(slot));
}

/** Forgets all, unsaved words too; for tests. */
export function forgetSavers(): void {
  savers.clear();
}

if (typeof window !== 'undefined')
  window.addEventListener('beforeunload', (event) => {
    const unsaved = [...savers.values()].filter((saver) => saver.unsaved);
    if (unsaved.length === 0) return;
    for (const saver of unsaved) void saver.flush();
    event.preventDefault();
  });
