import { type SiftContext, hitsWithin, Sums } from '../context.js';
import { canClose, openingWord } from '../edges.js';
import { SCALES } from '../fitted.js';
import { cosine } from '../lexical-vectors.js';
import type { Role } from '../roles/roles.js';
import { asksHere } from '../roles/surface.js';
import { toScale } from '../scale.js';
import { ANAPHORA } from '../tells.js';
import type { Run, WordRange } from '../types.js';
import { type Part, rawOf, roleIn } from './parts.js';
import { quote, type Signal, tidyEvidence } from './signal.js';

/** A pause that lets a thought settle, in ms. */
const SETTLING_MS = 450;
/** Words a speaker closes a thought with. */
const CLOSING = /^(?:so|and so|that's|that is|and that|never|which is|end of|simple as|it's that|and it)/;
/** What a thought ends on when it has paid off. */
const PAY_OFF: readonly Role[] = ['claim', 'feeling', 'joke', 'contrast', 'figure', 'advice'];

/** Parts of Stands alone: a start that needs nothing before it, an end that needs nothing after, and no talk inside that points elsewhere. */
export function standsAloneParts(context: SiftContext): Part[] {
  const { sentences } = context;
  const backward = new Sums(sentences.map((_, s) => leansBack(context, s)));
  const flow = neighbourLikeness(context);
  const dull = new Sums(sentences.map(({ firstWord, endWord }, s) => context.dull[s]! * (endWord - firstWord)));
  const atEnd = (name: string, value: (last: number) => number): Part => ({ name, value: (run) => value(run.end - 1) });
  const last = sentences.length - 1;
  return [
    { name: 'start leans back', value: (run) => (openingWord(context, run.first).dependent ? 1 : 0) },
    { name: 'question left outside', value: (run) => (answersOutside(context, run) ? 1 : 0) },
    { name: 'question inside', value: (run) => (asksInside(context, run) ? 1 : 0) },
    { name: 'points back', value: (run) => Math.min(3, backward.sum(run)) },
    { name: 'comes in late', value: (run) => (run.first > 0 ? Math.max(0, flow[run.first]!) : 0) },
    { name: 'story begun before', value: (run) => (run.first > 0 ? roleIn(context, run.first - 1, 'story') * roleIn(context, run.first, 'story') : 0) },
    atEnd('goes on like this', (s) => (s < last ? Math.max(0, flow[s + 1]!) : 0)),
    atEnd('story goes on', (s) => (s < last ? roleIn(context, s, 'story') * roleIn(context, s + 1, 'story') : 0)),
    atEnd('pay-off', (s) => PAY_OFF.reduce((sum, role) => sum + roleIn(context, s, role), 0)),
    atEnd('broken off', (s) => (canClose(context, s) ? 0 : 1)),
    atEnd('ends asking', (s) => (asks(context, s) ? 1 : 0)),
    atEnd('settles', (s) => (s === last || sentences[s + 1]!.startMs - sentences[s]!.endMs >= SETTLING_MS ? 1 : 0)),
    atEnd('voice changes', (s) => (s < last && sentences[s + 1]!.speaker !== sentences[s]!.speaker ? 1 : 0)),
    atEnd('closing words', (s) => (CLOSING.test(context.texts.slice(sentences[s]!.firstWord, sentences[s]!.firstWord + 2).join(' ')) ? 1 : 0)),
    atEnd('closing laugh', (s) => (context.words[sentences[s]!.endWord - 1]!.kind === 'mark' ? 1 : 0)),
    atEnd('clipped end', (s) => (sentences[s]!.endWord - sentences[s]!.firstWord <= 3 ? 1 : 0)),
    atEnd('thought taken up', (s) => (s < last && goesOn(context, s) ? 1 : 0)),
    atEnd('dull end', (s) => context.dull[s]!),
    { name: 'dull inside', value: (run) => dull.sum(run) / Math.max(1, context.wordCounts.sum(run)) },
  ];
}

/** Stands alone: makes sense to a stranger, and finishes its thought. */
export function standsAlone(context: SiftContext): Signal {
  const raw = rawOf('standsAlone', standsAloneParts(context));
  return {
    name: 'standsAlone',
    value: (run) => toScale(raw(run), SCALES.standsAlone.ordinary, SCALES.standsAlone.rare),
    explain: (run) => explain(context, run),
  };
}

function explain(context: SiftContext, run: Run): { sentence: string; evidence: WordRange[] } {
  const last = context.sentences[run.end - 1]!;
  const start = openingWord(context, run.first);
  const evidence: WordRange[] = [];
  const leaning = hitsWithin(context, run, ['backward']);
  let head = 'Needs nothing said before';
  if (answersOutside(context, run)) head = 'The question it answers is left outside';
  else if (start.dependent) head = `Leans on what came before: ${quote(context, { firstWord: start.word, endWord: start.word + 2 })}`;
  else if (leaning.length > 0) head = `Points back once it is under way: ${quote(context, leaning[0]!)}`;
  else if (asksInside(context, run)) head = 'Keeps the question with its answer';
  else evidence.push({ firstWord: start.word, endWord: Math.min(start.word + 5, context.sentences[run.first]!.endWord) });
  const broken = !canClose(context, run.end - 1) || asks(context, run.end - 1);
  const finished = !broken && !(run.end < context.sentences.length && goesOn(context, run.end - 1));
  const tail = broken ? 'breaks off at the end' : finished ? 'ends on a finished thought' : 'ends with its sentence, though the thought goes on';
  if (!broken) evidence.push({ firstWord: Math.max(last.firstWord, last.endWord - 7), endWord: last.endWord });
  return { sentence: `${head}; ${tail}`, evidence: tidyEvidence(evidence) };
}

function leansBack(context: SiftContext, s: number): number {
  const { firstWord, endWord } = context.sentences[s]!;
  let sum = hitsWithin(context, { first: s, end: s + 1 }, ['backward']).length;
  const start = context.texts[firstWord]!;
  if (ANAPHORA.has(start) && endWord - firstWord < 4) sum += 0.1;
  return sum;
}

/** An answer without its question: the sentence before asks, of at least three words, and the run starts after it. */
function answersOutside(context: SiftContext, run: Run): boolean {
  if (run.first === 0) return false;
  const before = context.sentences[run.first - 1]!;
  return asks(context, run.first - 1) && before.endWord - before.firstWord > 2 && !asks(context, run.first);
}

function asksInside(context: SiftContext, run: Run): boolean {
  for (let s = run.first; s < Math.min(run.first + 3, run.end - 1); s += 1) if (asks(context, s)) return true;
  return false;
}

export function asks(context: SiftContext, s: number): boolean {
  return asksHere(context, s);
}

/** Words that take up the thought before them. */
const TAKES_UP = new Set(['because', 'which', 'or', 'and', 'but', 'so', 'except', 'until', 'then']);

/** True when the same speaker goes on with the thought in the next breath. */
function goesOn(context: SiftContext, s: number): boolean {
  const next = context.sentences[s + 1]!;
  const { speaker, endMs } = context.sentences[s]!;
  return next.speaker === speaker && next.startMs - endMs < 2 * SETTLING_MS && TAKES_UP.has(context.texts[next.firstWord]!);
}

/** Cosine of each sentence with the one before it; 0 for the first. */
function neighbourLikeness(context: SiftContext): Float64Array {
  const likeness = new Float64Array(context.sentences.length);
  for (let s = 1; s < likeness.length; s += 1) likeness[s] = cosine(context.vectors, s - 1, context.vectors, s);
  return likeness;
}
