import { ASIDES } from '../../text/lists/written.js';
import { phrasesBy } from '../../text/phrases-by.js';
import type { WordRange } from '../../transcript/types.js';
import type { Passage } from '../phrases.js';
import { asSaid, withoutBrokenPieces, withoutFalseStart, withoutPauses, withoutPhrases, withoutRepeats, withoutRestarts, withoutStandIn } from './compress.js';
import type { Line } from './written-word.js';

/** What a speaker would take back: a sound or phrase that fills, words said twice, a start that broke off. */
export const STUMBLE_SORTS = ['filler', 'repeat', 'false-start'] as const;
export type StumbleSort = (typeof STUMBLE_SORTS)[number];

/** Words that nobody misses. */
export interface Stumble extends WordRange {
  readonly sort: StumbleSort;
}

const BETWEEN_COMMAS = phrasesBy(0, ASIDES);

const STEPS: readonly { readonly sort: StumbleSort; readonly step: (line: Line) => Line }[] = [
  { sort: 'repeat', step: withoutRepeats },
  { sort: 'false-start', step: withoutRestarts },
  { sort: 'false-start', step: withoutStandIn },
  { sort: 'false-start', step: withoutBrokenPieces },
  { sort: 'filler', step: (line) => withoutPhrases(withoutPauses(line), BETWEEN_COMMAS, true) },
  { sort: 'false-start', step: withoutFalseStart },
  { sort: 'repeat', step: withoutRepeats },
];

/** Stumbles of one sentence, in the order of the words: the same readings by which spoken sentences become written ones. */
export function stumblesIn(passage: Pick<Passage, 'words' | 'texts' | 'tags'>, from: number, to: number): Stumble[] {
  const sorts = new Map<number, StumbleSort>();
  let line = asSaid(passage, from, to);
  const there = (one: Line): ReadonlySet<number> => new Set(one.map(({ first }) => first));
  const kept = there(line);
  for (let i = from; i < to; i += 1) if (passage.words[i]!.kind === 'word' && !kept.has(i)) sorts.set(i, 'filler');
  for (const { sort, step } of STEPS) {
    const next = step(line);
    const still = there(next);
    for (const { first } of line) if (!still.has(first)) sorts.set(first, sort);
    line = next;
  }
  // Of a sentence that is nothing but a stumble something stays.
  if (line.length === 0) return [];
  const stumbles: Stumble[] = [];
  for (const [word, sort] of [...sorts].sort(([a], [b]) => a - b)) {
    const last = stumbles.at(-1);
    if (last?.sort === sort && last.endWord === word) stumbles[stumbles.length - 1] = { ...last, endWord: word + 1 };
    else stumbles.push({ sort, firstWord: word, endWord: word + 1 });
  }
  return stumbles;
}
