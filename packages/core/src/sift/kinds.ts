import type { SiftContext } from './context.js';
import type { Role } from './roles/roles.js';
import { asksHere } from './roles/surface.js';
import { type CandidateKind, type Kind, KINDS, type Run } from './types.js';

/** What a kind of moment is made of: shares of the words of a run that are in sentences of these roles. */
const MADE_OF: Readonly<Record<Exclude<Kind, 'answer'>, readonly (readonly [Role, number])[]>> = {
  story: [
    ['story', 1],
    ['feeling', 0.3],
  ],
  advice: [
    ['advice', 1.5],
    ['explanation', 0.25],
  ],
  opinion: [
    ['claim', 1],
    ['problem', 1.1],
    ['contrast', 0.4],
  ],
  figures: [['figure', 1.7]],
  emotion: [['feeling', 1.7]],
  humour: [['joke', 1.8]],
};
/** A laugh that is heard makes talk funny, whatever the words. */
const LAUGH = 0.35;
/** A question with its answer inside is an answer, unless something else is plainly stronger. */
const ANSWERED = 0.55;

/** Strength of each kind in a run, about 0 to 1.5. */
function kindStrengths(context: SiftContext, run: Run): Record<Kind, number> {
  const words = Math.max(30, context.wordCounts.sum(run));
  const of = (kind: Exclude<Kind, 'answer'>): number =>
    MADE_OF[kind].reduce((sum, [role, weight]) => sum + (weight * context.roleSums(role).sum(run)) / words, 0);
  return {
    answer: asksFirst(context, run) ? ANSWERED + (0.5 * context.roleSums('answer').sum(run)) / words : 0,
    story: of('story'),
    advice: of('advice'),
    opinion: of('opinion'),
    figures: of('figures'),
    emotion: of('emotion'),
    humour: of('humour') + (context.count('laugh', run) > 0 ? LAUGH : 0),
  };
}

/** The strongest kind; the earlier in the list where two are equal. */
export function kindOf(context: SiftContext, run: Run): CandidateKind {
  if (context.language !== null) return foreignKind(context, run);
  const strengths = kindStrengths(context, run);
  return KINDS.reduce((best, kind) => (strengths[kind] > strengths[best] ? kind : best));
}

/** Figures in every fifth sentence make a passage of figures, whatever they are of. */
const FIGURES_OF = 0.2;

/** What shows without understanding: a question that somebody else answers, and figures. */
function foreignKind(context: SiftContext, run: Run): CandidateKind {
  if (asksFirst(context, run)) return 'answer';
  return context.count('figure', run) >= FIGURES_OF * (run.end - run.first) ? 'figures' : 'passage';
}

/** A passage that opens with a question, or in which another answers one near the start. A question quoted in a story is none. */
function asksFirst(context: SiftContext, run: Run): boolean {
  for (let s = run.first; s < Math.min(run.first + 2, run.end - 1); s += 1) {
    const { firstWord, endWord } = context.sentences[s]!;
    const answered = s === run.first || context.sentences[s + 1]!.speaker !== context.sentences[s]!.speaker;
    if (asksHere(context, s) && answered && endWord - firstWord >= 4 && run.end - s >= 3) return true;
  }
  return false;
}
