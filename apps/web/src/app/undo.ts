import { useSyncExternalStore } from 'react';
import { noticed } from './notices.js';
import { store } from './store.js';
import { problemText } from './problems.js';

interface Deed {
  readonly label: string;
  readonly undo: () => Promise<unknown>;
}

let deeds: readonly Deed[] = [];
const listeners = new Set<() => void>();
const MOST = 100;

function change(next: readonly Deed[]): void {
  deeds = next;
  for (const listener of listeners) listener();
}

/**
 * Remembers how to take back what was just done, and says so.
 * @returns how to forget it again, when it turns out that it was not done
 */
export function didSomething(label: string, undo: () => Promise<unknown>): () => void {
  const deed = { label, undo };
  change([...deeds.slice(-MOST + 1), deed]);
  store.dispatch(noticed({ kind: 'done', text: label, undoable: true }));
  return () => change(deeds.filter((one) => one !== deed));
}

/**
 * Does something that shows at once. It can be taken back at once, too: undo waits for the server's word. When the server
 * refuses, it is forgotten and the reason is said.
 */
export function doNow(label: string, act: () => Promise<unknown>, undo: () => Promise<unknown>): Promise<void> {
  const pending = act();
  const forget = didSomething(label, () => pending.then(undo));
  return pending.then(
    () => undefined,
    (error: unknown) => {
      forget();
      sayTrouble(error);
    },
  );
}

export function sayTrouble(error: unknown): void {
  store.dispatch(noticed({ kind: 'trouble', text: problemText(error), undoable: false }));
}

/** Takes back the last thing that was done. */
export async function undoLast(): Promise<void> {
  const deed = deeds.at(-1);
  if (deed === undefined) {
    store.dispatch(noticed({ kind: 'done', text: 'There is nothing to undo.', undoable: false }));
    return;
  }
  change(deeds.slice(0, -1));
  try {
    await deed.undo();
    store.dispatch(noticed({ kind: 'done', text: `Undone: ${deed.label}`, undoable: false }));
  } catch (error) {
    sayTrouble(error);
  }
}

export function useLastDeed(): string | null {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => deeds.at(-1)?.label ?? null,
  );
}
