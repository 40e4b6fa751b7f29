import type { ReactNode } from 'react';
import { problemOf } from '../app/problems.js';
import { Button } from './parts.js';
import { t } from '../texts/texts.js';

/** What a thing is now, from a refusal that says somebody else changed it meanwhile; null for any other error. */
export function staleCurrent<T extends { version: number }>(error: unknown): T | null {
  const problem = problemOf(error);
  return problem?.code === 'stale' ? ((problem.current ?? null) as T | null) : null;
}

interface Difference {
  readonly name: string;
  readonly theirs: string;
  readonly mine: string;
}

/** What differs between two versions of a form, by the names its fields are shown under. */
export function differences<T extends object>(theirs: T, mine: T, names: Partial<Record<keyof T & string, string>>): Difference[] {
  return (Object.entries(names) as [keyof T & string, string][])
    .map(([key, name]) => ({ name, theirs: inWords(theirs[key]), mine: inWords(mine[key]) }))
    .filter((one) => one.theirs !== one.mine);
}

function inWords(value: unknown): string {
  if (value === null || value === undefined || value === '') return t('ui.nothing');
  if (Array.isArray(value)) return value.length === 0 ? t('ui.nothing') : value.map(inWords).join(', ');
  if (typeof value === 'object')
    return Object.entries(value)
      .map(([key, one]) => `${key} ${inWords(one)}`)
      .join(' ');
  return String(value);
}

/** Somebody else changed it while one did: both are shown, and one is chosen. */
export function StaleChoice({
  what,
  changed,
  onTake,
  onKeep,
}: {
  what: string;
  changed: readonly Difference[];
  onTake: () => void;
  onKeep: () => void;
}): ReactNode {
  return (
    <div role="alert" className="border-l-4 border-saffron bg-sheet px-4 py-3">
      <b>{t('ui.somebody-changed-while-you-did', { what })}</b>
      {changed.length === 0 ? (
        <p className="mt-1 text-soft">{t('ui.what-you-see-here-is-the')}</p>
      ) : (
        <table className="mt-2 w-full text-[12px]">
          <thead>
            <tr className="text-left text-soft">
              <th className="w-[110px] py-1 font-semibold" />
              <th className="py-1 font-semibold">{t('ui.theirs')}</th>
              <th className="py-1 font-semibold">{t('ui.yours')}</th>
            </tr>
          </thead>
          <tbody>
            {changed.map((one) => (
              <tr key={one.name} className="border-t border-rule align-top">
                <td className="py-1 pr-2 text-soft">{one.name}</td>
                <td className="py-1 pr-3">{one.theirs}</td>
                <td className="py-1">{one.mine}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <div className="mt-2 flex gap-2">
        <Button onClick={onTake}>{t('ui.take-theirs')}</Button>
        <Button tone="fill" onClick={onKeep}>
          {t('ui.save-yours-over-it')}
        </Button>
      </div>
    </div>
  );
}
