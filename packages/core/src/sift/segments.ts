import type { Sentence } from '../transcript/types.js';
import { scaleToUnit } from './lexical-vectors.js';
import { tabulate } from './tabulate.js';
import type { Vectors } from './types.js';

export interface SegmentOptions {
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
 * @returns first sentences of the segments, the first one 0; empty when there are no sentences
 */
export function segmentSentences(sentences: readonly Sentence[], vectors: Vectors, options: SegmentOptions = {}): number[] {
  const n = sentences.length;
  if (n === 0) return [];
  const resolved = { shortestMs: options.shortestMs ?? 45_000, longestMs: options.longestMs ?? 480_000, price: (options.price ?? PRICE) * Math.log(n) };
  return divide(sentences, fold(vectors), resolved);
}

/**
 * Segments are sums of many vectors, so a coarse picture of each is enough, in a part of the time; a recording of more
 * sentences gets a coarser one and fewer gaps are tried, to keep its time near that of the rest.
 */
const FOLDED = 192;
const FOLDED_LONG = 96;
const LONG_ROWS = 600;

/**
 * Vectors folded to at most `FOLDED` numbers: each place is added to another with a fixed sign (the count sketch of
 * Charikar, Chen & Farach-Colton 2002), which keeps inner products on average. See bench/segments.mjs and bench/text.mjs.
 */
function fold(vectors: Vectors): Vectors {
  const { dimensions, data } = vectors;
  const rows = data.length / dimensions;
  const most = rows > LONG_ROWS ? FOLDED_LONG : FOLDED;
  const size = Math.min(most, dimensions);
  const folded = new Float32Array(rows * size);
  const place = Int32Array.from({ length: dimensions }, (_, d) => (dimensions <= most ? d : (Math.imul(d + 1, 0x9e3779b1) >>> 8) % most));
  const sign = Int8Array.from({ length: dimensions }, (_, d) => (dimensions <= most || Math.imul(d + 1, 0x85ebca6b) & 0x40000000 ? 1 : -1));
  for (let row = 0, from = 0; row < rows; row += 1, from += dimensions) {
    for (let d = 0; d < dimensions; d += 1) {
      const value = data[from + d]!;
      if (value !== 0) folded[row * size + place[d]!]! += sign[d]! * value; // vectors by words are mostly 0
    }
  }
  takeOutCommon(folded, rows, size);
  return { dimensions: size, data: folded };
}

/** How much of what all sentences have in common is taken out; a little is left, so that a recording on one thing stays whole. */
const COMMON = 0.7;

function takeOutCommon(data: Float32Array, rows: number, size: number): void {
  const mean = new Float64Array(size);
  for (let at = 0; at < rows * size; at += size) for (let d = 0; d < size; d += 1) mean[d]! += data[at + d]!;
  for (let d = 0; d < size; d += 1) mean[d]! *= COMMON / rows;
  for (let row = 0; row < rows; row += 1) {
    const vector = data.subarray(row * size, (row + 1) * size);
    for (let d = 0; d < size; d += 1) vector[d]! -= mean[d]!;
    scaleToUnit(vector);
  }
}

/** The best division: for each gap where a segment may end, the best place where it begins. */
function divide(sentences: readonly Sentence[], vectors: Vectors, { shortestMs, longestMs, price }: Required<SegmentOptions>): number[] {
  const n = sentences.length;
  const sums = new PrefixSums(vectors, n);
  const gaps = likelyGaps(sums, n);
  const startMs = (g: number): number => sentences[gaps[g]!]!.startMs;
  const last = gaps.length - 1;
  const best = new Float64Array(gaps.length).fill(-Infinity);
  const back = new Int32Array(gaps.length).fill(-1);
  best[0] = 0;
  let lowest = 0;
  for (let end = 1; end <= last; end += 1) {
    const endMs = sentences[gaps[end]! - 1]!.endMs;
    while (lowest + 1 < end && endMs - startMs(lowest) > longestMs) lowest += 1;
    for (let first = lowest; first < end; first += 1) {
      if (endMs - startMs(first) < shortestMs && !(first === 0 && end === last)) break;
      if (best[first] === -Infinity) continue;
      const value = best[first]! + sums.square(gaps[first]!, gaps[end]!) / (gaps[end]! - gaps[first]!) - price;
      if (value > best[end]!) {
        best[end] = value;
        back[end] = first;
      }
    }
  }
  if (back[last] === -1) return [0];
  const starts: number[] = [];
  for (let end = last; end > 0; end = back[end]!) starts.push(gaps[back[end]!]!);
  return starts.reverse();
}

/** Sums of the vectors of the first sentences: row `s` holds those before sentence `s`. */
class PrefixSums {
  private readonly totals: Float64Array;
  private readonly squares: Float64Array;
  private readonly size: number;

  constructor({ dimensions, data }: Vectors, n: number) {
    this.size = dimensions;
    this.totals = new Float64Array((n + 1) * dimensions);
    for (let i = 0; i < n * dimensions; i += 1) this.totals[i + dimensions] = this.totals[i]! + data[i]!;
    this.squares = tabulate(n + 1, (s) => this.dot(s, s));
  }

  /** Square of the length of the sum of the vectors of sentences `first` to `end` (not inside). */
  square(first: number, end: number): number {
    return this.squares[end]! + this.squares[first]! - 2 * this.dot(first, end);
  }

  /** Inner product of the sums before two sentences. Four sums side by side do not wait for each other. */
  dot(a: number, b: number): number {
    const { totals, size } = this;
    let w = 0;
    let x = 0;
    let y = 0;
    let z = 0;
    let d = 0;
    for (let i = a * size, k = b * size; d + 3 < size; d += 4, i += 4, k += 4) {
      w += totals[i]! * totals[k]!;
      x += totals[i + 1]! * totals[k + 1]!;
      y += totals[i + 2]! * totals[k + 2]!;
      z += totals[i + 3]! * totals[k + 3]!;
    }
    for (; d < size; d += 1) w += totals[a * size + d]! * totals[b * size + d]!;
    return w + x + (y + z);
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
  const likeness = tabulate(n + 1, (gap) => {
    const [from, to] = [Math.max(0, gap - BLOCK), Math.min(n, gap + BLOCK)];
    // (gap − from) · (to − gap), written out in the inner products of the prefix sums.
    return sums.dot(gap, to) - sums.dot(gap, gap) - sums.dot(from, to) + sums.dot(from, gap);
  });
  const threshold = likeness.slice(1, n).sort()[Math.floor((n > LONG_ROWS ? TRIED_LONG : TRIED) * (n - 1))]!;
  const tried: number[] = [0];
  for (let gap = 1; gap < n; gap += 1) if (likeness[gap]! <= threshold) tried.push(gap);
  tried.push(n);
  return Int32Array.from(tried);
}
