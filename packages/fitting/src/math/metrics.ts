/** Rows are true classes, columns the ones found. */
export function confusion(truth: readonly number[], found: readonly number[], classes: number): number[][] {
  const table = Array.from({ length: classes }, () => new Array<number>(classes).fill(0));
  truth.forEach((label, i) => {
    table[label]![found[i]!]! += 1;
  });
  return table;
}

interface ClassScore {
  readonly precision: number;
  readonly recall: number;
  readonly f1: number;
}

/** Precision, recall and F1 of each class; 0 where nothing was found or nothing was there. */
export function classScores(table: readonly (readonly number[])[]): ClassScore[] {
  return table.map((row, c) => {
    const hit = row[c]!;
    const there = row.reduce((sum, n) => sum + n, 0);
    const claimed = table.reduce((sum, other) => sum + other[c]!, 0);
    const precision = claimed === 0 ? 0 : hit / claimed;
    const recall = there === 0 ? 0 : hit / there;
    return { precision, recall, f1: precision + recall === 0 ? 0 : (2 * precision * recall) / (precision + recall) };
  });
}

/** Mean F1 over the classes, each counting the same. */
export function macroF1(table: readonly (readonly number[])[]): number {
  const scores = classScores(table);
  return scores.reduce((sum, { f1 }) => sum + f1, 0) / scores.length;
}

interface ReliabilityBin {
  readonly from: number;
  readonly to: number;
  readonly count: number;
  /** Mean probability given, and share that was right. */
  readonly said: number;
  readonly right: number;
}

/** Reliability table of the probability given to the class found, in ten bins; empty bins are left out. */
export function reliability(said: readonly number[], right: readonly boolean[]): ReliabilityBin[] {
  return Array.from({ length: 10 }, (_, b) => {
    const inside = said.flatMap((p, i) => (Math.min(9, Math.floor(p * 10)) === b ? [i] : []));
    const mean = (values: number[]): number => values.reduce((sum, value) => sum + value, 0) / Math.max(1, values.length);
    return {
      from: b / 10,
      to: (b + 1) / 10,
      count: inside.length,
      said: mean(inside.map((i) => said[i]!)),
      right: mean(inside.map((i) => (right[i] === true ? 1 : 0))),
    };
  }).filter((bin) => bin.count > 0);
}

/** Expected calibration error (Naeini et al. 2015): gap between said and right, weighted by how many. */
export function calibrationError(bins: readonly ReliabilityBin[]): number {
  const total = bins.reduce((sum, bin) => sum + bin.count, 0);
  return bins.reduce((sum, bin) => sum + (bin.count / total) * Math.abs(bin.said - bin.right), 0);
}
