/** FNV-1a, 32 bits: the same number for the same text on every machine. */
export const HASH_BASIS = 0x811c9dc5;
const PRIME = 0x01000193;

/** The hash of what was hashed into `from`, with one more character code. It goes letter by letter, so texts need not be joined to be hashed together. */
export const hashCode = (from: number, code: number): number => Math.imul(from ^ code, PRIME);

/** The hash of what was hashed into `from`, with `text` from its character `at` on. */
export function hashOn(from: number, text: string, at = 0): number {
  let h = from;
  for (let i = at; i < text.length; i += 1) h = Math.imul(h ^ text.charCodeAt(i), PRIME);
  return h;
}
