import { type SiftContext, hitsWithin, Sums } from '../context.js';
import { canClose, openingWord } from '../edges.js';
import { SCALES } from '../fitted.js';
import { cosine } from '../lexical-vectors.js';
import type { Role } from '../roles/roles.js';
import { asksHere } from '../roles/surface.js';
import { toScale } from '../scale.js';
import { tabulate } from '../tabulate.js';
import { ANAPHORA } from '../tells.js';
import type { Run, WordRange } from '../types.js';
import { firstPart, lastPart, type Part, rawOf, roleIn, weightOf, wordsOf } from './parts.js';
import { quote, type Signal } from './signal.js';

/** A pause that lets a thought settle, in ms. */
const SETTLING_MS = 450;
/** Words a speaker closes a thought with. */
const CLOSING = /^(?:so|and so|that's|that is|and that|never|which is|end of|simple as|it's that|and it)/;
const CLOSING_FIRST = /^(?:so|and|that|never|which|end|simple|it's)/;
/** What a thought ends on when it has paid off. */
const PAY_OFF: readonly Role[] = ['claim', 'feeling', 'joke', 'contrast', 'figure', 'advice'];

/** What is read off one end of a run, by the sentence that stands there and the one beyond it; null at the end of the talk. */
interface EndPart {
  readonly name: string;
  value(s: number, beyond: number | null): number;
}

/** How much alike a sentence is with the one beyond it, 0 to 1. */
type Likeness = (s: number, beyond: number) => number;

function startParts(context: SiftContext, asksAt: (s: number) => boolean, likeness: Likeness): EndPart[] {
  return [
    { name: 'start leans back', value: (s) => (openingWord(context, s).dependent ? 1 : 0) },
    { name: 'question left outside', value: (s, before) => (before !== null && answersOutside(context, s, before, asksAt) ? 1 : 0) },
    { name: 'comes in late', value: (s, before) => (before === null ? 0 : likeness(s, before)) },
    { name: 'story begun before', value: (s, before) => (before === null ? 0 : roleIn(context, before, 'story') * roleIn(context, s, 'story')) },
  ];
}

function endParts(context: SiftContext, asksAt: (s: number) => boolean, likeness: Likeness): EndPart[] {
  const { sentences } = context;
  return [
    { name: 'goes on like this', value: (s, after) => (after === null ? 0 : likeness(s, after)) },
    { name: 'story goes on', value: (s, after) => (after === null ? 0 : roleIn(context, s, 'story') * roleIn(context, after, 'story')) },
    { name: 'pay-off', value: (s) => PAY_OFF.reduce((sum, role) => sum + roleIn(context, s, role), 0) },
    { name: 'broken off', value: (s) => (canClose(context, s) ? 0 : 1) },
    { name: 'ends asking', value: (s) => (asksAt(s) ? 1 : 0) },
    { name: 'settles', value: (s, after) => (after === null || sentences[after]!.startMs - sentences[s]!.endMs >= SETTLING_MS ? 1 : 0) },
    { name: 'voice changes', value: (s, after) => (after !== null && sentences[after]!.speaker !== sentences[s]!.speaker ? 1 : 0) },
    { name: 'closing words', value: (s) => (closesIn(context, s) ? 1 : 0) },
    { name: 'closing laugh', value: (s) => (context.words[sentences[s]!.endWord - 1]!.kind === 'mark' ? 1 : 0) },
    { name: 'clipped end', value: (s) => (sentences[s]!.endWord - sentences[s]!.firstWord <= 3 ? 1 : 0) },
    { name: 'thought taken up', value: (s, after) => (after !== null && goesOn(context, s, after) ? 1 : 0) },
    { name: 'last word left outside', value: (s, after) => (after !== null && saysLast(context, s, after) && !asksAt(after) ? 1 : 0) },
    { name: 'dull end', value: (s) => context.dull[s]! },
  ];
}

/** Parts of Stands alone: a start that needs nothing before it, an end that needs nothing after, and no talk inside that points elsewhere. */
export function standsAloneParts(context: SiftContext): Part[] {
  const { sentences } = context;
  const backward = new Sums(sentences.map((_, s) => leansBack(context, s)));
  const dull = new Sums(sentences.map(({ firstWord, endWord }, s) => context.dull[s]! * (endWord - firstWord)));
  const asksAt = askingIn(context);
  const flow = tabulate(sentences.length, (s) => (s === 0 ? 0 : likenessOf(context, s - 1, s)));
  const likeness = (s: number, beyond: number): number => flow[Math.max(s, beyond)]!;
  const last = sentences.length - 1;
  return [
    ...startParts(context, asksAt, likeness).map(({ name, value }) => firstPart(context, name, (s) => value(s, s > 0 ? s - 1 : null))),
    { name: 'question inside', value: (run) => (asksInside(run, asksAt) ? 1 : 0) },
    { name: 'points back', value: (run) => Math.min(3, backward.sum(run)) },
    ...endParts(context, asksAt, likeness).map(({ name, value }) => lastPart(context, name, (s) => value(s, s < last ? s + 1 : null))),
    { name: 'dull inside', value: (run) => dull.sum(run) / Math.max(1, context.wordCounts.sum(run)) },
  ];
}

function askingIn(context: SiftContext): (s: number) => boolean {
  const asking = tabulate(context.sentences.length, (s) => (asks(context, s) ? 1 : 0));
  return (s) => asking[s] === 1;
}

/** Stands alone: makes sense to a stranger, and finishes its thought. */
export function standsAlone(context: SiftContext): Signal {
  const raw = rawOf(context, 'standsAlone', standsAloneParts(context));
  return {
    name: 'standsAlone',
    value: (run) => toScale(raw(run), SCALES.standsAlone.ordinary, SCALES.standsAlone.rare),
    explain: (run) => explain(context, run, raw),
  };
}

/** Raw measure by which a run must be poorer without its first or last sentence for that sentence to have earned the signal. */
const EARNED_FROM = 0.15;

function explain(context: SiftContext, run: Run, raw: (run: Run) => number): { sentence: string; evidence: WordRange[] } {
  const start = openingWord(context, run.first);
  const leaning = hitsWithin(context, run, ['backward']);
  let head = 'Needs nothing said before';
  if (run.first > 0 && answersOutside(context, run.first, run.first - 1, (s) => asks(context, s))) head = 'The question it answers is left outside';
  else if (start.dependent) head = `Leans on what came before: ${quote(context, { firstWord: start.word, endWord: start.word + 2 })}`;
  else if (leaning.length > 0) head = `Points back once it is under way: ${quote(context, leaning[0]!)}`;
  else if (asksInside(run, (s) => asks(context, s))) head = 'Keeps the question with its answer';
  const broken = !canClose(context, run.end - 1) || asks(context, run.end - 1);
  const finished = !broken && !(run.end < context.sentences.length && goesOn(context, run.end - 1, run.end));
  const tail = broken ? 'breaks off at the end' : finished ? 'ends on a finished thought' : 'ends with its sentence, though the thought goes on';
  return { sentence: `${head}; ${tail}`, evidence: earning(context, run, raw) };
}

/** The sentence at either end, or both, without which the run would stand alone less well. */
function earning(context: SiftContext, run: Run, raw: (run: Run) => number): WordRange[] {
  const asksAt = (s: number): boolean => asks(context, s);
  const likeness = (s: number, beyond: number): number => likenessOf(context, s, beyond);
  const [starts, ends] = [startParts(context, asksAt, likeness), endParts(context, asksAt, likeness)];
  const last = context.sentences.length - 1;
  /** What changes in the measure when a sentence at an end has another one beyond it than it had. */
  const turned = (parts: readonly EndPart[], s: number, was: number | null, is: number | null): number =>
    parts.reduce((sum, { name, value }) => sum + weightOf('standsAlone', name) * (value(s, is) - value(s, was)), 0);
  const poorer = (first: number, end: number): boolean => {
    if (first >= end) return false;
    const head = first === run.first ? 0 : turned(starts, first, first - 1, run.first > 0 ? run.first - 1 : null);
    const tail = end === run.end ? 0 : turned(ends, end - 1, end, run.end <= last ? run.end : null);
    return raw({ first, end }) + head + tail < raw(run) - EARNED_FROM;
  };
  const atStart = poorer(run.first + 1, run.end);
  const atEnd = poorer(run.first, run.end - 1);
  const start = { firstWord: openingWord(context, run.first).word, endWord: context.sentences[run.first]!.endWord };
  const end = wordsOf(context, run.end - 1);
  if (atStart && atEnd && poorer(run.first + 1, run.end - 1)) return [start, end];
  return atEnd ? [end] : atStart ? [start] : [];
}

function leansBack(context: SiftContext, s: number): number {
  const { firstWord, endWord } = context.sentences[s]!;
  let sum = hitsWithin(context, { first: s, end: s + 1 }, ['backward']).length;
  const start = context.texts[firstWord]!;
  if (ANAPHORA.has(start) && endWord - firstWord < 4) sum += 0.1;
  return sum;
}

function closesIn({ texts, sentences }: SiftContext, s: number): boolean {
  const { firstWord } = sentences[s]!;
  return CLOSING_FIRST.test(texts[firstWord]!) && CLOSING.test(`${texts[firstWord]!} ${texts[firstWord + 1] ?? ''}`);
}

/** An answer without its question: the sentence before asks, of at least three words, and the run starts after it. */
function answersOutside(context: SiftContext, first: number, before: number, asksAt: (s: number) => boolean): boolean {
  const { firstWord, endWord } = context.sentences[before]!;
  return asksAt(before) && endWord - firstWord > 2 && !asksAt(first);
}

function asksInside(run: Run, asksAt: (s: number) => boolean): boolean {
  for (let s = run.first; s < Math.min(run.first + 3, run.end - 1); s += 1) if (asksAt(s)) return true;
  return false;
}

export function asks(context: SiftContext, s: number): boolean {
  return asksHere(context, s);
}

/** A line this short is the last word on what was said, if the same speaker says it in the same breath. */
const LAST_WORDS = 4;

/** True when the same speaker sets a short line behind it: "You don't have to tell them. They know." */
function saysLast(context: SiftContext, s: number, after: number): boolean {
  const { speaker, endMs } = context.sentences[s]!;
  const next = context.sentences[after]!;
  return next.speaker === speaker && next.startMs - endMs < 2 * SETTLING_MS && next.endWord - next.firstWord <= LAST_WORDS;
}

/** Words that take up the thought before them. */
const TAKES_UP = new Set(['because', 'which', 'or', 'and', 'but', 'so', 'except', 'until', 'then']);

/** True when the same speaker goes on with the thought in the next breath. */
function goesOn(context: SiftContext, s: number, after: number): boolean {
  const next = context.sentences[after]!;
  const { speaker, endMs } = context.sentences[s]!;
  return next.speaker === speaker && next.startMs - endMs < 2 * SETTLING_MS && TAKES_UP.has(context.texts[next.firstWord]!);
}

/** Cosine of two sentences, none below 0. */
function likenessOf(context: SiftContext, s: number, other: number): number {
  return Math.max(0, cosine(context.vectors, s, context.vectors, other));
}
