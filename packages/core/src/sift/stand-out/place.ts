import type { Sentence } from '../../transcript/types.js';
import { innerProduct } from '../inner-product.js';
import type { Vectors } from '../types.js';

/**
 * Where a sentence stands in its recording: what it is like beside what was said before, around it and in all. Nothing of
 * when it is said but how near the edges of the recording are: the same words rank the same where all times are later.
 */
export const PLACE_FEATURES = [
  'like the recording',
  'new',
  'like the one before',
  'like the one after',
  'like those around',
  'like its surroundings',
  'length',
  'length squared',
  'at the very start',
  'at the very end',
  'length of the turn',
  'share of the voice',
  'pause before',
  'pace',
] as const;

/** Sentences on either side that are around one, and that are its surroundings. */
const AROUND = 4;
const SURROUNDINGS = 12;
const LONGEST_PAUSE_MS = 3_000;
/** How long the start of a recording is felt, and its end: a greeting takes a minute, however long what follows is. */
const EDGE_MS = 60_000;

/** Which edges of what is read are those of the recording; where a part is cut out of it, they are not. */
export interface Edges {
  readonly start: boolean;
  readonly end: boolean;
}

/**
 * A row of `PLACE_FEATURES.length` for each sentence. Linear in the length of the recording: means of vectors are kept as
 * sums that move along.
 * @param vectors unit vectors, a row a sentence
 */
export function placeFeatures(sentences: readonly Sentence[], vectors: Vectors, edges: Edges): Float32Array {
  const n = sentences.length;
  const size = PLACE_FEATURES.length;
  const out = new Float32Array(n * size);
  if (n === 0) return out;
  const { dimensions, data } = vectors;
  const all = new Float32Array(dimensions);
  for (let s = 0; s < n; s += 1) add(all, data, s, 1);
  const before = new Float32Array(dimensions);
  const [around, surroundings] = [new Window(vectors, n, AROUND), new Window(vectors, n, SURROUNDINGS)];
  const turns = turnWords(sentences);
  const shares = voiceShares(sentences);
  const [fromMs, toMs] = [sentences[0]!.startMs, sentences[n - 1]!.endMs];
  const like = (s: number, other: Float32Array, at = 0): number => {
    const length = Math.sqrt(innerProduct(other, at, other, at, dimensions));
    return length < 1e-9 ? 0 : innerProduct(data, s * dimensions, other, at, dimensions) / length;
  };
  for (let s = 0; s < n; s += 1) {
    const sentence = sentences[s]!;
    const words = sentence.endWord - sentence.firstWord;
    const row: readonly number[] = [
      like(s, all),
      s === 0 ? 0 : 1 - like(s, before),
      s === 0 ? 0 : like(s, data, (s - 1) * dimensions),
      s + 1 === n ? 0 : like(s, data, (s + 1) * dimensions),
      like(s, around.at(s)),
      like(s, surroundings.at(s)),
      Math.log(words),
      Math.log(words) ** 2 / 4,
      edges.start ? Math.exp((fromMs - sentence.startMs) / EDGE_MS) : 0,
      edges.end ? Math.exp((sentence.endMs - toMs) / EDGE_MS) : 0,
      Math.log(turns[s]!),
      shares[s]!,
      s === 0 ? 1 : Math.min(LONGEST_PAUSE_MS, Math.max(0, sentence.startMs - sentences[s - 1]!.endMs)) / 1_000,
      Math.min(8, words / Math.max(0.5, (sentence.endMs - sentence.startMs) / 1_000)),
    ];
    out.set(row, s * size);
    add(before, data, s, 1);
  }
  return out;
}

function add(sum: Float32Array, data: Float32Array, row: number, sign: 1 | -1): void {
  const from = row * sum.length;
  for (let d = 0; d < sum.length; d += 1) sum[d]! += sign * data[from + d]!;
}

/** The sum of the vectors up to `reach` sentences away; asked for one sentence after the other. */
class Window {
  private readonly sum: Float32Array;
  private next = 0;
  constructor(
    private readonly vectors: Vectors,
    private readonly n: number,
    private readonly reach: number,
  ) {
    this.sum = new Float32Array(vectors.dimensions);
  }
  at(s: number): Float32Array {
    for (; this.next < Math.min(this.n, s + this.reach + 1); this.next += 1) add(this.sum, this.vectors.data, this.next, 1);
    if (s > this.reach) add(this.sum, this.vectors.data, s - this.reach - 1, -1);
    return this.sum;
  }
}

/** Words of the turn that each sentence belongs to. */
function turnWords(sentences: readonly Sentence[]): Int32Array {
  const out = new Int32Array(sentences.length);
  for (let first = 0; first < sentences.length;) {
    let end = first + 1;
    while (end < sentences.length && sentences[end]!.speaker === sentences[first]!.speaker) end += 1;
    out.fill(sentences[end - 1]!.endWord - sentences[first]!.firstWord, first, end);
    first = end;
  }
  return out;
}

/** Share of the words of the recording that each sentence's speaker says. */
function voiceShares(sentences: readonly Sentence[]): Float64Array {
  const words = new Map<number, number>();
  let total = 0;
  for (const { speaker, firstWord, endWord } of sentences) {
    words.set(speaker, (words.get(speaker) ?? 0) + endWord - firstWord);
    total += endWord - firstWord;
  }
  return Float64Array.from(sentences, ({ speaker }) => words.get(speaker)! / total);
}
