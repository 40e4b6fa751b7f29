import type { Run } from './types.js';

export interface ScoredRun extends Run {
  readonly score: number;
}

/** Scored runs as three columns: ten hours have a hundred thousand, and that many objects would cost more than scoring them. */
export class RunTable {
  private firsts = new Int32Array(1_024);
  private ends = new Int32Array(1_024);
  private scored = new Float64Array(1_024);
  private rows = 0;

  static of(runs: Iterable<ScoredRun>): RunTable {
    const table = new RunTable();
    for (const { first, end, score } of runs) table.push(first, end, score);
    return table;
  }

  push(first: number, end: number, score: number): void {
    if (this.rows === this.firsts.length) this.grow();
    this.firsts[this.rows] = first;
    this.ends[this.rows] = end;
    this.scored[this.rows] = score;
    this.rows += 1;
  }

  get length(): number {
    return this.rows;
  }

  /** First sentences, sentences after the last ones, and scores, row by row. */
  get first(): Int32Array {
    return this.firsts.subarray(0, this.rows);
  }
  get end(): Int32Array {
    return this.ends.subarray(0, this.rows);
  }
  get score(): Float64Array {
    return this.scored.subarray(0, this.rows);
  }

  at(row: number): ScoredRun {
    return { first: this.firsts[row]!, end: this.ends[row]!, score: this.scored[row]! };
  }

  private grow(): void {
    const more = <T extends Int32Array | Float64Array>(old: T, fresh: T): T => {
      fresh.set(old);
      return fresh;
    };
    this.firsts = more(this.firsts, new Int32Array(2 * this.rows));
    this.ends = more(this.ends, new Int32Array(2 * this.rows));
    this.scored = more(this.scored, new Float64Array(2 * this.rows));
  }
}

/**
 * Rows in the order of one of their sentence columns (counting sort, order kept among equals); those of place `s` are
 * `rows[starts[s]]` up to `rows[starts[s + 1]]`, not inside.
 * @param column of sentences 0 to `sentences`
 */
export function rowsBy(column: Int32Array, sentences: number): { rows: Int32Array; starts: Int32Array } {
  const starts = new Int32Array(sentences + 2);
  for (const s of column) starts[s + 1]! += 1;
  for (let s = 0; s <= sentences; s += 1) starts[s + 1]! += starts[s]!;
  const next = starts.slice();
  const rows = new Int32Array(column.length);
  for (let row = 0; row < column.length; row += 1) rows[next[column[row]!]!++] = row;
  return { rows, starts };
}
