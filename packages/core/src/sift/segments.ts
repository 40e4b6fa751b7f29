import type { Sentence } from '../transcript/types.js';
import { LONG_ROWS, type PrefixSums } from './prefix-sums.js';
import { tabulate } from './tabulate.js';

interface SegmentOptions {
  /** Shortest segment in ms. Default 45_000: a chapter shorter than that is a detour. */
  shortestMs?: number;
  /** Segments are at most this long, in ms. Default 480_000. */
  longestMs?: number;
  /** What a segment must gain to stand by itself, for each nat that it takes to say where it begins. Default `PRICE`. */
  price?: number;
}

/**
 * What one more segment must gain. Sentences that have nothing in common gain 1 for each segment they are cut into,
 * wherever that is, and the best of many places to cut gains more by luck alone. To say where among n sentences a segment
 * begins takes ln n nats, so that is its price (minimum description length, Rissanen 1978), times how much a gain of
 * likeness is worth in nats, which is set on joined texts (bench/segments.mjs). So the number of segments follows from
 * the text, a long recording is not cut finely, and sentences in no order at all are hardly cut.
 */
export const PRICE = 0.355;
/** The same where likeness is that of shared words, which says less. */
export const PRICE_BY_WORDS = 0.27;

/**
 * Topic segments: the division of the sentences that keeps each segment closest to its own mean, at a fixed price for
 * each segment. What all of the recording has in common is taken out of the vectors first; then a segment of n unit
 * vectors gains |their sum|²/n, which for sentences without anything in common is 1 however long it is, so that long and
 * short segments are judged alike. Sums over prefixes make each try cheap. Exact by dynamic programming over ends
 * (Utiyama & Isahara 2001 use the same form with word probabilities).
 * @param sums of the sentences' vectors, see `foldedSums`
 * @returns first sentences of the segments, the first one 0; empty when there are no sentences
 */
export function segmentSentences(sentences: readonly Sentence[], sums: PrefixSums, options: SegmentOptions = {}): number[] {
  const n = sentences.length;
  if (n === 0) return [];
  const resolved = { shortestMs: options.shortestMs ?? 45_000, longestMs: options.longestMs ?? 480_000, price: (options.price ?? PRICE) * Math.log(n) };
  return divide(sentences, sums, resolved);
}

/**
 * The best division: for each gap where a segment may end, the best place where it begins. A start is given up for all ends
 * behind a gap where it did worse, even without the price, than the best there: cutting at that gap serves them better,
 * since two parts never gain less than they do as one (pruning as in PELT, Killick, Fearnhead & Eckley 2012; still exact).
 */
function divide(sentences: readonly Sentence[], sums: PrefixSums, { shortestMs, longestMs, price }: Required<SegmentOptions>): number[] {
  const n = sentences.length;
  const gaps = likelyGaps(sums, n);
  const last = gaps.length - 1;
  const startMs = Float64Array.from(gaps, (gap) => sentences[gap]?.startMs ?? Infinity);
  const best = new Float64Array(gaps.length).fill(-Infinity);
  const back = new Int32Array(gaps.length).fill(-1);
  best[0] = 0;
  const starts: Starts = { rows: new Int32Array(gaps.length), values: new Float64Array(gaps.length), size: 0 };
  const givenUpFromMs = new Float64Array(gaps.length).fill(Infinity);
  let next = 0;
  for (let end = 1; end <= last; end += 1) {
    const endMs = sentences[gaps[end]! - 1]!.endMs;
    for (; next < end && (endMs - startMs[next]! >= shortestMs || (next === 0 && end === last)); next += 1) {
      if (best[next]! > -Infinity) starts.rows[starts.size++] = next;
    }
    keepStarts(starts, (first) => (endMs - startMs[first]! <= longestMs || first === end - 1) && endMs < givenUpFromMs[first]!);
    valueStarts(starts, sums, gaps, best, end);
    for (let k = 0; k < starts.size; k += 1) {
      if (starts.values[k]! - price > best[end]!) [best[end], back[end]] = [starts.values[k]! - price, starts.rows[k]!];
    }
    for (let k = 0; k < starts.size; k += 1) {
      const first = starts.rows[k]!;
      if (starts.values[k]! < best[end]! - 1e-9) givenUpFromMs[first] = Math.min(givenUpFromMs[first]!, startMs[end]! + shortestMs);
    }
  }
  if (back[last] === -1) return [0];
  const found: number[] = [];
  for (let end = last; end > 0; end = back[end]!) found.push(gaps[back[end]!]!);
  return found.reverse();
}

/** Starts that are still of use, and what a segment from each is worth, with all before it, without its price. */
interface Starts {
  readonly rows: Int32Array;
  readonly values: Float64Array;
  size: number;
}

function keepStarts(starts: Starts, useful: (first: number) => boolean): void {
  let kept = 0;
  for (let k = 0; k < starts.size; k += 1) if (useful(starts.rows[k]!)) starts.rows[kept++] = starts.rows[k]!;
  starts.size = kept;
}

function valueStarts({ rows, values, size }: Starts, sums: PrefixSums, gaps: Int32Array, best: Float64Array, end: number): void {
  for (let k = 0; k < size; k += 1) {
    const first = rows[k]!;
    values[k] = best[first]! + sums.square(gaps[first]!, gaps[end]!) / (gaps[end]! - gaps[first]!);
  }
}

/** Sentences on each side of a gap that are held against each other. */
const BLOCK = 3;
/** Every gap of a text this short is tried. */
const FEW_SENTENCES = 20;
/** Share of the gaps of a longer one that are tried, and of a very long one. */
const TRIED = 0.5;
const TRIED_LONG = 0.33;

/**
 * The gaps where a segment may begin, both ends of the text among them: those across which the talk is least alike, by
 * blocks of sentences on each side as in Hearst (1997). Trying half of the gaps takes a quarter of the time, and
 * bench/segments.mjs shows hardly a loss.
 */
function likelyGaps(sums: PrefixSums, n: number): Int32Array {
  if (n <= FEW_SENTENCES) return Int32Array.from({ length: n + 1 }, (_, gap) => gap);
  const likeness = tabulate(n + 1, (gap) => sums.product(Math.max(0, gap - BLOCK), gap, Math.min(n, gap + BLOCK)));
  const threshold = likeness.slice(1, n).sort()[Math.floor((n > LONG_ROWS ? TRIED_LONG : TRIED) * (n - 1))]!;
  const tried: number[] = [0];
  for (let gap = 1; gap < n; gap += 1) if (likeness[gap]! <= threshold) tried.push(gap);
  tried.push(n);
  return Int32Array.from(tried);
}
