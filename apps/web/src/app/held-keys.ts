import { isTyping } from './typing.js';

/**
 * Keys that are pressed while a step is under way, such as a yes that the server takes a moment for: they wait, and go in order to
 * whoever takes keys once it is over. Done at once, they would change the short that is just left; dropped, a fast hand would lose them.
 * What is typed behind a key that leads into a field goes into the field.
 */
interface Press {
  readonly key: string;
  readonly code?: string;
  readonly ctrlKey?: boolean;
  readonly metaKey?: boolean;
  readonly shiftKey?: boolean;
}

const WAITS = /^(?:.|Arrow\w+|Enter|Escape)$/u;

const holds = new Set<symbol>();
let waiting: Press[] = [];
let handing = false;
/** The key that is being done, and the one that was done last since keys wait: at once again, it is of a hand that got no answer. */
let doing = '';
let last = '';

/** Keys wait until the returned function is called, which whoever holds them does however the step ends. @param again a key to begin with once it is over: the one that is waited for */
export function holdKeys(again?: string): () => void {
  // Whoever takes the mouse goes on by themselves. Added again, it is there once.
  window.addEventListener('pointerdown', forgetKeys, { capture: true });
  const hold = Symbol('hold');
  if (again !== undefined) last = '';
  else if (holds.size === 0 && waiting.length === 0) last = doing;
  holds.add(hold);
  if (again !== undefined) waiting.unshift({ key: again });
  return () => {
    if (holds.delete(hold)) handOn();
  };
}

/** What was pressed was meant for a step that failed, or for another screen. */
export function forgetKeys(): void {
  waiting = [];
}

/** One at a time, each after what the one before has changed is shown. */
function handOn(): void {
  setTimeout(() => {
    const press = holds.size > 0 ? undefined : waiting.shift();
    if (press === undefined) return;
    hand(press);
    handOn();
  });
}

function hand(press: Press): void {
  const target = document.activeElement ?? document.body;
  const typing = isTyping(target);
  if (typing && /^.$/u.test(press.key) && press.ctrlKey !== true && press.metaKey !== true) {
    // The one way in that a field takes for typing, its own undo included.
    document.execCommand('insertText', false, press.key);
    return;
  }
  const again = press.key === last && !typing && !press.key.startsWith('Arrow');
  last = press.key;
  if (again) return;
  handing = true;
  try {
    target.dispatchEvent(new KeyboardEvent('keydown', { ...press, bubbles: true, cancelable: true }));
  } finally {
    handing = false;
  }
}

/** Holds a key back if it has to wait; true where it has. The same key at once again is not done: a yes pressed twice is one. */
export function heldBack(event: KeyboardEvent): boolean {
  const { key, code, ctrlKey, metaKey, shiftKey } = event;
  if (handing || (holds.size === 0 && waiting.length === 0) || !WAITS.test(key) || ((ctrlKey || metaKey) && key.toLowerCase() !== 'z')) return false;
  waiting.push({ key, code, ctrlKey, metaKey, shiftKey });
  event.preventDefault();
  return true;
}

/** Does what a key does, which may begin a step that others wait for. */
export function doKey({ key }: KeyboardEvent, run: () => void): void {
  doing = key;
  try {
    run();
  } finally {
    doing = '';
  }
}
