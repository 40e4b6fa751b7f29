import type { SiftLimit } from '@sift-reel/core';
import { t } from '../../texts/texts.js';

const NO_SOUND = t('sifting.there-is-no-sound-so-nothing');
/** The sound came after the sift, or could not be read in it. */
const UNHEARD = t('sifting.this-sift-did-not-listen-to');
const LIMIT_WORDS: Readonly<Record<string, string>> = {
  'no-punctuation': t('sifting.the-transcript-has-no-full-stops'),
  'spread-times': t('sifting.words-have-no-times-of-their'),
  'no-speakers': t('sifting.nobody-is-named-so-questions-and'),
  'no-sound': NO_SOUND,
  'short-part': t('sifting.the-part-that-counts-is-shorter'),
};

/** What a sift could not know, in words. */
export function notesOf(limits: readonly string[], hasSound: boolean, language: string | null = null): string[] {
  const other = language === null ? [] : ofLanguage(language);
  return [...other, ...known(limits, hasSound)];
}

const ofLanguage = (name: string): string[] => [t('sifting.the-talk-is-in-which-is', { name })];

const known = (limits: readonly string[], hasSound: boolean): string[] =>
  limits.flatMap((limit) => (limit === ('no-sound' satisfies SiftLimit) && hasSound ? UNHEARD : (LIMIT_WORDS[limit] ?? [])));
