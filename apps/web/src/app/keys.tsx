import { useEffect, useRef, useSyncExternalStore } from 'react';

export interface KeyBinding {
  /** As in KeyboardEvent.key; letters in lower case. `mod+` stands for Ctrl or Command. */
  readonly key: string;
  readonly label: string;
  readonly group: string;
  readonly run: () => void;
}

let active: readonly (readonly KeyBinding[])[] = [];
const listeners = new Set<() => void>();

function changed(next: readonly (readonly KeyBinding[])[]): void {
  active = next;
  for (const listener of listeners) listener();
}

/** A tick or a button keeps the focus after it was clicked, and takes no letters. */
const TAKES_NO_LETTERS = /^(?:checkbox|button|submit|reset|file)$/;

function isTyping(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false;
  if (target instanceof HTMLInputElement) return !TAKES_NO_LETTERS.test(target.type);
  return target.isContentEditable || /^(?:TEXTAREA|SELECT)$/.test(target.tagName);
}

function nameOf(event: KeyboardEvent): string {
  const key = event.key.length === 1 ? event.key.toLowerCase() : event.key;
  // Shift is part of what a key writes (`?`, `{`); only beside Ctrl or Command it is a key of its own.
  return event.ctrlKey || event.metaKey ? `mod+${event.shiftKey ? 'shift+' : ''}${key}` : key;
}

/** Keys while a component is shown. The newest component's keys win; typing into a field is never caught. */
export function useKeys(bindings: readonly KeyBinding[]): void {
  const latest = useRef(bindings);
  latest.current = bindings;
  const signature = bindings.map((binding) => `${binding.key} ${binding.label}`).join('|');
  useEffect(() => {
    const shown = latest.current;
    changed([...active, shown]);
    return () => changed(active.filter((one) => one !== shown));
  }, [signature]);
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (event.defaultPrevented || event.altKey || isTyping(event.target) || document.querySelector('[role="dialog"]') !== null) return;
      const binding = latest.current.find((one) => one.key === nameOf(event));
      if (binding === undefined) return;
      if (
        (binding.key === ' ' || binding.key === 'Enter') &&
        event.target instanceof HTMLElement &&
        event.target.closest('button, a, input, [role="button"], [role="slider"]') !== null
      )
        return;
      event.preventDefault();
      binding.run();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
}

export function useActiveKeys(): readonly KeyBinding[] {
  const groups = useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => active,
  );
  return groups.flat();
}

const NAMES: Readonly<Record<string, string>> = {
  ' ': 'space',
  ArrowUp: '↑',
  ArrowDown: '↓',
  ArrowLeft: '←',
  ArrowRight: '→',
  'mod+z': 'Ctrl Z',
  'mod+shift+z': 'Ctrl Shift Z',
  Escape: 'Esc',
};

export function keyName(key: string): string {
  return NAMES[key] ?? (key.length === 1 ? key.toUpperCase() : key);
}
