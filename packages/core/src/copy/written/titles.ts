import { cleanLine, shorten } from '../said-line.js';
import { contentOf, shared } from './content.js';
import { titleFeatures, type TitleContext, weighed } from './title-features.js';
import { type TitleDraft, titleDrafts, type TitleSort } from './title-sorts.js';
import { TITLE_WEIGHTS } from './title-weights.js';
import { asksRoom, isBroken, leans } from './wholeness.js';

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
/** The drafts of a passage with what each is worth, the best first. @param limit characters */
export function rankedTitles(context: TitleContext, limit: number, weights: ArrayLike<number> = TITLE_WEIGHTS): { draft: TitleDraft; worth: number }[] {
  const drafts = titleDrafts(context.passage, limit);
  const rows = titleFeatures(drafts, context);
  const { manner } = context;
  return drafts
    .map((draft, i) => ({
      draft: manner === undefined ? draft : { ...draft, text: manner.write('title', draft.text) },
      worth: weighed(rows[i]!, weights) + (manner?.worth(draft.text) ?? 0),
    }))
    .filter(({ draft }) => draft.text.length <= limit)
    .sort((a, b) => b.worth - a.worth || a.draft.text.localeCompare(b.draft.text));
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
