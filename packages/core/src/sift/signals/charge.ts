import { type SiftContext, hitsWithin, Sums } from '../context.js';
import { listed, toScale } from '../scale.js';
import type { Tell } from '../tells.js';
import type { Run } from '../types.js';
import { differentHits, quote, type Signal, tidyEvidence } from './signal.js';

const WORTH: Partial<Record<Tell, number>> = { feeling: 1, laugh: 2.2, opinion: 1.3, surprise: 1.3, contrast: 0.45, superlative: 0.5 };
const TELLS = Object.keys(WORTH) as Tell[];
const NAMES: Partial<Record<Tell, string>> = {
  feeling: 'feeling',
  laugh: 'laughter',
  opinion: 'opinion',
  surprise: 'surprise',
  contrast: 'contrast',
  superlative: 'extremes',
};

/** Charge: feeling, contrast, opinion, surprise, laughter. Weighted tells for every ten words, plus exclamations. */
export function charge(context: SiftContext): Signal {
  const shouts = new Sums(
    context.sentences.map(({ firstWord, endWord }) => {
      let n = 0;
      for (let i = firstWord; i < endWord; i += 1) if (/!["'”’)]*$/.test(context.words[i]!.text)) n += 1;
      return n;
    }),
  );
  const raw = (run: Run): number => {
    const words = Math.max(1, context.wordCounts.sum(run));
    let sum = 0.6 * shouts.sum(run);
    for (const tell of TELLS) sum += WORTH[tell]! * context.count(tell, run);
    return (10 * sum) / (words + 12);
  };
  return {
    name: 'charge',
    value: (run) => toScale(raw(run), 0.55, 1.5),
    explain: (run) => {
      const hits = hitsWithin(context, run, TELLS);
      const strong = hits.filter((hit) => hit.tell !== 'contrast');
      const shown = strong.length > 0 ? strong : hits;
      if (shown.length === 0) return { sentence: 'Even in tone: no feeling, opinion or contrast in the words', evidence: [] };
      const tells = [...new Set(shown.map((hit) => hit.tell))].sort((a, b) => WORTH[b]! - WORTH[a]!).slice(0, 2);
      const quoted = differentHits(
        context,
        shown.filter((hit) => tells.includes(hit.tell)),
        2,
      ).map((hit) => quote(context, hit));
      const text = `${listed(tells.map((tell) => NAMES[tell]!))}: ${listed(quoted)}`;
      return { sentence: text[0]!.toUpperCase() + text.slice(1), evidence: tidyEvidence(hits, 10) };
    },
  };
}
