import { readLine, type ReadLine, SAME, saysAgain, shared } from './content.js';
import { TEXT_WEIGHTS } from './text-weights.js';
import { type TitleContext, titleFeatures, weighed } from './title-features.js';
import { type TitleDraft, titleDrafts, type TitleSort } from './title-sorts.js';
import { isBroken, isClause, isHousekeeping, isLoose, leans } from './wholeness.js';
import { closed, LEAST_WORDS } from './written-sentence.js';

/** A text under a short is read in a glance: two sentences, so many characters. Common practice. */
const MOST_CHARACTERS = 220;
/** A sentence that runs on is cut where it may end; one that is read has so many characters at most. Common practice. */
const LONGEST_SENTENCE = 125;
const MOST_WORDS = 26;
/** Of the strongest so many, each pair is looked at; a passage of a minute has some twenty. */
const MOST_LOOKED_AT = 60;
const SORTS: ReadonlySet<TitleSort> = new Set(['said', 'contrast', 'advice']);

/** As a title they may do, as the first sentence of a text they speak of somebody. */
const LEANS_MORE = new Set('that this these those such neither both'.split(' '));

/** A sentence that may stand in a text. */
export interface Said extends ReadLine {
  readonly text: string;
  readonly sentence: number;
  /** It speaks of what the sentence before names. */
  readonly leans: boolean;
  readonly worth: number;
}

/**
 * One or two sentences of the passage, written, that add to its title: those that say most, in their order; never the title
 * again. Empty where none is whole, or nothing may be said.
 * @param limit characters
 */
export function describe(context: TitleContext, title: string, limit: number, weights: ArrayLike<number> = TEXT_WEIGHTS): string {
  return describer(context, limit, weights)(title);
}

/** `describe` for several titles of one passage, whose sentences are read once. */
export function describer(context: TitleContext, limit: number, weights: ArrayLike<number> = TEXT_WEIGHTS): (title: string) => string {
  const most = Math.min(limit, MOST_CHARACTERS);
  const all = saidSentences(context, most, weights).filter(({ text }) => text.length <= most);
  return (title) => textBeside(all, title, most);
}

function textBeside(all: readonly Said[], title: string, most: number): string {
  const own = readLine(title);
  const sentences = all.filter((one) => !saysAgain(one, own));
  return strongestOf(sentences, most)
    .map(({ text }) => text)
    .join(' ');
}

/** The one or two of all sentences that are worth most together, in the order of the talk. @param most characters */
export function strongestOf(all: readonly Said[], most: number): readonly Said[] {
  const sentences = [...all].sort((a, b) => b.worth - a.worth).slice(0, MOST_LOOKED_AT);
  // What leans on the sentence before may only follow it.
  const firm = sentences.filter((one) => !one.leans);
  const begin = firm.length > 0 ? firm : sentences;
  const pairs = begin.flatMap((first) => sentences.filter((second) => goTogether(first, second, most)).map((second) => [first, second] as const));
  return strongest(pairs.length > 0 ? pairs : begin.map((one) => [one] as const));
}

/** Two sentences of a text, in the order of the talk. */
const goTogether = (first: Said, second: Said, most: number): boolean =>
  first.sentence < second.sentence &&
  (!second.leans || second.sentence === first.sentence + 1) &&
  first.text.length + 1 + second.text.length <= most &&
  shared(first.words, second.words) < SAME &&
  shared(second.words, first.words) < SAME;

const worthOf = (text: readonly Said[]): number => text.reduce((sum, { worth }) => sum + worth, 0);
const strongest = (texts: readonly (readonly Said[])[]): readonly Said[] =>
  texts.reduce<readonly Said[]>((best, one) => (best.length === 0 || worthOf(one) > worthOf(best) ? one : best), []);

/** What may stand in a text: sentences and their clauses that stand by themselves, as one would write them. @param most characters */
export function textDrafts({ passage, tells }: TitleContext, most: number): TitleDraft[] {
  return titleDrafts(passage, Math.min(most, LONGEST_SENTENCE), MOST_WORDS).filter(
    (draft) =>
      SORTS.has(draft.sort) && draft.line.length >= LEAST_WORDS && isClause(draft.line) && !isBroken(draft) && !isHousekeeping(draft, tells) && !isLoose(draft),
  );
}

function saidSentences(context: TitleContext, most: number, weights: ArrayLike<number>): Said[] {
  const drafts = textDrafts(context, most);
  const rows = titleFeatures(drafts, context);
  return drafts.map((draft, k) => ({
    text: closed(draft.text),
    ...readLine(draft.text),
    sentence: draft.sentence,
    leans: leans(draft) || LEANS_MORE.has(draft.line[0]!.norm),
    worth: weighed(rows[k]!, weights),
  }));
}
