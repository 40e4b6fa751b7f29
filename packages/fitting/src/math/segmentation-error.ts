/**
 * Pk of Beeferman, Berger & Lafferty (1999): share of the pairs of places `k` apart of which the two segmentations
 * disagree whether they lie in one segment. 0 is perfect.
 * @param truth and @param found lengths of the segments in order, with the same sum
 * @param k by default half the mean true segment, at least 1, as is usual
 */
export function pk(truth: readonly number[], found: readonly number[], k = usualWindow(truth)): number {
  const [a, b] = [labelsOf(truth), labelsOf(found)];
  let wrong = 0;
  for (let i = 0; i + k < a.length; i += 1) if ((a[i] === a[i + k]) !== (b[i] === b[i + k])) wrong += 1;
  return wrong / (a.length - k);
}

/** WindowDiff of Pevzner & Hearst (2002): share of the windows of `k` in which the numbers of boundaries differ. */
export function windowDiff(truth: readonly number[], found: readonly number[], k = usualWindow(truth)): number {
  const [a, b] = [labelsOf(truth), labelsOf(found)];
  let wrong = 0;
  for (let i = 0; i + k < a.length; i += 1) if (a[i + k]! - a[i]! !== b[i + k]! - b[i]!) wrong += 1;
  return wrong / (a.length - k);
}

function usualWindow(truth: readonly number[]): number {
  const total = truth.reduce((sum, length) => sum + length, 0);
  return Math.max(1, Math.round(total / truth.length / 2));
}

/** Number of the segment that each place lies in. */
function labelsOf(lengths: readonly number[]): number[] {
  return lengths.flatMap((length, segment) => new Array<number>(length).fill(segment));
}
