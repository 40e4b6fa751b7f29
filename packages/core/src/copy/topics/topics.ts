import { contentOf } from '../written/content.js';
import type { Passage, PhraseStatistics } from '../phrases.js';
import type { SearchGround } from '../search/search-drafts.js';
import { topicDrafts } from './topic-drafts.js';
import { topicFeatures } from './topic-features.js';
import { TOPIC_WEIGHTS } from './topic-weights.js';

/** What a passage is about, in a word or two that are said in it, in its recording, or that name the recording's field. */
export interface Topic {
  /** Lower case. */
  readonly text: string;
  readonly stems: readonly string[];
  /** In odds of two topics of one passage: see `npm run bench -- topics`. */
  readonly worth: number;
}

/** What a passage is about, the likeliest first. */
export function topicsOf(passage: Passage, statistics: PhraseStatistics, ground: SearchGround, weights: ArrayLike<number> = TOPIC_WEIGHTS): Topic[] {
  const drafts = topicDrafts(passage, statistics, ground);
  return topicFeatures(drafts, passage, statistics, ground)
    .map((row, k) => ({ text: drafts[k]!.text, stems: drafts[k]!.stems, worth: row.reduce((sum, value, i) => sum + value * weights[i]!, 0) }))
    .sort((a, b) => b.worth - a.worth || (a.text < b.text ? -1 : 1));
}

/** A topic that is worth less is too often a stranger's. */
const LEAST_WORTH = 2.5;
/** Two words say more exactly what is meant than one of them, so they may be worth this much less. */
const OF_TWO_WORDS = 3;

/** The topic that a line does not name and that tells more of the passage than what it names; null where it names enough. */
export function topicLacking(norms: readonly string[], topics: readonly Topic[]): Topic | null {
  const said = contentOf(norms);
  const named = topics.filter(({ stems }) => stems.some((one) => said.has(one)));
  if (named.some(({ stems }) => stems.length > 1 && stems.every((one) => said.has(one)))) return null;
  const others = topics.filter((topic) => !named.includes(topic));
  const best = others[0];
  if (best === undefined || best.worth < Math.max(LEAST_WORTH, named[0]?.worth ?? 0)) return null;
  const exact = others.find(({ stems, worth }) => stems.length > 1 && best.stems.some((one) => stems.includes(one)) && worth >= best.worth - OF_TWO_WORDS);
  return exact ?? best;
}
