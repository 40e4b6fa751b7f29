import { HASH_BASIS, hashOn } from '../../text/hash.js';
import { rememberWords } from '../../text/remember.js';
import type { RoleInput } from './surface.js';

/** Words and pairs of words are told apart by this many places; a power of two. */
export const HASHES = 2_048;

/** Words and pairs of words of a sentence: where each counts, and how much all of them do. */
export interface HashedWords {
  readonly places: readonly number[];
  readonly weight: number;
}

/** Places of the words and pairs of words of a sentence, each once, with the weight that makes their vector unit length. */
export function wordHashes(reading: Pick<RoleInput, 'texts' | 'sentences' | 'words'>, s: number): HashedWords {
  const { firstWord, endWord } = reading.sentences[s]!;
  const places: number[] = [];
  calls += 1;
  let before = START;
  for (let i = firstWord; i < endWord; i += 1) {
    const { text, alone, spaced } = spelt(reading.words[i]!.kind === 'mark' ? '[mark]' : reading.texts[i]!);
    addPlace(alone, places);
    addPlace(hashOn(before, text), places);
    before = spaced;
  }
  addPlace(hashOn(before, '$'), places);
  return { places, weight: 1 / Math.sqrt(places.length) };
}

/** In which call each place was last met: a sentence counts it once. */
const metIn = new Float64Array(HASHES);
let calls = 0;

function addPlace(hash: number, places: number[]): void {
  const place = (hash ^ (hash >>> 15)) & (HASHES - 1);
  if (metIn[place] === calls) return;
  metIn[place] = calls;
  places.push(place);
}

/** A word as it is hashed, all figures alike, its hash by itself, and that with the space behind it. */
const spelt = rememberWords((word) => {
  const text = /\d/.test(word) ? '#' : word;
  const alone = hashOn(HASH_BASIS, text);
  return { text, alone, spaced: hashOn(alone, ' ') };
});

/** The hash of a pair goes on from that of its first word. */
const START = hashOn(HASH_BASIS, '^ ');
