import type { Sentence } from '../transcript/types.js';
import { scaleToUnit } from './lexical-vectors.js';
import type { Vectors } from './types.js';

export interface SegmentOptions {
  /** Shortest segment in ms. Default 45_000: a chapter shorter than that is a detour. */
  shortestMs?: number;
  /** Segments are at most this long, in ms. Default 480_000. */
  longestMs?: number;
  /** Wished mean length, in ms; the price of a boundary is set so that it comes out near it. Default 200_000. */
  wishedMs?: number;
}

/**
 * Topic segments: the division of the sentences that keeps each segment closest to its own mean, at a fixed price for
 * each segment. What all of the recording has in common is taken out of the vectors first; then a segment of n unit
 * vectors gains |their sum|²/n, which for sentences without anything in common is 1 however long it is, so that long and
 * short segments are judged alike. Sums over prefixes make each try cheap. The price is found by bisection, so that the
 * mean length comes near what was wished. Exact by dynamic programming over ends (Utiyama & Isahara 2001 use the same
 * form with word probabilities).
 * @returns first sentences of the segments, the first one 0; empty when there are no sentences
 */
export function segmentSentences(sentences: readonly Sentence[], vectors: Vectors, options: SegmentOptions = {}): number[] {
  const n = sentences.length;
  if (n === 0) return [];
  const resolved = { shortestMs: options.shortestMs ?? 45_000, longestMs: options.longestMs ?? 480_000, wishedMs: options.wishedMs ?? 200_000 };
  const lengthMs = sentences[n - 1]!.endMs - sentences[0]!.startMs;
  const wished = Math.max(1, Math.round(lengthMs / resolved.wishedMs));
  if (wished === 1) return [0];
  const losses = segmentLosses(sentences, fold(vectors), resolved);
  let low = 0;
  let high = n;
  let best = divide(losses, n, low);
  for (let step = 0; step < 12; step += 1) {
    const price = (low + high) / 2;
    const starts = divide(losses, n, price);
    if (Math.abs(starts.length - wished) < Math.abs(best.length - wished)) best = starts;
    if (starts.length > wished) low = price;
    else if (starts.length < wished) high = price;
    else break;
  }
  return best;
}

/**
 * Segments are sums of many vectors, so a coarse picture of each is enough, in a part of the time; a long recording gets a
 * coarser one, to keep its time near that of the rest.
 */
const FOLDED = 128;
const FOLDED_LONG = 64;
const LONG_ROWS = 1_500;

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
  for (let row = 0; row < rows; row += 1) {
    for (let d = 0; d < dimensions; d += 1) folded[row * size + place[d]!]! += sign[d]! * data[row * dimensions + d]!;
  }
  takeOutCommon(folded, rows, size);
  return { dimensions: size, data: folded };
}

/** How much of what all sentences have in common is taken out; a little is left, so that a recording on one thing stays whole. */
const COMMON = 0.7;

function takeOutCommon(data: Float32Array, rows: number, size: number): void {
  const mean = new Float64Array(size);
  for (let i = 0; i < data.length; i += 1) mean[i % size]! += data[i]! / rows;
  for (let row = 0; row < rows; row += 1) {
    const vector = data.subarray(row * size, (row + 1) * size);
    for (let d = 0; d < size; d += 1) vector[d]! -= COMMON * mean[d]!;
    scaleToUnit(vector);
  }
}

/** For each end (exclusive), the first sentence of each allowed segment and its loss. */
interface Losses {
  readonly firsts: Int32Array[];
  readonly values: Float64Array[];
}

