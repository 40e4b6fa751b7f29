import type { SiftContext } from './context.js';
import { asks } from './signals/stands-alone.js';
import { type Kind, KINDS, type Run } from './types.js';

/** Tells for every hundred words at which talk is plainly of a kind; measured on ordinary talk, where half of it is usual. */
const PLAIN_AT: Readonly<Record<Exclude<Kind, 'answer'>, number>> = { story: 4.2, advice: 3.2, opinion: 2.6, figures: 4.5, emotion: 4.5, humour: 1.2 };

/** Strength of each kind in a run; 1 is plainly of it. */
export function kindStrengths(context: SiftContext, run: Run): Record<Kind, number> {
  const words = Math.max(30, context.wordCounts.sum(run));
  const per = (n: number, plain: number): number => (100 * n) / words / plain;
  return {
    answer: asksFirst(context, run) ? 1.15 : 0,
    story: per(context.count('story', run), PLAIN_AT.story),
    advice: per(context.count('advice', run), PLAIN_AT.advice),
    opinion: per(context.count('opinion', run), PLAIN_AT.opinion),
    figures: per(context.count('figure', run), PLAIN_AT.figures),
    emotion: per(context.count('feeling', run) + 0.5 * context.count('surprise', run), PLAIN_AT.emotion),
    humour: per(context.count('laugh', run), PLAIN_AT.humour),
  };
}

/** The strongest kind; the earlier in the list where two are equal. */
export function kindOf(context: SiftContext, run: Run): Kind {
  const strengths = kindStrengths(context, run);
  return KINDS.reduce((best, kind) => (strengths[kind] > strengths[best] ? kind : best));
}

/** A question near the start, answered inside by somebody else or by whoever asked it. */
function asksFirst(context: SiftContext, run: Run): boolean {
  for (let s = run.first; s < Math.min(run.first + 2, run.end - 1); s += 1) {
    const { firstWord, endWord } = context.sentences[s]!;
    if (asks(context, s) && endWord - firstWord >= 4 && run.end - s >= 3) return true;
  }
  return false;
}
