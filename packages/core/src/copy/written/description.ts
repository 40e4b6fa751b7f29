import { contentOf, shared } from './content.js';
import { TEXT_WEIGHTS } from './text-weights.js';
import { type TitleContext, titleFeatures } from './title-features.js';
import { type TitleDraft, titleDrafts, type TitleSort } from './title-sorts.js';
import { isBroken, isClause, isHousekeeping, isLoose } from './wholeness.js';
import { closed, LEAST_WORDS } from './written-sentence.js';

/** A text under a short is read in a glance: two sentences, so many characters. Common practice. */
const [MOST_SENTENCES, MOST_CHARACTERS] = [2, 220];
/** A sentence that runs on is cut where it may end; one that is read has so many characters at most. Common practice. */
const LONGEST_SENTENCE = 125;
const MOST_WORDS = 26;
/** What says so much of the title again adds nothing. */
const SAME = 0.5;

const SORTS: ReadonlySet<TitleSort> = new Set(['said', 'contrast', 'advice']);

interface Said {
  readonly text: string;
  readonly words: ReadonlySet<string>;
  readonly sentence: number;
  readonly worth: number;
}

/**
 * One or two sentences of the passage, written, that add to its title: those that say most, in their order; never the title
 * again. Empty where none is whole, or nothing may be said.
 * @param limit characters
 */
export function describe(context: TitleContext, title: string, limit: number, weights: ArrayLike<number> = TEXT_WEIGHTS): string {
  const most = Math.min(limit, MOST_CHARACTERS);
  const inTitle = contentOf(title.split(/\s+/).map((word) => word.toLowerCase().replace(/[^\p{L}\p{N}']/gu, '')));
  const sentences = saidSentences(context, most, weights).filter(({ words }) => shared(words, inTitle) < SAME);
  const chosen: Said[] = [];
  for (const one of [...sentences].sort((a, b) => b.worth - a.worth)) {
    if (chosen.some((other) => other.sentence === one.sentence)) continue;
    if (chosen.length === MOST_SENTENCES) break;
    const length = chosen.reduce((sum, { text }) => sum + text.length + 1, one.text.length);
    if (length <= most && chosen.every((other) => shared(one.words, other.words) < SAME)) chosen.push(one);
  }
  return chosen
    .sort((a, b) => a.sentence - b.sentence)
    .map(({ text }) => text)
    .join(' ');
}

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
    words: contentOf(draft.line.map(({ norm }) => norm)),
    sentence: draft.sentence,
    worth: rows[k]!.reduce((sum, value, f) => sum + value * weights[f]!, 0),
  }));
}
