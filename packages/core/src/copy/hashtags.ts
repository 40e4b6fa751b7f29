import { MEANS } from '../text/lists/fields.js';
import { ADVISES } from '../text/lists/written.js';
import { phraseAt, stem, topicWords } from '../text/stem.js';
import { otherNames, saidTags } from './field-tags.js';
import { base, depthOf, type Field, inOneLine } from './fields.js';
import type { Voice } from './voice/types.js';
import { keyPhrases, type Passage, type PhraseStatistics } from './phrases.js';
import { fieldStems, ownFields, pairsIn, type RecordingSubject, type SubjectTerm } from './recording-tags.js';

/** A phrase as a hashtag without `#`: letters and digits only, lower case. */
export function toHashtag(phrase: string): string {
  return phrase
    .toLowerCase()
    .normalize('NFC')
    .replace(/[^\p{L}\p{N}]+/gu, '');
}

/** What tags are chosen from: the passage, what is said in the whole recording, and the client's own. */
export interface TagSource {
  readonly passage: Passage;
  readonly statistics: PhraseStatistics;
  /** What the recording is about; null for talk that is not English. */
  readonly subject: RecordingSubject | null;
  readonly clientTags: readonly string[];
  /** Compounds that the recording's title names. */
  readonly titled?: readonly string[];
  /** Tags that every short carries, and those that none does. */
  readonly voice?: Pick<Voice, 'alwaysTags' | 'neverTags'>;
}

/** A term that the passage says counts this much more than one of the recording alone. */
const SAID_HERE = 1.8;
/** A passage that says so many of a field's words speaks of it; of a field that is a stranger to the recording's, so many. */
const [LEAST_SAID_HERE, LEAST_OF_STRANGER] = [2, 3];
/** A word by which a field is found names more than one that is only rare. */
const TELLS_OF_FIELD = 2;
/** Said so often, a compound is a subject of the recording, and so of each of its passages. */
const OF_RECORDING = 3;
/** Of each kind at most so many, so that a set goes from the particular to the general. */
const [MOST_COMPOUNDS, MOST_ONCE, MOST_TITLED, MOST_FIELDS] = [2, 1, 1, 3];
/** Tags for what is said, of the first field and of each other. */
const [MOST_OF_FIRST, MOST_OF_OTHERS] = [2, 1];
/** A compound that is said once is a guess: only where less is known. */
const ENOUGH_KNOWN = 2;
/** Particular ones in a set, and fields that it holds before it takes the first field's other names. */
const [MOST_PARTICULAR, FIELDS_FIRST] = [3, 2];
/** Of the client's tags that a passage does not touch. */
const MOST_OF_CLIENT = 1;

/**
 * Hashtags for a passage, from the particular to the general: the client's own tags that the passage touches, then compounds that
 * tell what it and its recording are about, "…tips" where it advises, then the fields that it belongs to, each of which was found
 * by what is said. Without `#`; fewer than asked for, rather than strangers.
 */
export function proposeHashtags(source: TagSource, most: number): string[] {
  const { alwaysTags = [], neverTags = [] } = source.voice ?? {};
  const never = new Set(neverTags.map(toHashtag));
  // A client's tags keep the case that it gives them.
  const asWritten = new Map([...source.clientTags, ...alwaysTags].map((tag) => [toHashtag(tag), tag.replace(/[^\p{L}\p{N}]+/gu, '')]));
  const always = alwaysTags.map(toHashtag);
  const found = foundHashtags(source, most + never.size).filter((tag) => !never.has(tag) && !always.includes(tag));
  return [...always, ...found].slice(0, most).map((tag) => asWritten.get(tag) ?? tag);
}

function foundHashtags({ passage, statistics, subject, clientTags, titled = [] }: TagSource, most: number): string[] {
  const own = clientTags.filter((tag) => isSaid(tag, passage)).map(toHashtag);
  if (subject === null) return unlike([...own, ...keyPhrases(passage, statistics, most).map(({ text }) => toHashtag(text))]).slice(0, most);
  const here = countsOf(passage, stem);
  const { fields, strongest } = fieldsFor(here, subject);
  const particular = unlike([...own, ...particularOf(passage, here, subject, statistics, titled, { fields, strongest }).map(toHashtag)]).slice(
    0,
    own.length + MOST_PARTICULAR,
  );
  const others = strongest === null ? [] : otherNames(strongest);
  const spare = [...fields.slice(FIELDS_FIRST, MOST_FIELDS), ...fields.flatMap(otherNames), ...fields.slice(MOST_FIELDS)];
  const general = unlike([...fields.slice(0, FIELDS_FIRST), ...others, ...spare, ...clientTags.map(toHashtag).slice(0, MOST_OF_CLIENT)]);
  const more = unlike([...particular, ...general]).slice(particular.length);
  // What is general stays: the particular gives way. Other names of a field stand before it, and it before what is wider.
  const kept = particular.slice(0, Math.max(own.length, most - Math.min(fields.length, FIELDS_FIRST)));
  const wide = more.slice(0, most - kept.length);
  const isField = (tag: string): boolean => fields.includes(tag);
  const found = unlike([...kept, ...wide.filter((tag) => !isField(tag)), ...wide.filter(isField)]);
  if (found.length > 0) return found.slice(0, most);
  // Words that stand side by side are a guess: only where nothing else is known.
  return unlike(keyPhrases(passage, statistics, most).flatMap(({ text }) => (text.includes(' ') ? [toHashtag(text)] : []))).slice(0, most);
}

