import { keyPhrases, type PhraseStatistics } from '../copy/phrases.js';
import type { SiftContext } from './context.js';
import type { Run } from './types.js';
import { wordsText } from '../transcript/words-text.js';

/** A chapter's title: its one or two most telling phrases as they were said, at most six words. */
export function chapterTitle(context: SiftContext, statistics: PhraseStatistics, run: Run): string {
  const firstWord = context.sentences[run.first]!.firstWord;
  const endWord = context.sentences[run.end - 1]!.endWord;
  const phrases = keyPhrases({ words: context.words, texts: context.texts, tags: context.tags, firstWord, endWord }, statistics, 2);
  const texts = phrases.map((phrase) => phrase.text);
  const joined = texts.length === 2 && texts.join(' ').split(' ').length <= 5 ? `${texts[0]!} and ${texts[1]!}` : texts[0];
  const title = joined ?? wordsText(context.words, firstWord, Math.min(endWord, firstWord + 6));
  return title.charAt(0).toUpperCase() + title.slice(1);
}
