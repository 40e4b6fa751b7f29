import { t } from '../../texts/texts.js';

/** How the schedule is laid out: so many weeks of a board, many weeks at a glance, or one day under the other. */
export const LOOKS = ['board', 'board-2', 'board-4', 'glance', 'list'] as const;
export type Look = (typeof LOOKS)[number];
export const WEEKS_OF: Readonly<Record<Look, number>> = { board: 1, 'board-2': 2, 'board-4': 4, glance: 5, list: 2 };

export function lookName(look: Look): string {
  if (look === 'list') return t('planning.list-by-day');
  if (look === 'glance') return t('planning.weeks-at-a-glance', { count: WEEKS_OF.glance });
  return t('planning.weeks', { count: WEEKS_OF[look] });
}
