/** A word as it is looked up: lower case, straight apostrophe, no punctuation around it. */
export function normalise(text: string): string {
  return text
    .toLowerCase()
    .replace(/[’‘`]/g, "'")
    .replace(/^[^\p{L}\p{N}$€£♪[]+|[^\p{L}\p{N}%♪\]]+$/gu, '');
}
