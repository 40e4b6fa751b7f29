import { GENERIC_NOUNS, MEASURES, STOPWORDS } from '../text/lists/talk.js';
import { rememberWords } from '../text/remember.js';
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

interface KeyPhrase {
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
  /** Where phrases may stand in all of the text, for texts of which many passages are asked. */
  readonly index?: PhraseIndex;
}

/** What stands at each word from `from` on. */
interface PhraseIndex {
  readonly from: number;
  /** 1 for a content word. */
  readonly content: Uint8Array;
  /** Bit n is set where a phrase of n words starts. */
  readonly phrases: Uint8Array;
  /** Stem of every word. */
  readonly stems: readonly string[];
}

const LONGEST_PHRASE = 3;

/** @param stems of the words from `from` on, where they are known */
export function indexPhrases(
  { texts, tags, words }: Pick<Passage, 'texts' | 'tags' | 'words'>,
  from: number,
  end: number,
  stems: readonly string[] = texts.slice(from, end).map(stem),
): PhraseIndex {
  const content = new Uint8Array(end - from);
  const phrases = new Uint8Array(end - from);
  for (let i = from; i < end; i += 1) {
    if (isContent(texts[i]!, tags[i]!)) content[i - from] = 1;
    for (let n = 1; n <= LONGEST_PHRASE && i + n <= end; n += 1) if (isPhrase(texts, tags, words, i, n)) phrases[i - from]! |= 1 << n;
  }
  return { from, content, phrases, stems };
}

/** What a word may be in a phrase, wherever it stands. */
const factsOf = rememberWords((text) => ({
  /** Carries a topic, where its part of speech does. */
  content: text.length > 2 && /^\p{L}/u.test(text) && !STOPWORDS.has(text),
  /** May stand in a phrase. */
  fits: text.length >= 3 && !text.includes("'") && !MEASURES.has(text) && !STOPWORDS.has(text) && /^[\p{L}-]+$/u.test(text),
  generic: GENERIC_NOUNS.has(text),
}));

const isContent = (text: string, tag: PartOfSpeech): boolean => (tag === 'NOUN' || tag === 'PROPN' || tag === 'ADJ' || tag === 'VERB') && factsOf(text).content;

/** Without tags every word that is no function word counts; that is enough to weigh a passage against the whole. */
export function phraseStatistics(texts: readonly string[], tags?: readonly PartOfSpeech[], stems?: readonly string[]): PhraseStatistics {
  const counts = new Map<string, number>();
  let total = 0;
  texts.forEach((text, i) => {
    if (!isContent(text, tags?.[i] ?? 'NOUN')) return;
    const key = stems?.[i] ?? stem(text);
    counts.set(key, (counts.get(key) ?? 0) + 1);
    total += 1;
  });
  return { counts, total };
}

/** A phrase said once more weighs this much more. */
const SAID_AGAIN = 1.06;

/**
 * Key phrases of a passage: runs of adjectives and nouns that end in a noun, at most three words, weighed by how often
 * they are said here and how much less elsewhere (term frequency × inverse frequency). Strongest first.
 */
export function keyPhrases(passage: Omit<Passage, 'sentences' | 'first' | 'end'>, statistics: PhraseStatistics, most: number): KeyPhrase[] {
  const { texts } = passage;
  const { from, content, phrases, stems } = statistics.index ?? indexPhrases(passage, passage.firstWord, passage.endWord);
  const local = new Map<string, number>();
  for (let i = passage.firstWord; i < passage.endWord; i += 1) {
    if (content[i - from] === 0) continue;
    const key = stems[i - from]!;
    local.set(key, (local.get(key) ?? 0) + 1);
  }
  const weights = new Map<string, number>();
  const weightOf = (i: number): number => {
    const key = stems[i - from]!;
    let weight = weights.get(key);
    if (weight === undefined) {
      const here = local.get(key) ?? 0;
      const everywhere = Math.max(here, statistics.counts.get(key) ?? here);
      weight = Math.sqrt(here) * Math.log(1 + statistics.total / everywhere) * (0.35 + 0.65 * (here / everywhere));
      weights.set(key, weight);
    }
    return weight;
  };
  const found = new Map<string, { -readonly [key in keyof KeyPhrase]: KeyPhrase[key] }>();
  for (let i = passage.firstWord; i < passage.endWord; i += 1) {
    const bits = phrases[i - from]!;
    if (bits === 0) continue;
    for (let n = 1; n <= LONGEST_PHRASE && i + n <= passage.endWord; n += 1) {
      if ((bits & (1 << n)) === 0) continue;
      const text = n === 1 ? texts[i]! : texts.slice(i, i + n).join(' ');
      const known = found.get(text);
      if (known !== undefined) {
        known.count += 1;
        known.weight *= SAID_AGAIN;
        continue;
      }
      let weight = 0;
      for (let k = 0; k < n; k += 1) weight += weightOf(i + k);
      found.set(text, { text, firstWord: i, endWord: i + n, count: 1, weight: weight / n ** 0.55 });
    }
  }
  const sorted = [...found.values()].sort((a, b) => b.weight - a.weight || a.firstWord - b.firstWord);
  return withoutParts(sorted, most);
}

function isPhrase(texts: readonly string[], tags: readonly PartOfSpeech[], words: readonly Word[], i: number, n: number): boolean {
  if (n === 1 && factsOf(texts[i]!).generic) return false;
  for (let k = 0; k < n; k += 1) {
    const tag = tags[i + k]!;
    const last = k === n - 1;
    if (!(tag === 'NOUN' || tag === 'PROPN' || (!last && tag === 'ADJ'))) return false;
    if (words[i + k]!.kind === 'mark' || !factsOf(texts[i + k]!).fits) return false;
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
