import { contentOf, stemCounts } from '../written/content.js';
import type { Passage, PhraseStatistics } from '../phrases.js';
import type { SearchGround } from '../search/search-drafts.js';
import { topicDrafts } from './topic-drafts.js';
import { topicFeatures } from './topic-features.js';
import { TOPIC_WEIGHTS } from './topic-weights.js';

/** What a passage is about, in a word or two that are said in it or in its recording. */
export interface Topic {
  /** Lower case. */
  readonly text: string;
  readonly stems: readonly string[];
  /** In odds of two topics of one passage: see `npm run bench -- topics`. */
  readonly worth: number;
  /** The recording goes on about it; else it is of the passage alone. */
  readonly ofRecording: boolean;
  /** Said often enough, there or in the recording, or so exactly that it can stand before a line. */
  readonly leads: boolean;
}

/** One word is the recording's where it is said at least so often beside the one that is said most. */
const OFTEN = 0.35;
/** One word of a passage alone is said in it so often. */
const OVER_AND_OVER = 3;

/** Each line is looked at beside so many at most; a passage of a minute has some thirty. */
const MOST_TOPICS = 40;

/** What a passage is about, the likeliest first. */
export function topicsOf(passage: Passage, statistics: PhraseStatistics, ground: SearchGround, weights: ArrayLike<number> = TOPIC_WEIGHTS): Topic[] {
  const drafts = topicDrafts(passage, statistics, ground);
  const here = stemCounts(passage);
  const most = Math.max(0, ...ground.subject.singles.map(({ count }) => count));
  const often = new Set(ground.subject.singles.flatMap(({ stems, count }) => (count >= OFTEN * most ? stems : [])));
  return topicFeatures(drafts, passage, statistics, ground)
    .map((row, k) => {
      const { text, stems, sort } = drafts[k]!;
      const worth = row.reduce((sum, value, i) => sum + value * weights[i]!, 0);
      const ofRecording = sort === 'single' ? often.has(stems[0]!) : sort !== 'pair';
      const leads = ofRecording || stems.length > 1 || (here.get(stems[0]!) ?? 0) >= OVER_AND_OVER;
      return { text, stems, worth, ofRecording, leads };
    })
    .sort((a, b) => b.worth - a.worth || (a.text < b.text ? -1 : 1))
    .slice(0, MOST_TOPICS);
}

/** A topic that is worth less is too often a stranger's. */
const LEAST_WORTH = 2.5;
/** Two words say more exactly what is meant than one of them, so they may be worth this much less. */
const OF_TWO_WORDS = 3;

/** Of a line that names something that the recording goes on about, another tells more only where it is worth so much more. */
const CLEARLY = 1;

/** The topic that a line does not name and that tells more of the passage than what it names; null where it names enough, or something in two words. */
export function topicLacking(norms: readonly string[], topics: readonly Topic[]): Topic | null {
  const said = contentOf(norms);
  const named = topics.filter(({ stems }) => stems.some((one) => said.has(one)));
  if (named.some(({ stems }) => stems.length > 1 && stems.every((one) => said.has(one)))) return null;
  const enough = Math.max(LEAST_WORTH, ...named.map(({ worth, ofRecording }) => (ofRecording ? worth + CLEARLY : worth)));
  const others = topics.filter((topic) => topic.leads && !named.includes(topic));
  const best = others[0];
  if (best === undefined || best.worth < enough) return null;
  const exact = others.find(({ stems, worth }) => stems.length > 1 && best.stems.some((one) => stems.includes(one)) && worth >= best.worth - OF_TWO_WORDS);
  return exact ?? best;
}
