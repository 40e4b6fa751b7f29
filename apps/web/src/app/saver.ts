import { useSyncExternalStore } from 'react';
import { problemText } from './problems.js';
import { staleCurrent } from '../ui/stale.js';

/** Something typed that the server does not have yet. */
export interface Draft<V, T> {
  readonly value: V;
  readonly state: 'typing' | 'saving' | 'failed' | 'stale';
  /** Why it could not be saved. */
  readonly trouble: string | null;
  /** What the thing is now, where somebody else changed it. */
  readonly theirs: T | null;
}

/** How a kind of thing is saved. */
interface Saving<V, T> {
  /** Rest of the hand, in ms, after which it is saved. */
  readonly afterMs: number;
  /** @param slot the part of the thing, null where it is one */
  readonly write: (slot: string | null, value: V, version: number) => Promise<T>;
  /** Puts what the thing is now in place, without loading it again. */
  readonly show: (thing: T) => void;
  /** Why something was not done that rests on what could not be saved. */
  readonly refusal: string;
}

/**
 * Saves one thing, slot by slot. It lives outside of the screen, so leaving a field, a tab or the page loses nothing; writes go one
 * after the other, each with the version that the one before it made, so none overtakes another. What is shown is asked of the
 * saver: between a draft that is saved and a screen that has heard of it, what was there before must not show for a moment.
 */
export class Saver<V, T extends { readonly version: number }> {
  private readonly drafts = new Map<string | null, Draft<V, T>>();
  private readonly listeners = new Set<() => void>();
  private chain: Promise<unknown> = Promise.resolve();
  private timer: ReturnType<typeof setTimeout> | undefined;
  private version: number;

  constructor(
    private thing: T,
    private readonly saving: Saving<V, T>,
  ) {
    this.version = thing.version;
  }

  /** The thing as it was loaded; what is on its way knows better. */
  seen(thing: T): void {
    if (this.drafts.size === 0 && thing.version > this.version) this.version = thing.version;
    if (thing.version >= this.thing.version) this.thing = thing;
  }

  /** The thing as the server has it, as far as is known. */
  get current(): T {
    return this.thing;
  }
  draft(slot: string | null): Draft<V, T> | null {
    return this.drafts.get(slot) ?? null;
  }
  get unsaved(): boolean {
    return this.drafts.size > 0;
  }
  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** Takes what was typed; it is saved when the hand rests, or, beside what somebody else saved, when one has chosen. */
  change(slot: string | null, value: V): void {
    const draft = this.drafts.get(slot);
    const stale = draft?.state === 'stale' ? draft : null;
    this.put(slot, stale === null ? { value, state: 'typing', trouble: null, theirs: null } : { ...stale, value });
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.flush(), this.saving.afterMs);
  }

  /** Saves everything now. @returns whether all of it is saved */
  async flush(): Promise<boolean> {
    clearTimeout(this.timer);
    for (const slot of [...this.drafts.keys()]) this.chain = this.chain.then(() => this.save(slot));
    await this.chain;
    return this.drafts.size === 0;
  }

  /** Saves all, then does something with the version that came of it. @throws what `act` throws, or Error when something could not be saved */
  async andThen(act: (version: number) => Promise<T>): Promise<T> {
    if (!(await this.flush())) throw new Error(this.saving.refusal);
    const turn = this.chain.then(() => act(this.version));
    this.chain = turn.then(
      (thing) => this.take(thing),
      () => undefined,
    );
    return turn;
  }

  /** Somebody else changed the thing: theirs stays, or ours is saved over it. */
  async choose(slot: string | null, whose: 'theirs' | 'mine'): Promise<void> {
    const draft = this.drafts.get(slot);
    if (draft?.theirs == null) return;
    this.take(draft.theirs);
    if (whose === 'theirs') this.put(slot, null);
    else {
      this.put(slot, { ...draft, state: 'typing', theirs: null });
      await this.flush();
    }
  }

  /** Forgets what was typed; nothing is sent any more. */
  rest(): void {
    clearTimeout(this.timer);
    this.drafts.clear();
  }

  private async save(slot: string | null): Promise<void> {
    const draft = this.drafts.get(slot);
    if (draft === undefined || draft.state === 'stale') return;
    this.put(slot, { ...draft, state: 'saving' });
    try {
      this.take(await this.saving.write(slot, draft.value, this.version));
      if (this.drafts.get(slot)?.value === draft.value) this.put(slot, null); // nothing was typed meanwhile
    } catch (error) {
      const now = this.drafts.get(slot);
      if (now === undefined) return; // it was given up
      const theirs = staleCurrent<T>(error);
      this.put(slot, { ...now, state: theirs === null ? 'failed' : 'stale', trouble: problemText(error), theirs });
    }
  }

  private take(thing: T): void {
    this.version = thing.version;
    this.thing = thing;
    this.saving.show(thing);
    this.tell();
  }

  private put(slot: string | null, draft: Draft<V, T> | null): void {
    if (draft === null) this.drafts.delete(slot);
    else this.drafts.set(slot, draft);
    this.tell();
  }

  private tell(): void {
    for (const listener of this.listeners) listener();
  }
}

type Saved = Pick<Saver<unknown, { readonly version: number }>, 'unsaved' | 'flush' | 'rest'>;
const all = new Set<Map<string, Saved>>();

/** The savers of a kind of thing, one for each; a page that is left with something unsaved asks first. */
export class Savers<T extends { readonly id: string; readonly version: number }, S extends Saved & Pick<Saver<never, T>, 'seen'>> {
  private readonly savers = new Map<string, S>();
  constructor(private readonly make: (thing: T) => S) {
    all.add(this.savers);
  }
  of(thing: T): S {
    let saver = this.savers.get(thing.id);
    if (saver === undefined) this.savers.set(thing.id, (saver = this.make(thing)));
    saver.seen(thing);
    return saver;
  }
  /** The thing is gone, and with it what was typed into it. */
  forget(id: string): void {
    this.savers.get(id)?.rest();
    this.savers.delete(id);
  }
}

/** Forgets all, unsaved things too; for tests. */
export function forgetSavers(): void {
  for (const savers of all) {
    for (const saver of savers.values()) saver.rest();
    savers.clear();
  }
}

/** The unsaved value of a slot, or null; and the thing as it is known now. */
export function useSaver<V, T extends { readonly version: number }>(saver: Saver<V, T>, slot: string | null): { draft: Draft<V, T> | null; current: T } {
  const draft = useSyncExternalStore(saver.subscribe, () => saver.draft(slot));
  const current = useSyncExternalStore(saver.subscribe, () => saver.current);
  return { draft, current };
}

if (typeof window !== 'undefined')
  window.addEventListener('beforeunload', (event) => {
    const unsaved = [...all].flatMap((savers) => [...savers.values()]).filter((saver) => saver.unsaved);
    if (unsaved.length === 0) return;
    for (const saver of unsaved) void saver.flush();
    event.preventDefault();
  });
