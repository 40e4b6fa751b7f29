import { FILLER_SOUNDS, LEADING_FILLERS, SUBJECT_PRONOUNS } from '../text/lists/talk.js';
import { BREAKS_OFF } from '../text/lists/titles.js';
import type { Passage } from './phrases.js';

/** Where a range begins once marks, leading fillers and a "because" are left out, and a start that is begun again. */
function afterFillers({ words, texts }: Pick<Passage, 'words' | 'texts'>, from: number, to: number): number {
  const falls = (i: number): boolean => words[i]!.kind === 'mark' || LEADING_FILLERS.has(texts[i]!) || (texts[i] === 'because' && texts[i + 1] !== 'of');
  for (let first = from; ;) {
    while (first < to - 1 && falls(first)) first += 1;
    const again = begunAgain(texts, first, to);
    if (again === first) return first;
    first = again;
  }
}

/** A start is begun again within this many words, or not at all. */
const AGAIN_WITHIN = 4;

/** Where a line is begun again that broke off: "that's the, that's why", "I didn't I never"; else where it begins. */
function begunAgain(texts: readonly string[], first: number, to: number): number {
  for (let i = first + 2; i <= first + AGAIN_WITHIN && i < to - 1; i += 1) {
    const broken = BREAKS_OFF.has(texts[i - 1]!) || texts[i - 1]!.endsWith("n't");
    if (texts[i] === texts[first] && broken && SUBJECTS.has(texts[i]!.split("'")[0]!)) return i;
  }
  return first;
}
const SUBJECTS = new Set([...SUBJECT_PRONOUNS, 'that', 'there', 'this']);

/** Words of a range as a line: without marks, filler sounds, leading fillers and closing punctuation; a question keeps its mark. */
export function cleanLine(passage: Pick<Passage, 'words' | 'texts'>, from: number, to: number): string {
  const first = afterFillers(passage, from, to);
  const kept: string[] = [];
  for (let i = first; i < to; i += 1) {
    if (passage.words[i]!.kind === 'mark' || FILLER_SOUNDS.has(passage.texts[i]!)) continue;
    if (i > first && passage.texts[i] === passage.texts[i - 1] && i + 1 < to) continue; // "the the"
    kept.push(passage.words[i]!.text.replace(/^i(?=$|['’,.?!])/, 'I'));
  }
  const line = kept
    .join(' ')
    .replace(/[\s,.;:—–-]+$/, '')
    .replace(/^["'“‘\s,.;:—–-]+/, '')
    .replace(/["”]$/, '');
  return line.charAt(0).toUpperCase() + line.slice(1);
}

/** Cuts at a word so that the line with its ellipsis fits. @param limit characters, >= 4 */
export function shorten(line: string, limit: number): string {
  if (line.length <= limit) return line;
  const cut = line.slice(0, limit - 1);
  const atWord = cut.lastIndexOf(' ');
  return `${(atWord > limit / 3 ? cut.slice(0, atWord) : cut).replace(/[\s,.;:—–-]+$/, '')}…`;
}
