import { keyPhrases } from './phrases.js';
import { searchDrafts, type SearchDraft, type SearchGround } from './search/search-drafts.js';
import { searchFeatures } from './search/search-features.js';
import { SEARCH_WEIGHTS } from './search/search-weights.js';
import { KEYWORD_LIMIT } from './types.js';
import { proposeTitles } from './written/titles.js';
import type { TitleContext } from './written/title-features.js';

/** How many of each sort: people type a question less often than what a thing is called (common practice). */
const [MOST_PHRASES, MOST_QUESTIONS] = [4, 1];
/** A word stands in so many of them at most. */
const MOST_WITH_A_WORD = 2;
/** A phrase that is worth less is more likely a stranger's, and so is a lone one: see `npm run bench -- searches`. */
const [LEAST_WORTH, LEAST_ALONE] = [3.75, 2.5];

/**
 * What somebody would type who looks for the passage: what it says side by side, its things behind what the recording is about
 * ("seed potato virus"), and a question that it answers, where it asks one. Said in the recording, or the field that it is found to
 * belong to; fewer than asked for, rather than strangers. Without a ground (talk that is not English), the key phrases alone.
 */
export function proposeKeywords(context: TitleContext, ground: SearchGround | null, most: number, weights: ArrayLike<number> = SEARCH_WEIGHTS): string[] {
  const { passage, statistics } = context;
  if (ground === null) return fitting(keyPhrases(passage, statistics, 3 * most).map(({ text }) => text)).slice(0, most);
  const question = proposeTitles(context, KEYWORD_LIMIT, 12)
    .filter(({ sort, draft }) => !draft && (sort === 'question' || sort === 'how' || sort === 'why' || sort === 'when'))
    .map(({ text }) => text.replace(/[?.]+$/, '').toLowerCase());
  return fitting([...searchPhrases(context, ground, weights), ...question.slice(0, MOST_QUESTIONS)]).slice(0, most);
}

/** The search phrases that are worth most, no two of one meaning. */
function searchPhrases({ passage, statistics }: TitleContext, ground: SearchGround, weights: ArrayLike<number>): string[] {
  const drafts = searchDrafts(passage, ground);
  const rows = searchFeatures(drafts, passage, statistics, ground);
  const worth = rows.map((row) => row.reduce((sum, value, k) => sum + value * weights[k]!, 0));
  const order = drafts.map((draft, k) => ({ draft, worth: worth[k]! })).sort((a, b) => b.worth - a.worth);
  const chosen: SearchDraft[] = [];
  const holds = (a: SearchDraft, b: SearchDraft): boolean => b.stems.every((one) => a.stems.includes(one));
  const isUsed = (one: string): boolean => chosen.filter(({ stems }) => stems.includes(one)).length >= MOST_WITH_A_WORD;
  for (const { draft, worth: own } of order) {
    if (chosen.length === MOST_PHRASES || own < (chosen.length === 0 ? LEAST_ALONE : LEAST_WORTH)) break;
    if (draft.stems.some(isUsed) || chosen.some((other) => holds(other, draft) || holds(draft, other))) continue;
    chosen.push(draft);
  }
  return chosen.map(({ text }) => text);
}

const fitting = (texts: readonly string[]): string[] => [...new Set(texts)].filter((text) => text.length <= KEYWORD_LIMIT);
