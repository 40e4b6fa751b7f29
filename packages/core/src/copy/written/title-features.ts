import { CANNOT_END } from '../../text/lists/talk.js';
import { LEANING, VAGUE } from '../../text/lists/titles.js';
import { stem } from '../../text/stem.js';
import { isContent } from './content.js';
import { MANNER_FEATURES, mannerOf, surroundingsOf } from './manner-features.js';
import type { Manner } from '../voice/manner.js';
import type { Passage, PhraseStatistics } from '../phrases.js';
import type { Topic } from '../topics/topics.js';
import type { Hit } from '../../text/tells/find-tells.js';
import { TITLE_SORTS, type TitleDraft } from './title-sorts.js';
import { asksRoom, bringsIn, callsFirst, isBroken, isClause, isHousekeeping, leans, saysTwice, WAITS } from './wholeness.js';
import { hasComma } from './written-word.js';

/** What titles are weighed by. Each is about 0 to 1 unless its name says a count. */
export const TITLE_FEATURES = [
  ...TITLE_SORTS.slice(1).map((sort) => `is ${sort}` as const),
  'long',
  'very long',
  'very short',
  'whole sentence',
  'pronoun resolved',
  'leans on what was before',
  'open pronouns',
  'says I',
  'says you',
  'says we',
  'a figure',
  'a name',
  'a negation',
  'place',
  'first sentence',
  'last sentence',
  'content words',
  'tells of the passage',
  'tells of the recording',
  'nouns',
  'begins with a noun',
  'begins with a verb',
  'begins with an adverb',
  'no clause',
  'ends open',
  'commas',
  'vague',
  'was dropped',
  'opinion',
  'surprise',
  'promise',
  'feeling',
  'superlative',
  // What nearness to written titles does not see, and readers do.
  'broken',
  'leans on what nobody hears',
  'calls first',
  'brings somebody in',
  'says twice',
  'housekeeping',
  'begins with it',
  'begins with they',
  'begins with that',
  'begins with this',
  'begins beside the point',
  'begins with you',
  'begins with what',
  'a question',
  'one comma',
  'several commas',
  'few words',
  'some words',
  ...MANNER_FEATURES,
] as const;
type Feature = (typeof TITLE_FEATURES)[number];
/** Sentences of a text are weighed by these: how a line is said tells nothing of how well it goes on behind a title. */
export const TEXT_FEATURES = TITLE_FEATURES.slice(0, -MANNER_FEATURES.length);
const PLACES = Object.fromEntries(TITLE_FEATURES.map((feature, k) => [feature, k])) as Record<Feature, number>;

/** What of a passage its titles are weighed against. */
export interface TitleContext {
  readonly passage: Passage;
  readonly tells: readonly Hit[];
  readonly statistics: PhraseStatistics;
  /** The client's, where it has one. */
  readonly manner?: Manner;
  /** What the passage is about, the likeliest first; none where titles stand beside what says it. */
  readonly topics?: readonly Topic[];
}

/** How much each stem is of the passage rather than of the recording, and how much of the recording rather than of talk; 0 to 1. */
function stemWeights(here: ReadonlyMap<string, number>, statistics: PhraseStatistics): { passage: Map<string, number>; recording: Map<string, number> } {
  const ofPassage = new Map<string, number>();
  const ofRecording = new Map<string, number>();
  for (const [key, n] of here) {
    const all = Math.max(n, statistics.counts.get(key) ?? n);
    ofPassage.set(key, Math.min(1, (Math.sqrt(n) * Math.log(1 + statistics.total / all)) / 12));
    ofRecording.set(key, Math.min(1, Math.log2(all) / 5));
  }
  return { passage: ofPassage, recording: ofRecording };
}

/** What a row of features is worth by weights of so many of them, from the first. */
export function weighed(row: ArrayLike<number>, weights: ArrayLike<number>): number {
  let sum = 0;
  for (let k = 0; k < weights.length; k += 1) sum += row[k]! * weights[k]!;
  return sum;
}

