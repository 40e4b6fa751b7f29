import { rarity } from '../../text/spoken-words.js';
import { stem } from '../../text/stem.js';
import type { Passage, PhraseStatistics } from '../phrases.js';
import { fieldStems } from '../recording-tags.js';
import type { SearchGround } from '../search/search-drafts.js';
import { TOPIC_SORTS, type TopicDraft } from './topic-drafts.js';

/** What topics are weighed by, each about 0 to 1; of two words the one that has less of it counts, unless its name says otherwise. */
export const TOPIC_FEATURES = [
  ...TOPIC_SORTS.map((sort) => `is ${sort}` as const),
  'said here',
  'more than once',
  'sentences',
  'in the first sentence',
  'in the last sentence',
  'rare',
  'rarest',
  'said in all',
  'of the passage',
  'of the title',
  'of the field',
  'of the subject',
  'together',
  'plural',
  'said in the whole recording here alone',
] as const;
type Feature = (typeof TOPIC_FEATURES)[number];
const PLACES = Object.fromEntries(TOPIC_FEATURES.map((feature, k) => [feature, k])) as Record<Feature, number>;

/** A word as rare as this tells neither much nor little. */
const ORDINARY = 5;

/** Features of each draft, a row of `TOPIC_FEATURES` each. */
export function topicFeatures(drafts: readonly TopicDraft[], passage: Passage, { counts }: PhraseStatistics, ground: SearchGround): Float64Array[] {
  const { texts, firstWord, endWord } = passage;
  const stems = texts.slice(firstWord, endWord).map(stem);
  const here = new Map<string, number>();
  for (const one of stems) here.set(one, (here.get(one) ?? 0) + 1);
  const sentences = passage.sentences.slice(passage.first, passage.end);
  const saidIn = new Map<string, Set<number>>();
  sentences.forEach((sentence, s) => {
    for (const one of stems.slice(Math.max(0, sentence.firstWord - firstWord), Math.min(sentence.endWord, endWord) - firstWord))
      saidIn.set(one, (saidIn.get(one) ?? new Set()).add(s));
  });
  const ofTitle = new Set(ground.titleWords.map(stem));
  const ofFields = fieldStems(ground.subject.fields);
  const strongest = new Map(ground.subject.singles.map(({ stems: [one] }, k, all) => [one!, 1 - k / all.length]));
  return drafts.map(({ text, sort, stems: own }) => {
    const row = new Float64Array(TOPIC_FEATURES.length);
    const put = (feature: Feature, value: number | boolean): void => {
      row[PLACES[feature]] = Number(value);
    };
    const said = Math.min(...own.map((one) => here.get(one) ?? 0));
    const inAll = Math.min(...own.map((one) => counts.get(one) ?? 0));
    const rare = text.split(' ').map((word) => (rarity(word) - ORDINARY) / ORDINARY);
    const [first = new Set<number>(), ...others] = own.map((one) => saidIn.get(one) ?? new Set<number>());
    const holds = new Set([...first].filter((s) => others.every((other) => other.has(s))));
    put(`is ${sort}`, true);
    put('said here', Math.log2(1 + said) / 2);
    put('more than once', said > 1);
    put('sentences', holds.size / Math.max(1, sentences.length));
    put('in the first sentence', holds.has(0));
    put('in the last sentence', holds.has(sentences.length - 1));
    put('rare', Math.min(...rare));
    put('rarest', Math.max(...rare));
    put('said in all', Math.log2(1 + inAll) / 5);
    put('of the passage', said / Math.max(1, said, inAll));
    put(
      'of the title',
      own.every((one) => ofTitle.has(one)),
    );
    put('of the field', own.filter((one) => ofFields.has(one)).length / own.length);
    put('of the subject', Math.min(...own.map((one) => strongest.get(one) ?? 0)));
    put('together', Math.min(2, holds.size) / 2);
    put('plural', /[^s]s$/.test(text));
    put('said in the whole recording here alone', said > 0 && said === inAll);
    return row;
  });
}
