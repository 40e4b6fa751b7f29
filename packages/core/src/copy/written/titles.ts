import { cleanLine, shorten } from '../said-line.js';
import { contentOf, shared } from './content.js';
import { titleFeatures, type TitleContext } from './title-features.js';
import { type TitleDraft, titleDrafts, type TitleSort } from './title-sorts.js';
import { TITLE_WEIGHTS } from './title-weights.js';
import { asksRoom, bringsIn, callsFirst, isBroken, isClause, isHousekeeping, leans, saysTwice } from './wholeness.js';

/** A title that is proposed. */
export interface ProposedTitle {
  readonly text: string;
  readonly sort: TitleSort;
  /** Words of the passage that it was made of, from the first to the one after the last. */
  readonly firstWord: number;
  readonly endWord: number;
  /** True where it may not be whole: to be looked at before it goes out. */
  readonly draft: boolean;
}

/** Two titles of so many content words in common say the same. */
const SAME = 0.6;
/** What a title that looks broken loses, and one that leans on what nobody hears: more than words can make good. */
const [BROKEN, LEANS] = [0.25, 0.07];
/** What is no clause loses, what is built as only talk is, and what is about the recording itself. Common practice. */
const [NO_CLAUSE, CALLS_FIRST, HOUSEKEEPING] = [0.08, 0.05, 0.3];
/** What only brings somebody in, and what says the same word twice. */
const [BRINGS_IN, SAYS_TWICE] = [0.06, 0.04];

/** The drafts of a passage with what each is worth, the best first. @param limit characters */
export function rankedTitles(context: TitleContext, limit: number, weights: ArrayLike<number> = TITLE_WEIGHTS): { draft: TitleDraft; worth: number }[] {
  const drafts = titleDrafts(context.passage, limit);
  const rows = titleFeatures(drafts, context);
  const { manner } = context;
  return drafts
    .map((draft, i) => ({
      draft: manner === undefined ? draft : { ...draft, text: manner.write('title', draft.text) },
      worth: rows[i]!.reduce((total, value, k) => total + value * weights[k]!, 0) - byRule(draft, context) + (manner?.worth(draft.text) ?? 0),
    }))
    .filter(({ draft }) => draft.text.length <= limit)
    .sort((a, b) => b.worth - a.worth || a.draft.text.localeCompare(b.draft.text));
}

/** What nearness to written titles does not see. */
function byRule(draft: TitleDraft, { tells }: TitleContext): number {
  return (
    (isBroken(draft) ? BROKEN : 0) +
    (leans(draft) || asksRoom(draft) ? LEANS : 0) +
    (callsFirst(draft) ? CALLS_FIRST : 0) +
    (isClause(draft.line) ? 0 : NO_CLAUSE) +
    (bringsIn(draft) ? BRINGS_IN : 0) +
    (saysTwice(draft) ? SAYS_TWICE : 0) +
    (isHousekeeping(draft, tells) ? HOUSEKEEPING : 0)
  );
}

/**
 * Titles for a passage, the best first, no two that say the same.
 * @param limit characters, @param most how many
 */
export function proposeTitles(context: TitleContext, limit: number, most: number, weights: ArrayLike<number> = TITLE_WEIGHTS): ProposedTitle[] {
  const taken: { words: ReadonlySet<string>; title: ProposedTitle }[] = [];
  for (const { draft } of rankedTitles(context, limit, weights)) {
    const words = contentOf(draft.line.map(({ norm }) => norm));
    if (taken.some((other) => shared(other.words, words) >= SAME)) continue;
    const said = draft.line.filter((word) => word.end > word.first);
    const title = {
      text: draft.text,
      sort: draft.sort,
      firstWord: Math.min(...said.map(({ first }) => first)),
      endWord: Math.max(...said.map(({ end }) => end)),
      draft: isDoubtful(draft),
    };
    taken.push({ words, title });
    if (taken.length === most) break;
  }
  return taken.map(({ title }) => title);
}

/** The best title that is whole; else the best that at least does not break off; else the first line as it was said. @param limit characters */
export function titleOf(context: TitleContext, limit: number): string {
  const { passage } = context;
  const ranked = rankedTitles(context, limit);
  const [whole, leaning] = [ranked.find(({ draft }) => !isDoubtful(draft)), ranked.find(({ draft }) => !isBroken(draft) && !draft.resolved)];
  return (whole ?? leaning)?.draft.text ?? shorten(cleanLine(passage, passage.firstWord, passage.endWord), limit);
}

/** It may not be whole, or say what was not said. */
const isDoubtful = (draft: TitleDraft): boolean => isBroken(draft) || leans(draft) || asksRoom(draft) || draft.resolved;
