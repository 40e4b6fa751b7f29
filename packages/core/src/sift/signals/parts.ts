import type { SiftContext } from '../context.js';
import { Sums } from '../sums.js';
import { PART_WEIGHTS } from '../fitted.js';
import { tabulate } from '../tabulate.js';
import { type Role, roleAt, ROLES } from '../roles/roles.js';
import type { Tell } from '../../text/lists/tells.js';
import type { Run } from '../types.js';
import { inCut } from './signal.js';
import type { WordRange } from '../../transcript/types.js';

/**
 * One measured part of a signal. What one unit of it weighs in the signal's raw measure is data: see `PART_WEIGHTS`.
 * A part that depends on one sentence of the run, or is a rate or a mean of something over its sentences, says so by `of`:
 * all such parts of a signal are then weighed together, once for a recording instead of once for every run.
 */
export interface Part {
  readonly name: string;
  value(run: Run): number;
  readonly of?: { readonly form: 'first' | 'last' | 'rate' | 'mean'; readonly perSentence: Float64Array };
}

const STANDS_OUT = 'stands out';
/**
 * What one unit of standing out weighs in the raw measures of Stands alone, Substance and Charge. Set by judgement between two
 * aims: more of it ranks a recording's own passages better (`npm run bench -- flat`), and takes weight from what tells a dull
 * recording from a rich one. It is no part of Opening: one line tells little of it.
 */
const STAND_OUT_SHARE = 1;

/** A part read off the first sentence of a run. */
export function firstPart(context: SiftContext, name: string, value: (first: number) => number): Part {
  const perSentence = tabulate(context.sentences.length, value);
  return { name, value: (run) => perSentence[run.first]!, of: { form: 'first', perSentence } };
}

/** A part read off the last sentence of a run. */
export function lastPart(context: SiftContext, name: string, value: (last: number) => number): Part {
  const perSentence = tabulate(context.sentences.length, value);
  return { name, value: (run) => perSentence[run.end - 1]!, of: { form: 'last', perSentence } };
}

/** Something summed over the sentences of a run, for each of its words (and of the context's `graceWords`). */
function ratePart(context: SiftContext, name: string, perSentence: Float64Array): Part {
  const sums = new Sums(perSentence);
  return { name, value: (run) => sums.sum(run) / (context.wordCounts.sum(run) + context.graceWords), of: { form: 'rate', perSentence } };
}

/** Signals whose raw measure is a fitted sum of parts. */
export type MeasuredSignal = keyof typeof PART_WEIGHTS;

/** Share of the words of a run that are in sentences of a role, 0 to 1. */
export function rolePart(context: SiftContext, role: Role): Part {
  return ratePart(context, role, context.roleSums(role).values());
}

/** How far a run stands out from the recording's own ordinary talk: ten times the mean over its time, so that 1 is much. */
export function standOutPart(context: SiftContext): Part {
  const perSentence = context.standOut.map((value) => 10 * value);
  const mean = meanOf(context, perSentence);
  return { name: STANDS_OUT, value: mean, of: { form: 'mean', perSentence } };
}

/** The mean of something over the time of a run. */
function meanOf(context: SiftContext, perSentence: Float64Array): (run: Run) => number {
  const times = context.sentences.map(({ startMs, endMs }) => endMs - startMs);
  const sums = new Sums(times.map((time, s) => perSentence[s]! * time));
  const time = new Sums(times);
  return (run) => sums.sum(run) / time.sum(run);
}

/** Hits of a tell for every ten words of a run. */
export function tellPart(context: SiftContext, tell: Tell): Part {
  const perSentence = tabulate(context.sentences.length, (s) => 10 * context.count(tell, { first: s, end: s + 1 }));
  return ratePart(context, `${tell} words`, perSentence);
}

/** Things counted in each sentence, for every ten words of a run. */
export function countedPart(context: SiftContext, name: string, test: (word: number) => boolean): Part {
  const perSentence = tabulate(context.sentences.length, (s) => {
    const { firstWord, endWord } = context.sentences[s]!;
    let n = 0;
    for (let i = firstWord; i < endWord; i += 1) if (test(i)) n += 1;
    return 10 * n;
  });
  return ratePart(context, name, perSentence);
}

/** Probability of a role in one sentence. */
export const roleIn = (context: SiftContext, s: number, role: Role): number => context.roles[s * ROLES.length + roleAt(role)]!;

/** Raw measure of a signal for any run, and what one sentence gives it for each of its words, as far as it is a rate. */
export interface Raw {
  (run: Run): number;
  readonly perWord: (s: number) => number;
}

