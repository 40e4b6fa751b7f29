import { HASH_BASIS, hashCode, hashOn } from '../hash.js';
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
  into[0] = folded(hashOn(KINDS[0]!, a1));
  into[1] = folded(hashOn(KINDS[1]!, b0));
  into[2] = folded(pair(KINDS[2]!, a2, SPACE, a1));
  into[3] = folded(pair(KINDS[3]!, b0, SPACE, b1));
  into[4] = folded(pair(KINDS[4]!, a1, BAR, b0));
  into[5] = folded(pair(KINDS[5]!, s1, BAR, r0));
  into[6] = folded(pair(pair(KINDS[6]!, s2, SPACE, s1), '', BAR, r0));
  into[7] = folded(pair(pair(KINDS[7]!, s1, BAR, r0), '', SPACE, r1));
  into[8] = folded(pair(pair(pair(KINDS[8]!, s2, SPACE, s1), '', BAR, r0), '', SPACE, r1));
  into[9] = folded(pair(pair(KINDS[9]!, r0, SPACE, r1), '', SPACE, r2));
  into[10] = folded(pair(pair(KINDS[10]!, s3, SPACE, s2), '', SPACE, s1));
  into[11] = folded(pair(KINDS[11]!, s1, BAR, b0));
  into[12] = folded(pair(KINDS[12]!, a1, BAR, r0));
  into[13] = folded(pair(pair(KINDS[13]!, s1, BAR, b0), '', SPACE, b1));
  into[14] = folded(pair(KINDS[14]!, b0, SPACE, r1));
  into[15] = folded(pair(pair(KINDS[15]!, b0, SPACE, b1), '', SPACE, b2));
  into[16] = folded(hashOn(KINDS[16]!, a1, Math.max(0, a1.length - 3)));
  into[17] = folded(pair(pair(KINDS[17]!, b0, SPACE, r1), '', SPACE, r2));
  into[18] = folded(pair(pair(KINDS[18]!, s2, SPACE, a1), '', BAR, b0));
  into[19] = folded(KINDS[19]!);
}

/** Where the hash of a feature of each kind begins. */
const KINDS = Array.from({ length: GAP_FEATURES }, (_, kind) => hashCode(HASH_BASIS, kind + 1));
const SPACE = 32;
const BAR = 124;

const pair = (from: number, text: string, between: number, other: string): number => hashOn(hashCode(hashOn(from, text), between), other);
const folded = (h: number): number => (h ^ (h >>> 15)) & (GAP_PLACES - 1);
