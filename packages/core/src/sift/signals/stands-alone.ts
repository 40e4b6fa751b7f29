import type { SiftContext } from '../context.js';
import { hitsWithin } from '../counted-hits.js';
import { Sums } from '../sums.js';
import { canClose, openingWord } from '../edges.js';
import { SCALES } from '../scales.js';
import { toScale } from '../scale.js';
import { ANAPHORA } from '../../text/lists/tells.js';
import type { Language } from '../../text/language-name.js';
import type { Run } from '../types.js';
import { answersOutside, type EndPart, endParts, type EndReading, goesOn, readEnds, startParts } from './ends.js';
import { firstPart, lastPart, type Part, rawOf, weightOf, wordsOf, standOutPart } from './parts.js';
import { hitsHeard, quote, type Signal } from './signal.js';
import type { WordRange } from '../../transcript/types.js';

/** Parts of Stands alone: a start that needs nothing before it, an end that needs nothing after, and no talk inside that points elsewhere. */
export function standsAloneParts(context: SiftContext, ends = readEnds(context)): Part[] {
  const { sentences } = context;
  const backward = new Sums(sentences.map((_, s) => leansBack(context, s)));
  const dull = new Sums(sentences.map(({ firstWord, endWord }, s) => context.dull[s]! * (endWord - firstWord)));
  const last = sentences.length - 1;
  return [
    standOutPart(context),
    ...startParts(context, ends).map(({ name, value }) => firstPart(context, name, (s) => value(s, s > 0 ? s - 1 : null))),
    { name: 'question inside', value: (run) => (asksInside(run, ends) ? 1 : 0) },
    { name: 'points back', value: (run) => Math.min(3, backward.sum(run)) },
    ...endParts(context, ends).map(({ name, value }) => lastPart(context, name, (s) => value(s, s < last ? s + 1 : null))),
    { name: 'dull inside', value: (run) => dull.sum(run) / Math.max(1, context.wordCounts.sum(run)) },
  ];
}

/** Stands alone: makes sense to a stranger, and finishes its thought. */
export function standsAlone(context: SiftContext): Signal {
  const ends = readEnds(context);
  const raw = rawOf(context, 'standsAlone', standsAloneParts(context, ends));
  return {
    name: 'standsAlone',
    value: (run) => toScale(raw(run), SCALES.standsAlone.ordinary, SCALES.standsAlone.rare),
    explain: (run) => explain(context, run, raw, ends),
  };
}

/** Raw measure by which a run must be poorer without its first or last sentence for that sentence to have earned the signal. */
const EARNED_FROM = 0.15;

/** A restored start as doubtful as this is said to be a guess. */
const GUESSED_FROM = 0.5;

function explain(context: SiftContext, run: Run, raw: (run: Run) => number, ends: EndReading): { sentence: string; evidence: WordRange[] } {
  if (context.language !== null) return { sentence: ofForeign(context.language, run, ends, canClose(context, run.end - 1)), evidence: [] };
  const start = openingWord(context, run.first);
  const leaning = hitsHeard(context, run, ['backward']);
  let head = 'Needs nothing said before';
  if (run.first > 0 && answersOutside(context, run.first, run.first - 1, ends.asks)) head = 'The question it answers is left outside';
  else if (start.dependent)
    head = `Leans on what came before: ${quote(context, { firstWord: start.word, endWord: Math.max(start.word + 2, start.leaning + 1) }, 12)}`;
  else if (context.quotations[run.first] === 1) head = 'Begins inside a quotation';
  else if (context.doubts[run.first]! > GUESSED_FROM) head = 'Where it begins is a guess, since no full stop is written before it';
  else if (leaning.length > 0) head = `Points back once it is under way: ${quote(context, leaning[0]!)}`;
  else if (asksInside(run, ends)) head = 'Keeps the question with its answer';
  const broken = !canClose(context, run.end - 1) || ends.asks(run.end - 1);
  const finished = !broken && !(run.end < context.sentences.length && goesOn(context, run.end - 1, run.end));
  const guessed = context.doubts[run.end]! > GUESSED_FROM;
  const tail = broken
    ? 'breaks off at the end'
    : context.quotations[run.end] === 1
      ? 'ends inside a quotation'
      : guessed
        ? 'where it ends is a guess'
        : finished
          ? 'ends on a finished thought'
          : 'ends with its sentence, though the thought goes on';
  return { sentence: `${head}; ${tail}`, evidence: earning(context, run, raw, ends) };
}

/** What can be said of the ends of talk that is not understood. */
function ofForeign({ name }: Language, run: Run, ends: EndReading, closes: boolean): string {
  const head = asksInside(run, ends) ? 'Keeps the question with what follows' : 'Begins with a sentence';
  return `${head}, ${closes ? 'ends with one' : 'breaks off at the end'}; what it leans on cannot be known in ${name}`;
}

/** The sentence at either end, or both, without which the run would stand alone less well. */
function earning(context: SiftContext, run: Run, raw: (run: Run) => number, reading: EndReading): WordRange[] {
  const [starts, ends] = [startParts(context, reading), endParts(context, reading)];
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
  const end = wordsOf(context, run, run.end - 1);
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

function asksInside(run: Run, { asks }: EndReading): boolean {
  for (let s = run.first; s < Math.min(run.first + 3, run.end - 1); s += 1) if (asks(s)) return true;
  return false;
}