/** Raw measure of a signal: its parts, each times its fitted weight. Constant time for a run, however many parts there are. */
export function rawOf(context: SiftContext, signal: MeasuredSignal, parts: readonly Part[]): Raw {
  const weighed = {
    first: new Float64Array(context.sentences.length),
    last: new Float64Array(context.sentences.length),
    rate: new Float64Array(context.sentences.length),
    mean: new Float64Array(context.sentences.length),
  };
  const others: { weight: number; part: Part }[] = [];
  for (const part of parts) {
    const weight = weightOf(signal, part.name);
    if (weight === 0) continue;
    if (part.of === undefined) others.push({ weight, part });
    else {
      const into = weighed[part.of.form];
      for (let s = 0; s < into.length; s += 1) into[s]! += weight * part.of.perSentence[s]!;
    }
  }
  const { first, last } = weighed;
  const rate = new Sums(weighed.rate);
  const mean = meanOf(context, weighed.mean);
  const raw = (run: Run): number => {
    let sum = first[run.first]! + last[run.end - 1]! + rate.sum(run) / (context.wordCounts.sum(run) + context.graceWords) + mean(run);
    for (let p = 0; p < others.length; p += 1) sum += others[p]!.weight * others[p]!.part.value(run);
    return sum;
  };
  const perWord = (s: number): number => weighed.rate[s]! / Math.max(1, wordsIn(context, s)) + weighed.mean[s]!;
  return Object.assign(raw, { perWord });
}

export function weightOf(signal: MeasuredSignal, part: string): number {
  return part === STANDS_OUT ? STAND_OUT_SHARE : ((PART_WEIGHTS[signal] as Readonly<Record<string, number>>)[part] ?? 0);
}

/** Taking out a sentence that is hardly richer than the rest would change nothing. */
const PLAINLY = 0.03;

/**
 * The sentences of a run that give most of a signal by their roles, best first. Only those richer than the run as a whole,
 * so that without them less would be left.
 */
export function richestSentences(context: SiftContext, run: Run, signal: MeasuredSignal, raw: Raw, roles: readonly Role[], most: number): number[] {
  const weights = roles.map((role) => Math.max(0, weightOf(signal, role)));
  const places = roles.map(roleAt);
  const worths = tabulate(run.end - run.first, (k) => {
    let sum = 0;
    for (let r = 0; r < places.length; r += 1) sum += weights[r]! * context.roles[(run.first + k) * ROLES.length + places[r]!]!;
    return sum;
  });
  const worth = (s: number): number => worths[s - run.first]!;
  const mean = meanByWords(context, run, worth);
  return richerThanUsual(context, run, raw)
    .filter((s) => worth(s) > Math.max(0.3, mean))
    .sort((a, b) => worth(b) * Math.sqrt(wordsIn(context, b)) - worth(a) * Math.sqrt(wordsIn(context, a)) || a - b)
    .slice(0, most);
}

/** From this on a sentence stands out: a tenth of the best grade above the recording's own mean. */
const STANDS_OUT_FROM = 0.1;

/** The sentences of a run that stand out most of the recording's own talk, best first, where the signal would be poorer without. */
export function standingOut(context: SiftContext, run: Run, raw: Raw, most: number): number[] {
  const { standOut } = context;
  return richerThanUsual(context, run, raw)
    .filter((s) => standOut[s]! > STANDS_OUT_FROM)
    .sort((a, b) => standOut[b]! - standOut[a]! || a - b)
    .slice(0, most);
}

/** Sentences without which less of a signal would be left for each word. */
function richerThanUsual(context: SiftContext, run: Run, raw: Raw): number[] {
  const usual = meanByWords(context, run, raw.perWord);
  const inside = Array.from({ length: run.end - run.first }, (_, k) => run.first + k);
  return inside.filter((s) => raw.perWord(s) > usual + PLAINLY * Math.abs(usual));
}

const wordsIn = (context: SiftContext, s: number): number => context.sentences[s]!.endWord - context.sentences[s]!.firstWord;

function meanByWords(context: SiftContext, run: Run, value: (s: number) => number): number {
  let [sum, words] = [0, 0];
  for (let s = run.first; s < run.end; s += 1) {
    sum += value(s) * wordsIn(context, s);
    words += wordsIn(context, s);
  }
  return sum / words;
}

/** The most probable of some roles in a sentence. */
export function leadingRole(context: SiftContext, s: number, among: readonly Role[]): Role {
  return among.reduce((best, role) => (roleIn(context, s, role) > roleIn(context, s, best) ? role : best));
}

/** The words of a sentence of a run, as far as they are in its cut. */
export function wordsOf(context: SiftContext, run: Run, s: number): WordRange {
  return inCut(context, run, context.sentences[s]!);
}
