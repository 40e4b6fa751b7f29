import { GENERIC_NOUNS, STOPWORDS } from '../text/lists/talk.js';
import { FORMATS } from '../text/lists/formats.js';
import { stem } from '../text/stem.js';
import type { PosTagger } from '../text/tagger.js';

/** Said less often, a word of the title is not what the recording goes on about. */
const SAID_AT_LEAST = 2;

/** A word of a title names something: it is no word of every talk, and the recording says it again and again. */
const names = (word: string, counts: ReadonlyMap<string, number>): boolean =>
  /^\p{L}{3,}$/u.test(word) && !STOPWORDS.has(word) && !GENERIC_NOUNS.has(word) && (counts.get(stem(word)) ?? 0) >= SAID_AT_LEAST;

/** What the recording is, alone or with the word behind it: file names part "phone-in" as they part all words. */
const isFormat = (words: readonly string[], i: number): boolean => FORMATS.has(words[i]!) || FORMATS.has(`${words[i]}-${words[i + 1]}`);

/** Words that the recording's own title names, in lower case; not what it is ("webinar"), nor what somebody does ("what lives in a chimney"). */
export function titleWords(title: string, counts: ReadonlyMap<string, number>, tagger: PosTagger): string[] {
  const words = title
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter((word) => word !== '');
  const tags = tagger(words);
  return [...new Set(words.filter((word, i) => !isFormat(words, i) && tags[i] !== 'VERB' && names(word, counts)))];
}

/**
 * Compounds that the recording's own title names ("Flood claims: a webinar": flood claims): two of its words side by side, each of
 * which is said again and again. A title that was a file's name will do.
 * @param counts how often each content stem is said in the recording
 */
export function titleCompounds(title: string, counts: ReadonlyMap<string, number>, tagger: PosTagger): string[] {
  const all: string[] = [];
  for (const part of title.toLowerCase().split(/[^\p{L}\p{N}\s_-]+|\s[–—-]+\s/u)) {
    const words = part.split(/[\s_-]+/).filter((word) => word !== '');
    const tags = tagger(words);
    const found: string[] = [];
    // Of three in a row the last two, since what it is stands last: "till allergen training".
    for (let i = words.length - 2; i >= 0; i -= 1) {
      if (
        !names(words[i]!, counts) ||
        !names(words[i + 1]!, counts) ||
        isFormat(words, i + 1) ||
        tags[i + 1] !== 'NOUN' ||
        (tags[i] !== 'NOUN' && tags[i] !== 'ADJ')
      )
        continue;
      found.push(`${words[i]} ${words[i + 1]}`);
      i -= 1;
    }
    all.push(...found.reverse());
  }
  return all;
}
