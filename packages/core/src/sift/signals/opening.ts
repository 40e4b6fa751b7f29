import { type SiftContext, hitsWithin } from '../context.js';
import type { Hit } from '../find-tells.js';
import { openingWord } from '../edges.js';
import { listed, toScale } from '../scale.js';
import type { Tell } from '../tells.js';
import type { Run } from '../types.js';
import { quote, type Signal, tidyEvidence } from './signal.js';

/** People decide within about three seconds whether to stay (common practice); a line begun by then is heard out. */
const DECIDING_MS = 3_000;
const HEARD_OUT_MS = 6_500;

const WORTH: Partial<Record<Tell, number>> = {
  question: 1.1,
  promise: 1,
  figure: 0.8,
  surprise: 0.9,
  opinion: 0.8,
  feeling: 0.6,
  superlative: 0.5,
  contrast: 0.35,
  address: 0.35,
  advice: 0.5,
  story: 0.45,
  name: 0.15,
};
const NAMES: Partial<Record<Tell, string>> = {
  question: 'asks a question',
  promise: 'makes a promise',
  figure: 'names a figure',
  surprise: 'starts with a surprise',
  opinion: 'takes a side',
  feeling: 'starts with a strong word',
  superlative: 'claims an extreme',
  contrast: 'sets up a contrast',
  address: 'speaks to the viewer',
  advice: 'starts with advice',
  story: 'starts a story',
  name: 'names somebody',
};
const TELLS = Object.keys(WORTH) as Tell[];

/** Opening: do the first three seconds give a reason to stay? Sum of what is said by then, less slow and dependent starts. */
export function opening(context: SiftContext): Signal {
  const found = new Map<number, Hit[]>();
  const hitsAt = (first: number): Hit[] => {
    let hits = found.get(first);
    if (hits === undefined) found.set(first, (hits = findOpeningHits(context, first)));
    return hits;
  };
  const raw = (run: Run): number => {
    const start = openingWord(context, run.first);
    const sentence = context.sentences[run.first]!;
    const counted = new Map<Tell, number>();
    for (const hit of hitsAt(run.first)) counted.set(hit.tell, (counted.get(hit.tell) ?? 0) + 1);
    let sum = 0;
    for (const [tell, n] of counted) sum += WORTH[tell]! * (n > 1 ? 1.3 : 1);
    sum -= context.dull[run.first]! * 2;
    if (start.dependent) sum -= 0.9;
    if (sentence.endMs - sentence.startMs > 12_000) sum -= 0.5;
    if (sentence.endWord - start.word <= 2) sum -= 0.5; // "Exactly." is no opening
    return sum;
  };
  return {
    name: 'opening',
    value: (run) => toScale(raw(run), 0.75, 3.1),
    explain: (run) => {
      const hits = hitsAt(run.first);
      const best = [...new Set(hits.map((hit) => hit.tell))].sort((a, b) => WORTH[b]! - WORTH[a]!).slice(0, 2);
      const start = openingWord(context, run.first);
      if (best.length === 0) {
        const sentence = start.dependent
          ? `Starts on ${quote(context, { firstWord: start.word, endWord: start.word + 1 })}, which leans on what came before`
          : 'Nothing in the first seconds asks, claims or surprises';
        return { sentence, evidence: [] };
      }
      const head = hits.find((hit) => hit.tell === best[0])!;
      const text = `${listed(best.map((tell) => NAMES[tell]!))} in the first seconds: ${quote(context, { firstWord: start.word, endWord: Math.max(head.endWord, start.word + 4) })}`;
      return { sentence: text[0]!.toUpperCase() + text.slice(1), evidence: tidyEvidence(hits.filter((hit) => best.includes(hit.tell))) };
    },
  };
}

function findOpeningHits(context: SiftContext, first: number): Hit[] {
  const startMs = context.words[openingWord(context, first).word]!.startMs;
  let end = first + 1;
  while (end < context.sentences.length && context.sentences[end]!.startMs < startMs + DECIDING_MS) end += 1;
  const untilMs =
    context.sentences[first]!.endMs - startMs <= HEARD_OUT_MS
      ? Math.max(startMs + DECIDING_MS, context.sentences[first]!.endMs)
      : startMs + DECIDING_MS + 1_000;
  return hitsWithin(context, { first, end }, TELLS).filter(
    (hit) => context.words[hit.firstWord]!.startMs < untilMs && hit.firstWord >= openingWord(context, first).word,
  );
}
