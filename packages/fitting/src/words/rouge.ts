/** How much of a reference stands in a candidate: recall, precision and their harmonic mean, each 0 to 1. */
export interface Overlap {
  readonly recall: number;
  readonly precision: number;
  readonly f: number;
}

/** ROUGE-1: words in common, each as often as in both (Lin 2004, ROUGE: A Package for Automatic Evaluation of Summaries, 2). */
export function rouge1(candidate: readonly string[], reference: readonly string[]): Overlap {
  const left = new Map<string, number>();
  for (const word of candidate) left.set(word, (left.get(word) ?? 0) + 1);
  let common = 0;
  for (const word of reference) {
    const n = left.get(word) ?? 0;
    if (n === 0) continue;
    common += 1;
    left.set(word, n - 1);
  }
  return overlap(common, candidate.length, reference.length);
}

/** ROUGE-L: words in common in the same order, by the longest common subsequence (Lin 2004, 3.1, with β = 1). */
export function rougeL(candidate: readonly string[], reference: readonly string[]): Overlap {
  return overlap(longestCommon(candidate, reference), candidate.length, reference.length);
}

function longestCommon(a: readonly string[], b: readonly string[]): number {
  let before = new Uint16Array(b.length + 1);
  for (const word of a) {
    const row = new Uint16Array(b.length + 1);
    b.forEach((other, j) => (row[j + 1] = word === other ? before[j]! + 1 : Math.max(before[j + 1]!, row[j]!)));
    before = row;
  }
  return before[b.length]!;
}

function overlap(common: number, candidate: number, reference: number): Overlap {
  const recall = reference === 0 ? 0 : common / reference;
  const precision = candidate === 0 ? 0 : common / candidate;
  return { recall, precision, f: common === 0 ? 0 : (2 * recall * precision) / (recall + precision) };
}
