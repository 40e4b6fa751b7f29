import type { Voice } from '../copy/voice/types.js';
import { namesOf } from '../copy/check/check-copy.js';
import { mannerOf } from '../copy/voice/manner.js';
import type { Passage } from '../copy/phrases.js';
import { phraseStatistics } from '../copy/phrases.js';
import { cleanLine } from '../copy/said-line.js';
import { contentOf } from '../copy/written/content.js';
import { closed, writtenSentence } from '../copy/written/written-sentence.js';
import type { TitleContext } from '../copy/written/title-features.js';
import { asksRoom, bringsIn, callsFirst, isBroken, isHousekeeping, leans } from '../copy/written/wholeness.js';
import type { Line } from '../copy/written/written-word.js';
import { buildContext, NO_VECTORS, type SiftContext } from '../sift/context.js';
import { ROLES, type Role, roleAt } from '../sift/roles/roles.js';
import { type Brief, type Chapter } from '../sift/types.js';
import { languageOf } from '../text/language-name.js';
import { rarity } from '../text/spoken-words.js';
import { type PosTagger, winkTagger } from '../text/tagger.js';
import type { Transcript, WordRange } from '../transcript/types.js';

/** A strong passage of the recording, as a sift found it or somebody kept it. */
export interface TalkMoment extends WordRange {
  /** 0 to 100 */
  readonly score: number;
  readonly kept: boolean;
  /** A title that somebody has written or approved; null where there is none. */
  readonly title: string | null;
}

/** What documents are made from. */
export interface DocumentRequest {
  readonly transcript: Transcript;
  /** The recording's name. */
  readonly title: string;
  readonly chapters: readonly Chapter[];
  readonly moments: readonly TalkMoment[];
  /** Code of the language of the talk where it is not English: its sentences stay as they were said then. */
  readonly language: string | null;
  readonly voice: Voice;
}

/** A sentence of the recording as it would be written. */
export interface WrittenSentence {
  /** Place among the recording's sentences. */
  readonly index: number;
  readonly chapter: number;
  readonly speaker: number;
  readonly said: WordRange;
  /** With the mark that ends it. */
  readonly text: string;
  readonly line: Line;
  readonly words: ReadonlySet<string>;
  /** How much it says of what the recording is about, how far it stands out, and how strong its passage is: 0 to about 1. */
  readonly worth: number;
  /** How surely it says something of the subject, 0 to 1, rather than tells of oneself, jokes or feels. */
  readonly tells: number;
  /** How surely it advises, 0 to 1. */
  readonly advises: number;
  /** It cannot be read without the one before. */
  readonly leans: boolean;
  readonly asks: boolean;
}

/** A recording read once, for all that is made of it. */
export interface WrittenTalk extends Pick<DocumentRequest, 'title' | 'chapters' | 'moments' | 'language'> {
  readonly transcript: Transcript;
  readonly passage: Passage;
  /** What can be read, in order; what broke off, and what is about the recording itself, is left out. */
  readonly sentences: readonly WrittenSentence[];
  /** How telling each content stem is. */
  readonly stemWeights: ReadonlyMap<string, number>;
  /** A part of the talk as titles and texts are made for it. */
  contextOf(range: WordRange): TitleContext;
  /** As the client writes it. */
  write(text: string): string;
  nameOf(speaker: number): string | null;
}

/** A sentence in a document has so many characters at most; more is cut at a clause. Common practice. */
const LONGEST = 240;
/** Parts of the worth of a sentence: what it says, how far it stands out, and the passage that it stands in. By judgement. */
const [SAYS, STANDS_OUT, PASSAGE] = [0.4, 0.3, 0.3];
/** What is so surely for nobody's reading is left out (greetings, offers, what is only done while it is said). */
const DULL = 0.35;
const TELLING: readonly Role[] = ['claim', 'advice', 'explanation', 'figure', 'contrast', 'problem', 'answer'];
/** Documents are made of the whole recording. */
const WHOLE: Brief = { partStartMs: 0, partEndMs: null, minMs: 15_000, maxMs: 60_000, roughCount: 12, topics: [], kinds: [], avoid: [] };

