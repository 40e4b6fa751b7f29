import type { RoleReading } from './surface.js';

/** Words and pairs of words are told apart by this many places; a power of two. */
export const HASHES = 2_048;

/** Places of the words and pairs of words of a sentence, each once, with the weight that makes their vector unit length. */
export function wordHashes(reading: Pick<RoleReading, 'texts' | 'sentences' | 'words'>, s: number): { places: Int32Array; weight: number } {
  const { firstWord, endWord } = reading.sentences[s]!;
  const places = new Set<number>();
  let before = '^';
  for (let i = firstWord; i < endWord; i += 1) {
    const text = reading.words[i]!.kind === 'mark' ? '[mark]' : /\d/.test(reading.texts[i]!) ? '#' : reading.texts[i]!;
    places.add(hashOf(text));
    places.add(hashOf(`${before} ${text}`));
    before = text;
  }
  places.add(hashOf(`${before} $`));
  return { places: Int32Array.from(places), weight: 1 / Math.sqrt(Math.max(1, places.size)) };
}

/** FNV-1a, folded to `HASHES`. */
function hashOf(text: string): number {
  let h = 0x811c9dc5;
  for (let i = 0; i < text.length; i += 1) h = Math.imul(h ^ text.charCodeAt(i), 0x01000193);
  return (h ^ (h >>> 15)) & (HASHES - 1);
}
