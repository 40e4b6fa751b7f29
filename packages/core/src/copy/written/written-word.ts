import type { PartOfSpeech } from '../../text/tagger.js';

/** A word of a written line, and the words of the passage that it comes from: `first` to `end` (not inside). */
export interface WrittenWord {
  /** As it is written, with the marks that follow it. */
  readonly text: string;
  /** Lower case, without marks. */
  readonly norm: string;
  readonly tag: PartOfSpeech;
  readonly first: number;
  readonly end: number;
}

export type Line = readonly WrittenWord[];

export const hasComma = (word: WrittenWord | undefined): boolean => word !== undefined && /[,;:—–][)"'”’]*$/.test(word.text);

/** True when the norms of a phrase stand at a place. */
export function standsAt(line: Line, at: number, phrase: readonly string[]): boolean {
  return phrase.every((norm, k) => line[at + k]?.norm === norm);
}

/** A line as text: its marks at both ends away, a capital first; a question keeps its mark. */
export function lineText(line: Line): string {
  const text = line
    .map((word) => word.text)
    .join(' ')
    .replace(/^[\s"'“‘,.;:—–-]+/, '')
    .replace(/[\s"“,.;:!—–-]+$/, '')
    .replace(/["”]$/, '');
  const open = text.split('“').length - text.split('”').length;
  const whole = open === 0 && (text.match(/"/g)?.length ?? 0) % 2 === 0 ? text : text.replace(/["“”]/g, '');
  return whole.charAt(0).toUpperCase() + whole.slice(1);
}

/** Another text for a word, with the marks that followed it. */
export function rewritten(word: WrittenWord, text: string, norm = text.toLowerCase()): WrittenWord {
  return { ...word, text: text + (/[,.;:?!—–]+["'”’)]*$/.exec(word.text)?.[0] ?? ''), norm };
}

/** The word with a comma, or without any mark. */
export const withMark = (word: WrittenWord, mark: '' | ',' | ',,'): WrittenWord => ({ ...word, text: word.text.replace(/[,.;:?!—–]+["'”’)]*$/, '') + mark });

/** A first word that no longer stands first. Names and "I" keep their capital. */
export const lowered = (word: WrittenWord): WrittenWord =>
  word.tag === 'PROPN' || /^I(?:$|[',])/.test(word.text) ? word : { ...word, text: word.text.charAt(0).toLowerCase() + word.text.slice(1) };

/** A first word that did not stand first. */
export const raised = (word: WrittenWord): WrittenWord => ({ ...word, text: word.text.charAt(0).toUpperCase() + word.text.slice(1) });
