import { type Chance, seededChance } from '../math/chance.js';

/** Runs of one recording: a row of measured values each, and how good each is, the higher the better. */
interface RankedSet {
  readonly values: Float32Array;
  readonly worth: readonly number[];
}

interface PairwiseOptions {
  /** Weights to stay near; their signs are kept, 0 is free. */
  readonly prior: readonly number[];
  /** A weight never falls below this share of its prior, 0 to 1: few recordings are too few to say that a part is worth nothing. */
  readonly least: number;
  /** How strongly weights are held to the prior, > 0. */
  readonly hold: number;
  /** Two runs are compared when their worth differs by at least this much. */
  readonly apart: number;
  readonly pairs: number;
  readonly steps: number;
  readonly seed: number;
}

/**
 * Linear weights that put better runs above worse ones: pairwise logistic loss (RankNet's, Burges et al. 2005) over pairs
 * drawn evenly from each recording, pulled towards prior weights, signs kept. Values are judged in units of their spread,
 * so that parts of different size are held alike.
 */
export function fitPairwise(sets: readonly RankedSet[], options: PairwiseOptions): number[] {
  const n = options.prior.length;
  const spread = spreads(sets, n);
  const differences = drawPairs(sets, n, options, seededChance(options.seed));
  const prior = options.prior.map((weight, p) => weight * spread[p]!);
  const weights = [...prior];
  const gradient = new Float64Array(n);
  const rows = differences.length / n;
  for (let step = 0; step < options.steps; step += 1) {
    gradient.fill(0);
    for (let r = 0; r < rows; r += 1) {
      let margin = 0;
      for (let p = 0; p < n; p += 1) margin += (weights[p]! * differences[r * n + p]!) / spread[p]!;
      const slope = -1 / (1 + Math.exp(margin));
      for (let p = 0; p < n; p += 1) gradient[p]! += (slope * differences[r * n + p]!) / spread[p]! / rows;
    }
    const rate = 0.6 / (1 + step / 60);
    for (let p = 0; p < n; p += 1) {
      const moved = weights[p]! - rate * (gradient[p]! + options.hold * (weights[p]! - prior[p]!));
      const least = options.least * prior[p]!;
      weights[p] = prior[p] === 0 ? moved : prior[p]! > 0 ? Math.max(least, moved) : Math.min(least, moved);
    }
  }
  return weights.map((weight, p) => weight / spread[p]!);
}

function spreads(sets: readonly RankedSet[], n: number): number[] {
  return Array.from({ length: n }, (_, p) => {
    let sum = 0;
    let square = 0;
    let count = 0;
    for (const { values, worth } of sets) {
      for (let r = 0; r < worth.length; r += 1) {
        const value = values[r * n + p]!;
        sum += value;
        square += value * value;
        count += 1;
      }
    }
    return Math.max(1e-3, Math.sqrt(Math.max(0, square / count - (sum / count) ** 2)));
  });
}

/** Rows of value differences, better minus worse. */
function drawPairs(sets: readonly RankedSet[], n: number, options: PairwiseOptions, chance: Chance): Float32Array {
  const each = Math.floor(options.pairs / sets.length);
  const out: number[] = [];
  for (const { values, worth } of sets) {
    for (let drawn = 0, tries = 0; drawn < each && tries < 40 * each; tries += 1) {
      const a = Math.floor(chance() * worth.length);
      const b = Math.floor(chance() * worth.length);
      if (worth[a]! - worth[b]! < options.apart) continue;
      for (let p = 0; p < n; p += 1) out.push(values[a * n + p]! - values[b * n + p]!);
      drawn += 1;
    }
  }
  return Float32Array.from(out);
}
