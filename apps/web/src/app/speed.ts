import { useSyncExternalStore } from 'react';

/** How fast everything is played, from half to double; kept over visits, since one who listens fast always does. */
export const SPEEDS = [0.5, 0.75, 1, 1.25, 1.5, 1.75, 2] as const;
export type Speed = (typeof SPEEDS)[number];

const KEY = 'sift-reel-speed';
const listeners = new Set<() => void>();
let speed: Speed | null = null;

function stored(): Speed {
  const value = typeof localStorage === 'undefined' ? 1 : Number(localStorage.getItem(KEY));
  return SPEEDS.find((one) => one === value) ?? 1;
}

export const speedNow = (): Speed => (speed ??= stored());

export function setSpeed(next: Speed): void {
  if (next === speedNow()) return;
  speed = next;
  localStorage.setItem(KEY, String(next));
  for (const listener of listeners) listener();
}

/** The next faster or slower one, if there is one. */
export function changeSpeed(by: 1 | -1): void {
  const next = SPEEDS[SPEEDS.indexOf(speedNow()) + by];
  if (next !== undefined) setSpeed(next);
}

export function onSpeed(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

export const useSpeed = (): Speed => useSyncExternalStore(onSpeed, speedNow, speedNow);
