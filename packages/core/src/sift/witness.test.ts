import fc from 'fast-check';
import vader from 'vader-sentiment';
import { describe, expect, it } from 'vitest';
import { toVtt, transcriptOf } from '../talk.fixture.js';
import { buildContext } from './context.js';
import { RunTable, type ScoredRun } from './run-table.js';
import type { Vectors } from './types.js';
import { withAlternatives } from './variety.js';

describe('feeling of words: Hutto & Gilbert (2014), through their lexicon’s package', () => {
  // The examples of the authors' own description of VADER, compound values (from memory).
  it.each([
    ['VADER is smart, handsome, and funny.', 0.8316],
    ['VADER is very smart, handsome, and funny.', 0.8545],
    ['VADER is not smart, handsome, nor funny.', -0.7424],
  ])('%s', (sentence, compound) => {
    expect(vader.SentimentIntensityAnalyzer.polarity_scores(sentence).compound).toBeCloseTo(compound, 3);
  });
});

describe('variety: maximal marginal relevance, Carbonell & Goldstein (1998)', () => {
  const N = 12;
  const transcript = transcriptOf(
    toVtt(Array.from({ length: N }, (_, i) => ({ speaker: 'Ann', text: `The ${'abcdefghijkl'[i]} kiln was lit again after breakfast on the hill.` }))),
  );
  const brief = { partStartMs: 0, partEndMs: null, minMs: 3_000, maxMs: 8_000, roughCount: 5, topics: [], kinds: [], avoid: [] };

  /** Their greedy rule, with likeness whole or none and λ = ½: the next is always the one with the most ½·relevance − ½·likeness. */
  function mmr(runs: readonly ScoredRun[], alike: (a: ScoredRun, b: ScoredRun) => boolean): ScoredRun[] {
    const rest = [...runs];
    const chosen: ScoredRun[] = [];
    while (rest.length > 0) {
      const value = (run: ScoredRun): number => 0.5 * (run.score / 100) - 0.5 * (chosen.some((other) => alike(run, other)) ? 1 : 0);
      const next = rest.reduce((best, run) => (value(run) > value(best) ? run : best));
      if (value(next) < 0) break; // only such as say again what is there
      chosen.push(next);
      rest.splice(rest.indexOf(next), 1);
    }
    return chosen;
  }

  it('keeps what their rule chooses, in its order', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 4 }), { minLength: N, maxLength: N }),
        fc.shuffledSubarray(
          Array.from({ length: N }, (_, i) => i),
          { minLength: N, maxLength: N },
        ),
        (topics, order) => {
          // Each sentence points in the direction of its topic.
          const data = new Float32Array(N * 6);
          topics.forEach((topic, s) => (data[s * 6 + topic] = 1));
          const sentenceVectors: Vectors = { dimensions: 6, data };
          const context = buildContext({ transcript, brief, clientTags: [], sentenceVectors, topicVectors: null });
          const runs = order.map((s, i) => ({ first: s, end: s + 1, score: 95 - 5 * i }));
          const kept = withAlternatives(context, runs, RunTable.of(runs));
          expect(kept.map(({ first }) => first)).toEqual(mmr(runs, (a, b) => topics[a.first] === topics[b.first]).map(({ first }) => first));
        },
      ),
      { numRuns: 40 },
    );
  });
});
