import { FIELDS, MEANS } from '../text/lists/fields.js';
import { rarity } from '../text/spoken-words.js';

/** A field that people follow, found in what a recording says. */
export interface Field {
  /** As a hashtag, without `#`. */
  readonly tag: string;
  /** The tag of the wider field, null at the top. */
  readonly wider: string | null;
  readonly weight: number;
  /** Its words that are said, the strongest first: what it was found by. */
  readonly said: readonly string[];
}

interface ListedField {
  readonly tag: string;
  readonly wider: string | null;
  readonly terms: readonly { readonly text: string; readonly stems: readonly string[] }[];
}

const LISTED: readonly ListedField[] = FIELDS.split('\n')
  .filter((line) => line !== '' && !line.startsWith('#'))
  .map((line) => {
    const [head, words] = line.split(': ') as [string, string];
    const [tag, wider = null] = head.split(' > ') as [string, string?];
    const terms = words.split(' ').map((word) => ({ text: word.replaceAll('+', ' '), stems: word.split('+').map(base) }));
    return { tag, wider, terms };
  });

/** A word without the ending of a plural or a verb; "bowler" stays apart from "bowl", which a stem would not do. */
export function base(word: string): string {
  if (word.length <= 3) return word;
  const cut = word
    .replace(/ies$/, 'y')
    .replace(/(?<=(?:ss|sh|ch|x))es$|(?<=[^su])s$/, '')
    .replace(/(?<=[aeiouy].*.)(?:ing|ed)$/, '')
    .replace(/(?<=..)e$/, '');
  return cut.replace(/([^aeiouls])\1$/, '$1');
}

/** Of how many fields a term tells: the more, the less of each. */
const FIELDS_OF_TERM = new Map<string, number>();
for (const { terms } of LISTED) for (const { stems } of terms) FIELDS_OF_TERM.set(stems.join(' '), (FIELDS_OF_TERM.get(stems.join(' ')) ?? 0) + 1);

const WIDER = new Map(LISTED.map(({ tag, wider }) => [tag, wider] as const));

/** Fewer different words of a field are chance; two are enough where they are said over and over, as in a recording of some minutes. */
const LEAST_TERMS = 3;
const OVER_AND_OVER = 2.4;
/** A wider field gets so much of what its best narrower one has. */
const HANDED_UP = 0.35;
/** A field of the strongest one's family is one of the recording's with this share of its weight, a stranger with more. */
const [LEAST_SHARE, STRANGERS_SHARE] = [0.3, 0.6];
/** A recording that says less of a field than this is not about it. */
const LEAST_WEIGHT = 1.2;
/** What most talk touches in passing is its subject only where much is said of it. */
const IN_PASSING = 0.6;
/** Words as common as this tell of nothing; two of them together are rarer by so much. */
const [NOT_RARE, OF_A_PAIR] = [4, 3];
/** Said in a thousand words so often, a term is worth half of what it can be. */
const HALF_AT = 1.5;

/**
 * The fields of what is said, the strongest first: by how many of a field's words are said, how often, how rare they are in
 * English at large and how few other fields have them.
 * @param texts normalised words, @param most how many
 */
export function fieldsOf(texts: readonly string[], most: number): Field[] {
  const counts = countTerms(texts);
  const own = LISTED.map((field) => weigh(field, counts, texts.length));
  const handedUp = new Map<string, number>();
  own.forEach(({ weight }, k) => {
    const { wider } = LISTED[k]!;
    if (wider !== null) handedUp.set(wider, Math.max(handedUp.get(wider) ?? 0, HANDED_UP * weight));
  });
  const found = own.map((one) => ({ ...one, weight: one.weight + (handedUp.get(one.tag) ?? 0) })).filter(({ weight }) => weight > 0);
  found.sort((a, b) => b.weight - a.weight || (a.tag < b.tag ? -1 : 1));
  const first = found[0];
  if (first === undefined || first.weight < LEAST_WEIGHT) return [];
  const isFamily = ({ tag }: Field): boolean => familyOf(tag) === familyOf(first.tag);
  return found.filter((field) => field.weight >= (isFamily(field) ? LEAST_SHARE : STRANGERS_SHARE) * first.weight).slice(0, most);
}

/** The widest field above a field, or itself. */
function familyOf(tag: string): string {
  const wider = WIDER.get(tag) ?? null;
  return wider === null ? tag : familyOf(wider);
}

/** Whether one of two fields is the wider one of the other, or both are one. */
export function inOneLine(one: string, other: string): boolean {
  return isAbove(one, other) || isAbove(other, one);
}

/** Whether a field is another, or wider than it. */
function isAbove(wide: string, tag: string | null): boolean {
  return tag !== null && (tag === wide || isAbove(wide, WIDER.get(tag) ?? null));
}

/** How many fields are wider than a field; 0 for one at the top, and for what is no field. */
export function depthOf(tag: string): number {
  const wider = WIDER.get(tag) ?? null;
  return wider === null ? 0 : 1 + depthOf(wider);
}

interface SaidTerm {
  count: number;
  /** Of the commonest form that is said: "put" is no "putt", though both have one stem. */
  rarity: number;
}

/** How often each listed term is said, by its stems. */
function countTerms(texts: readonly string[]): Map<string, SaidTerm> {
  const stems = texts.map(base);
  const counts = new Map<string, SaidTerm>();
  const add = (key: string, rare: number): void => {
    if (!FIELDS_OF_TERM.has(key)) return;
    const said = counts.get(key) ?? { count: 0, rarity: Infinity };
    counts.set(key, { count: said.count + 1, rarity: Math.min(said.rarity, rare) });
  };
  stems.forEach((one, i) => {
    add(one, rarity(texts[i]!));
    const after = texts[i + 1];
    if (after !== undefined) add(`${one} ${stems[i + 1]}`, Math.max(rarity(texts[i]!), rarity(after)) + OF_A_PAIR);
  });
  return counts;
}

function weigh({ tag, wider, terms }: ListedField, counts: ReadonlyMap<string, SaidTerm>, words: number): Field {
  const found = terms
    .map(({ text, stems }) => {
      const key = stems.join(' ');
      const said = counts.get(key);
      const often = (1000 * (said?.count ?? 0)) / Math.max(words, 1000);
      const rare = Math.max(0, (said?.rarity ?? 0) - NOT_RARE);
      return { text, weight: ((often / (often + HALF_AT)) * rare) / Math.sqrt(FIELDS_OF_TERM.get(key)!) };
    })
    .filter(({ weight }) => weight > 0)
    .sort((a, b) => b.weight - a.weight);
  const sum = found.reduce((total, one) => total + one.weight, 0) * (MEANS.has(tag) ? IN_PASSING : 1);
  const all = sum / Math.sqrt(terms.length);
  const enough = found.length >= LEAST_TERMS || (found.length === LEAST_TERMS - 1 && all >= OVER_AND_OVER);
  const weight = enough ? all : 0;
  return { tag, wider, weight, said: found.map(({ text }) => text).slice(0, 6) };
}
