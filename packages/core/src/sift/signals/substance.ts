import { type SiftContext, hitsWithin, Sums } from '../context.js';
import { counted, listed, toScale } from '../scale.js';
import type { Tell } from '../tells.js';
import type { Run } from '../types.js';
import { differentHits, quote, type Signal, tidyEvidence } from './signal.js';

const WORTH: Partial<Record<Tell, number>> = { figure: 1.5, advice: 1.2, cause: 1, example: 0.9, superlative: 0.3, name: 0.4 };
const TELLS = Object.keys(WORTH) as Tell[];

/** Substance: concrete, useful, specific. Weighted tells for every ten words, plus how much of the talk is content words. */
export function substance(context: SiftContext): Signal {
  const nouns = new Sums(
    context.sentences.map(({ firstWord, endWord }) => {
      let n = 0;
      for (let i = firstWord; i < endWord; i += 1) if (context.tags[i] === 'NOUN' || context.tags[i] === 'NUM' || context.tags[i] === 'PROPN') n += 1;
      return n;
    }),
  );
  const raw = (run: Run): number => {
    const words = Math.max(1, context.wordCounts.sum(run));
    let sum = 0;
    for (const tell of TELLS) sum += WORTH[tell]! * context.count(tell, run);
    const content = context.contentCounts.sum(run) / words;
    const concrete = nouns.sum(run) / words;
    // Twelve words are added so that a very short run is not rich by one figure alone.
    return (10 * sum) / (words + 12) + 3 * (content - 0.36) + 3 * (concrete - 0.19);
  };
  return {
    name: 'substance',
    value: (run) => toScale(raw(run), 0.52, 1.35),
    explain: (run) => {
      const figures = hitsWithin(context, run, ['figure']);
      const steps = hitsWithin(context, run, ['advice']);
      const causes = hitsWithin(context, run, ['cause', 'example']);
      const seconds = Math.round((context.sentences[run.end - 1]!.endMs - context.sentences[run.first]!.startMs) / 1_000);
      const parts: string[] = [];
      if (figures.length > 0) parts.push(counted(figures.length, 'figure'));
      if (steps.length > 0) parts.push(counted(steps.length, 'piece of advice', 'pieces of advice'));
      if (causes.length > 0) parts.push(counted(causes.length, 'reason or example', 'reasons or examples'));
      if (parts.length === 0) return { sentence: 'Little that is concrete: no figures, advice or reasons', evidence: [] };
      const quoted = differentHits(context, figures.length > 0 ? figures : steps.length > 0 ? steps : causes, 2).map((hit) => quote(context, hit));
      const text = `${listed(parts)} in ${seconds} s: ${listed(quoted)}`;
      return { sentence: text[0]!.toUpperCase() + text.slice(1), evidence: tidyEvidence([...figures, ...steps, ...causes], 10) };
    },
  };
}
