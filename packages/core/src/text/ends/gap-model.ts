import { unpackNumbers } from '../pack-weights.js';
import type { PartOfSpeech } from '../tagger.js';
import { GAP_FEATURES, GAP_PLACES, writeGapFeatures } from './gap-features.js';
import { ruleStrength } from './gap-rules.js';
import { CLAUSE_WEIGHTS, END_WEIGHTS } from './gap-weights.js';
import { GAP_ODDS, readWordOdds } from './word-odds.js';

/** Log-odds of what stands in a gap between two words. */
export interface GapReading {
  /** That a sentence ends there. */
  readonly end: number;
  /** That, if none ends, a comma or the like would be written there: speakers pause at those too. */
  readonly clause: number;
}

/** How much the rules of grammar count beside the model. */
const RULES = 0.4;

/** Weights of both readings side by side, since they are always read together. */
let trained: Float32Array | undefined;

function unpackBoth(): Float32Array {
  const [ends, clauses] = [unpackNumbers(END_WEIGHTS), unpackNumbers(CLAUSE_WEIGHTS)];
  const both = new Float32Array(2 * ends.length);
  for (let i = 0; i < ends.length; i += 1) {
    both[2 * i] = ends[i]!;
    both[2 * i + 1] = clauses[i]!;
  }
  return both;
}

/**
 * Reads the gap before word `k`, 1 and above, by the words around it and by grammar. The weights were trained on punctuated talk and
 * speeches with their punctuation taken away, see bench/ends.mjs: one a place of the features, then one for each of the odds
 * of the words.
 * @param texts normalised words, @param tags their parts of speech
 */
export function readGaps(texts: readonly string[], tags: readonly PartOfSpeech[]): (k: number) => GapReading {
  const weights = (trained ??= unpackBoth());
  const places = new Int32Array(GAP_FEATURES);
  const odds = new Float32Array(GAP_ODDS);
  const writeOdds = readWordOdds(texts);
  return (k) => {
    writeGapFeatures(texts, tags, k, places);
    writeOdds(k, odds);
    let end = RULES * ruleStrength(texts, tags, k);
    let clause = 0;
    for (let f = 0; f < GAP_FEATURES; f += 1) {
      const at = 2 * places[f]!;
      end += weights[at]!;
      clause += weights[at + 1]!;
    }
    for (let o = 0; o < GAP_ODDS; o += 1) {
      const at = 2 * (GAP_PLACES + o);
      end += weights[at]! * odds[o]!;
      clause += weights[at + 1]! * odds[o]!;
    }
    return { end, clause };
  };
}
