import type { Sentence } from '../../transcript/types.js';
import type { PrefixSums } from '../prefix-sums.js';

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
 * A row of `PLACE_FEATURES.length` for each sentence. Linear in the length of the recording: what sentences are like is read
 * off sums over prefixes.
 * @param sums of the sentences' vectors, with most of what all of the recording has in common taken out: see `foldedSums`.
 */
export function placeFeatures(sentences: readonly Sentence[], sums: PrefixSums, edges: Edges): Float32Array {
  const n = sentences.length;
  const size = PLACE_FEATURES.length;
  const out = new Float32Array(n * size);
  if (n === 0) return out;
  const turns = turnWords(sentences);
  const shares = voiceShares(sentences);
  const [fromMs, toMs] = [sentences[0]!.startMs, sentences[n - 1]!.endMs];
  /** Likeness to those up to `reach` sentences away, itself among them. */
  const around = (s: number, reach: number): number => sums.likeness(s, Math.max(0, s - reach), Math.min(n, s + reach + 1));
  for (let s = 0; s < n; s += 1) {
    const sentence = sentences[s]!;
    const words = sentence.endWord - sentence.firstWord;
    out.set(
      [
        sums.likeness(s, 0, n),
        s === 0 ? 0 : 1 - sums.likeness(s, 0, s),
        s === 0 ? 0 : sums.likeness(s, s - 1, s),
        s + 1 === n ? 0 : sums.likeness(s, s + 1, s + 2),
        around(s, AROUND),
        around(s, SURROUNDINGS),
        Math.log(words),
        Math.log(words) ** 2 / 4,
        edges.start ? Math.exp((fromMs - sentence.startMs) / EDGE_MS) : 0,
        edges.end ? Math.exp((sentence.endMs - toMs) / EDGE_MS) : 0,
        Math.log(turns[s]!),
        shares[s]!,
        s === 0 ? 1 : Math.min(LONGEST_PAUSE_MS, Math.max(0, sentence.startMs - sentences[s - 1]!.endMs)) / 1_000,
        Math.min(8, words / Math.max(0.5, (sentence.endMs - sentence.startMs) / 1_000)),
      ],
      s * size,
    );
  }
  return out;
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
