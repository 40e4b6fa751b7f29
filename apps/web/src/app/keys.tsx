import { useEffect, useRef, useSyncExternalStore } from 'react';
import { type KeybindingPress, matchKeybindingPress, parseKeybinding } from 'tinykeys';
import { t } from '../texts/texts.js';
import { doKey, heldBack } from './held-keys.js';
import { isTyping } from './typing.js';

export interface KeyBinding {
  /** As in KeyboardEvent.key; letters in lower case. `mod+` stands for Ctrl or Command. */
  readonly key: string;
  readonly label: string;
  readonly group: string;
  /** Absent where something else listens, and the key is only listed. */
  readonly run?: () => void;
}

let active: readonly (readonly KeyBinding[])[] = [];
const listeners = new Set<() => void>();

function changed(next: readonly (readonly KeyBinding[])[]): void {
  active = next;
  for (const listener of listeners) listener();
}

const presses = new Map<string, KeybindingPress>();

/** Shift is part of what a key writes (`?`, `{`), and AltGr too; only beside Ctrl or Command it is a key of its own. */
function pressOf(key: string): KeybindingPress {
  let press = presses.get(key);
  if (press === undefined) {
    const written = key.startsWith('mod+') ? key.replace('mod+', '$mod+').replace('shift+', 'Shift+') : `[Shift]+[Alt]+${key === ' ' ? 'Space' : key}`;
    presses.set(key, (press = parseKeybinding(written)[0]!));
  }
  return press;
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
      if (event.defaultPrevented || event.isComposing || event.altKey || isTyping(event.target) || document.querySelector('[role="dialog"]') !== null) return;
      if (heldBack(event)) return;
      const binding = latest.current.find((one) => one.run !== undefined && matchKeybindingPress(event, pressOf(one.key)));
      if (binding?.run === undefined) return;
      if (
        (binding.key === ' ' || binding.key === 'Enter') &&
        event.target instanceof HTMLElement &&
        event.target.closest('button, a, input, [role="button"], [role="slider"]') !== null
      )
        return;
      event.preventDefault();
      doKey(event, binding.run);
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
  ' ': t('app.space'),
  ArrowUp: '↑',
  ArrowDown: '↓',
  ArrowLeft: '←',
  ArrowRight: '→',
  'mod+z': t('app.ctrl-z'),
  'mod+shift+z': t('app.ctrl-shift-z'),
  Escape: t('app.esc'),
};

export function keyName(key: string): string {
  return NAMES[key] ?? (key.length === 1 ? key.toUpperCase() : key);
}
