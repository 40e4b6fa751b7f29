import type { SiftLimit } from '@sift-reel/core';

const NO_SOUND = 'There is no sound, so nothing can be listened to, and Delivery rests on the text.';
/** The sound came after the sift, or could not be read in it. */
const UNHEARD = 'This sift did not listen to the sound, so Delivery rests on the text; sift again to have it heard.';
const LIMIT_WORDS: Readonly<Record<string, string>> = {
  'no-punctuation':
    'The transcript has no full stops in places; sentences were restored from pauses, turns, capitals and word classes, so edges deserve a look.',
  'spread-times': 'Words have no times of their own; they were spread over their captions. Play the ends before you trust them.',
  'no-speakers': 'Nobody is named, so questions and answers cannot be told apart by voice.',
  'no-sound': NO_SOUND,
  'short-part': 'The part that counts is shorter than the shortest candidate.',
};

/** What a sift could not know, in words. */
export function notesOf(limits: readonly string[], hasSound: boolean, language: string | null = null): string[] {
  const other = language === null ? [] : ofLanguage(language);
  return [...other, ...known(limits, hasSound)];
}

const ofLanguage = (name: string): string[] => [
  `The talk is in ${name}, which is not understood here: Opening and Charge cannot be known. The ranking goes by lengths, pauses, turns, figures, names, questions and what is new; kinds are told only where they show, and titles are first lines.`,
];

const known = (limits: readonly string[], hasSound: boolean): string[] =>
  limits.flatMap((limit) => (limit === ('no-sound' satisfies SiftLimit) && hasSound ? UNHEARD : (LIMIT_WORDS[limit] ?? [])));
