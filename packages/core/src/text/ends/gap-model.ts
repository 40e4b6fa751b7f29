import { unpackNumbers } from '../pack-weights.js';
import type { PartOfSpeech } from '../tagger.js';
import { GAP_FEATURES, GAP_PLACES, writeGapFeatures } from './gap-features.js';
import { GAP_WEIGHTS } from './gap-weights.js';
import { GAP_ODDS, readWordOdds } from './word-odds.js';

let trained: Float32Array | undefined;

/**
 * Log-odds that a sentence ends before word `k`, 1 and above, by the words around the gap alone. The weights were trained
 * on punctuated talk and speeches with their punctuation taken away, see bench/ends.mjs.
 * @param texts normalised words, @param tags their parts of speech
 * @param weights one a place of the features, then one for each of the odds of the words
 */
export function readGaps(texts: readonly string[], tags: readonly PartOfSpeech[], weights = (trained ??= unpackNumbers(GAP_WEIGHTS))): (k: number) => number {
  const places = new Int32Array(GAP_FEATURES);
  const odds = new Float32Array(GAP_ODDS);
  const writeOdds = readWordOdds(texts);
  return (k) => {
    writeGapFeatures(texts, tags, k, places);
    writeOdds(k, odds);
    let sum = 0;
    for (let f = 0; f < GAP_FEATURES; f += 1) sum += weights[places[f]!]!;
    for (let o = 0; o < GAP_ODDS; o += 1) sum += weights[GAP_PLACES + o]! * odds[o]!;
    return sum;
  };
}
