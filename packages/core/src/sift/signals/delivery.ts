import { type SiftContext, hitsWithin, Sums } from '../context.js';
import { counted, toScale } from '../scale.js';
import type { Run } from '../types.js';
import { type Signal, tidyEvidence } from './signal.js';

/** A pause that is heard as a pause, and one that is heard as a hole, in ms. */
const PAUSE_MS = 350;
const HOLE_MS = 1_400;
/** Easy, lively talk in words a minute. Common practice: 150 to 185. */
const LIVELY_LOW = 150;
const LIVELY_HIGH = 185;

/** Delivery: pace, pauses, few fillers. The energy of the voice comes with sound analysis; until then words alone tell. */
export function delivery(context: SiftContext): Signal {
  const spokenMs = new Sums(context.sentences.map((s) => s.endMs - s.startMs));
  const pauses = new Sums(context.sentences.map((_, s) => countPauses(context, s, PAUSE_MS, HOLE_MS)));
  const holes = new Sums(context.sentences.map((_, s) => countPauses(context, s, HOLE_MS, Infinity)));
  const turns = new Sums(context.sentences.map((sentence, s) => (s > 0 && context.sentences[s - 1]!.speaker !== sentence.speaker ? 1 : 0)));
  const pace = (run: Run): number => (context.wordCounts.sum(run) * 60_000) / Math.max(1, spokenMs.sum(run));
  const stumbles = (run: Run): number => context.count('filler', run) + context.count('repeat', run);
  const raw = (run: Run): number => {
    const words = Math.max(1, context.wordCounts.sum(run));
    const wpm = pace(run);
    const off = wpm < LIVELY_LOW ? (LIVELY_LOW - wpm) / 40 : wpm > LIVELY_HIGH ? (wpm - LIVELY_HIGH) / 50 : 0;
    const minutes = Math.max(0.2, spokenMs.sum(run) / 60_000);
    return (
      1 -
      Math.min(2, off) -
      (60 * stumbles(run)) / (words + 10) -
      Math.min(1, holes.sum(run) / minutes / 3) * 0.6 +
      Math.min(0.4, turns.sum(run) / minutes / 20)
    );
  };
  return {
    name: 'delivery',
    value: (run) => toScale(raw(run), 0.05, 1.25),
    explain: (run) => {
      const given = context.input.transcript.wordTimes === 'given';
      const n = stumbles(run);
      const parts = [`${Math.round(pace(run))} words a minute`];
      parts.push(n === 0 ? 'no fillers or false starts' : counted(n, 'filler or false start', 'fillers or false starts'));
      const pauseCount = pauses.sum(run);
      if (given && pauseCount > 0) parts.push(counted(pauseCount, 'clean pause'));
      const evidence = tidyEvidence(hitsWithin(context, run, ['filler', 'repeat']), 6);
      return { sentence: `${parts.join(', ')}; judged by ${given ? 'text and word times' : 'text alone'}`, evidence };
    },
  };
}

function countPauses(context: SiftContext, s: number, fromMs: number, toMs: number): number {
  const { firstWord, endWord } = context.sentences[s]!;
  let n = 0;
  for (let i = Math.max(1, firstWord); i < endWord; i += 1) {
    const gap = context.words[i]!.startMs - context.words[i - 1]!.endMs;
    if (gap >= fromMs && gap < toMs) n += 1;
  }
  return n;
}