export function writtenTalk(request: DocumentRequest, tagger: PosTagger = winkTagger): WrittenTalk {
  const { transcript, chapters, moments, language, voice, title } = request;
  const { words, sentences, speakers } = transcript;
  const context = buildContext({ transcript, brief: WHOLE, clientTags: [], language: language === null ? null : languageOf(language), ...NO_VECTORS }, tagger);
  const { spoken: texts, tags, hits: tells } = context;
  const statistics = phraseStatistics(texts);
  const passage: Passage = { words, texts, tags, sentences, firstWord: 0, endWord: words.length, first: 0, end: sentences.length };
  const manner = mannerOf(voice, namesOf(words, speakers), language === null);
  const write = (text: string): string => manner.write('description', text);
  const weights = stemWeightsOf(statistics.counts, texts);

  const contextOf = ({ firstWord, endWord }: WordRange): TitleContext => {
    const first = sentences.findIndex((one) => one.endWord > firstWord);
    const last = sentences.findLastIndex((one) => one.firstWord < endWord);
    const inside = tells.filter((hit) => hit.firstWord < endWord && firstWord < hit.endWord);
    return { passage: { ...passage, firstWord, endWord, first, end: last + 1 }, tells: inside, statistics, manner };
  };
  const nameOf = (speaker: number): string | null => speakers[speaker] ?? null;
  const chapterOf = (word: number): number =>
    Math.max(
      0,
      chapters.findLastIndex((one) => one.firstWord <= word),
    );

  const judged = judge(context, moments, weights);
  const written = (index: number, length: number): (Pick<WrittenSentence, 'text' | 'line' | 'leans' | 'asks'> & { doubt: number }) | null => {
    const { firstWord, endWord } = sentences[index]!;
    if (language !== null) {
      const text = closed(cleanLine(passage, firstWord, endWord));
      return length < LEAST_FOREIGN || text.length > LONGEST ? null : { text, line: [], leans: false, asks: text.endsWith('?'), doubt: 1 };
    }
    const draft = writtenSentence(passage, index, LONGEST);
    if (draft === null || isBroken(draft) || asksRoom(draft) || isHousekeeping(draft, tellsIn(tells, firstWord, endWord))) return null;
    return {
      text: write(closed(draft.text)),
      line: draft.line,
      leans: leans(draft) || LEANS_BACK.has(draft.line[0]!.norm) || opensByJoining(passage, firstWord),
      asks: draft.text.endsWith('?'),
      doubt: callsFirst(draft) || bringsIn(draft) ? DOUBTED : 1,
    };
  };
  const found = sentences.flatMap(({ firstWord, endWord, speaker }, index): WrittenSentence[] => {
    if (context.dull[index]! > DULL || !chapters.some((one) => one.firstWord <= firstWord && endWord <= one.endWord)) return [];
    const one = written(index, endWord - firstWord);
    if (one === null) return [];
    const { doubt, ...rest } = one;
    const content = contentOf(one.line.length > 0 ? one.line.map(({ norm }) => norm) : texts.slice(firstWord, endWord));
    const { worth, ...does } = judged(index, content, one.line.length || endWord - firstWord);
    return [{ ...rest, index, chapter: chapterOf(firstWord), speaker, said: { firstWord, endWord }, words: content, worth: doubt * worth, ...does }];
  });
  return { title, chapters, moments, language, transcript, passage, sentences: found, stemWeights: weights, contextOf, write, nameOf };
}

const DOUBTED = 0.7;
/** Sentences of fewer words say little in any language. */
const LEAST_FOREIGN = 4;
/** What begins with these goes on from what was said before. */
const LEANS_BACK = new Set([
  'so',
  'and',
  'but',
  'or',
  'because',
  'which',
  'then',
  'otherwise',
  'instead',
  'also',
  'either',
  'same',
  'both',
  'not',
  'neither',
  'another',
]);
const opensByJoining = ({ texts }: Passage, firstWord: number): boolean => /^(?:because|which|otherwise|or)$/.test(texts[firstWord]!);

/** Tells are in order of their words; the few of a sentence are found without looking at all. */
function tellsIn(tells: TitleContext['tells'], from: number, end: number): TitleContext['tells'] {
  let low = 0;
  let high = tells.length;
  while (low < high) {
    const mid = (low + high) >>> 1;
    if (tells[mid]!.firstWord < from - LONGEST_TELL) low = mid + 1;
    else high = mid;
  }
  const near: TitleContext['tells'][number][] = [];
  for (let k = low; k < tells.length && tells[k]!.firstWord < end; k += 1) if (tells[k]!.endWord > from) near.push(tells[k]!);
  return near;
}
const LONGEST_TELL = 60;

/** How strong the strongest passage is that each word stands in, 0 to 1. */
function strengths(moments: readonly TalkMoment[], count: number): Float32Array {
  const strength = new Float32Array(count + 1);
  for (const { firstWord, endWord, score, kept } of moments)
    for (let i = firstWord; i < Math.min(endWord, count); i += 1) strength[i] = Math.max(strength[i]!, Math.min(1, score / 100 + (kept ? KEPT_GAINS : 0)));
  return strength;
}
const KEPT_GAINS = 0.2;

/** Said often here and seldom in English at large. */
function stemWeightsOf(counts: ReadonlyMap<string, number>, texts: readonly string[]): Map<string, number> {
  const rarest = new Map<string, number>();
  for (const text of new Set(texts)) for (const key of contentOf([text])) rarest.set(key, Math.max(rarest.get(key) ?? 0, rarity(text)));
  return new Map([...rarest].map(([key, rare]) => [key, Math.log2(1 + (counts.get(key) ?? 0)) * (rare / COMMONEST_UNKNOWN)]));
}
const COMMONEST_UNKNOWN = 10.3;

/** Judges sentences by what they say, among all of their recording, and by where they stand. */
function judge({ sentences, standOut, dull, roles, words }: SiftContext, moments: readonly TalkMoment[], weights: ReadonlyMap<string, number>) {
  const strength = strengths(moments, words.length);
  const places = new Float64Array(sentences.length);
  const rising = sentences.map((_, s) => s).sort((a, b) => standOut[a]! - standOut[b]!);
  rising.forEach((s, k) => (places[s] = k / Math.max(1, sentences.length - 1)));
  return (s: number, content: ReadonlySet<string>, length: number): Pick<WrittenSentence, 'worth' | 'tells' | 'advises'> => {
    const says = [...content].reduce((sum, key) => sum + (weights.get(key) ?? 0), 0) / Math.max(6, length) ** 0.6;
    const { firstWord, endWord } = sentences[s]!;
    const stands = strength.subarray(firstWord, endWord).reduce((most, value) => Math.max(most, value), 0);
    const worth = (SAYS * Math.min(1, says / SAYS_A_LOT) + STANDS_OUT * places[s]! + PASSAGE * stands) * (1 - dull[s]!);
    const does = (role: Role): number => roles[s * ROLES.length + roleAt(role)]!;
    return { worth, tells: TELLING.reduce((sum, role) => sum + does(role), 0), advises: does('advice') };
  };
}
/** A sentence that says a lot, whatever its length, has so much of words that tell. */
const SAYS_A_LOT = 5;
