import { SIGNALS, type SignalName } from '@sift-reel/core';
import type { ReactNode } from 'react';
import { t } from '../texts/texts.js';

/** Signals always keep this order and colour, and always carry their name or letter. */
export const SIGNAL_LOOK: Readonly<Record<SignalName, { name: string; letter: string; colour: string }>> = {
  opening: { name: t('ui.opening'), letter: 'O', colour: 'var(--madder)' },
  standsAlone: { name: t('ui.stands-alone'), letter: 'A', colour: 'var(--verdigris)' },
  substance: { name: t('ui.substance'), letter: 'S', colour: 'var(--indigo)' },
  charge: { name: t('ui.charge'), letter: 'C', colour: 'var(--saffron)' },
  delivery: { name: t('ui.delivery'), letter: 'D', colour: 'var(--plum)' },
  currency: { name: t('ui.currency'), letter: 'N', colour: 'var(--moss)' },
};

export const SIGNAL_HINTS: Readonly<Record<SignalName, string>> = {
  opening: t('ui.do-the-first-three-seconds-give'),
  standsAlone: t('ui.makes-sense-to-a-stranger-finishes'),
  substance: t('ui.concrete-useful-specific'),
  charge: t('ui.feeling-contrast-opinion-surprise-laughter'),
  delivery: t('ui.pace-pauses-few-fillers'),
  currency: t('ui.touches-what-the-brief-and-the'),
};

/** Six small bars, the signals of a candidate at a glance; none for one that is not known. */
export function SignalBars({ values, faded = false }: { values: readonly (number | null)[]; faded?: boolean }): ReactNode {
  const label = SIGNALS.map((signal, i) => `${SIGNAL_LOOK[signal].name} ${values[i] ?? t('ui.not-known')}`).join(', ');
  return (
    <span role="img" aria-label={label} title={label} className={`flex h-[26px] flex-none items-end gap-[2px] ${faded ? 'opacity-50' : ''}`}>
      {SIGNALS.map((signal, i) => (
        <span key={signal} className="flex h-full w-[8px] items-end bg-faint">
          <span className="w-full" style={{ height: `${values[i] ?? 0}%`, background: SIGNAL_LOOK[signal].colour }} />
        </span>
      ))}
    </span>
  );
}

export const KIND_NAMES = {
  answer: t('ui.question-answered'),
  story: t('ui.story'),
  advice: t('ui.advice'),
  opinion: t('ui.strong-opinion'),
  figures: t('ui.figures'),
  emotion: t('ui.emotion'),
  humour: t('ui.humour'),
  passage: t('common.passage'),
} as const;
