import { nanoid } from '@reduxjs/toolkit';
import { useSyncExternalStore } from 'react';
import { noticed } from './notices.js';
import { problemText } from './problems.js';
import { store } from './store.js';
import { t } from '../texts/texts.js';

interface Deed {
  readonly id: string;
  readonly label: string;
  readonly undo: () => Promise<unknown>;
  readonly redo: (() => Promise<unknown>) | null;
}

interface Deeds {
  readonly done: readonly Deed[];
  readonly undone: readonly Deed[];
}

let deeds: Deeds = { done: [], undone: [] };
const listeners = new Set<() => void>();
const MOST = 100;

function change(next: Deeds): void {
  deeds = next;
  for (const listener of listeners) listener();
}

/**
 * Remembers how to take back what was just done, and says so.
 * @param redo does it again after it was taken back
 * @returns how to forget it again, when it turns out that it was not done
 */
export function didSomething(label: string, undo: () => Promise<unknown>, redo: (() => Promise<unknown>) | null = null): () => void {
  const deed = { id: nanoid(), label, undo, redo };
  change({ done: [...deeds.done.slice(-MOST + 1), deed], undone: [] });
  store.dispatch(noticed({ kind: 'done', text: label, deedId: deed.id }));
  return () => change({ done: deeds.done.filter((one) => one !== deed), undone: deeds.undone.filter((one) => one !== deed) });
}

/**
 * Does something that shows at once. It can be taken back at once, too: undo waits for the server's word. When the server
 * refuses, it is forgotten and the reason is said.
 */
export function doNow(label: string, act: () => Promise<unknown>, undo: () => Promise<unknown>): Promise<void> {
  const pending = act();
  const forget = didSomething(label, () => pending.then(undo), act);
  return pending.then(
    () => undefined,
    (error: unknown) => {
      forget();
      sayTrouble(error);
    },
  );
}

export function sayTrouble(error: unknown): void {
  store.dispatch(noticed({ kind: 'trouble', text: problemText(error), deedId: null }));
}

function say(text: string): void {
  store.dispatch(noticed({ kind: 'done', text, deedId: null }));
}

/** Takes back the last thing that was done. */
export async function undoLast(): Promise<void> {
  const deed = deeds.done.at(-1);
  if (deed === undefined) return say(t('app.there-is-nothing-to-undo'));
  change({ done: deeds.done.slice(0, -1), undone: deed.redo === null ? [] : [...deeds.undone, deed] });
  try {
    await deed.undo();
    say(t('app.undone', { label: deed.label }));
  } catch (error) {
    change({ ...deeds, undone: deeds.undone.filter((one) => one !== deed) });
    sayTrouble(error);
  }
}

/** Takes one deed back, where it is still the last: another's undo may rest on it. */
export async function undoDeed(deedId: string): Promise<void> {
  if (deeds.done.at(-1)?.id === deedId) await undoLast();
}

/** Does again what was last taken back. */
export async function redoLast(): Promise<void> {
  const deed = deeds.undone.at(-1);
  if (deed === undefined || deed.redo === null) return say(t('app.there-is-nothing-to-do-again'));
  change({ done: [...deeds.done, deed], undone: deeds.undone.slice(0, -1) });
  try {
    await deed.redo();
    store.dispatch(noticed({ kind: 'done', text: t('app.done-again', { label: deed.label }), deedId: deed.id }));
  } catch (error) {
    change({ ...deeds, done: deeds.done.filter((one) => one !== deed) });
    sayTrouble(error);
  }
}

/** Forgets everything, as when somebody else signs in. */
export function forgetDeeds(): void {
  change({ done: [], undone: [] });
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** Id of the deed that Undo would take back now, or null. */
export function useLastDeedId(): string | null {
  return useSyncExternalStore(subscribe, () => deeds.done.at(-1)?.id ?? null);
}

/** Says that something was done which cannot be taken back. */
export function sayDone(text: string): void {
  store.dispatch(noticed({ kind: 'done', text, deedId: null }));
}