/** Features of each draft, a row of `TITLE_FEATURES` each. */
export function titleFeatures(drafts: readonly TitleDraft[], context: TitleContext): Float64Array[] {
  const { passage, tells } = context;
  const around = surroundingsOf(passage);
  const weights = stemWeights(around.counts, context.statistics);
  const sentences = Math.max(1, passage.end - passage.first - 1);
  return drafts.map((draft) => {
    const { line, text, sort, sentence } = draft;
    const row = new Float64Array(TITLE_FEATURES.length);
    const put = (feature: Feature, value: number | boolean): void => {
      row[PLACES[feature]] = Number(value);
    };
    if (sort !== 'said') put(`is ${sort}`, 1);
    const said = line.filter((word) => word.end > word.first);
    const [from, end] = [said[0]!.first, said.at(-1)!.end];
    const norms = line.map(({ norm }) => norm);
    const first = line[0]!;
    put('long', text.length / 60);
    put('very long', Math.max(0, text.length - 45) / 15);
    put('very short', Math.max(0, 22 - text.length) / 14);
    put('whole sentence', draft.whole);
    put('pronoun resolved', draft.resolved);
    put('leans on what was before', LEANING.has(first.norm));
    put('open pronouns', norms.filter((norm) => OPEN.test(norm)).length / 3);
    put(
      'says I',
      norms.some((norm) => /^(?:i|i'\w+|my|me)$/.test(norm)),
    );
    put(
      'says you',
      norms.some((norm) => /^(?:you|you'\w+|your)$/.test(norm)),
    );
    put(
      'says we',
      norms.some((norm) => /^(?:we|we'\w+|our|us)$/.test(norm)),
    );
    put('a figure', /\d/.test(text));
    put(
      'a name',
      line.slice(1).some(({ tag }) => tag === 'PROPN'),
    );
    put(
      'a negation',
      norms.some((norm) => /^(?:no|not|never|nobody|nothing|none|without)$|n't$/.test(norm)),
    );
    put('place', sentence / sentences);
    put('first sentence', sentence === 0);
    put('last sentence', sentence === passage.end - passage.first - 1);
    const content = norms.filter(isContent);
    put('content words', content.length / line.length);
    put('tells of the passage', sum(content, weights.passage) / 4);
    put('tells of the recording', sum(content, weights.recording) / 3);
    put('nouns', Math.min(4, line.filter(({ tag }) => tag === 'NOUN' || tag === 'PROPN').length) / 4);
    put('begins with a noun', ['DET', 'NOUN', 'PROPN', 'NUM', 'ADJ'].includes(first.tag));
    put('begins with a verb', first.tag === 'VERB' || first.norm === "don't" || first.norm === 'never');
    put('begins with an adverb', first.tag === 'ADV' || first.tag === 'ADP' || first.tag === 'SCONJ');
    put('no clause', !isClause(line));
    put('ends open', CANNOT_END.has(line.at(-1)!.norm) || line.at(-1)!.tag === 'DET' || (hasComma(line.at(-1)) && WAITS.has(first.norm)));
    put('commas', line.slice(0, -1).filter(hasComma).length / 2);
    put('vague', norms.filter((norm) => VAGUE.has(norm)).length);
    put('was dropped', 1 - said.length / Math.max(1, end - from));
    put('broken', isBroken(draft));
    put('leans on what nobody hears', leans(draft) || asksRoom(draft));
    put('calls first', callsFirst(draft));
    put('brings somebody in', bringsIn(draft));
    put('says twice', saysTwice(draft));
    put('housekeeping', isHousekeeping(draft, tells));
    for (const [feature, begins] of BEGINNINGS) put(feature, begins.test(text));
    const commas = text.split(',').length - 1;
    put('a question', text.endsWith('?'));
    put('one comma', commas === 1);
    put('several commas', commas > 1);
    put('few words', line.length < 4);
    put('some words', line.length >= 4 && line.length <= 9);
    for (const [feature, value] of Object.entries(mannerOf(draft, around))) put(feature as Feature, value);
    for (const { tell, firstWord, endWord } of tells) {
      if (firstWord < from || endWord > end) continue;
      if (tell === 'opinion' || tell === 'surprise' || tell === 'promise' || tell === 'feeling' || tell === 'superlative') put(tell, 1);
    }
    return row;
  });
}

/** What a title begins with that rarely makes one. */
const BEGINNINGS: readonly (readonly [Feature, RegExp])[] = [
  ['begins with it', /^it(?:'(?:s|d|ll))?\b/i],
  ['begins with they', /^(?:they|he|she|one|some)\b/i],
  ['begins with that', /^that\b/i],
  ['begins with this', /^this\b/i],
  ['begins beside the point', /^(?:if|when|where|because|until|since|once|before|after|even|like|with|for|at|in|on|of|from|over)\b/i],
  ['begins with you', /^your?\b/i],
  ['begins with what', /^(?:what|where|why|which)\b/i],
];
const OPEN = /^(?:it|it'\w+|they|they'\w+|them|this|that|that's|these|those|he|she|he's|she's|him|her|there|there's|one|ones)$/;

const sum = (content: readonly string[], weights: ReadonlyMap<string, number>): number =>
  [...new Set(content.map(stem))].reduce((total, key) => total + (weights.get(key) ?? 0), 0);
