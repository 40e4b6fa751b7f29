/** A tick or a button keeps the focus after it was clicked, and takes no letters. */
const TAKES_NO_LETTERS = /^(?:checkbox|button|submit|reset|file)$/;

/** True where keys go into what is written. */
export function isTyping(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false;
  if (target instanceof HTMLInputElement) return !TAKES_NO_LETTERS.test(target.type);
  return target.isContentEditable || /^(?:TEXTAREA|SELECT)$/.test(target.tagName);
}
