// Topic segmentation on joined texts in the manner of Choi (2000): Pk (Beeferman et al. 1999) and WindowDiff (Pevzner &
// Hearst 2002), 0 is perfect; beside it a segmentation into equal parts.
import { foldedSums, segmentSentences } from '@sift-reel/core/fitting';
import { mean, pk, windowDiff } from '@sift-reel/fitting';
import { DOCUMENTS, joinedTexts } from './lib/joined-texts.mjs';
import { embedAll } from './lib/marked-set.mjs';
import { textTiling } from './lib/text-tiling.mjs';
import { row } from './measure.mjs';

/** A sentence is given a time so that the mean passage, seven sentences, is as long as a usual chapter. */
const SENTENCE_MS = 200_000 / 7;
/** Longer than any joined text: a segment may be as long as it likes. */
const NO_LIMIT_MS = 1e9;

for (const corpus of Object.keys(DOCUMENTS)) {
  const texts = joinedTexts(corpus, 60, 5);
  const vectors = await embedAll(texts.map((text) => text.sentences));
  const judged = texts.map(({ sentences, lengths }, i) => {
    const timed = sentences.map((_, s) => ({
      firstWord: s,
      endWord: s + 1,
      startMs: Math.round(s * SENTENCE_MS),
      endMs: Math.round((s + 1) * SENTENCE_MS),
      speaker: 0,
    }));
    const starts = segmentSentences(timed, foldedSums(vectors[i]), { shortestMs: 3 * SENTENCE_MS - 2, longestMs: NO_LIMIT_MS });
    const found = starts.map((first, k) => (starts[k + 1] ?? sentences.length) - first);
    const even = Array.from({ length: 10 }, (_, k) => Math.floor(((k + 1) * sentences.length) / 10) - Math.floor((k * sentences.length) / 10));
    const tiled = textTiling(sentences);
    return {
      count: starts.length,
      tiled: [pk(lengths, tiled), windowDiff(lengths, tiled)],
      found: [pk(lengths, found), windowDiff(lengths, found)],
      even: [pk(lengths, even), windowDiff(lengths, even)],
    };
  });
  row(`${corpus}, segments of 10`, mean(judged.map(({ count }) => count)).toFixed(1));
  for (const [key, name] of [
    ['found', 'found'],
    ['tiled', 'TextTiling'],
    ['even', 'ten equal parts'],
  ])
    row(`  ${name}`, `Pk ${mean(judged.map((one) => one[key][0])).toFixed(3)}`, `WindowDiff ${mean(judged.map((one) => one[key][1])).toFixed(3)}`);
}
