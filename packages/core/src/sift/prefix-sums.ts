import { addTimes, innerProduct64 } from './inner-product.js';
import { tabulate } from './tabulate.js';
import type { Vectors } from './types.js';

/** Sums of the vectors of the first sentences: row `s` holds those before sentence `s`. */
export class PrefixSums {
  private readonly totals: Float64Array;
  private readonly squares: Float64Array;
  private readonly size: number;
  /** The vector of the sentence that was asked for last. */
  private readonly row: Float64Array;
  private rowAt = -1;

  constructor({ dimensions, data }: Vectors, n: number) {
    this.size = dimensions;
    this.row = new Float64Array(dimensions);
    this.totals = new Float64Array((n + 1) * dimensions);
    for (let s = 0; s < n; s += 1) addRow(this.totals, data, s * dimensions, dimensions);
    this.squares = tabulate(n + 1, (s) => this.dot(s, s));
  }

  /** Square of the length of the sum of the vectors of sentences `first` to `end` (not inside). */
  square(first: number, end: number): number {
    return this.squares[end]! + this.squares[first]! - 2 * this.dot(first, end);
  }

  /** Inner product of the sums of what lies before a gap, from `from`, and behind it, to `to`. */
  product(from: number, gap: number, to: number): number {
    return this.dot(gap, to) - this.squares[gap]! - this.dot(from, to) + this.dot(from, gap);
  }

  /** Cosine of the vector of a sentence with the sum of those of sentences `first` to `end` (not inside); 0 where either is nothing. */
  likeness(s: number, first: number, end: number): number {
    if (this.rowAt !== s) {
      this.rowAt = s;
      for (let d = 0; d < this.size; d += 1) this.row[d] = this.totals[(s + 1) * this.size + d]! - this.totals[s * this.size + d]!;
    }
    const lengths = Math.sqrt(Math.max(0, this.square(first, end)) * Math.max(0, this.square(s, s + 1)));
    return lengths < 1e-9 ? 0 : (this.rowDot(end) - this.rowDot(first)) / lengths;
  }

  private rowDot(a: number): number {
    return a === 0 ? 0 : innerProduct64(this.row, 0, this.totals, a * this.size, this.size);
  }

  private dot(a: number, b: number): number {
    return innerProduct64(this.totals, a * this.size, this.totals, b * this.size, this.size);
  }
}

/** The next row of sums: those before, and the row of the vectors that begins at `at`. */
function addRow(totals: Float64Array, data: Float32Array, at: number, size: number): void {
  for (let i = at; i < at + size; i += 1) totals[i + size] = totals[i]! + data[i]!;
}

/**
 * Segments are sums of many vectors, so a coarse picture of each is enough, in a part of the time; a recording of more
 * sentences gets a coarser one and fewer gaps are tried, to keep its time near that of the rest.
 */
const FOLDED = 192;
const FOLDED_LONG = 64;
/** A recording of more sentences than this is a long one. */
export const LONG_ROWS = 600;

/** Prefix sums of vectors that are folded, and have what all of the recording has in common taken out of them. */
export function foldedSums(vectors: Vectors): PrefixSums {
  return new PrefixSums(fold(vectors), vectors.data.length / vectors.dimensions);
}

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
  for (let row = 0; row < rows; row += 1) foldRow(data, row * dimensions, folded, row * size, place, sign);
  takeOutCommon(folded, rows, size);
  return { dimensions: size, data: folded };
}

function foldRow(data: Float32Array, from: number, folded: Float32Array, to: number, place: Int32Array, sign: Int8Array): void {
  for (let d = 0; d < place.length; d += 1) {
    const value = data[from + d]!;
    if (value !== 0) folded[to + place[d]!]! += sign[d]! * value; // vectors by words are mostly 0
  }
}

/** Takes a mean out of the row that begins at `at`, and scales it to length 1; a row of nothing stays so. */
function takeOut(data: Float32Array, at: number, mean: Float64Array): void {
  const size = mean.length;
  let square = 0;
  for (let d = 0; d < size; d += 1) {
    const value = data[at + d]! - mean[d]!;
    data[at + d] = value;
    square += value * value;
  }
  if (square === 0) return;
  const factor = 1 / Math.sqrt(square);
  for (let d = 0; d < size; d += 1) data[at + d]! *= factor;
}

/** How much of what all sentences have in common is taken out; a little is left, so that a recording on one thing stays whole. */
const COMMON = 0.7;

function takeOutCommon(data: Float32Array, rows: number, size: number): void {
  const mean = new Float64Array(size);
  for (let row = 0; row < rows; row += 1) addTimes(data, row * size, COMMON / rows, mean, size);
  for (let row = 0; row < rows; row += 1) takeOut(data, row * size, mean);
}
