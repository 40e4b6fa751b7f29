import { rememberWords } from '../../text/remember.js';
import type { RoleReading } from './surface.js';

/** Words and pairs of words are told apart by this many places; a power of two. */
export const HASHES = 2_048;

/** Places of the words and pairs of words of a sentence, each once, with the weight that makes their vector unit length. */
export function wordHashes(reading: Pick<RoleReading, 'texts' | 'sentences' | 'words'>, s: number): { places: Int32Array; weight: number } {
  const { firstWord, endWord } = reading.sentences[s]!;
  const places = new Int32Array(2 * (endWord - firstWord) + 1);
  let found = 0;
  const add = (h: number): void => {
    const place = (h ^ (h >>> 15)) & (HASHES - 1);
    for (let k = 0; k < found; k += 1) if (places[k] === place) return; // a sentence is short
    places[found++] = place;
  };
  let before = hashOn(BASIS, '^ ');
  for (let i = firstWord; i < endWord; i += 1) {
    const { text, alone } = spelt(reading.words[i]!.kind === 'mark' ? '[mark]' : reading.texts[i]!);
    add(alone);
    add(hashOn(before, text));
    before = hashOn(alone, ' ');
  }
  add(hashOn(before, '$'));
  return { places: places.subarray(0, found), weight: 1 / Math.sqrt(Math.max(1, found)) };
}

/** A word as it is hashed, all figures alike, and its hash by itself. */
const spelt = rememberWords((word) => {
  const text = /\d/.test(word) ? '#' : word;
  return { text, alone: hashOn(BASIS, text) };
});

/** FNV-1a goes letter by letter, so the hash of a pair goes on from that of its first word. */
const BASIS = 0x811c9dc5;

function hashOn(from: number, text: string): number {
  let h = from;
  for (let i = 0; i < text.length; i += 1) h = Math.imul(h ^ text.charCodeAt(i), 0x01000193);
  return h;
}
