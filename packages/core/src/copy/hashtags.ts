import { MEANS } from '../text/lists/fields.js';
import { ADVISES } from '../text/lists/written.js';
import { phraseAt, stem, topicWords } from '../text/stem.js';
import { depthOf, type Field, inOneLine } from './fields.js';
import type { Voice } from './voice/types.js';
import { keyPhrases, type Passage, type PhraseStatistics } from './phrases.js';
import { ownFields, pairsIn, type RecordingSubject, type SubjectTerm } from './recording-tags.js';

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
/** A passage that says so many of a field's words speaks of it. */
const LEAST_SAID_HERE = 2;
/** A word by which a field is found names more than one that is only rare. */
const TELLS_OF_FIELD = 2;
/** Said so often, a compound is a subject of the recording, and so of each of its passages. */
const OF_RECORDING = 3;
/** Of each kind at most so many, so that a set goes from the particular to the general. */
const [MOST_COMPOUNDS, MOST_ONCE, MOST_TITLED, MOST_COMPOUNDS_IN_ALL, MOST_THINGS, MOST_FIELDS] = [2, 1, 1, 3, 2, 3];
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
  const fields = fieldsFor(passage, subject);
  const particular = [...ofSubject(passage, subject, statistics, titled), ...tipsOf(fields, passage)].map(toHashtag);
  const general = fields.slice(0, MOST_FIELDS);
  const tags = unlike([...own, ...particular, ...general]);
  if (tags.length < most) {
    const others = clientTags.map(toHashtag).slice(0, MOST_OF_CLIENT);
    const found = unlike([...tags, ...fields.slice(MOST_FIELDS), ...others]);
    // Words that stand side by side are a guess: only where nothing else is known.
    const spare = found.length === 0 ? keyPhrases(passage, statistics, most).flatMap(({ text }) => (text.includes(' ') ? [toHashtag(text)] : [])) : [];
    return unlike([...found, ...spare]).slice(0, most);
  }
  // What is general stays: the particular gives way.
  return unlike([...own, ...particular.slice(0, Math.max(0, most - own.length - general.length)), ...general]).slice(0, most);
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

/**
 * The recording's fields, those that the passage speaks of first; the first few of them from the narrower to the wider. Beside the
 * strongest, its wider and its narrower ones, another counts where the passage speaks of it.
 */
function fieldsFor(passage: Passage, subject: RecordingSubject): string[] {
  const here = stemsOf(passage);
  const isHere = ({ said }: Field): boolean => said.filter((text) => text.split(' ').every((word) => here.has(stem(word)))).length >= LEAST_SAID_HERE;
  const weigh = (field: Field): number => field.weight * (isHere(field) ? SAID_HERE : 1);
  const fields = ownFields(subject);
  const ordered = fields
    .filter((field) => inOneLine(field.tag, fields[0]!.tag) || isHere(field))
    .sort((a, b) => weigh(b) - weigh(a))
    .map(({ tag }) => tag);
  return [...ordered.slice(0, MOST_FIELDS).sort((a, b) => depthOf(b) - depthOf(a)), ...ordered.slice(MOST_FIELDS)];
}

const stemsOf = ({ texts, firstWord, endWord }: Passage): ReadonlySet<string> => new Set(texts.slice(firstWord, endWord).map(stem));

/** A passage that tells what to do has tips of what is done. */
function tipsOf(fields: readonly string[], { texts, tags, firstWord, endWord }: Passage): string[] {
  const doing = fields.slice(0, 2).find((field) => field.endsWith('ing'));
  const advises = texts.slice(firstWord, endWord).some((text, i) => ADVISES.has(text) || (text === "don't" && tags[firstWord + i + 1] === 'VERB'));
  return doing !== undefined && advises ? [`${doing}tips`] : [];
}

/**
 * Compounds first, those of the passage before the title's and the recording's, then things of the recording's field that the
 * passage speaks of, with the field's name before them; no two of one meaning, and never a bare common noun.
 */
function ofSubject(passage: Passage, subject: RecordingSubject, { counts }: PhraseStatistics, titled: readonly string[]): string[] {
  const here = stemsOf(passage);
  const telling = new Set(subject.fields.filter(({ tag }) => !MEANS.has(tag)).flatMap(({ said }) => said.flatMap((text) => text.split(' ').map(stem))));
  const isHere = (term: SubjectTerm): boolean => term.stems.every((one) => here.has(one));
  const tells = (term: SubjectTerm): boolean => term.stems.some((one) => telling.has(one));
  const weigh = (term: SubjectTerm): number => term.weight * (isHere(term) ? SAID_HERE : 1) * (tells(term) ? TELLS_OF_FIELD : 1);
  const strongest = (terms: readonly SubjectTerm[]): SubjectTerm[] => [...terms].sort((a, b) => weigh(b) - weigh(a));
  const known = strongest(subject.compounds.filter((term) => term.count >= OF_RECORDING || isHere(term)));
  const said = new Set(known.map(({ stems }) => stems.join(' ')));
  const once = pairsIn(passage)
    .filter(({ stems }) => !said.has(stems.join(' ')) && stems.some((one) => (counts.get(one) ?? 0) >= OF_RECORDING))
    .slice(0, MOST_ONCE)
    .map(({ text }) => text);
  const saidHere = known.filter(isHere).map(({ text }) => text);
  const ofAll = known.filter((term) => !isHere(term) && term.stems.every((one) => telling.has(one))).map(({ text }) => text);
  const compounds = [...saidHere.slice(0, MOST_COMPOUNDS), ...once, ...titled.slice(0, MOST_TITLED), ...ofAll].slice(0, MOST_COMPOUNDS_IN_ALL);
  const taken = new Set(compounds.flatMap((text) => text.split(' ').map(stem)));
  const field = ownFields(subject)[0];
  const isOf = (term: SubjectTerm): boolean => field?.said.some((text) => stem(text) === term.stems[0]) ?? false;
  const things = strongest(subject.singles.filter((term) => isHere(term) && isOf(term) && !taken.has(term.stems[0]!) && !term.text.endsWith('ing')))
    .flatMap(({ text }) => ofField(text, field!))
    .slice(0, compounds.length === 0 ? MOST_THINGS : 1);
  return [...compounds, ...things];
}

/** A field's tag without what is done in it: "beekeeping" is about bees. */
const DOING = /(?:keeping|growing|watching|driving|baking|riding|training|making|collecting)$/;

/** Letters; what is longer are two words already. */
const ONE_WORD = 9;

/** A thing of a field, as one looks for it: "potato planter". Alone it would be a bare common noun. */
function ofField(thing: string, field: Field): string[] {
  const about = singular(field.tag.replace(DOING, ''));
  if (
    about.length < 3 ||
    about.length > ONE_WORD ||
    stem(thing).startsWith(stem(about)) ||
    stem(about).startsWith(stem(thing)) ||
    stem(about).endsWith(stem(thing))
  )
    return [];
  return [`${about} ${thing}`];
}

/** "potatoes": potato; "business" and "politics" as they are. */
function singular(plural: string): string {
  if (/(?:ss|us|ics)$/.test(plural)) return plural;
  return plural.replace(/ies$/, 'y').replace(/(?<=o|x|sh|ch|us)es$|s$/, '');
}