/** Tags of a usual length, each once in whatever form. */
function unlike(tags: readonly string[]): string[] {
  const seen = new Set<string>();
  return tags.filter((tag) => {
    if (tag.length < 2 || tag.length > 30 || seen.has(stem(tag))) return false;
    seen.add(stem(tag));
    return true;
  });
}

function isSaid(tag: string, { texts, firstWord, endWord }: Passage): boolean {
  const words = topicWords(tag.replace(/([a-z])([A-Z])/g, '$1 $2'));
  for (let i = firstWord; i < endWord; i += 1) if (words.length > 0 && phraseAt(texts, i, words)) return true;
  return false;
}

/** Fields of a passage as they stand among its tags, and the one that it is most of. */
interface PassageFields {
  readonly fields: readonly string[];
  readonly strongest: string | null;
}

/**
 * The recording's fields, those that the passage speaks of first; the first few of them from the narrower to the wider. Beside the
 * strongest, its wider and its narrower ones, another counts where the passage speaks of it.
 */
function fieldsFor(here: ReadonlyMap<string, number>, subject: RecordingSubject): PassageFields {
  const saidHere = ({ said }: Field): number => said.filter((text) => text.split(' ').every((word) => here.has(stem(word)))).length;
  const weigh = (field: Field): number => field.weight * (saidHere(field) >= LEAST_SAID_HERE ? SAID_HERE : 1);
  const fields = ownFields(subject);
  const ordered = fields
    .filter((field) => inOneLine(field.tag, fields[0]!.tag) || saidHere(field) >= LEAST_OF_STRANGER)
    .sort((a, b) => weigh(b) - weigh(a))
    .map(({ tag }) => tag);
  return {
    fields: [...ordered.slice(0, MOST_FIELDS).sort((a, b) => depthOf(b) - depthOf(a)), ...ordered.slice(MOST_FIELDS)],
    strongest: ordered[0] ?? null,
  };
}

/** How often each word is said in the passage, by what is left of it without its endings. */
function countsOf({ texts, firstWord, endWord }: Passage, cut: (word: string) => string): ReadonlyMap<string, number> {
  const counts = new Map<string, number>();
  for (const one of texts.slice(firstWord, endWord).map(cut)) counts.set(one, (counts.get(one) ?? 0) + 1);
  return counts;
}

/** A passage that tells what to do has tips of what is done. */
function tipsOf(fields: readonly string[], { texts, tags, firstWord, endWord }: Passage): string[] {
  const doing = fields.slice(0, 2).find((field) => field.endsWith('ing'));
  const advises = texts.slice(firstWord, endWord).some((text, i) => ADVISES.has(text) || (text === "don't" && tags[firstWord + i + 1] === 'VERB'));
  return doing !== undefined && advises ? [`${doing}tips`] : [];
}

/**
 * What is particular about a passage: compounds that it says, tags of its fields for what it says, the title's compound, tips where
 * it advises, and a compound that it says once where there is nothing else; never a bare common noun.
 */
function particularOf(
  passage: Passage,
  here: ReadonlyMap<string, number>,
  subject: RecordingSubject,
  { counts }: PhraseStatistics,
  titled: readonly string[],
  { fields, strongest }: PassageFields,
): string[] {
  const telling = fieldStems(subject.fields.filter(({ tag }) => !MEANS.has(tag)));
  const isHere = (term: SubjectTerm): boolean => term.stems.every((one) => here.has(one));
  const tells = (term: SubjectTerm): boolean => term.stems.some((one) => telling.has(one));
  const weigh = (term: SubjectTerm): number => term.weight * (tells(term) ? TELLS_OF_FIELD : 1);
  const compounds = subject.compounds.filter(isHere).sort((a, b) => weigh(b) - weigh(a));
  const said = new Set(compounds.map(({ stems }) => stems.join(' ')));
  const bases = countsOf(passage, base);
  const inAll = (word: string): number => counts.get(stem(word)) ?? 0;
  const ofFields = fields
    .slice(0, MOST_FIELDS)
    .flatMap((field) => saidTags(field, bases, inAll).slice(0, field === strongest ? MOST_OF_FIRST : MOST_OF_OTHERS));
  const ofPassage = [...compounds.map(({ text }) => text).slice(0, MOST_COMPOUNDS), ...ofFields];
  const named = titled.slice(0, MOST_TITLED);
  // What the recording is called stands in each of its sets, behind what only this passage has.
  const before = MOST_PARTICULAR - named.length;
  const known = [...ofPassage.slice(0, before), ...named, ...ofPassage.slice(before), ...tipsOf(fields, passage)];
  const once = pairsIn(passage)
    .filter(({ stems }) => !said.has(stems.join(' ')) && stems.some((one) => (counts.get(one) ?? 0) >= OF_RECORDING))
    .map(({ text }) => text);
  return [...known, ...(known.length < ENOUGH_KNOWN ? once.slice(0, MOST_ONCE) : [])];
}
