import { type Field, fieldsOf } from './fields.js';
import { GENERIC_NOUNS, MEASURES, STOPWORDS } from '../text/lists/talk.js';
import { MEANS } from '../text/lists/fields.js';
import { rarity } from '../text/spoken-words.js';
import { stem } from '../text/stem.js';
import type { PartOfSpeech } from '../text/tagger.js';
import type { Passage } from './phrases.js';
import type { Word } from '../transcript/types.js';

/** A word or compound that tells what a recording is about. */
export interface SubjectTerm {
  /** As it is said most, lower case. */
  readonly text: string;
  readonly stems: readonly string[];
  readonly count: number;
  readonly weight: number;
}

/** What a recording is about: compounds ("guide dog") and single words, nouns and what is done ("pruning"); strongest first. */
export interface RecordingSubject {
  readonly compounds: readonly SubjectTerm[];
  readonly singles: readonly SubjectTerm[];
  /** What it belongs to ("beekeeping"), the strongest first. */
  readonly fields: readonly Field[];
}

const MOST_TERMS = 60;
const MOST_FIELDS = 6;
/** Said less often, a word tells of a passage, not of the recording. */
const SAID_AT_LEAST = 3;
/** Commoner than this in all talk, a word names no subject. */
const LEAST_RARITY = 6;

/** Tells what a recording is about by what is said in it more often than in English at large. */
export function recordingSubject(texts: readonly string[], tags: readonly PartOfSpeech[], words: readonly Word[]): RecordingSubject {
  const compounds = new Counter();
  const singles = new Counter();
  const said = new Set(texts);
  for (let i = 0; i < texts.length; i += 1) {
    const text = texts[i]!;
    if (!isSubject(text)) continue;
    const name = isName(words[i]!);
    if (tags[i] === 'NOUN') singles.add([text], name);
    else if (tags[i] === 'VERB') {
      const doing = gerund(text);
      if (said.has(doing)) singles.add([doing], false);
    }
    if (isPair(texts, tags, words, i)) compounds.add([text, texts[i + 1]!], name || isName(words[i + 1]!));
  }
  const pairs = compounds.strongest((one) => 0.5 * (rarity(one[0]!) + rarity(one[1]!)), 2);
  return {
    compounds: pairs,
    singles: singles.strongest((one) => Math.max(0, rarity(one[0]!) - LEAST_RARITY), SAID_AT_LEAST),
    fields: fieldsOf(texts, MOST_FIELDS),
  };
}

/** What a recording is about, without what most talk touches in passing, unless there is nothing else. */
export function ownFields({ fields }: RecordingSubject): readonly Field[] {
  const own = fields.filter(({ tag }) => !MEANS.has(tag));
  return own.length > 0 ? own : fields.slice(0, 1);
}

/** Stems of the words by which fields were found. */
export const fieldStems = (fields: readonly Field[]): ReadonlySet<string> =>
  new Set(fields.flatMap(({ said }) => said.flatMap((text) => text.split(' ').map(stem))));

/** Compounds that a passage says, if only once; the rarest first. */
export function pairsIn({ texts, tags, words, firstWord, endWord }: Pick<Passage, 'texts' | 'tags' | 'words' | 'firstWord' | 'endWord'>): SubjectTerm[] {
  const pairs = new Counter();
  for (let i = firstWord; i + 1 < endWord; i += 1)
    if (tags[i] === 'NOUN' && isSubject(texts[i]!) && isPair(texts, tags, words, i) && !mayBeDone(texts, tags, words, i + 1))
      pairs.add([texts[i]!, texts[i + 1]!], isName(words[i]!) || isName(words[i + 1]!));
  return pairs.strongest((one) => 0.5 * (rarity(one[0]!) + rarity(one[1]!)), 1);
}

/** "the nest dries out", "the boiler breaks in January": what somebody does, whatever the tagger says. */
const mayBeDone = (texts: readonly string[], tags: readonly PartOfSpeech[], words: readonly Word[], i: number): boolean =>
  /[^s]s$/.test(texts[i]!) && !endsInMark(words[i]!) && /^(?:DET|PRON|ADV|ADP|PART)$/.test(tags[i + 1] ?? '');

/** With nothing after it that belongs to it. */
export const endsInMark = ({ text }: Word): boolean => /[.,;:!?]["'”’)]*$/.test(text);

/** Written as a name is. Of a word at the start of a sentence that says nothing, so what counts is how it is written mostly. */
const isName = ({ text }: Word): boolean => /^\p{Lu}\p{Ll}/u.test(text);

/** Two words that name one thing: something and a noun, with nothing between them. */
function isPair(texts: readonly string[], tags: readonly PartOfSpeech[], words: readonly Word[], i: number): boolean {
  const after = texts[i + 1];
  if (after === undefined || tags[i + 1] !== 'NOUN' || !isSubject(after) || endsInMark(words[i]!)) return false;
  return tags[i] === 'NOUN' || (tags[i] === 'ADJ' && rarity(texts[i]!) > LEAST_RARITY);
}

/** Long enough, and neither of every talk nor a measure. */
export const isSubject = (text: string): boolean => /^[a-z]{3,}$/.test(text) && !STOPWORDS.has(text) && !GENERIC_NOUNS.has(text) && !MEASURES.has(text);

/** "bakes", "bake": baking. By spelling alone: whoever asks looks whether it is said. */
export function gerund(verb: string): string {
  if (verb.endsWith('ing')) return verb;
  const base = verb.replace(/(?<=[^aeiou])ies$/, 'y').replace(/(?<=[^s])s$/, '');
  if (/[^aeiouy][aeiou][bdgmnprt]$/.test(base) && base.length <= 4) return `${base}${base.at(-1)}ing`;
  return `${base.replace(/(?<=[^eo])e$/, '')}ing`;
}

/** Terms by their stems, each with the form that is said most. */
class Counter {
  private readonly found = new Map<string, Map<string, number>>();
  private readonly names = new Map<string, number>();

  /** @param name whether it is written as a name is */
  add(words: readonly string[], name: boolean): void {
    const key = words.map(stem).join(' ');
    if (name) this.names.set(key, (this.names.get(key) ?? 0) + 1);
    const forms = this.found.get(key) ?? new Map<string, number>();
    if (forms.size === 0) this.found.set(key, forms);
    const text = words.join(' ');
    forms.set(text, (forms.get(text) ?? 0) + 1);
  }

  strongest(rare: (words: readonly string[]) => number, least: number): SubjectTerm[] {
    return [...this.found]
      .map(([key, forms]) => {
        const count = [...forms.values()].reduce((sum, n) => sum + n, 0);
        const text = [...forms].reduce((best, one) => (one[1] > best[1] ? one : best))[0];
        return { text, stems: key.split(' '), count, weight: Math.sqrt(count) * rare(text.split(' ')) };
      })
      .filter(({ count, stems }) => count >= least && 2 * (this.names.get(stems.join(' ')) ?? 0) < count)
      .sort((a, b) => b.weight - a.weight || (a.text < b.text ? -1 : 1))
      .slice(0, MOST_TERMS);
  }
}
