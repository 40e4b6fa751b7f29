// Marked talks as examples of what stands out, and a model fitted on some.
import { ROLES } from '@sift-reel/core';
import {
  foldedSums,
  foreignFeatures,
  lexicalVectors,
  noRoles,
  readForeign,
  readForRoles,
  normaliseWords,
  readRoles,
  sentenceFeatures,
  standOutFeatures,
  SURFACE_FEATURES,
} from '@sift-reel/core/fitting';
import { fitStandOut, gradesOf, meanOver } from '@sift-reel/fitting';

/** What a weight costs, chosen by leaving kinds of talk out. */
const PRICES = {
  vectors: { vector: 30, role: 100, surface: 100, place: 30, word: 8 },
  words: { vector: 1, role: 100, surface: 100, place: 30, word: 8 },
  foreign: { vector: 1, role: 100, surface: 30, place: 30, word: 8 },
};
/** Seconds that count as one sentence. */
const SENTENCE = 5;

/** @param share how much the talk counts, when it is given in several forms; @param foreign read as if its language were not known */
export function standOutExample(one, sentenceVectors, { share = 1, foreign = false } = {}) {
  const { words, sentences } = one.transcript;
  const reading = foreign ? readForeign(words, sentences) : readForRoles(words, sentences);
  const features = foreign ? foreignFeatures(reading) : sentenceFeatures(reading);
  const roles = foreign ? noRoles(sentences.length) : readRoles(features, sentenceVectors);
  const vectors = sentenceVectors ?? lexicalVectors(sentences, foreign ? normaliseWords(words) : reading.texts);
  const grades = one.marks.map((list) => gradesOf(one.talk, list));
  const worth = Float64Array.from(
    sentences,
    ({ startMs, endMs }) => grades.reduce((sum, list) => sum + meanOver(one.talk, list, startMs, endMs), 0) / (5 * grades.length),
  );
  const seconds = Float64Array.from(sentences, ({ startMs, endMs }) => (endMs - startMs) / 1_000);
  return {
    features: standOutFeatures({ sentences, features, roles, vectors: sentenceVectors, sums: foldedSums(vectors), edges: { start: true, end: true } }),
    worth,
    seconds,
    counts: seconds.map((length) => (share * length) / SENTENCE),
  };
}

/** @param reads 'vectors', 'words' or 'foreign' */
export function fitOn(examples, reads) {
  const shape = { vectors: reads === 'vectors' ? 512 : 0, roles: ROLES.length, surface: SURFACE_FEATURES.length };
  return fitStandOut(examples, shape, PRICES[reads]);
}
