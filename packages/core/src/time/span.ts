/** Half-open: `startMs` is inside, `endMs` is not. Integer milliseconds from the start of the recording, 0 <= startMs < endMs. */
export interface Span {
  readonly startMs: number;
  readonly endMs: number;
}

/** Length of a span in ms. */
export function spanMs(span: Span): number {
  return span.endMs - span.startMs;
}

/** True when the two half-open spans share at least one millisecond. Touching spans do not overlap. */
export function overlaps(a: Span, b: Span): boolean {
  return a.startMs < b.endMs && b.startMs < a.endMs;
}

/**
 * Largest `i` with `keys[i] <= value`, or -1 for none. `keys` sorted upwards. O(log n).
 * @example lastAtOrBefore([0, 10, 20], 15) // 1
 */
export function lastAtOrBefore(keys: ArrayLike<number>, value: number): number {
  let low = 0;
  let high = keys.length; // before `low`: at or before `value`; from `high` on: after it
  while (low < high) {
    const mid = (low + high) >>> 1;
    if (keys[mid]! <= value) low = mid + 1;
    else high = mid;
  }
  return low - 1;
}
