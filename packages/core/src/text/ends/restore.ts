import type { Word, WordTimes } from '../../transcript/types.js';
import { CANNOT_END } from '../lists/talk.js';
import type { PartOfSpeech, PosTagger } from '../tagger.js';
import { hasCapitals, learnCapitals, type Shape, shapesOf } from './capitals.js';
import { type GapReading, readGaps } from './gap-model.js';
import { type Heard, heardWith, pauseBefore } from './heard.js';
import { learnPauses } from './pauses.js';
import { normalise } from '../normalise.js';

/**
 * Ends of the sentences in stretches of words that have none written, each from word `first` to `end` (not inside), in order.
 * What the words say is weighed with capitals and pauses, whose weight is learned from all stretches together; then the best
 * ends of each stretch are found.
 */
export function restoreEnds(
  words: readonly Word[],
  bare: readonly (readonly [number, number])[],
  tagger: PosTagger,
  { wordTimes, lineStarts }: { readonly wordTimes: WordTimes; readonly lineStarts: ReadonlySet<number> },
): number[] {
  if (bare.length === 0) return [];
  const stretches = withCapitals(
    bare.map(([first, end]) => readStretch(words, first, end, tagger)),
    shapesOf(words, lineStarts),
  );
  const heard = hearPauses(words, stretches, wordTimes);
  const lean = LEAN + expectedLean(stretches, heard);
  return stretches.flatMap((stretch) => bestEnds(stretch, heard, lean));
}

const MAX_RESTORED = 60;

/** What it costs to make one more sentence of `n` words: short ones need strong ends, long ones grow ever less likely. */
function lengthCost(n: number): number {
  if (n <= 2) return 1.1;
  if (n <= 4) return 0.35;
  if (n <= 16) return 0;
  return (n - 16) * 0.035;
}

const LENGTH_COSTS = Float64Array.from({ length: MAX_RESTORED + 1 }, (_, n) => lengthCost(n));

/** How far the sum leans towards an end beyond what is expected to be best, and what a sentence without a verb costs. */
const LEAN = 0.25;
const VERBLESS = 0.8;

/** A stretch of words without written ends: its words as read, their parts of speech, and what these say of the gap before each. */
interface Stretch {
  readonly first: number;
  readonly end: number;
  readonly texts: readonly string[];
  readonly tags: readonly PartOfSpeech[];
  readonly gaps: readonly GapReading[];
}

const NO_GAP: GapReading = { end: 0, clause: 0 };

function readStretch(words: readonly Word[], first: number, end: number, tagger: PosTagger): Stretch {
  const texts: string[] = [];
  for (let i = first; i < end; i += 1) texts.push(normalise(words[i]!.text));
  const tags = tagger(texts);
  const read = readGaps(texts, tags);
  return { first, end, texts, tags, gaps: texts.map((_, k) => (k === 0 ? NO_GAP : read(k))) };
}

/** What capitals tell is learned from all the stretches together, and added to what the words say. */
function withCapitals(stretches: readonly Stretch[], shapes: readonly Shape[]): readonly Stretch[] {
  if (!hasCapitals(shapes)) return stretches;
  const gapsOf = <T>(value: (stretch: Stretch, k: number) => T): T[] =>
    stretches.flatMap((stretch) => stretch.gaps.slice(1).map((_, k) => value(stretch, k + 1)));
  const told = learnCapitals(
    gapsOf(({ gaps }, k) => gaps[k]!),
    gapsOf(({ first }, k) => shapes[first + k]!),
  );
  return stretches.map((stretch) => ({
    ...stretch,
    gaps: stretch.gaps.map((gap, k) => (k === 0 ? gap : { ...gap, end: gap.end + told(shapes[stretch.first + k]!) })),
  }));
}

/** How much pauses tell is learned from all the stretches together. */
function hearPauses(words: readonly Word[], stretches: readonly Stretch[], wordTimes: WordTimes): Heard {
  const readings: GapReading[] = [];
  const pauses: number[] = [];
  for (const { first, end, gaps } of stretches) {
    for (let i = first + 1; i < end; i += 1) {
      if (words[i]!.kind === 'mark' || words[i - 1]!.kind === 'mark') continue;
      readings.push(gaps[i - first]!);
      pauses.push(pauseBefore(words, i));
    }
  }
  return heardWith(words, learnPauses(readings, pauses), wordTimes);
}

/** No end is set that is less probable, however little a few words tell. */
const LEAST_FROM = 0.25;

/**
 * How far to lean towards an end for the best F1 that can be expected: an end is worth setting from a probability of F1 / 2
 * on (Lipton, Elkan & Narayanaswamy 2014), and the less is known, the lower that is.
 */
function expectedLean(stretches: readonly Stretch[], heard: Heard): number {
  const counts = new Float64Array(101);
  const sums = new Float64Array(101);
  let all = 0;
  for (const { first, end, gaps } of stretches) {
    for (let i = first + 1; i < end; i += 1) {
      const gap = gaps[i - first]!;
      const p = 1 / (1 + Math.exp(-gap.end - heard(i, gap.clause)));
      counts[Math.floor(100 * p)]! += 1;
      sums[Math.floor(100 * p)]! += p;
      all += p;
    }
  }
  let [taken, right, best] = [0, 0, 0];
  for (let c = 100; c >= 0; c -= 1) {
    taken += counts[c]!;
    right += sums[c]!;
    best = Math.max(best, (2 * right) / (taken + all));
  }
  const from = Math.min(0.5, Math.max(LEAST_FROM, best / 2));
  return -Math.log(from / (1 - from));
}

/**
 * Best ends for a stretch without written ones: dynamic programming over the strengths of the gaps less the cost of each
 * length. O(n × 60).
 */
function bestEnds({ first, end, texts, tags, gaps }: Stretch, heard: Heard, lean: number): number[] {
  const verbs = new Int32Array(texts.length + 1);
  tags.forEach((tag, i) => (verbs[i + 1] = verbs[i]! + (tag === 'VERB' || tag === 'AUX' || texts[i]!.includes("'") ? 1 : 0)));
  const n = end - first;
  const best = new Float64Array(n + 1).fill(-Infinity);
  const back = new Int32Array(n + 1);
  best[0] = 0;
  for (let to = 1; to <= n; to += 1) {
    const strength = to === n ? 0 : gaps[to]!.end + heard(first + to, gaps[to]!.clause) + lean - (CANNOT_END.has(texts[to - 1]!) ? 1.5 : 0);
    for (let from = Math.max(0, to - MAX_RESTORED); from < to; from += 1) {
      const value = best[from]! + strength - LENGTH_COSTS[to - from]! - (verbs[to] === verbs[from] ? VERBLESS : 0);
      if (value > best[to]!) {
        best[to] = value;
        back[to] = from;
      }
    }
  }
  const ends: number[] = [];
  for (let to = n; to > 0; to = back[to]!) ends.push(first + to);
  return ends.reverse();
}
