import { interestWeight } from '../../exchange/interest-csv.js';
import { phraseAt, stem, topicWords } from '../../text/stem.js';
import type { SiftContext } from '../context.js';
import { cosine } from '../lexical-vectors.js';
import type { Vectors } from '../types.js';
import type { WordRange } from '../../transcript/types.js';

/** Where the words or the meaning of a brief's topic, a client's tag or an interest term are touched. */
export interface Match extends WordRange {
  readonly term: string;
  readonly from: 'brief' | 'client' | 'interest';
  /** How much it counts beside others of its kind; 1 but for interest terms. */
  readonly weight: number;
  /** 0 to 1 where it is the meaning of a sentence that is near; left out where the words are said. */
  readonly nearness?: number;
}

/** "wetLogs" as one would say it. */
export const spokenTag = (tag: string): string => tag.replace(/([a-z])([A-Z])/g, '$1 $2');

/** The words of every term where they are said, in order. */
export function findMatches(context: SiftContext): Match[] {
  const mostVolume = (context.input.interest ?? []).reduce((most, { volume }) => Math.max(most, volume), 0);
  const terms = [
    ...context.brief.topics.map((term) => ({ term, from: 'brief' as const, weight: 1, words: topicWords(term) })),
    ...context.input.clientTags.map((term) => ({ term, from: 'client' as const, weight: 1, words: topicWords(spokenTag(term)) })),
    ...(context.input.interest ?? []).map((one) => ({
      term: one.term,
      from: 'interest' as const,
      weight: interestWeight(one, mostVolume),
      words: topicWords(one.term),
    })),
  ].filter((term) => term.words.length > 0);
  const places = new Map<string, number[]>(terms.map(({ words }) => [stem(words[0]!), []]));
  context.stems.forEach((key, i) => places.get(key)?.push(i));
  const matches: Match[] = [];
  const seen = new Set<string>();
  for (const { term, from, weight, words } of terms) {
    const key = words.join(' ');
    if (seen.has(key)) continue; // a tag that the brief asks for already counts once
    seen.add(key);
    for (const i of places.get(stem(words[0]!))!) {
      if (phraseAt(context.spoken, i, words)) matches.push({ term, from, weight, firstWord: i, endWord: i + words.length });
    }
  }
  return matches.sort((a, b) => a.firstWord - b.firstWord);
}

/** Matches of each sentence: words that are said in it, and of tags and interest terms the one that its meaning is nearest to. */
export function matchesBySentence(context: SiftContext, matches: readonly Match[]): Match[][] {
  let m = 0;
  const near = nearTerms(context);
  return context.sentences.map(({ endWord }, s) => {
    const list: Match[] = [];
    while (m < matches.length && matches[m]!.firstWord < endWord) list.push(matches[m++]!);
    const close = near?.(s) ?? null;
    if (close !== null && !list.some(({ term }) => term === close.term)) list.push(close);
    return list;
  });
}

/**
 * Cosine with a tag or an interest term from which a sentence is near it, and where it plainly is. Absolute, unlike for a
 * brief's topics: tags are not asked for of this recording, and most have nothing to do with it. Seen on the fitting talks:
 * half of all sentences are under 0.2; of a term that a talk is not about, the nearest one is mostly at 0.3 to 0.4, at times
 * at 0.5; those that are about a term begin at about 0.45.
 */
const NEAR_FROM = 0.42;
const NEAR_FULL = 0.62;
/** A shorter line may be near anything. */
const TELLING_WORDS = 5;

function nearTerms(context: SiftContext): ((s: number) => Match | null) | null {
  const { sentenceVectors, tagVectors = null, interestVectors = null, clientTags, interest = [] } = context.input;
  if (sentenceVectors === null) return null;
  const mostVolume = interest.reduce((most, { volume }) => Math.max(most, volume), 0);
  const rowsOf = (vectors: Vectors | null): number => (vectors === null ? 0 : vectors.data.length / vectors.dimensions);
  const keyOf = (term: string): string => topicWords(spokenTag(term)).join(' ');
  const counted = new Set(context.brief.topics.map(keyOf));
  const fresh = ({ term }: { readonly term: string }): boolean => {
    const key = keyOf(term);
    return !counted.has(key) && counted.add(key).has(key); // what the brief asks for, or the client has, counts once
  };
  const terms = [
    ...clientTags.slice(0, rowsOf(tagVectors)).map((term, row) => ({ term, from: 'client' as const, weight: 1, vectors: tagVectors!, row })),
    ...interest
      .slice(0, rowsOf(interestVectors))
      .map((one, row) => ({ term: one.term, from: 'interest' as const, weight: interestWeight(one, mostVolume), vectors: interestVectors!, row })),
  ].filter(fresh);
  return (s) => {
    const { firstWord, endWord } = context.sentences[s]!;
    if (endWord - firstWord < TELLING_WORDS) return null;
    let best: (typeof terms)[number] | null = null;
    let nearest = NEAR_FROM;
    for (const term of terms) {
      const likeness = cosine(context.vectors, s, term.vectors, term.row);
      if (likeness > nearest) [best, nearest] = [term, likeness];
    }
    if (best === null) return null;
    const nearness = Math.min(1, (nearest - NEAR_FROM) / (NEAR_FULL - NEAR_FROM));
    return {
      term: best.term,
      from: best.from,
      weight: best.weight,
      nearness,
      firstWord: context.sentences[s]!.firstWord,
      endWord: context.sentences[s]!.endWord,
    };
  };
}
