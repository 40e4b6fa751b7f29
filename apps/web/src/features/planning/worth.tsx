import type { ReactNode } from 'react';
import { formatNumber } from '../../texts/formats.js';
import { t } from '../../texts/texts.js';

/** What a proposal is worth, and how near that is to the best there can be. */
export function Worth({ value, bound }: { value: number; bound: number }): ReactNode {
  if (bound === 0) return null;
  return (
    <p className="text-soft" title={t('planning.worth-is')} data-testid="worth">
      {t('planning.worth', { value: formatNumber(value, 1) })}
      {bound > 0 &&
        ` · ${formatNumber(value, 1) === formatNumber(bound, 1) ? t('planning.the-best-there-is') : t('planning.at-least-of-the-best', { share: formatNumber((100 * value) / bound, 1) })}`}
    </p>
  );
}
