import type { ReactNode } from 'react';
import { setSpeed, SPEEDS, useSpeed } from '../app/speed.js';
import { formatNumber } from '../texts/formats.js';
import { t } from '../texts/texts.js';
import { Select } from './select.js';

/** How fast it plays. */
export function SpeedSelect({ className = '' }: { className?: string }): ReactNode {
  const speed = useSpeed();
  const name = (value: number): string =>
    t('ui.times-speed', { speed: formatNumber(value, Number.isInteger(value) ? 0 : value * 2 === Math.round(value * 2) ? 1 : 2) });
  return (
    <Select
      className={className}
      label={t('ui.speed')}
      value={String(speed)}
      onChange={(value) => setSpeed(SPEEDS.find((one) => String(one) === value) ?? 1)}
      options={SPEEDS.map((value) => ({ value: String(value), name: name(value) }))}
    />
  );
}
