/** Log-odds of 90 in 100. */
const AT_NINETY = Math.log(9);

/**
 * Maps a raw measure to 0–100 so that `ordinary` gives 50 and `rare` gives 90: a logistic curve through both points.
 * @example toScale(3, 3, 8) // 50
 */
export function toScale(raw: number, ordinary: number, rare: number): number {
  return 100 / (1 + Math.exp((-AT_NINETY * (raw - ordinary)) / (rare - ordinary)));
}

/**
 * A score whose log-odds are raised: it stays within 0 and 100, and in order with others that are raised alike.
 * @example raised(50, Math.log(3)) // 75
 */
export function raised(score: number, logOdds: number): number {
  return score <= 0 ? score : 100 / (1 + ((100 - score) / score) * Math.exp(-logOdds));
}

/** One decimal, within 0 and 100. */
export function roundScore(value: number): number {
  return Math.round(Math.min(100, Math.max(0, value)) * 10) / 10;
}

const WORDS = ['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten'];

/** "one figure", "three figures", "14 figures". */
export function counted(n: number, singular: string, plural = `${singular}s`): string {
  return `${WORDS[n] ?? n} ${n === 1 ? singular : plural}`;
}

/** "a", "a and b", "a, b and c". */
export function listed(items: readonly string[]): string {
  if (items.length <= 1) return items[0] ?? '';
  return `${items.slice(0, -1).join(', ')} and ${items.at(-1)!}`;
}
