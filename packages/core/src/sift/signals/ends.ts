import { type SiftContext } from '../context.js';
import { canClose, openingWord } from '../edges.js';
import { innerProduct64 } from '../inner-product.js';
import { cosine } from '../lexical-vectors.js';
import { roleAt, ROLES } from '../roles/roles.js';
import { asksHere } from '../roles/surface.js';
import { tabulate } from '../tabulate.js';
import type { Vectors } from '../types.js';
import { roleIn } from './parts.js';
import { SETS_UP_BY, TAKES_UP } from '../../text/lists/edges.js';

/** A pause that lets a thought settle, in ms. */
const SETTLING_MS = 450;
/** Words a speaker closes a thought with. */
const CLOSING = /^(?:so|and so|that's|that is|and that|never|which is|end of|simple as|it's that|and it)/;
const CLOSING_FIRST = /^(?:so|and|that|never|which|end|simple|it's)/;
/** What a thought ends on when it has paid off. */
const PAY_OFF = (['claim', 'feeling', 'joke', 'contrast', 'figure', 'advice'] as const).map(roleAt);

/** What is read off one end of a run, by the sentence that stands there and the one beyond it; null at the end of the talk. */
export interface EndPart {
  readonly name: string;
  value(s: number, beyond: number | null): number;
}

/** What both ends of runs are read with, prepared once for a recording. */
export interface EndReading {
  /** Whether a sentence asks. */
  asks(s: number): boolean;
  /** How much alike a sentence is with another one, 0 to 1; at once for the one beside it. */
  likeness(s: number, beyond: number): number;
  /** How far the subject turns before each sentence, 0 to 1; one more for the end of the talk. */
  readonly turns: Float64Array;
}

export function readEnds(context: SiftContext): EndReading {
  const { sentences, vectors } = context;
  const asking = tabulate(sentences.length, (s) => (asksHere(context, s) ? 1 : 0));
  const flow = tabulate(sentences.length, (s) => (s === 0 ? 0 : likenessOf(vectors, s - 1, s)));
  return {
    asks: (s) => asking[s] === 1,
    likeness: (s, beyond) => (Math.abs(s - beyond) === 1 ? flow[Math.max(s, beyond)]! : likenessOf(vectors, s, beyond)),
    turns: subjectTurns(vectors, sentences.length),
  };
}

/** What makes a start good or bad. */
export function startParts(context: SiftContext, { asks, likeness, turns }: EndReading): EndPart[] {
  return [
    { name: 'subject begins', value: (s) => turns[s]! },
    { name: 'start leans back', value: (s) => (openingWord(context, s).dependent ? 1 : 0) },
    { name: 'question left outside', value: (s, before) => (before !== null && answersOutside(context, s, before, asks) ? 1 : 0) },
    { name: 'comes in late', value: (s, before) => (before === null ? 0 : likeness(s, before)) },
    { name: 'start in doubt', value: (s) => context.doubts[s]! },
    { name: 'start in a quotation', value: (s) => context.quotations[s]! },
    { name: 'story begun before', value: (s, before) => (before === null ? 0 : roleIn(context, before, 'story') * roleIn(context, s, 'story')) },
  ];
}

/** What makes an end good or bad. */
export function endParts(context: SiftContext, { asks, likeness, turns }: EndReading): EndPart[] {
  const { sentences } = context;
  const other = (s: number, after: number): boolean => sentences[after]!.speaker !== sentences[s]!.speaker;
  return [
    { name: 'goes on like this', value: (s, after) => (after === null ? 0 : likeness(s, after)) },
    { name: 'story goes on', value: (s, after) => (after === null ? 0 : roleIn(context, s, 'story') * roleIn(context, after, 'story')) },
    { name: 'subject ends', value: (s) => turns[s + 1]! },
    { name: 'pay-off', value: (s) => payOff(context, s) },
    { name: 'pay-off left outside', value: (s, after) => (after !== null && sameBreath(context, s, after) ? payOff(context, after) : 0) },
    { name: 'sets up', value: (s, after) => (after !== null && setsUp(context, s) ? 1 : 0) },
    { name: 'broken off', value: (s) => (canClose(context, s) ? 0 : 1) },
    { name: 'ends asking', value: (s) => (asks(s) ? 1 : 0) },
    { name: 'asks for more', value: (s, after) => (after !== null && asks(s) && asksForMore(context, s, after) ? 1 : 0) },
    { name: 'settles', value: (s, after) => (after === null || sentences[after]!.startMs - sentences[s]!.endMs >= SETTLING_MS ? 1 : 0) },
    { name: 'voice changes', value: (s, after) => (after !== null && other(s, after) ? 1 : 0) },
    { name: 'asked on', value: (s, after) => (after !== null && other(s, after) && asks(after) ? 1 : 0) },
    { name: 'closing words', value: (s) => (closesIn(context, s) ? 1 : 0) },
    { name: 'closing laugh', value: (s) => (context.words[sentences[s]!.endWord - 1]!.kind === 'mark' ? 1 : 0) },
    { name: 'clipped end', value: (s) => (sentences[s]!.endWord - sentences[s]!.firstWord <= 3 ? 1 : 0) },
    { name: 'thought taken up', value: (s, after) => (after !== null && takenUp(context, s, after) ? 1 : 0) },
    { name: 'last word left outside', value: (s, after) => (after !== null && saysLast(context, s, after) && !asks(after) ? 1 : 0) },
    { name: 'end in doubt', value: (s) => context.doubts[s + 1]! },
    { name: 'end in a quotation', value: (s) => context.quotations[s + 1]! },
    { name: 'dull end', value: (s) => context.dull[s]! },
  ];
}

/** An answer without its question: the sentence before asks, of at least three words, and the run starts after it. */
export function answersOutside(context: SiftContext, first: number, before: number, asks: (s: number) => boolean): boolean {
  const { firstWord, endWord } = context.sentences[before]!;
  return asks(before) && endWord - firstWord > 2 && !asks(first);
}

/** What is put in so few sentences is a question to go on, not the story of the one who asks. */
const PUT_IN = 2;

/** True when a question is somebody's who only puts it to the other, who answers: it belongs to what follows. */
function asksForMore({ sentences }: SiftContext, s: number, after: number): boolean {
  const { speaker } = sentences[s]!;
  if (sentences[after]!.speaker === speaker) return false;
  let first = s;
  while (first > 0 && sentences[first - 1]!.speaker === speaker) first -= 1;
  return first > 0 && s - first < PUT_IN;
}

/** A sentence that pays off as surely as this is missed when it is left outside. */
const SURELY_PAYS_OFF = 0.8;

/** True when the thought of a sentence is not finished with it: it is taken up, set up, or paid off in the same breath. */
export function goesOn(context: SiftContext, s: number, after: number): boolean {
  return takenUp(context, s, after) || setsUp(context, s) || (sameBreath(context, s, after) && payOff(context, after) > SURELY_PAYS_OFF);
}

function closesIn({ texts, sentences }: SiftContext, s: number): boolean {
  const { firstWord } = sentences[s]!;
  return CLOSING_FIRST.test(texts[firstWord]!) && CLOSING.test(`${texts[firstWord]!} ${texts[firstWord + 1] ?? ''}`);
}

/** How surely a sentence is one that a thought pays off with, 0 to 1. */
function payOff(context: SiftContext, s: number): number {
  let sum = 0;
  for (let k = 0; k < PAY_OFF.length; k += 1) sum += context.roles[s * ROLES.length + PAY_OFF[k]!]!;
  return sum;
}

/** True when the same speaker goes on without a pause that would let a thought settle. */
function sameBreath({ sentences }: SiftContext, s: number, after: number): boolean {
  const next = sentences[after]!;
  return next.speaker === sentences[s]!.speaker && next.startMs - sentences[s]!.endMs < 2 * SETTLING_MS;
}

/** What something is not, or that there is something to say, before it is said: "it isn't about the size", "one thing". */
const SETS_UP =
  /\b(?:(?:it|that|this)(?:'s not| isn't| wasn't| is not| was not) (?:about|because|just|only|the|a|that)|(?:one|two|three|a few|this) (?:thing|things|rule|rules|reason|reasons|question|questions)|do you know what|you know what|guess what|here's (?:what|why|how|the)|what (?:happens|happened|i did|we did|they did) (?:is|was)|the (?:thing|problem|trick|secret|answer|truth) is)\b/;
/** Only what is said last in a sentence still waits for the rest. */
const WAITS_FROM_END = 9;

function setsUp({ texts, sentences }: SiftContext, s: number): boolean {
  const { firstWord, endWord } = sentences[s]!;
  const from = Math.max(firstWord, endWord - WAITS_FROM_END);
  for (let i = from; i < endWord; i += 1) if (SETS_UP_BY.has(texts[i]!)) return SETS_UP.test(texts.slice(from, endWord).join(' '));
  return false;
}

/** A line this short is the last word on what was said, if the same speaker says it in the same breath. */
const LAST_WORDS = 4;

/** True when the same speaker sets a short line behind it: "You don't have to tell them. They know." */
function saysLast(context: SiftContext, s: number, after: number): boolean {
  const { firstWord, endWord } = context.sentences[after]!;
  return sameBreath(context, s, after) && endWord - firstWord <= LAST_WORDS;
}

/** True when the same speaker goes on with the thought in the next breath. */
function takenUp(context: SiftContext, s: number, after: number): boolean {
  return sameBreath(context, s, after) && TAKES_UP.has(context.texts[context.sentences[after]!.firstWord]!);
}

/** Cosine of two sentences, none below 0. */
function likenessOf(vectors: Vectors, s: number, other: number): number {
  return Math.max(0, cosine(vectors, s, vectors, other));
}

/** Sentences on each side of a gap that are held against each other; see bench/editors.mjs. */
const BLOCK = 3;

/**
 * How far the subject turns before each sentence, 0 to 1: how unlike the sums of the vectors of the blocks before and after
 * the gap are (Hearst 1997). Where there is no talk on one side the subject begins or ends, so it is 1.
 */
export function subjectTurns({ dimensions, data }: Vectors, n: number): Float64Array {
  const turns = new Float64Array(n + 1).fill(1);
  // The block behind a gap is the one before a later gap: each is summed once and kept until then.
  const kept = Array.from({ length: BLOCK + 1 }, () => new Float64Array(dimensions));
  const squares = new Float64Array(BLOCK + 1);
  const few = new Float64Array(dimensions);
  for (let gap = 0; gap < n; gap += 1) {
    const now = gap % (BLOCK + 1);
    squares[now] = sumRows(data, gap, Math.min(n, gap + BLOCK), kept[now]!);
    if (gap === 0) continue;
    const then = (gap - BLOCK) % (BLOCK + 1);
    const square = gap < BLOCK ? sumRows(data, 0, gap, few) : squares[then]!;
    const sizes = square * squares[now];
    const alike = sizes < 1e-12 ? 0 : innerProduct64(gap < BLOCK ? few : kept[then]!, 0, kept[now]!, 0, dimensions) / Math.sqrt(sizes);
    turns[gap] = 1 - Math.min(1, Math.max(0, alike));
  }
  return turns;
}

/** Sum of one to three rows, written into `into`; returns the square of its length. */
function sumRows(data: Float32Array, first: number, end: number, into: Float64Array): number {
  const n = into.length;
  const [a, b, c] = [first * n, (first + 1) * n, (first + 2) * n];
  let square = 0;
  for (let d = 0; d < n; d += 1) {
    const sum = data[a + d]! + (end > first + 1 ? data[b + d]! : 0) + (end > first + 2 ? data[c + d]! : 0);
    into[d] = sum;
    square += sum * sum;
  }
  return square;
}
