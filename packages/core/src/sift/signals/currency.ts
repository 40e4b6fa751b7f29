import { interestWeight } from '../../exchange/interest-csv.js';
import { phraseAt, stem, topicWords } from '../../text/stem.js';
import { type SiftContext, Sums } from '../context.js';
import { cosine } from '../lexical-vectors.js';
import type { Role } from '../roles/roles.js';
import { listed, toScale } from '../scale.js';
import type { Run, WordRange } from '../types.js';
import { roleIn, wordsOf } from './parts.js';
import { quote, type Signal, tidyEvidence } from './signal.js';

interface Match extends WordRange {
  readonly term: string;
  readonly from: 'brief' | 'client' | 'interest';
  /** How much it counts beside others of its kind; 1 but for interest terms. */
  readonly weight: number;
}

/** Standard deviations above the recording's usual likeness from which a sentence touches a topic, and where it plainly does. */
const TOUCHES = 1.2;
const PLAINLY = 3;

/**
 * Currency: touches what the brief asks for and what the client cares about. Words count where they stand (with their
 * inflections); where vectors are at hand, so does meaning, and a brief in free words ("where she loses her temper",
 * "parts with figures") is heard for the role it asks for. Without topics and tags it is 50 for all: nothing to judge by.
 */
export function currency(context: SiftContext): Signal {
  const matches = findMatches(context);
  const perSentence = matchesBySentence(context, matches);
  const asked = context.brief.topics.length > 0;
  const interest = context.input.interest ?? [];
  const known = asked || context.input.clientTags.length > 0 || interest.length > 0;
  const brief = new Sums(perSentence.map((list) => Math.min(2, list.filter((match) => match.from === 'brief').length)));
  const client = new Sums(perSentence.map((list) => Math.min(2, list.filter((match) => match.from === 'client').length)));
  const wanted = new Sums(
    perSentence.map((list) =>
      Math.min(
        2,
        list.reduce((sum, match) => sum + (match.from === 'interest' ? match.weight : 0), 0),
      ),
    ),
  );
  const near = asked ? askedFor(context) : null;
  const nearSums = near === null ? null : new Sums(near.map((one) => one.value));
  const raw = (run: Run): number => {
    const n = run.end - run.first;
    // Touched at all counts by itself: one sentence on the topic makes a long passage one about it.
    const density = (sum: number): number => 0.4 * Math.min(1, sum) + (0.9 * sum) / Math.sqrt(n + 2);
    const meant = nearSums === null ? 0 : nearSums.sum(run);
    const background = density(client.sum(run)) + 0.7 * density(wanted.sum(run));
    return asked ? density(brief.sum(run)) + 0.35 * background + density(meant) : background;
  };
  return {
    name: 'currency',
    value: (run) => (known ? toScale(raw(run), 0.25, asked ? 1.1 : 1.2) : 50),
    explain: (run) => {
      if (!known) return { sentence: 'Nothing to judge by: the brief names no topics, and the client has no tags and no interest list', evidence: [] };
      const inside = perSentence.slice(run.first, run.end).flat();
      const meant = nearest(near, run);
      if (inside.length === 0 && meant.length === 0) return { sentence: 'Touches none of the topics, tags or terms looked for', evidence: [] };
      const terms = (from: Match['from']): string[] => [...new Set(inside.filter((match) => match.from === from).map((match) => match.term))].slice(0, 4);
      const parts: string[] = [];
      if (terms('brief').length > 0) parts.push(`${listed(terms('brief'))}: in the brief`);
      if (meant.length > 0) parts.push(`near “${near![meant[0]!]!.topic}” in meaning: ${quote(context, wordsOf(context, meant[0]!), 9)}`);
      if (terms('client').length > 0) parts.push(`${listed(terms('client'))}: the client’s own`);
      if (terms('interest').length > 0) parts.push(`${listed(terms('interest'))}: looked for now`);
      const text = parts.join('; ');
      return { sentence: text[0]!.toUpperCase() + text.slice(1), evidence: tidyEvidence([...inside, ...meant.map((s) => wordsOf(context, s))]) };
    },
  };
}

/** What a sentence has of what is asked for in free words, and which topic it is nearest to. */
interface Asked {
  readonly value: number;
  readonly topic: string;
}

/** The two sentences of a run that are plainly meant, best first. */
function nearest(near: readonly Asked[] | null, run: Run): number[] {
  if (near === null) return [];
  return Array.from({ length: run.end - run.first }, (_, k) => run.first + k)
    .filter((s) => near[s]!.value >= 0.35)
    .sort((a, b) => near[b]!.value - near[a]!.value || a - b)
    .slice(0, 2);
}

