import { JOINS_BACK, TIED } from '../text/lists/clauses.js';
import { CANNOT_END, LEADING_FILLER_PHRASES, LEADING_FILLERS, SUBJECT_PRONOUNS } from '../text/lists/talk.js';
import type { Sentence } from '../transcript/types.js';
import { clauseStarts, pausesIn, type SpokenWords, standsAsClause, tailStart } from './clauses.js';
import type { SiftContext } from './context.js';
import { ANAPHORA, UNITS } from '../text/lists/tells.js';
import { CONCLUDING, COUNTED, PERSONS, PRESENTING, STANDS_FOR, TIMES } from '../text/lists/edges.js';

export interface OpeningWord {
  /** Where a cut is cut in: at the first word that says something, or at a clause behind it. Always inside the sentence. */
  readonly word: number;
  /** First word that says something: leading fillers and marks are skipped. From here to `word` is what a cut leaves out. */
  readonly said: number;
  /** True when the start leans on something said before: a pronoun with nothing to stand for, "the second one". */
  readonly dependent: boolean;
  /** The word that leans on what was said before, or -1. */
  readonly leaning: number;
  /** True when the sentence holds nothing but fillers and marks. */
  readonly empty: boolean;
}

/** What edges are found by. */
interface EdgeInput extends SpokenWords {
  readonly sentences: readonly Sentence[];
}

/** Where a candidate that begins with this sentence is cut in (see `findOpeningWord`). */
export const openingWord = (context: SiftContext, sentence: number): OpeningWord => context.openings[sentence]!;

/**
 * Where a candidate that begins with this sentence is cut in: where it says something, or, when it leans on what was said
 * before, at its first clause that does not. A sentence of fillers alone starts at its own first word, and is never chosen as
 * a start (see `canOpen`).
 */
export function findOpeningWord(context: EdgeInput, sentence: number): OpeningWord {
  const { firstWord, endWord } = context.sentences[sentence]!;
  const whole = openingFrom(context, firstWord, endWord);
  if (!whole.dependent || whole.empty) return whole;
  for (const start of clauseStarts(context, whole.word + 1, endWord)) {
    const opening = openingFrom(context, start, endWord);
    if (!opening.dependent && endWord - opening.word >= LEAST_CLAUSE && standsAsClause(context, opening.word, endWord)) return { ...opening, said: whole.word };
  }
  return whole;
}

/** A clause of fewer words is an afterthought. */
const LEAST_CLAUSE = 6;

/** Where a stretch of a sentence that begins somewhere says something. */
function openingFrom(context: EdgeInput, firstWord: number, endWord: number): OpeningWord {
  let i = firstWord;
  for (;;) {
    while (i < endWord && (context.words[i]!.kind === 'mark' || isLeadingFiller(context, i, endWord))) i += 1;
    const phrase = LEADING_FILLER_PHRASES.find((words) => words.every((word, k) => context.texts[i + k] === word) && i + words.length < endWord);
    if (phrase === undefined) break;
    if (
      phrase[0] === 'you' &&
      /^(?:the|what|how|that|why|when|where|if|who)$/.test(context.texts[i + phrase.length] ?? '') &&
      !/,$/.test(context.words[i + 1]!.text)
    )
      break; // "you know the one…" asks
    i += phrase.length;
  }
  if (i >= endWord) return { word: firstWord, said: firstWord, dependent: true, leaning: firstWord, empty: true };
  const text = context.texts[i]!;
  const next = context.texts[i + 1] ?? '';
  const third = context.texts[i + 2] ?? '';
  const told = /^(?:is|was|are|were)$/.test(next) ? third : next;
  const presents =
    /^(?:it|it's|that|that's|this|these|those|there)$/.test(text) && (PRESENTING.has(told) || (/^(?:this|these)$/.test(text) && CONCLUDING.has(told)));
  const determiner =
    /^(?:this|that|these|those|his|her|their|its|both|either|another|same|such)$/.test(text) &&
    (context.tags[i + 1] === 'NOUN' || context.tags[i + 1] === 'PROPN' || context.tags[i + 1] === 'ADJ');
  const counted =
    text === 'the' && COUNTED.has(next) && (third === 'one' || third === 'thing' || !/^(?:NOUN|ADJ|NUM)$/.test(context.tags[i + 2] ?? '')) && !UNITS.has(third);
  const atOnce = (ANAPHORA.has(text) && !presents && !determiner) || counted;
  const leaning = atOnce ? i : Math.max(findUnnamed(context, i, endWord), findUnknownPerson(context, i, endWord));
  return { word: i, said: i, dependent: leaning !== -1, leaning, empty: false };
}

/** A first line longer than this has time to say what it speaks of. */
const SHORT_LINE = 12;

/**
 * The word by which a short first line speaks of something that it has not named: "I think it's something people say",
 * "I worked it out". A pronoun counts behind a verb or preposition, with no noun before it. -1 where there is none.
 */
