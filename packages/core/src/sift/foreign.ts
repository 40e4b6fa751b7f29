import type { PartOfSpeech } from '../text/tagger.js';
import { findTells, normaliseWords } from '../text/tells/find-tells.js';
import type { Sentence, Word } from '../transcript/types.js';
import { ROLES } from './roles/roles.js';
import { indexHits } from './roles/reading.js';
import { type SentenceFeatures, surfaceFeatures } from './roles/sentence-features.js';
import type { RoleInput } from './roles/surface.js';

/** In front of a word that is not English, so that it is in no English list, whatever it looks like ("die", "so", "no"). */
const NOT_ENGLISH = '\u2060';

/**
 * Talk in another language, as far as it can be read without knowing it: figures that are written with digits, names by their
 * capitals, questions by their marks, and how long everything is.
 */
export function readForeign(words: readonly Word[], sentences: readonly Sentence[]): RoleInput {
  const texts = normaliseWords(words).map((text) => (/\d/.test(text) || text === '' ? text : NOT_ENGLISH + text));
  const starts = new Set(sentences.map(({ firstWord }) => firstWord));
  const tags = words.map(({ text }, i): PartOfSpeech => (/\d/.test(text) ? 'NUM' : !starts.has(i) && /^\p{Lu}\p{Ll}/u.test(text) ? 'PROPN' : 'X'));
  const hits = findTells(words, texts, tags);
  return { words, texts, tags, sentences, hits, hitStarts: indexHits(hits, sentences) };
}

/** What is read off each sentence by itself: its words say nothing. */
export function foreignFeatures(reading: RoleInput): SentenceFeatures {
  return { ...surfaceFeatures(reading), words: reading.sentences.map(() => ({ places: [], weight: 0 })) };
}

/** No sentence has a role that is known. */
export const noRoles = (sentences: number): Float32Array => new Float32Array(sentences * ROLES.length);
