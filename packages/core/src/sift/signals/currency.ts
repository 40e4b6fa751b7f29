import { phraseAt, topicWords } from '../../text/stem.js';
import { type SiftContext, Sums } from '../context.js';
import { cosine } from '../lexical-vectors.js';
import { listed, toScale } from '../scale.js';
import type { Run, WordRange } from '../types.js';
import { type Signal, tidyEvidence } from './signal.js';

interface Match extends WordRange {
  readonly term: string;
  readonly from: 'brief' | 'client';
}

/** A sentence this close in meaning to a topic touches it, cosine. Measured on the model: unrelated talk stays below 0.3. */
const TOUCHES = 0.42;

/**
 * Currency: touches what the brief asks for and what the client cares about. Words count where they stand (with their
 * inflections); where vectors are at hand, so does meaning. Without topics and tags it is 50 for all: nothing to judge by.
 */
export function currency(context: SiftContext): Signal {
  const matches = findMatches(context);
  const perSentence = matchesBySentence(context, matches);
  const asked = context.brief.topics.length > 0;
  const known = asked || context.input.clientTags.length > 0;
  const brief = new Sums(perSentence.map((list) => Math.min(2, list.filter((match) => match.from === 'brief').length)));
  const client = new Sums(perSentence.map((list) => Math.min(2, list.filter((match) => match.from === 'client').length)));
  const meaning = topicLikeness(context);
  const raw = (run: Run): number => {
    const n = run.end - run.first;
    const density = (sum: number): number => sum / Math.sqrt(n + 2);
    const near = meaning === null ? 0 : meaning.sum(run) / n;
    return asked ? 1.1 * density(brief.sum(run)) + 0.35 * density(client.sum(run)) + 2.2 * near : 1.1 * density(client.sum(run));
  };
  return {
    name: 'currency',
    value: (run) => (known ? toScale(raw(run), 0.25, asked ? 0.95 : 1.2) : 50),
    explain: (run) => {
      if (!known) return { sentence: 'Nothing to judge by: the brief names no topics and the client has no tags', evidence: [] };
      const inside = perSentence.slice(run.first, run.end).flat();
      if (inside.length === 0) {
        const near = meaning !== null && meaning.sum(run) / (run.end - run.first) > 0.15;
        return { sentence: near ? 'Near the brief’s topics in meaning, without naming them' : 'Touches none of the topics or tags', evidence: [] };
      }
      const terms = (from: Match['from']): string[] => [...new Set(inside.filter((match) => match.from === from).map((match) => match.term))].slice(0, 4);
      const parts: string[] = [];
      if (terms('brief').length > 0) parts.push(`${listed(terms('brief'))}: in the brief`);
      if (terms('client').length > 0) parts.push(`${listed(terms('client'))}: the client’s own`);
      const text = parts.join('; ');
      return { sentence: text[0]!.toUpperCase() + text.slice(1), evidence: tidyEvidence(inside) };
    },
  };
}

function findMatches(context: SiftContext): Match[] {
  const terms = [
    ...context.brief.topics.map((term) => ({ term, from: 'brief' as const, words: topicWords(term) })),
    ...context.input.clientTags.map((term) => ({ term, from: 'client' as const, words: topicWords(term.replace(/([a-z])([A-Z])/g, '$1 $2')) })),
  ].filter((term) => term.words.length > 0);
  const matches: Match[] = [];
  const seen = new Set<string>();
  for (const { term, from, words } of terms) {
    const key = words.join(' ');
    if (seen.has(key)) continue; // a tag that the brief asks for already counts once
    seen.add(key);
    for (let i = 0; i + words.length <= context.texts.length; i += 1) {
      if (phraseAt(context.texts, i, words)) matches.push({ term, from, firstWord: i, endWord: i + words.length });
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

/** How near each sentence is to its nearest topic, 0 to 1, above what unrelated talk reaches; null without vectors. */
function topicLikeness(context: SiftContext): Sums | null {
  const { sentenceVectors, topicVectors } = context.input;
  const topics = context.brief.topics.length;
  if (sentenceVectors === null || topicVectors === null || topics === 0) return null;
  return new Sums(
    context.sentences.map((_, s) => {
      let nearest = 0;
      for (let t = 0; t < topics; t += 1) nearest = Math.max(nearest, cosine(context.vectors, s, topicVectors, t));
      return Math.min(1, Math.max(0, (nearest - TOUCHES) / (0.8 - TOUCHES)));
    }),
  );
}
