import { contentOf, shared } from '../../copy/written/content.js';
import { proposeTitles } from '../../copy/written/titles.js';
import type { Chapter } from '../../sift/types.js';
import { formatTimecode } from '../../time/timecode.js';
import { document, paragraph, text } from '../build.js';
import { type DocumentContent, NothingToWriteError, type Paragraph } from '../types.js';
import type { WrittenTalk } from '../written-talk.js';

/** A chapter's title is read in a list beside others. Common practice. */
const LONGEST_TITLE = 46;
const MOST_TITLES = 6;
const SAME = 0.5;

/**
 * A title for each chapter, no two that say the same: the best written line of the chapter that is whole and stands near its
 * beginning or tells of it; where there is none, its key phrases as the sift found them.
 */
export function chapterTitles(talk: WrittenTalk): string[] {
  const taken: ReadonlySet<string>[] = [];
  return talk.chapters.map((chapter) => {
    const title = titleOf(talk, chapter, taken);
    taken.push(wordsOf(title));
    return title;
  });
}

function titleOf(talk: WrittenTalk, chapter: Chapter, taken: readonly ReadonlySet<string>[]): string {
  if (talk.language !== null) return chapter.title;
  const found = proposeTitles(talk.contextOf(chapter), LONGEST_TITLE, MOST_TITLES)
    .filter(({ draft, text: title }) => !draft && !/^(?:I|We|He|She)\b/.test(title))
    .map(({ text: title }) => title)
    .find((title) => taken.every((other) => shared(other, wordsOf(title)) < SAME));
  return found ?? chapter.title;
}
const wordsOf = (title: string): ReadonlySet<string> => contentOf(title.toLowerCase().split(/[^\p{L}\p{N}']+/u));

/** "12:40 Wet wood blocks the flue": a time list as it is pasted under a recording. */
export function chapterLines(talk: WrittenTalk): Paragraph[] {
  const titles = chapterTitles(talk);
  const first = talk.chapters[0];
  // Players take a time list only from the very start (common practice); what was left out of the brief has no title of its own.
  const start = first === undefined || first.firstWord === 0 ? [] : [paragraph(text('00:00 Start', { firstWord: 0, endWord: first.firstWord }))];
  const named = talk.chapters.map(({ firstWord, endWord, startMs }, i) => {
    const said = { firstWord, endWord };
    return paragraph(text(`${formatTimecode(startMs)} ${titles[i]!}`, said));
  });
  return [...start, ...named];
}

export function makeChapters(talk: WrittenTalk): DocumentContent {
  if (talk.chapters.length === 0) throw new NothingToWriteError('No chapters were found in this recording.');
  return document(...chapterLines(talk));
}
