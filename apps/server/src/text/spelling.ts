import type { Speller, Voice } from '@sift-reel/core';
import nspell from 'nspell';

type Speech = 'british' | 'american';

const loaded = new Map<Speech, Promise<Speller>>();
/** Looking for likely words takes some 20 ms, and the same word is looked at with every keypress. */
const MOST_KEPT = 2_000;

/** Words of English as a client spells it; where that is open, what either dictionary has is right. */
export async function spellerFor(spelling: Voice['spelling']): Promise<Speller> {
  if (spelling !== 'any') return load(spelling);
  const [first, second] = await Promise.all([load('british'), load('american')]);
  return { correct: (word) => first.correct(word) || second.correct(word), suggest: (word) => first.suggest(word) };
}

/** A dictionary takes half a second and 30 MB, so it is there once in a thread, from its first use on. */
function load(speech: Speech): Promise<Speller> {
  let speller = loaded.get(speech);
  if (speller === undefined) {
    speller = read(speech);
    loaded.set(speech, speller);
    speller.catch(() => loaded.delete(speech));
  }
  return speller;
}

async function read(speech: Speech): Promise<Speller> {
  const { default: dictionary } = speech === 'british' ? await import('dictionary-en-gb') : await import('dictionary-en');
  const spell = nspell({ aff: Buffer.from(dictionary.aff), dic: Buffer.from(dictionary.dic) });
  const suggestions = new Map<string, string[]>();
  return {
    correct: (word) => spell.correct(word),
    suggest: (word) => {
      let list = suggestions.get(word);
      if (list === undefined) {
        if (suggestions.size >= MOST_KEPT) suggestions.clear();
        suggestions.set(word, (list = spell.suggest(word)));
      }
      return list;
    },
  };
}
