/** Rows of one group, and what each is worth: only differences inside a group count. */
export interface RankedRows {
  readonly rows: readonly ArrayLike<number>[];
  readonly worth: readonly number[];
}

/**
 * Ridge regression of worth on the rows, both taken about the mean of their group, every group counting the same; features are
 * held by `price` in units of their spread. Solved by Gaussian elimination with pivots: small, and without chance.
 */
export function fitRidge(groups: readonly RankedRows[], price: number): number[] {
  const n = groups[0]!.rows[0]!.length;
  const gram = Array.from({ length: n }, () => new Float64Array(n + 1));
  for (const { rows, worth } of groups) {
    const mean = new Float64Array(n);
    for (const row of rows) for (let k = 0; k < n; k += 1) mean[k]! += row[k]! / rows.length;
    const middle = worth.reduce((sum, value) => sum + value, 0) / worth.length;
    rows.forEach((row, r) => {
      for (let a = 0; a < n; a += 1) {
        const left = (row[a]! - mean[a]!) / rows.length;
        if (left === 0) continue;
        for (let b = 0; b < n; b += 1) gram[a]![b]! += left * (row[b]! - mean[b]!);
        gram[a]![n]! += left * (worth[r]! - middle);
      }
    });
  }
  for (let k = 0; k < n; k += 1) gram[k]![k]! += price * Math.max(1e-4, gram[k]![k]!) + 1e-9;
  return solved(gram);
}

/** Solves rows of [matrix | right side] in place. */
function solved(rows: Float64Array[]): number[] {
  const n = rows.length;
  for (let at = 0; at < n; at += 1) {
    let pivot = at;
    for (let r = at + 1; r < n; r += 1) if (Math.abs(rows[r]![at]!) > Math.abs(rows[pivot]![at]!)) pivot = r;
    [rows[at], rows[pivot]] = [rows[pivot]!, rows[at]!];
    for (let r = 0; r < n; r += 1) {
      if (r === at) continue;
      const factor = rows[r]![at]! / rows[at]![at]!;
      for (let k = at; k <= n; k += 1) rows[r]![k]! -= factor * rows[at]![k]!;
    }
  }
  return rows.map((row, k) => row[n]! / row[k]!);
}
