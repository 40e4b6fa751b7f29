import { STUMBLE_SORTS, stumblesIn, type StumbleSort } from '../copy/written/stumbles.js';
import { type PosTagger, winkTagger } from '../text/tagger.js';
import { normaliseWords } from '../text/tells/find-tells.js';
import type { Transcript, WordRange } from '../transcript/types.js';
import { cutListOf, playedMs } from './cut-list.js';
import { type Edit, type EditedPassage, pauseAfter, playedRuns, tidyEdit } from './edit.js';

/** What can be tightened: silence, and stumbles of the speaker. */
export const TIGHTENING_SORTS = ['pause', ...STUMBLE_SORTS] as const;
export type TighteningSort = 'pause' | StumbleSort;

/** A cut that is proposed. Of a pause, the words on both sides of it; else the words that would go. */
export interface Tightening extends WordRange {
  readonly sort: TighteningSort;
  /** What is left of the pause, in ms; null where words go. */
  readonly leftMs: number | null;
  /** How much shorter it makes what is played, by itself, in ms. */
  readonly savedMs: number;
}

export interface TightenOptions {
  /** Longer silences are cut down, in ms. Default 800. */
  readonly pauseMs?: number;
  /** What stays of them on each side, in ms. Default 250. */
  readonly paddingMs?: number;
}

/** The edit with a proposed cut in it. */
export function tightened(edit: Edit, { sort, firstWord, endWord, leftMs }: Pick<Tightening, 'sort' | 'firstWord' | 'endWord' | 'leftMs'>): Edit {
  return tidyEdit(
    sort === 'pause'
      ? { ...edit, pauses: [...edit.pauses, { afterWord: firstWord, leftMs: leftMs! }] }
      : { ...edit, removed: [...edit.removed, { firstWord, endWord }] },
  );
}

/**
 * Cuts that would tighten a passage as it is played now, in the order of the words. None is of what is cut out already, and none
 * saves nothing.
 */
export function proposeTightening(transcript: Transcript, passage: EditedPassage, options: TightenOptions = {}, tagger: PosTagger = winkTagger): Tightening[] {
  const { words } = transcript;
  const { pauseMs = 800, paddingMs = 250 } = options;
  const lengthOf = (edit: Edit): number => playedMs(cutListOf(words, playedRuns(words, { ...passage, edit })));
  const now = lengthOf(passage.edit);
  const found: Omit<Tightening, 'savedMs'>[] = [];
  for (const { firstWord, endWord } of [passage, ...passage.edit.before, ...passage.edit.after]) {
    for (let i = firstWord; i + 1 < endWord; i += 1)
      if (pauseAfter(words, i) > Math.max(pauseMs, 2 * paddingMs)) found.push({ sort: 'pause', firstWord: i, endWord: i + 2, leftMs: 2 * paddingMs });
    const said = words.slice(firstWord, endWord);
    const texts = normaliseWords(said);
    const tags = tagger(texts);
    for (const sentence of transcript.sentences) {
      const [from, to] = [Math.max(firstWord, sentence.firstWord), Math.min(endWord, sentence.endWord)];
      if (from >= to) continue;
      for (const one of stumblesIn({ words: said, texts, tags }, from - firstWord, to - firstWord))
        found.push({ sort: one.sort, firstWord: one.firstWord + firstWord, endWord: one.endWord + firstWord, leftMs: null });
    }
  }
  return found
    .map((one) => ({ ...one, savedMs: now - lengthOf(tightened(passage.edit, one)) }))
    .filter(({ savedMs }) => savedMs > 0)
    .sort((a, b) => a.firstWord - b.firstWord || a.endWord - b.endWord);
}