function findUnnamed({ texts, tags }: EdgeInput, from: number, endWord: number): number {
  if (endWord - from > SHORT_LINE) return -1;
  for (let i = from + 1; i < endWord; i += 1) {
    const tag = tags[i]!;
    if ((tag === 'NOUN' && !TIMES.has(texts[i]!)) || tag === 'PROPN') return -1;
    if (!STANDS_FOR.has(texts[i]!) || !/^(?:VERB|ADP|AUX)$/.test(tags[i - 1]!)) continue;
    const presents = PRESENTING.has(texts[i + 1] ?? '') && texts[i]!.includes("'");
    const points = /^(?:NOUN|PROPN|ADJ|NUM)$/.test(i + 1 < endWord ? tags[i + 1]! : '') && !texts[i]!.startsWith('it');
    const joins = texts[i] === 'that' && i + 1 < endWord && /^(?:PRON|DET|PROPN)$/.test(tags[i + 1]!);
    if (!presents && !points && !joins) return i;
  }
  return -1;
}

/** Who is spoken of is said by then, or was said before. */
const NAMED_WITHIN = 8;

/** The word by which a first line speaks of a person before it has named anybody: "only his mother must have", "I said to him". -1 where there is none. */
function findUnknownPerson({ texts, tags }: EdgeInput, from: number, endWord: number): number {
  for (let i = from; i < Math.min(endWord, from + NAMED_WITHIN); i += 1) {
    if (PERSONS.has(texts[i]!)) return i;
    if ((tags[i] === 'NOUN' && !TIMES.has(texts[i]!)) || tags[i] === 'PROPN') return -1;
  }
  return -1;
}

/** Small words that are fillers only when something else follows that can open: "No, …", "So …", "Right, …". */
function isLeadingFiller(context: EdgeInput, i: number, endWord: number): boolean {
  const text = context.texts[i]!;
  if (text === '') return true;
  if (JOINS_BACK.has(text)) return SUBJECT_PRONOUNS.has(context.texts[i + 1] ?? '') && !hasMain(context, i, endWord);
  if (!LEADING_FILLERS.has(text) || i + 1 >= endWord) return LEADING_FILLERS.has(text);
  const next = context.texts[i + 1]!;
  if (text === 'no') return /[,.!—–-]$/.test(context.words[i]!.text) || LEADING_FILLERS.has(next);
  if (text === 'like' || text === 'now' || text === 'right' || text === 'well' || text === 'sure')
    return /[,.!—–-]$/.test(context.words[i]!.text) || LEADING_FILLERS.has(next) || !/^(?:ADP|NOUN|DET|ADV)$/.test(context.tags[i + 1] ?? '');
  return true;
}

/** "Because I was late, we lost it": a clause that can stand comes behind the one that is tied to it. */
function hasMain(context: EdgeInput, i: number, endWord: number): boolean {
  if (context.texts[i] !== 'because') return false;
  for (const start of pausesIn(context, i + 2, endWord)) if (standsAsClause(context, start, endWord)) return true;
  return false;
}

/** A sentence that can begin a candidate: it says something once its fillers are gone, and is not tied to what was said before. */
export function canOpen(context: SiftContext, sentence: number): boolean {
  const { word, empty } = openingWord(context, sentence);
  const { endWord } = context.sentences[sentence]!;
  return !empty && endWord - word >= 2 && !isTied(context, word, endWord);
}

function isTied(context: EdgeInput, i: number, endWord: number): boolean {
  const text = context.texts[i]!;
  if (text === 'which') return !/^(?:NOUN|PROPN|NUM|ADP)$/.test(context.tags[i + 1] ?? '');
  return TIED.has(text) && !hasMain(context, i, endWord);
}

/** Where a candidate that ends with this sentence is cut out: behind its last word, less what trails behind its point ("…, so, yeah"). */
export function findClosingWord(context: EdgeInput, sentence: number): number {
  const { firstWord, endWord } = context.sentences[sentence]!;
  const tail = tailStart(context, firstWord, endWord);
  return tail === firstWord ? endWord : tail;
}

/** A sentence that can end a candidate: it says something, and is not broken off. */
export function canClose(context: EdgeInput, sentence: number): boolean {
  const { firstWord, endWord } = context.sentences[sentence]!;
  const tail = tailStart(context, firstWord, endWord);
  if (tail < endWord) return tail > firstWord;
  let last = endWord - 1;
  while (last > firstWord && context.words[last]!.kind === 'mark') last -= 1;
  const text = context.words[last]!.text;
  if (/(?:[-–—]|\.\.\.|…|,)["'”’)]*$/.test(text)) return false;
  if (/[.!?]["'”’)\]]*$/.test(text)) return true;
  return !CANNOT_END.has(context.texts[last]!);
}
