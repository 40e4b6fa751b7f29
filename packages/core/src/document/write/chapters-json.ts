import type { Word } from '../../transcript/types.js';
import type { DocumentContent } from '../types.js';
import { everyBlock, inlineText } from './text-of.js';

/** A chapter as it stands in a document: where it starts, and its title as it is now. */
export interface WrittenChapter {
  readonly startMs: number;
  readonly title: string;
}

/** A time at the start of a line, as a time list has it. */
const TIME = /^\s*(?:\d+:)?\d{1,2}:\d{2}\s+(?:[–—-]\s+)?/;

/** Chapters of a document, in order of time: each line that begins with a time and comes from somewhere. Titles may have been written anew. */
export function chaptersOf(content: DocumentContent, words: readonly Pick<Word, 'startMs'>[]): WrittenChapter[] {
  const chapters: WrittenChapter[] = [];
  for (const block of everyBlock(content.content)) {
    if (block.type !== 'paragraph' || !TIME.test(inlineText(block.content))) continue;
    const marks = (block.content ?? []).flatMap((piece) => (piece.type === 'text' ? (piece.marks ?? []) : []));
    const moment = marks.find((mark) => mark.type === 'moment');
    const word = moment === undefined ? undefined : words[moment.attrs.firstWord];
    if (word !== undefined) chapters.push({ startMs: word.startMs, title: inlineText(block.content).replace(TIME, '').trim() });
  }
  return chapters.sort((a, b) => a.startMs - b.startMs);
}

/**
 * Chapters in the JSON form of the podcast namespace ("Chapters", version 1.2.0; the form from memory): start times in seconds.
 * @param durationMs end of the recording, and of its last chapter
 */
export function chaptersJson(chapters: readonly WrittenChapter[], durationMs: number): string {
  const seconds = (ms: number): number => ms / 1_000;
  const listed = chapters.map(({ startMs, title }, i) => ({
    startTime: seconds(startMs),
    endTime: seconds(chapters[i + 1]?.startMs ?? Math.max(durationMs, startMs)),
    title,
  }));
  return `${JSON.stringify({ version: '1.2.0', chapters: listed }, null, 2)}\n`;
}
