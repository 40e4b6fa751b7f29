import { MISTAKES } from '../../text/lists/titles.js';
import type { TitleDraft } from './title-sorts.js';
import type { Line } from './written-word.js';

/** What a line that is quoted does, where it does something that can be named: the mistake and its cost, one thing against another, the figure with what it counts. */
export const SAID_SORTS = ['mistake', 'comparison', 'figure'] as const;
export type SaidSort = (typeof SAID_SORTS)[number];

/** The sort of a line as it was said; null where it is nothing but said. */
export function saidSort({ sort, line }: Pick<TitleDraft, 'sort' | 'line'>): SaidSort | null {
  if (sort !== 'said') return null;
  if (line.some(({ norm }) => MISTAKES.has(norm))) return 'mistake';
  if (line.some((_, i) => compares(line, i))) return 'comparison';
  return line.some((_, i) => counts(line, i)) ? 'figure' : null;
}

/** "better than", "less flour than": not "more than 40", which is a figure. */
const compares = (line: Line, at: number): boolean =>
  (line[at]!.norm === 'than' && line[at + 1] !== undefined && !isFigure(line, at + 1) && !/^(?:a|an|that|half|usual)$/.test(line[at + 1]!.norm)) ||
  (line[at]!.norm === 'instead' && line[at + 1]?.norm === 'of');

const isFigure = (line: Line, at: number): boolean => /^\d/.test(line[at]?.norm ?? '');

/** "16 frames", "2,800 a year", "40%", "11 of them": not a figure that only names something ("step 3"). */
const counts = (line: Line, at: number): boolean =>
  isFigure(line, at) &&
  (line[at]!.norm.endsWith('%') || line[at + 1]?.tag === 'NOUN' || line[at + 2]?.tag === 'NOUN' || /^(?:of|a|an|per|each)$/.test(line[at + 1]?.norm ?? ''));
