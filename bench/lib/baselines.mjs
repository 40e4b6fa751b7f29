// What simpler means would choose from a marked talk, so that the engine can be seen beside them.
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { ROLES } from '@sift-reel/core';
import { readLabelled } from '@sift-reel/fitting';
import vader from 'vader-sentiment';
import { BRIEF } from './marked-set.mjs';

const SUBJECTS = join(import.meta.dirname, '..', 'roles', 'subjects');

/** What somebody gets who cuts from the front: passages of 45 s, one after the other. */
export const firstPassages = (talk) =>
  Array.from({ length: Math.floor(talk.durationMs / 45_000) }, (_, i) => ({ startMs: i * 45_000, endMs: (i + 1) * 45_000 }));

const TELLING =
  /\b(?:never|always|nobody|everybody|everyone|best|worst|most|only|first|secret|mistake|wrong|truth|problem|actually|because|why|how|should|must|stop|imagine|remember|suddenly|\d[\d.,]*|hundred|thousand|million|per ?cent|dollars?|pounds?|euros?)\b/gi;

/** A plain word-list scorer: words that tell, figures, questions, and how strongly a sentence feels (Hutto & Gilbert 2014). */
export const byWordLists = (transcript, texts) =>
  passagesBy(
    transcript,
    texts.map((text) => {
      const found =
        (text.match(TELLING) ?? []).length + (text.includes('?') ? 1 : 0) + 1.5 * Math.abs(vader.SentimentIntensityAnalyzer.polarity_scores(text).compound);
      return found / (text.split(' ').length + 4);
    }),
  );

/** Sentences that somebody would post, two of each of ten roles, the first there are. */
export function examples() {
  const wanted = ['claim', 'advice', 'story', 'figure', 'explanation', 'answer', 'feeling', 'joke', 'contrast', 'problem'];
  const all = readdirSync(SUBJECTS)
    .sort()
    .flatMap((file) => readLabelled(file, readFileSync(join(SUBJECTS, file), 'utf8')));
  return wanted.flatMap((role) => all.filter((one) => ROLES[one.role] === role).slice(0, 2)).map(({ text }) => text);
}

/** Likeness of each sentence to the nearest of some example sentences. */
export const byExamples = (transcript, vectors, wanted) =>
  passagesBy(
    transcript,
    Array.from({ length: transcript.sentences.length }, (_, s) => {
      let best = -1;
      for (let e = 0; e < wanted.data.length / wanted.dimensions; e += 1) best = Math.max(best, dot(vectors, s, wanted, e));
      return best;
    }),
  );

function dot(a, row, b, other) {
  let sum = 0;
  for (let d = 0; d < a.dimensions; d += 1) sum += a.data[row * a.dimensions + d] * b.data[other * b.dimensions + d];
  return sum;
}

/** From each sentence a passage of some 45 s inside the band; the best by mean worth of its sentences that do not overlap. */
function passagesBy({ sentences }, worth) {
  const all = [];
  sentences.forEach(({ startMs }, first) => {
    let end = first;
    while (end < sentences.length && sentences[end].endMs - startMs <= 45_000) end += 1;
    if (end === first || sentences[end - 1].endMs - startMs < BRIEF.minMs) return;
    const score = worth.slice(first, end).reduce((sum, value) => sum + value, 0) / (end - first);
    all.push({ startMs, endMs: sentences[end - 1].endMs, score });
  });
  const kept = [];
  for (const one of all.sort((a, b) => b.score - a.score)) if (kept.every((other) => one.endMs <= other.startMs || other.endMs <= one.startMs)) kept.push(one);
  return kept;
}
