import { overlaps, spanMs } from '../time/span.js';
import { SIGNALS, type SignalName } from './types.js';

/** What a comparison reads of a candidate. */
interface Comparable {
  readonly rank: number;
  readonly startMs: number;
  readonly endMs: number;
  readonly score: number;
  /** Six values of 0 to 100, in the order of the signals. */
  readonly values: readonly number[];
}

export interface SiftSide {
  readonly candidates: readonly Comparable[];
  /** How much each signal counted; sums to 1. */
  readonly weights: readonly number[];
}

/** One passage in two sifts. Places are indices into the candidates of each side. */
export type ComparedRow =
  | {
      readonly kind: 'both';
      readonly a: number;
      readonly b: number;
      /** Ranks gained from a to b; negative when it fell. */
      readonly climbed: number;
      /** The signal whose part of the score changed most, and by how many points of 100; null when none changed by one. */
      readonly moved: { readonly signal: SignalName; readonly points: number } | null;
    }
  | { readonly kind: 'only-a'; readonly a: number }
  | { readonly kind: 'only-b'; readonly b: number };

/** Two candidates are the same passage when they share this much (intersection over union). */
const SAME = 0.5;
const NAMED_FROM = 1;

/**
 * Compares two sifts of one recording: which passages both found, how far they moved and which signal moved them, and
 * what only one has. Each candidate is matched at most once, the most alike first.
 * @returns rows by the best rank on either side
 */
export function compareSifts(a: SiftSide, b: SiftSide): ComparedRow[] {
  const pairs: { a: number; b: number; shared: number }[] = [];
  a.candidates.forEach((one, i) => {
    b.candidates.forEach((other, k) => {
      const shared = sharedShare(one, other);
      if (shared >= SAME) pairs.push({ a: i, b: k, shared });
    });
  });
  pairs.sort((x, y) => y.shared - x.shared || x.a - y.a || x.b - y.b);
  const [takenA, takenB] = [new Set<number>(), new Set<number>()];
  const rows: ComparedRow[] = [];
  for (const pair of pairs) {
    if (takenA.has(pair.a) || takenB.has(pair.b)) continue;
    takenA.add(pair.a);
    takenB.add(pair.b);
    const [one, other] = [a.candidates[pair.a]!, b.candidates[pair.b]!];
    rows.push({ kind: 'both', a: pair.a, b: pair.b, climbed: one.rank - other.rank, moved: whatMoved(one, a.weights, other, b.weights) });
  }
  a.candidates.forEach((_, i) => !takenA.has(i) && rows.push({ kind: 'only-a', a: i }));
  b.candidates.forEach((_, k) => !takenB.has(k) && rows.push({ kind: 'only-b', b: k }));
  const best = (row: ComparedRow): number =>
    Math.min(row.kind === 'only-b' ? Infinity : a.candidates[row.a]!.rank, row.kind === 'only-a' ? Infinity : b.candidates[row.b]!.rank);
  return rows.sort((x, y) => best(x) - best(y) || (x.kind === 'only-b' ? 1 : 0) - (y.kind === 'only-b' ? 1 : 0));
}

function sharedShare(a: Comparable, b: Comparable): number {
  if (!overlaps(a, b)) return 0;
  return (Math.min(a.endMs, b.endMs) - Math.max(a.startMs, b.startMs)) / spanMs({ startMs: Math.min(a.startMs, b.startMs), endMs: Math.max(a.endMs, b.endMs) });
}

function whatMoved(a: Comparable, weightsA: readonly number[], b: Comparable, weightsB: readonly number[]): { signal: SignalName; points: number } | null {
  // Against an ordinary 50, so that a weight alone moves nothing where the signal is ordinary.
  const points = SIGNALS.map((_, k) => weightsB[k]! * (b.values[k]! - 50) - weightsA[k]! * (a.values[k]! - 50));
  const k = points.reduce((best, value, i) => (Math.abs(value) > Math.abs(points[best]!) ? i : best), 0);
  const rounded = Math.round(points[k]! * 10) / 10;
  return Math.abs(rounded) < NAMED_FROM ? null : { signal: SIGNALS[k]!, points: rounded };
}
