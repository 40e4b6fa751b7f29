import type { SiftContext } from '../context.js';
import { Sums } from '../sums.js';
import { cosine } from '../lexical-vectors.js';
import type { Role } from '../roles/roles.js';
import { findSaid, type SaidKind } from '../said.js';
import { listed, toScale } from '../scale.js';
import type { Run } from '../types.js';
import { findMatches, type Match, matchesBySentence } from './currency-matches.js';
import { roleIn, wordsOf } from './parts.js';
import { inCut, quote, type Signal, tidyEvidence } from './signal.js';

/** Standard deviations above the recording's usual likeness from which a sentence touches a topic, and where it plainly does. */
const TOUCHES = 1.2;
const PLAINLY = 3;

/**
 * Currency: touches what the brief asks for, what the client cares about and what people look for. Words count where they
 * stand (with their inflections); where vectors are at hand, so does meaning, and a brief in free words ("where she loses her temper",
 * "parts with figures") is heard for the role it asks for. Without topics and tags it is 50 for all: nothing to judge by.
 */
export function currency(context: SiftContext): Signal {
  const matches = findMatches(context);
  const perSentence = matchesBySentence(context, matches);
  const asked = context.brief.topics.length > 0;
  const interest = context.input.interest ?? [];
  const known = asked || context.input.clientTags.length > 0 || interest.length > 0;
  const summed = (from: Match['from']): Sums =>
    new Sums(
      perSentence.map((list) =>
        Math.min(
          2,
          list.reduce((sum, match) => sum + (match.from === from ? match.weight * (match.nearness ?? 1) : 0), 0),
        ),
      ),
    );
  const [brief, client, wanted] = [summed('brief'), summed('client'), summed('interest')];
  const near = asked ? askedFor(context) : null;
  const nearSums = near === null ? null : new Sums(near.map((one) => one.value));
  const raw = (run: Run): number => {
    const root = Math.sqrt(run.end - run.first + 2);
    // Touched at all counts by itself: one sentence on the topic makes a long passage one about it.
    const density = (sum: number): number => 0.4 * Math.min(1, sum) + (0.9 * sum) / root;
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
      const terms = (from: Match['from']): string[] =>
        [...new Set(inside.filter((match) => match.from === from && match.nearness === undefined).map((match) => match.term))].slice(0, 4);
      const parts: string[] = [];
      if (terms('brief').length > 0) parts.push(`${listed(terms('brief'))}: in the brief`);
      if (meant.length > 0 && !terms('brief').includes(near![meant[0]!]!.topic))
        parts.push(asAsked(near![meant[0]!]!.topic, quote(context, wordsOf(context, run, meant[0]!), 9)));
      if (terms('client').length > 0) parts.push(`${listed(terms('client'))}: the client’s own`);
      if (terms('interest').length > 0) parts.push(`${listed(terms('interest'))}: looked for now`);
      const close = inside.find((match) => match.nearness !== undefined);
      if (close !== undefined)
        parts.push(
          `near ${close.from === 'client' ? 'the client’s' : 'the looked-for'} “${close.term}” in meaning: ${quote(context, inCut(context, run, close), 9)}`,
        );
      const text = parts.join('; ');
      return { sentence: text[0]!.toUpperCase() + text.slice(1), evidence: tidyEvidence([...inside, ...meant.map((s) => wordsOf(context, run, s))]) };
    },
  };
}

/** How a sentence answers a brief: by what it does or says, or by what it means. */
function asAsked(topic: string, quoted: string): string {
  const byKind = kindsAsked(topic).size > 0 || ASKS_ROLE.some(([pattern]) => pattern.test(topic));
  return byKind ? `what “${topic}” asks for: ${quoted}` : `near “${topic}” in meaning: ${quoted}`;
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
  [/\b(?:figures?|numbers?|statistics?|costs?|prices?|how much|facts?)\b/i, ['figure']],
  [/\b(?:temper|angry|anger|furious|rants?|complain\w*|fed up|annoy\w*|outrag\w*)\b/i, ['problem', 'feeling']],
  [/\b(?:cr(?:y|ies|ying)|tears|emotion\w*|moving|sad|touching|heartfelt|afraid|scared)\b/i, ['feeling']],
  [/\b(?:funny|jokes?|laugh\w*|humou?r\w*|hilarious)\b/i, ['joke']],
  [/\b(?:advice|tips?|how[- ]to|what to do|recommend\w*|steps?)\b/i, ['advice']],
  [/\b(?:stor(?:y|ies)|anecdotes?|what happened|memor(?:y|ies))\b/i, ['story']],
  [/\b(?:opinions?|verdicts?|disagree\w*|controvers\w*|strong views?|hot takes?)\b/i, ['claim', 'problem']],
  [/\b(?:surpris\w*|unexpected|turns? out|myths?)\b/i, ['contrast']],
  [/\b(?:explain\w*|how it works|why)\b/i, ['explanation']],
];

/** Words in a brief that ask for something said in so many words. Such as are as often a subject ("data", "market share") are not among them. */
const ASKS_SAID: readonly (readonly [RegExp, readonly SaidKind[]])[] = [
  [/\b(?:money|costs?|prices?|how much|sums?)\b/i, ['money']],
  [/\b(?:per ?cent\w*|percentages?)\b/i, ['percentage']],
  [/\b(?:how long|durations?)\b/i, ['duration']],
  [/\b(?:names? (?:names|people)|names? somebody|who is named)\b/i, ['name']],
  [/\b(?:compar\w+|versus)\b/i, ['comparison']],
  [/\b(?:questions?|asks?)\b/i, ['question']],
  [/\b(?:quot\w+|what (?:he|she|they) said|dialogue|direct speech)\b/i, ['direct-speech']],
];
/** Any figure, where the brief does not say of what kind: "figures about cost" are sums of money. */
const ASKS_FIGURES = /\b(?:figures?|numbers?|statistics?)\b/i;
const ALL_FIGURES: readonly SaidKind[] = ['number', 'money', 'percentage', 'duration'];

function kindsAsked(topic: string): ReadonlySet<SaidKind> {
  const kinds = ASKS_SAID.flatMap(([pattern, found]) => (pattern.test(topic) ? found : []));
  return new Set(kinds.length === 0 && ASKS_FIGURES.test(topic) ? ALL_FIGURES : kinds);
}

/** A sentence that has what was asked for in so many words is plainly meant. */
const SAID_SO = 0.8;

/** A shorter line says too little to be sure of what it means. */
const FULL_LINE_WORDS = 6;

/** 0 to 1 for each sentence: how plainly it is what some topic of the brief means. */
function askedFor(context: SiftContext): Asked[] {
  const rows = context.brief.topics.map((topic, t) => {
    const roles = [...new Set(ASKS_ROLE.flatMap(([pattern, found]) => (pattern.test(topic) ? found : [])))];
    const things = kindsAsked(topic);
    const meaning = meaningOf(context, t);
    return context.sentences.map((_, s) => {
      const says = things.size > 0 && findSaid(context, s).some(({ kind }) => things.has(kind)) ? SAID_SO : 0;
      const does = Math.max(
        says,
        roles.reduce((sum, role) => sum + roleIn(context, s, role), 0),
      );
      if (roles.length === 0 && things.size === 0) return meaning?.[s] ?? 0;
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
