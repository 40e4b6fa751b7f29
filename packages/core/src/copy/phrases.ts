import { GENERIC_NOUNS, MEASURES, STOPWORDS } from '../text/lexicon.js';
import { stem } from '../text/stem.js';
import type { PartOfSpeech } from '../text/tagger.js';
import type { Sentence, Word } from '../transcript/types.js';

/** A passage to be worded: words and sentences of the text around it, and where it lies in them. */
export interface Passage {
  readonly words: readonly Word[];
  readonly texts: readonly string[];
  readonly tags: readonly PartOfSpeech[];
  readonly sentences: readonly Sentence[];
  readonly firstWord: number;
  readonly endWord: number;
  /** First sentence of the passage, and the one after its last. */
  readonly first: number;
  readonly end: number;
}

export interface KeyPhrase {
  /** As it was said, lower case. */
  readonly text: string;
  readonly firstWord: number;
  readonly endWord: number;
  readonly count: number;
  /** Higher is more telling of this passage. */
  readonly weight: number;
}

/** How often each content stem is said in the whole text. */
export interface PhraseStatistics {
  readonly counts: ReadonlyMap<string, number>;
  readonly total: number;
}

const isContent = (text: string, tag: PartOfSpeech): boolean =>
  text.length > 2 && /^\p{L}/u.test(text) && !STOPWORDS.has(text) && (tag === 'NOUN' || tag === 'PROPN' || tag === 'ADJ' || tag === 'VERB');

/** Without tags every word that is no function word counts; that is enough to weigh a passage against the whole. */
export function phraseStatistics(texts: readonly string[], tags?: readonly PartOfSpeech[]): PhraseStatistics {
  const counts = new Map<string, number>();
  let total = 0;
  texts.forEach((text, i) => {
    if (!isContent(text, tags?.[i] ?? 'NOUN')) return;
    const key = stem(text);
    counts.set(key, (counts.get(key) ?? 0) + 1);
    total += 1;
  });
  return { counts, total };
}

/**
 * Key phrases of a passage: runs of adjectives and nouns that end in a noun, at most three words, weighed by how often
 * they are said here and how much less elsewhere (term frequency × inverse frequency). Strongest first.
 */
export function keyPhrases(passage: Omit<Passage, 'sentences' | 'first' | 'end'>, statistics: PhraseStatistics, most: number): KeyPhrase[] {
  const { texts, tags, words } = passage;
  const local = new Map<string, number>();
  for (let i = passage.firstWord; i < passage.endWord; i += 1) {
    if (isContent(texts[i]!, tags[i]!)) local.set(stem(texts[i]!), (local.get(stem(texts[i]!)) ?? 0) + 1);
  }
  const weightOf = (i: number): number => {
    const key = stem(texts[i]!);
    const here = local.get(key) ?? 0;
    const everywhere = Math.max(here, statistics.counts.get(key) ?? here);
    return Math.sqrt(here) * Math.log(1 + statistics.total / everywhere) * (0.35 + 0.65 * (here / everywhere));
  };
  const found = new Map<string, KeyPhrase>();
  for (let i = passage.firstWord; i < passage.endWord; i += 1) {
    for (let n = 1; n <= 3 && i + n <= passage.endWord; n += 1) {
      if (!isPhrase(texts, tags, words, i, n)) continue;
      const text = texts.slice(i, i + n).join(' ');
      let weight = 0;
      for (let k = 0; k < n; k += 1) weight += weightOf(i + k);
      weight = weight / n ** 0.55;
      const known = found.get(text);
      found.set(
        text,
        known === undefined
          ? { text, firstWord: i, endWord: i + n, count: 1, weight }
          : { ...known, count: known.count + 1, weight: Math.max(known.weight, weight) * 1.06 },
      );
    }
  }
  const sorted = [...found.values()].sort((a, b) => b.weight - a.weight || a.firstWord - b.firstWord);
  return withoutParts(sorted, most);
}

function isPhrase(texts: readonly string[], tags: readonly PartOfSpeech[], words: readonly Word[], i: number, n: number): boolean {
  if (n === 1 && GENERIC_NOUNS.has(texts[i]!)) return false;
  for (let k = 0; k < n; k += 1) {
    const tag = tags[i + k]!;
    const last = k === n - 1;
    if (words[i + k]!.kind === 'mark' || texts[i + k]!.includes("'") || MEASURES.has(texts[i + k]!)) return false;
    if (
      !(tag === 'NOUN' || tag === 'PROPN' || (!last && tag === 'ADJ')) ||
      STOPWORDS.has(texts[i + k]!) ||
      texts[i + k]!.length < 3 ||
      !/^[\p{L}-]+$/u.test(texts[i + k]!)
    )
      return false;
    if (!last && /[.,;:!?]["'”’)]*$/.test(words[i + k]!.text)) return false; // a phrase does not cross a comma
  }
  return true;
}

/** Of phrases that share a stem only the strongest stays. */
function withoutParts(sorted: readonly KeyPhrase[], most: number): KeyPhrase[] {
  const taken = new Set<string>();
  const kept: KeyPhrase[] = [];
  for (const phrase of sorted) {
    const stems = phrase.text.split(' ').map(stem);
    if (stems.some((one) => taken.has(one))) continue;
    for (const one of stems) taken.add(one);
    kept.push(phrase);
    if (kept.length === most) break;
  }
  return kept;
}
