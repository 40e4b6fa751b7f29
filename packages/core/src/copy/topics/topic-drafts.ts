import { rarity } from '../../text/spoken-words.js';
import { UNITS } from '../../text/lists/written.js';
import { stem } from '../../text/stem.js';
import type { Passage, PhraseStatistics } from '../phrases.js';
import type { Field } from '../fields.js';
import { fieldStems, isSubject, ownFields, pairsIn } from '../recording-tags.js';
import type { SearchGround } from '../search/search-drafts.js';

/** Where a topic comes from: what is said again and again side by side, the recording's title, two nouns, one noun, a field. */
export const TOPIC_SORTS = ['compound', 'titled', 'pair', 'single', 'field'] as const;
type TopicSort = (typeof TOPIC_SORTS)[number];

/** What a passage may be about, in a word or two that are said. */
export interface TopicDraft {
  /** Lower case. */
  readonly text: string;
  readonly sort: TopicSort;
  readonly stems: readonly string[];
}

const [MOST_TITLED, MOST_FIELDS] = [2, 2];
/** Said more often in any talk, a noun is a topic only where it tells of the recording's field. */
const LEAST_RARITY = 6.5;
/** Rarer than this, a field's tag is two words run together, unless it is something that is done. */
const ONE_WORD = 10;

/** Topics that a passage may have; of two with the same stems the first sort's. */
export function topicDrafts(passage: Passage, { counts }: PhraseStatistics, { subject, titled }: SearchGround): TopicDraft[] {
  const { texts, firstWord, endWord } = passage;
  const here = new Set(texts.slice(firstWord, endWord).map(stem));
  const found = new Map<string, TopicDraft>();
  const add = (sort: TopicSort, text: string): void => {
    const stems = text.split(' ').map(stem);
    const key = stems.join(' ');
    if (!found.has(key)) found.set(key, { text, sort, stems });
  };
  for (const { text, stems } of subject.compounds) if (stems.every((one) => here.has(one))) add('compound', text);
  for (const text of titled.slice(0, MOST_TITLED)) add('titled', text);
  for (const { text } of pairsIn(passage)) add('pair', text);
  const ofFields = fieldStems(subject.fields);
  for (const text of thingsOf(passage)) if (rarity(text) >= LEAST_RARITY || ofFields.has(stem(text))) add('single', text);
  // "Health" or "animals" tells nothing of a passage; and a title says nothing that nobody said.
  const isOne = ({ tag, wider }: Field): boolean => wider !== null && (tag.endsWith('ing') || rarity(tag) < ONE_WORD) && counts.has(stem(tag));
  const fields = ownFields(subject).filter(isOne);
  for (const { tag } of fields.slice(0, MOST_FIELDS)) add('field', tag);
  return [...found.values()];
}

/** "Bear with me": somebody is asked to, unless a word stands before it that goes with a thing. */
const TO_WHOM = new Set(['me', 'us', 'them', 'him', 'her']);
const NAMES = new Set<string>(['DET', 'ADJ', 'NOUN', 'NUM', 'PRON']);
/** What follows these is done. */
const DOES = new Set(['i', 'you', 'we', 'they', 'he', 'she', 'it', 'to']);

/** Nouns of a passage, in the form that speaks of more than one where it is said; not what is mostly done there ("call me"), nor names. */
function thingsOf({ words, texts, tags, sentences, first, end, firstWord, endWord }: Passage): string[] {
  const forms = new Set(texts.slice(firstWord, endWord));
  const starts = new Set(sentences.slice(first, end).map((sentence) => sentence.firstWord));
  const things = new Map<string, number>();
  for (let i = firstWord; i < endWord; i += 1) {
    const named = /^\p{Lu}/u.test(words[i]!.text) && !starts.has(i);
    // "if it stops", "to pack", "bear with me": done, whatever the tagger says.
    const asks = tags[i + 1] === 'ADP' && TO_WHOM.has(texts[i + 2] ?? '') && !NAMES.has(tags[i - 1] ?? '');
    const done = tags[i] === 'VERB' || asks || (i > firstWord && DOES.has(texts[i - 1]!));
    const by = named || done ? -1 : tags[i] === 'NOUN' ? 1 : 0;
    const key = stem(texts[i]!);
    if (by !== 0 && isSubject(texts[i]!)) things.set(key, (things.get(key) ?? 0) + by);
  }
  const found: string[] = [];
  for (let i = firstWord; i < endWord; i += 1) {
    const text = texts[i]!;
    if (tags[i] === 'NOUN' && isSubject(text) && !UNITS.has(text) && (things.get(stem(text)) ?? 0) > 0) found.push(forms.has(`${text}s`) ? `${text}s` : text);
  }
  return found;
}
