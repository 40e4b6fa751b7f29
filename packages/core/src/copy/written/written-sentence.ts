import type { Passage } from '../phrases.js';
import { compress } from './compress.js';
import { clausesOf, type TitleDraft } from './title-sorts.js';
import { isClause } from './wholeness.js';
import { type Line, lineText } from './written-word.js';

/** Fewer words say nothing that is read. */
export const LEAST_WORDS = 5;

/** A line with the mark that ends a sentence. */
export const closed = (text: string): string => (/[?!…]["”’)]?$/.test(text) ? text : `${text}.`);

/** A sentence of the passage as it would be written, or what of it is short enough; null where it says nothing of anything. @param most characters */
export function writtenSentence(passage: Passage, s: number, most: number): TitleDraft | null {
  const sentence = passage.sentences[s]!;
  const whole = compress(passage, Math.max(sentence.firstWord, passage.firstWord), Math.min(sentence.endWord, passage.endWord));
  const line = fitting(whole, most);
  return line === null ? null : { text: lineText(line), sort: 'said', line, sentence: s, whole: line === whole, resolved: false, cut: line !== whole };
}

/** The sentence, or as many of its first clauses as fit and say something of something; null where none do. */
function fitting(sentence: Line, most: number): Line | null {
  const pieces = clausesOf(sentence);
  for (let n = pieces.length; n > 0; n -= 1) {
    const line = n === pieces.length ? sentence : pieces.slice(0, n).flat();
    if (lineText(line).length < most && line.length >= LEAST_WORDS && isClause(line)) return line;
  }
  return null;
}
