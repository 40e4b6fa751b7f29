import { type SiftContext, hitsWithin, Sums } from '../context.js';
import { canClose, openingWord } from '../edges.js';
import { cosine } from '../lexical-vectors.js';
import { toScale } from '../scale.js';
import { ANAPHORA } from '../tells.js';
import type { Run, WordRange } from '../types.js';
import { quote, type Signal, tidyEvidence } from './signal.js';

/** A pause that lets a thought settle, in ms. */
const SETTLING_MS = 450;
/** Words a speaker closes a thought with. */
const CLOSING = /^(?:so|and so|that's|that is|and that|never|which is|end of|simple as|it's that|and it)/;

/** Stands alone: makes sense to a stranger, and finishes its thought. */
export function standsAlone(context: SiftContext): Signal {
  const backward = new Sums(context.sentences.map((_, s) => leansBack(context, s)));
  const flow = neighbourLikeness(context);
  const raw = (run: Run): number => {
    const last = run.end - 1;
    let sum = 0;
    sum += openingWord(context, run.first).dependent ? -1.3 : 0.5;
    sum += answersOutside(context, run) ? -1.2 : 0;
    sum += asksInside(context, run) ? 0.5 : 0;
    sum += endStrength(context, last);
    sum -= Math.min(1.5, backward.sum(run) * 0.5);
    sum -= run.first > 0 ? Math.max(0, flow[run.first]!) * 0.7 : 0; // much like the sentence before: we came in late
    sum -= last + 1 < context.sentences.length ? Math.max(0, flow[last + 1]!) * 0.7 : 0; // the next goes on with the same
    sum -= meanDull(context, run) * 2.5;
    return sum;
  };
  return {
    name: 'standsAlone',
    value: (run) => toScale(raw(run), 0.15, 1.55),
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
  const closed = endStrength(context, run.end - 1);
  const tail = closed >= 0.7 ? 'ends on a finished thought' : closed > 0 ? 'ends with its sentence' : 'breaks off at the end';
  if (closed > 0) evidence.push({ firstWord: Math.max(last.firstWord, last.endWord - 7), endWord: last.endWord });
  return { sentence: `${head}; ${tail}`, evidence: tidyEvidence(evidence) };
}

function meanDull(context: SiftContext, run: Run): number {
  let sum = 0;
  const n = run.end - run.first;
  // Long runs are judged by their ends, where dull talk does most harm; the score itself weighs all of it.
  const step = Math.max(1, Math.floor(n / 12));
  let taken = 0;
  for (let s = run.first; s < run.end; s += step) {
    sum += context.dull[s]!;
    taken += 1;
  }
  return sum / taken;
}

function leansBack(context: SiftContext, s: number): number {
  const { firstWord, endWord } = context.sentences[s]!;
  let sum = hitsWithin(context, { first: s, end: s + 1 }, ['backward']).length;
  const start = context.texts[firstWord]!;
  if (ANAPHORA.has(start) && endWord - firstWord < 4) sum += 0.1;
  return sum;
}

/** An answer without its question: the sentence before asks, in another voice, and the run starts after it. */
function answersOutside(context: SiftContext, run: Run): boolean {
  if (run.first === 0) return false;
  const before = context.sentences[run.first - 1]!;
  return asks(context, run.first - 1) && before.speaker !== context.sentences[run.first]!.speaker && before.endWord - before.firstWord > 2;
}

function asksInside(context: SiftContext, run: Run): boolean {
  for (let s = run.first; s < Math.min(run.first + 3, run.end - 1); s += 1) if (asks(context, s)) return true;
  return false;
}

export function asks(context: SiftContext, s: number): boolean {
  const { endWord } = context.sentences[s]!;
  return /\?["'”’)\]]*$/.test(context.words[endWord - 1]!.text);
}

function endStrength(context: SiftContext, s: number): number {
  if (!canClose(context, s)) return -1.2;
  if (asks(context, s)) return -0.6; // a question left open is no end
  const { endMs, firstWord, endWord } = context.sentences[s]!;
  const next = context.sentences[s + 1];
  let strength = 0.35;
  if (next === undefined || next.startMs - endMs >= SETTLING_MS) strength += 0.3;
  if (next !== undefined && next.speaker !== context.sentences[s]!.speaker) strength += 0.25;
  if (CLOSING.test(context.texts.slice(firstWord, firstWord + 2).join(' '))) strength += 0.3;
  if (context.words[endWord - 1]!.kind === 'mark') strength += 0.4; // the laugh that closes a joke
  if (endWord - firstWord <= 3) strength -= 0.25;
  if (next !== undefined && goesOn(context, s)) strength -= 0.7; // “…and they paid him nothing. | Because he swept it himself.”
  return strength;
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
