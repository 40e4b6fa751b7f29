import { tabulate } from './tabulate.js';
import type { Run } from './types.js';

/** Sums over sentences in constant time: `sum(run)` is the total of the values of its sentences. */
export class Sums {
  private readonly totals: Float64Array;
  constructor(values: ArrayLike<number>) {
    this.totals = new Float64Array(values.length + 1);
    for (let i = 0; i < values.length; i += 1) this.totals[i + 1] = this.totals[i]! + values[i]!;
  }
  sum(run: Run): number {
    return this.totals[run.end]! - this.totals[run.first]!;
  }
  /** The values it was made from. */
  values(): Float64Array {
    return tabulate(this.totals.length - 1, (i) => this.totals[i + 1]! - this.totals[i]!);
  }
}
