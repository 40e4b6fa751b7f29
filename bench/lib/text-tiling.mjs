// TextTiling (Hearst 1997) in its block form, as a witness beside our segmentation: likeness of the words in the blocks
// on both sides of each gap, depth scores, and a boundary where the depth is above the mean less half a deviation.
import { normalise } from '@sift-reel/core';

/** Sentences in a block. Hearst: about a paragraph's worth. */
const BLOCK = 6;

/** Lengths of the segments of a list of sentences. */
export function textTiling(sentences) {
  const bags = sentences.map((text) =>
    counted(
      text
        .split(/\s+/)
        .map(normalise)
        .filter((word) => word.length > 3),
    ),
  );
  const likeness = Array.from({ length: sentences.length - 1 }, (_, gap) =>
    cosine(merged(bags.slice(Math.max(0, gap + 1 - BLOCK), gap + 1)), merged(bags.slice(gap + 1, gap + 1 + BLOCK))),
  );
  const smooth = likeness.map((value, i) => (value + (likeness[i - 1] ?? value) + (likeness[i + 1] ?? value)) / 3);
  const depth = smooth.map((value, i) => peak(smooth, i, -1) - value + peak(smooth, i, 1) - value);
  const mean = depth.reduce((sum, value) => sum + value, 0) / depth.length;
  const deviation = Math.sqrt(depth.reduce((sum, value) => sum + (value - mean) ** 2, 0) / depth.length);
  const ends = depth.flatMap((value, i) => (value > mean - deviation / 2 && value > (depth[i - 1] ?? 0) && value >= (depth[i + 1] ?? 0) ? [i + 1] : []));
  return [...ends, sentences.length].map((end, k) => end - (k === 0 ? 0 : ends[k - 1]));
}

/** The height of the hill on one side of a gap. */
function peak(values, from, way) {
  let i = from;
  while (values[i + way] !== undefined && values[i + way] >= values[i]) i += way;
  return values[i];
}

function counted(words) {
  const bag = new Map();
  for (const word of words) bag.set(word, (bag.get(word) ?? 0) + 1);
  return bag;
}

function merged(bags) {
  const all = new Map();
  for (const bag of bags) for (const [word, n] of bag) all.set(word, (all.get(word) ?? 0) + n);
  return all;
}

function cosine(a, b) {
  const norm = (bag) => Math.sqrt([...bag.values()].reduce((sum, n) => sum + n * n, 0));
  let sum = 0;
  for (const [word, n] of a) sum += n * (b.get(word) ?? 0);
  return sum === 0 ? 0 : sum / (norm(a) * norm(b));
}
