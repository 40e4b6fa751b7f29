import type { PartOfSpeech } from '../tagger.js';

/** Places that the features of a gap between two words are told apart by; a power of two. */
export const GAP_PLACES = 32_768;

/** Number of features of a gap. */
export const GAP_FEATURES = 20;

/**
 * Features of the gap before word `k`: the words around it, alone and in pairs and threes, and their parts of speech,
 * each hashed to a place. Nothing of punctuation, capitals or times, so that they are the same however a talk is written.
 * @param texts normalised words, @param tags their parts of speech, @param into `GAP_FEATURES` places
 */
export function writeGapFeatures(texts: readonly string[], tags: readonly PartOfSpeech[], k: number, into: Int32Array): void {
  const w = (d: number): string => texts[k + d] ?? '';
  const t = (d: number): string => tags[k + d] ?? '';
  const [a2, a1, b0, b1, b2] = [w(-2), w(-1), w(0), w(1), w(2)];
  const [s3, s2, s1, r0, r1, r2] = [t(-3), t(-2), t(-1), t(0), t(1), t(2)];
  let i = 0;
  const put = (kind: number, text: string): void => {
    into[i++] = hash(kind, text);
  };
  put(1, a1);
  put(2, b0);
  put(3, `${a2} ${a1}`);
  put(4, `${b0} ${b1}`);
  put(5, `${a1}|${b0}`);
  put(6, `${s1}|${r0}`);
  put(7, `${s2} ${s1}|${r0}`);
  put(8, `${s1}|${r0} ${r1}`);
  put(9, `${s2} ${s1}|${r0} ${r1}`);
  put(10, `${r0} ${r1} ${r2}`);
  put(11, `${s3} ${s2} ${s1}`);
  put(12, `${s1}|${b0}`);
  put(13, `${a1}|${r0}`);
  put(14, `${s1}|${b0} ${b1}`);
  put(15, `${b0} ${r1}`);
  put(16, `${b0} ${b1} ${b2}`);
  put(17, a1.slice(-3));
  put(18, `${b0} ${r1} ${r2}`);
  put(19, `${s2} ${a1}|${b0}`);
  put(20, '');
}

/** FNV-1a, folded to `GAP_PLACES`. */
function hash(kind: number, text: string): number {
  let h = Math.imul(0x811c9dc5 ^ kind, 0x01000193);
  for (let i = 0; i < text.length; i += 1) h = Math.imul(h ^ text.charCodeAt(i), 0x01000193);
  return (h ^ (h >>> 15)) & (GAP_PLACES - 1);
}