function segmentLosses(sentences: readonly Sentence[], vectors: Vectors, options: Required<SegmentOptions>): Losses {
  const { dimensions } = vectors;
  const n = sentences.length;
  const totals = prefixSums(vectors, n);
  const gaps = likelyGaps(totals, dimensions, n);
  const firsts: Int32Array[] = [new Int32Array(0)];
  const values: Float64Array[] = [new Float64Array(0)];
  for (let end = 1; end <= n; end += 1) {
    const found: number[] = [];
    const loss: number[] = [];
    if (gaps[end] === 1) {
      const endMs = sentences[end - 1]!.endMs;
      for (let first = end - 1; first >= 0; first -= 1) {
        if (gaps[first] === 0) continue;
        const lengthMs = endMs - sentences[first]!.startMs;
        if (lengthMs > options.longestMs && found.length > 0) break;
        if (lengthMs < options.shortestMs && !(first === 0 && end === n)) continue;
        found.push(first);
        loss.push(-squareBetween(totals, dimensions, first, end) / (end - first));
      }
    }
    firsts.push(Int32Array.from(found));
    values.push(Float64Array.from(loss));
  }
  return { firsts, values };
}

/** Sums of the vectors of the first sentences: row `s` holds those before sentence `s`. */
function prefixSums({ dimensions, data }: Vectors, n: number): Float64Array {
  const totals = new Float64Array((n + 1) * dimensions);
  for (let i = 0; i < n * dimensions; i += 1) totals[i + dimensions] = totals[i]! + data[i]!;
  return totals;
}

/** Square of the length of the sum of the vectors of sentences `first` to `end` (not inside). */
function squareBetween(totals: Float64Array, dimensions: number, first: number, end: number): number {
  const [a, b] = [first * dimensions, end * dimensions];
  let square = 0;
  for (let d = 0; d < dimensions; d += 1) {
    const part = totals[b + d]! - totals[a + d]!;
    square += part * part;
  }
  return square;
}

/** Sentences on each side of a gap that are held against each other. */
const BLOCK = 3;
/** Every gap of a text this short is tried. */
const FEW_SENTENCES = 20;
/** Share of the gaps of a longer one that are tried. */
const TRIED = 0.5;

/**
 * 1 for each gap where a segment may begin: those across which the talk is least alike, by blocks of sentences on each
 * side as in Hearst (1997). Trying half of the gaps takes a quarter of the time, and bench/segments.mjs shows no loss.
 */
function likelyGaps(totals: Float64Array, dimensions: number, n: number): Uint8Array {
  const gaps = new Uint8Array(n + 1).fill(n <= FEW_SENTENCES ? 1 : 0);
  gaps[0] = 1;
  gaps[n] = 1;
  if (n <= FEW_SENTENCES) return gaps;
  const likeness = Float64Array.from({ length: n + 1 }, (_, gap) => {
    const [from, to] = [Math.max(0, gap - BLOCK), Math.min(n, gap + BLOCK)];
    let dot = 0;
    for (let d = 0; d < dimensions; d += 1) {
      const middle = totals[gap * dimensions + d]!;
      dot += (middle - totals[from * dimensions + d]!) * (totals[to * dimensions + d]! - middle);
    }
    return dot;
  });
  const threshold = [...likeness.subarray(1, n)].sort((a, b) => a - b)[Math.floor(TRIED * (n - 1))]!;
  for (let gap = 1; gap < n; gap += 1) if (likeness[gap]! <= threshold) gaps[gap] = 1;
  return gaps;
}

function divide(losses: Losses, n: number, price: number): number[] {
  const best = new Float64Array(n + 1).fill(Infinity);
  const back = new Int32Array(n + 1).fill(-1);
  best[0] = 0;
  for (let end = 1; end <= n; end += 1) {
    const firsts = losses.firsts[end]!;
    const values = losses.values[end]!;
    for (let k = 0; k < firsts.length; k += 1) {
      const value = best[firsts[k]!]! + values[k]! + price;
      if (value < best[end]!) {
        best[end] = value;
        back[end] = firsts[k]!;
      }
    }
  }
  if (back[n] === -1) return [0];
  const starts: number[] = [];
  for (let end = n; end > 0; end = back[end]!) starts.push(back[end]!);
  return starts.reverse();
}
