// Texts made by joining passages of different documents, in the manner of Choi (2000): ten passages of 3 to 11 sentences
// each, every one from another document.
import { splitSentences, winkTagger } from '@sift-reel/core';
import { seededChance, shuffled } from '@sift-reel/fitting';
import { addresses, chapters, letters } from './corpora.mjs';

const LONGEST_PASSAGE = 11;

/** Documents by the corpus that they are of; letters are one subject each, as Choi's newspaper texts are. */
export const DOCUMENTS = {
  letters: () => letters().map((paragraphs) => paragraphs.join(' ')),
  'addresses and a novel': () => [...addresses(), ...chapters()],
};

function sentencesOf(text) {
  const words = text
    .split(/\s+/)
    .slice(0, 1_500)
    .map((word, i) => ({ text: word, kind: 'word', speaker: 0, startMs: 400 * i, endMs: 400 * i + 380 }));
  return splitSentences(words, winkTagger).sentences.map((s) =>
    words
      .slice(s.firstWord, s.endWord)
      .map((word) => word.text)
      .join(' '),
  );
}

/** `count` joined texts of a corpus: sentences, and the true lengths of the passages. */
export function joinedTexts(corpus, count, seed) {
  const chance = seededChance(seed);
  const all = DOCUMENTS[corpus]()
    .map(sentencesOf)
    .filter((sentences) => sentences.length >= LONGEST_PASSAGE);
  return Array.from({ length: count }, () => {
    const sentences = [];
    const lengths = [];
    for (const d of shuffled(
      all.map((_, i) => i),
      chance,
    ).slice(0, 10)) {
      const list = all[d];
      const length = 3 + Math.floor(9 * chance());
      const from = Math.floor(chance() * Math.max(1, list.length - length));
      const passage = list.slice(from, from + length);
      sentences.push(...passage);
      lengths.push(passage.length);
    }
    return { sentences, lengths };
  });
}
