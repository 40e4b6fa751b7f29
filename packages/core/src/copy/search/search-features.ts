import { rarity } from '../../text/spoken-words.js';
import { stem } from '../../text/stem.js';
import type { Passage, PhraseStatistics } from '../phrases.js';
import { fieldStems, isSubject } from '../recording-tags.js';
import { SEARCH_SORTS, type SearchDraft, type SearchGround } from './search-drafts.js';

/** What search phrases are weighed by, each about 0 to 1. "Least" and "most" are of a phrase's words that say something. */
export const SEARCH_FEATURES = [
  ...SEARCH_SORTS.map((sort) => `is ${sort}` as const),
  'least said here',
  'most said here',
  'least rare',
  'most rare',
  'least said in all',
  'most said in all',
  'least of the passage',
  'most of the passage',
  'of the title',
  'of the field',
  'said together',
  'words',
  'of the subject',
] as const;
type Feature = (typeof SEARCH_FEATURES)[number];
const PLACES = Object.fromEntries(SEARCH_FEATURES.map((feature, k) => [feature, k])) as Record<Feature, number>;

/** A word as rare as this tells neither much nor little. */
const ORDINARY = 5;

/** Features of each draft, a row of `SEARCH_FEATURES` each. */
export function searchFeatures(drafts: readonly SearchDraft[], passage: Passage, { counts }: PhraseStatistics, ground: SearchGround): Float64Array[] {
  const here = new Map<string, number>();
  for (let i = passage.firstWord; i < passage.endWord; i += 1) {
    const text = passage.texts[i]!;
    if (isSubject(text)) here.set(stem(text), (here.get(stem(text)) ?? 0) + 1);
  }
  const sentences = passage.sentences
    .slice(passage.first, passage.end)
    .map(({ firstWord, endWord }) => new Set(passage.texts.slice(Math.max(firstWord, passage.firstWord), Math.min(endWord, passage.endWord)).map(stem)));
  const ofTitle = new Set(ground.titleWords.map(stem));
  const ofFields = fieldStems(ground.subject.fields);
  const compounds = ground.subject.compounds.map(({ stems }) => stems);
  return drafts.map(({ text, sort, stems }) => {
    const row = new Float64Array(SEARCH_FEATURES.length);
    const put = (feature: Feature, value: number | boolean): void => {
      row[PLACES[feature]] = Number(value);
    };
    const both = (least: Feature, most: Feature, values: readonly number[]): void => {
      put(least, Math.min(...values));
      put(most, Math.max(...values));
    };
    const said = stems.map((one) => here.get(one) ?? 0);
    const inAll = stems.map((one) => counts.get(one) ?? 0);
    const forms = text.split(' ');
    put(`is ${sort}`, true);
    both(
      'least said here',
      'most said here',
      said.map((n) => Math.log2(1 + n) / 2),
    );
    both(
      'least rare',
      'most rare',
      stems.map((one) => (rarity(forms.find((form) => stem(form) === one)!) - ORDINARY) / ORDINARY),
    );
    both(
      'least said in all',
      'most said in all',
      inAll.map((n) => Math.log2(1 + n) / 3),
    );
    both(
      'least of the passage',
      'most of the passage',
      said.map((n, k) => n / Math.max(1, n, inAll[k]!)),
    );
    put(
      'of the title',
      stems.some((one) => ofTitle.has(one)),
    );
    put('of the field', stems.filter((one) => ofFields.has(one)).length / stems.length);
    put('said together', Math.min(2, sentences.filter((own) => stems.every((one) => own.has(one))).length) / 2);
    put('words', (forms.length - 2) / 3);
    put(
      'of the subject',
      compounds.some((own) => own.every((one) => stems.includes(one))),
    );
    return row;
  });
}
