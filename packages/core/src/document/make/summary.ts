import { document, heading, paragraph, spaced, text } from '../build.js';
import { summarise } from '../summarise.js';
import { type DocumentContent, NothingToWriteError, type Paragraph } from '../types.js';
import type { WrittenSentence, WrittenTalk } from '../written-talk.js';

/** Characters of the three lengths: a line in a list, a paragraph under a recording, a page that is read instead. Common practice. */
export const SUMMARY_LENGTHS = { short: 200, medium: 600, long: 1_500 } as const;

const MOST_IN_PARAGRAPH = 4;

/** Each sentence as it is written, with where it was said. */
export const pieces = (sentences: readonly WrittenSentence[]): Paragraph['content'] => spaced(sentences.map((one) => text(one.text, one.said)));

/** A summary of so many characters. @throws NothingToWriteError where no sentence of the recording can be read by itself */
export function summaryOf(talk: WrittenTalk, most: number): WrittenSentence[] {
  const sentences = summarise(talk, most);
  if (sentences.length === 0) throw new NothingToWriteError('No sentence of this recording can be read by itself, so nothing can be summed up.');
  return sentences;
}

/** Sentences in paragraphs: a new one where a chapter begins and there is enough for one. */
export function inParagraphs(sentences: readonly WrittenSentence[]): Paragraph[] {
  const groups: WrittenSentence[][] = [];
  for (const one of sentences) {
    const last = groups.at(-1);
    if (last === undefined || last.length >= MOST_IN_PARAGRAPH || (last.length > 1 && last.at(-1)!.chapter !== one.chapter)) groups.push([one]);
    else last.push(one);
  }
  return groups.map((group) => paragraph(...pieces(group)!));
}

export function makeSummary(talk: WrittenTalk): DocumentContent {
  return document(
    heading(2, text('In a line')),
    ...inParagraphs(summaryOf(talk, SUMMARY_LENGTHS.short)),
    heading(2, text('In a paragraph')),
    paragraph(...pieces(summaryOf(talk, SUMMARY_LENGTHS.medium))!),
    heading(2, text('In full')),
    ...inParagraphs(summaryOf(talk, SUMMARY_LENGTHS.long)),
  );
}
