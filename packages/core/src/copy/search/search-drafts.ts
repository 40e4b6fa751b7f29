import { rarity } from '../../text/spoken-words.js';
import { stem } from '../../text/stem.js';
import { contentOf } from '../written/content.js';
import type { Passage } from '../phrases.js';
import { endsInMark, isSubject, ownFields, type RecordingSubject } from '../recording-tags.js';
import { KEYWORD_LIMIT } from '../types.js';

/**
 * Where a search phrase comes from: words that the passage says side by side, or a thing of the passage behind what names its
 * recording: a compound of the recording's title, a word of it, a compound that is said again and again, a field, a telling word.
 */
export const SEARCH_SORTS = ['compound', 'titled', 'title word', 'subject', 'field', 'single'] as const;
type SearchSort = (typeof SEARCH_SORTS)[number];

/** A phrase that somebody might type who looks for the passage. */
export interface SearchDraft {
  readonly text: string;
  readonly sort: SearchSort;
  /** Of its words that say something, each once; two or more. */
  readonly stems: readonly string[];
}

/** What names the recording of a passage. */
export interface SearchGround {
  readonly subject: RecordingSubject;
  /** Compounds and single words of the recording's title that it says again and again. */
  readonly titled: readonly string[];
  readonly titleWords: readonly string[];
}

/** Said so often, a compound is what the recording is about. */
const OF_RECORDING = 4;
const [MOST_TITLED, MOST_SUBJECTS, MOST_FIELDS, MOST_SINGLES] = [2, 2, 3, 3];
/** Rarer than this a tag is two words run together, unless it is something that is done. */
const ONE_WORD = 10;

/** Search phrases that can be made for a passage; of two that say the same the first sort's. */
export function searchDrafts(passage: Passage, { subject, titled, titleWords }: SearchGround): SearchDraft[] {
  const found = new Map<string, SearchDraft>();
  const add = (sort: SearchSort, text: string): void => {
    const stems = [...contentOf(text.split(' '))];
    const key = [...stems].sort().join(' ');
    if (stems.length >= 2 && text.length <= KEYWORD_LIMIT && !found.has(key)) found.set(key, { text, sort, stems });
  };
  for (const text of compoundsOf(passage)) add('compound', text);
  const fields = ownFields(subject)
    .map(({ tag }) => tag)
    .filter((tag) => tag.endsWith('ing') || rarity(tag) < ONE_WORD);
  const heads: readonly (readonly [SearchSort, readonly string[]])[] = [
    ['titled', titled.slice(0, MOST_TITLED)],
    ['title word', titleWords],
    [
      'subject',
      subject.compounds
        .filter(({ count }) => count >= OF_RECORDING)
        .map(({ text }) => text)
        .slice(0, MOST_SUBJECTS),
    ],
    ['field', fields.slice(0, MOST_FIELDS)],
    ['single', subject.singles.map(({ text }) => text).slice(0, MOST_SINGLES)],
  ];
  const things = thingsOf(passage);
  for (const [sort, texts] of heads)
    for (const head of texts) {
      const own = contentOf(head.split(' '));
      for (const [key, thing] of things) if (!own.has(key)) add(sort, `${head} ${thing}`);
    }
  return [...found.values()];
}

/** Two or three words of the passage side by side that name one thing. */
function compoundsOf({ words, texts, tags, firstWord, endWord }: Passage): string[] {
  const found: string[] = [];
  const names = (i: number): boolean => i < endWord && isSubject(texts[i]!) && isNoun(tags[i]!) && !endsInMark(words[i - 1]!);
  for (let i = firstWord; i + 1 < endWord; i += 1) {
    if (!isSubject(texts[i]!) || !(isNoun(tags[i]!) || tags[i] === 'ADJ') || !names(i + 1)) continue;
    if (names(i + 2)) found.push(texts.slice(i, i + 3).join(' '));
    found.push(texts.slice(i, i + 2).join(' '));
  }
  return found;
}

const isNoun = (tag: string): boolean => tag === 'NOUN' || tag === 'PROPN';

/** Nouns of the passage by their stem, in the form that is said most. */
function thingsOf({ texts, tags, firstWord, endWord }: Passage): Map<string, string> {
  const forms = new Map<string, Map<string, number>>();
  for (let i = firstWord; i < endWord; i += 1) {
    if (!isNoun(tags[i]!) || !isSubject(texts[i]!)) continue;
    const key = stem(texts[i]!);
    const said = forms.get(key) ?? new Map<string, number>();
    forms.set(key, said.set(texts[i]!, (said.get(texts[i]!) ?? 0) + 1));
  }
  return new Map([...forms].map(([key, said]) => [key, [...said].reduce((best, one) => (one[1] > best[1] ? one : best))[0]]));
}
