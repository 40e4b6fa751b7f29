// Sentence vectors: two threads against one, and a second brief (everything in the cache) against the first.
import { readTranscript } from '@sift-reel/core';
import { Embedder } from '@sift-reel/embedder';
import { ratio, row } from './measure.mjs';
import { talkOf } from './talk.mjs';

const { transcript } = readTranscript(new TextEncoder().encode(talkOf(0.4)));
const texts = transcript.sentences.map(
  (s, i) =>
    `${i} ${transcript.words
      .slice(s.firstWord, s.endWord)
      .map((word) => word.text)
      .join(' ')}`,
);

async function timed(embedder) {
  await embedder.embed(['warm up', 'both threads'].flatMap((text) => Array.from({ length: 20 }, (_, i) => `${text} ${i}`)));
  const from = performance.now();
  await embedder.embed(texts);
  return performance.now() - from;
}

const kept = new Map();
const cache = {
  read: async (keys) => new Map(keys.filter((key) => kept.has(key)).map((key) => [key, kept.get(key)])),
  write: async (rows) => {
    for (const [key, vector] of rows) kept.set(key, vector);
  },
};
const one = new Embedder({ threads: 1 });
const oneMs = await timed(one);
await one.close();
const two = new Embedder({ threads: 2, cache });
const twoMs = await timed(two);
const from = performance.now();
await two.embed(texts);
const againMs = performance.now() - from;
await two.close();
row('sentences', texts.length);
row('one thread / two threads', ratio(oneMs, twoMs));
row('first / second, with the cache', ratio(twoMs, againMs));
row('ms a sentence, one thread', (oneMs / texts.length).toFixed(1));
