import { eld } from 'eld/extrasmall';
import type { Word } from '../transcript/types.js';
import { type Language, languageOf } from './language-name.js';

/** Talk of fewer letters is taken for English: too little to tell by. */
const FEWEST_LETTERS = 120;
/** Words are read from three places, so that a greeting or a song in another language does not decide. */
const PLACES = [1 / 6, 1 / 2, 5 / 6];
const WORDS_OF_PLACE = 150;
/** How much likelier than English another language must be. Of 339 stretches of English talk none came out as anything else. */
const SURELY = 1.2;

/**
 * The language of talk that is not in English, or null. By the letters that follow one another (eld, 60 languages; its own
 * paper and tests name the accuracy), so it needs a few sentences.
 */
export function findLanguage(words: readonly Word[]): Language | null {
  const spoken = words.filter(({ kind }) => kind === 'word');
  const text = PLACES.map((place) => {
    const from = Math.max(0, Math.min(spoken.length - WORDS_OF_PLACE, Math.round(place * spoken.length - WORDS_OF_PLACE / 2)));
    return spoken
      .slice(from, from + WORDS_OF_PLACE)
      .map((word) => word.text)
      .join(' ');
  }).join(' ');
  if ((text.match(/\p{L}/gu) ?? []).length < FEWEST_LETTERS) return null;
  const scores = eld.detect(text).getScores();
  const [code, score] = Object.entries(scores).reduce((best, one) => (one[1] > best[1] ? one : best), ['en', 0]);
  if (code === 'en' || score < SURELY * (scores['en'] ?? 0)) return null;
  return languageOf(code);
}