/** Words in a brief that ask for what a sentence does, not what it is about. */
const ASKS_ROLE: readonly (readonly [RegExp, readonly Role[]])[] = [
  [/\b(?:figures?|numbers?|statistics?|data|costs?|prices?|how much|facts?)\b/i, ['figure']],
  [/\b(?:temper|angry|anger|furious|rants?|complain\w*|fed up|annoy\w*|outrag\w*)\b/i, ['problem', 'feeling']],
  [/\b(?:cr(?:y|ies|ying)|tears|emotion\w*|moving|sad|touching|heartfelt|afraid|scared)\b/i, ['feeling']],
  [/\b(?:funny|jokes?|laugh\w*|humou?r\w*|hilarious)\b/i, ['joke']],
  [/\b(?:advice|tips?|how[- ]to|what to do|recommend\w*|steps?)\b/i, ['advice']],
  [/\b(?:stor(?:y|ies)|anecdotes?|what happened|memor(?:y|ies))\b/i, ['story']],
  [/\b(?:opinions?|verdicts?|disagree\w*|controvers\w*|strong views?|hot takes?)\b/i, ['claim', 'problem']],
  [/\b(?:surpris\w*|unexpected|turns? out|myths?)\b/i, ['contrast']],
  [/\b(?:explain\w*|how it works|why)\b/i, ['explanation']],
];

/** A shorter line says too little to be sure of what it means. */
const FULL_LINE_WORDS = 6;

/** 0 to 1 for each sentence: how plainly it is what some topic of the brief means. */
function askedFor(context: SiftContext): Asked[] {
  const rows = context.brief.topics.map((topic, t) => {
    const roles = [...new Set(ASKS_ROLE.flatMap(([pattern, found]) => (pattern.test(topic) ? found : [])))];
    const meaning = meaningOf(context, t);
    return context.sentences.map((_, s) => {
      const does = roles.reduce((sum, role) => sum + roleIn(context, s, role), 0);
      if (roles.length === 0) return meaning?.[s] ?? 0;
      return meaning === null ? does : Math.min(1, 0.55 * Math.min(1, does) + 0.6 * meaning[s]!);
    });
  });
  return context.sentences.map(({ firstWord, endWord }, s) => {
    const best = rows.reduce((top, row, t) => (row[s]! > rows[top]![s]! ? t : top), 0);
    return { value: rows[best]![s]! * Math.min(1, (endWord - firstWord) / FULL_LINE_WORDS), topic: context.brief.topics[best]! };
  });
}

/**
 * How far each sentence, heard with its neighbours, is above the recording's usual likeness to a topic: 0 at `TOUCHES`
 * standard deviations, 1 at `PLAINLY`. Relative, because cosines of short topics differ in size from topic to topic.
 */
function meaningOf(context: SiftContext, topic: number): Float64Array | null {
  const { topicVectors, sentenceVectors } = context.input;
  if (topicVectors === null || sentenceVectors === null) return null;
  const n = context.sentences.length;
  const alone = Float64Array.from({ length: n }, (_, s) => cosine(context.vectors, s, topicVectors, topic));
  const heard = alone.map((value, s) => 0.6 * value + 0.2 * (alone[s - 1] ?? value) + 0.2 * (alone[s + 1] ?? value));
  const mean = heard.reduce((sum, value) => sum + value, 0) / n;
  const spread = Math.sqrt(heard.reduce((sum, value) => sum + (value - mean) ** 2, 0) / n);
  return heard.map((value) => Math.min(1, Math.max(0, ((value - mean) / Math.max(0.02, spread) - TOUCHES) / (PLAINLY - TOUCHES))));
}

function findMatches(context: SiftContext): Match[] {
  const mostVolume = (context.input.interest ?? []).reduce((most, { volume }) => Math.max(most, volume), 0);
  const terms = [
    ...context.brief.topics.map((term) => ({ term, from: 'brief' as const, weight: 1, words: topicWords(term) })),
    ...context.input.clientTags.map((term) => ({ term, from: 'client' as const, weight: 1, words: topicWords(term.replace(/([a-z])([A-Z])/g, '$1 $2')) })),
    ...(context.input.interest ?? []).map((one) => ({
      term: one.term,
      from: 'interest' as const,
      weight: interestWeight(one, mostVolume),
      words: topicWords(one.term),
    })),
  ].filter((term) => term.words.length > 0);
  const places = new Map<string, number[]>();
  context.texts.forEach((text, i) => {
    const key = stem(text);
    const list = places.get(key);
    if (list === undefined) places.set(key, [i]);
    else list.push(i);
  });
  const matches: Match[] = [];
  const seen = new Set<string>();
  for (const { term, from, weight, words } of terms) {
    const key = words.join(' ');
    if (seen.has(key)) continue; // a tag that the brief asks for already counts once
    seen.add(key);
    for (const i of places.get(stem(words[0]!)) ?? []) {
      if (phraseAt(context.texts, i, words)) matches.push({ term, from, weight, firstWord: i, endWord: i + words.length });
    }
  }
  return matches.sort((a, b) => a.firstWord - b.firstWord);
}

function matchesBySentence(context: SiftContext, matches: readonly Match[]): Match[][] {
  let m = 0;
  return context.sentences.map(({ endWord }) => {
    const list: Match[] = [];
    while (m < matches.length && matches[m]!.firstWord < endWord) list.push(matches[m++]!);
    return list;
  });
}
