import { SIGNALS, type SignalName } from '@sift-reel/core';
import type { ReactNode } from 'react';

/** Signals always keep this order and colour, and always carry their name or letter. */
export const SIGNAL_LOOK: Readonly<Record<SignalName, { name: string; letter: string; colour: string }>> = {
  opening: { name: 'Opening', letter: 'O', colour: 'var(--madder)' },
  standsAlone: { name: 'Stands alone', letter: 'A', colour: 'var(--verdigris)' },
  substance: { name: 'Substance', letter: 'S', colour: 'var(--indigo)' },
  charge: { name: 'Charge', letter: 'C', colour: 'var(--saffron)' },
  delivery: { name: 'Delivery', letter: 'D', colour: 'var(--plum)' },
  currency: { name: 'Currency', letter: 'N', colour: 'var(--moss)' },
};

export const SIGNAL_HINTS: Readonly<Record<SignalName, string>> = {
  opening: 'Do the first three seconds give a reason to stay',
  standsAlone: 'Makes sense to a stranger, finishes its thought',
  substance: 'Concrete, useful, specific',
  charge: 'Feeling, contrast, opinion, surprise, laughter',
  delivery: 'Pace, pauses, few fillers',
  currency: 'Touches what the brief and the client care about now',
};

/** Six small bars, the signals of a candidate at a glance; none for one that is not known. */
export function SignalBars({ values, faded = false }: { values: readonly (number | null)[]; faded?: boolean }): ReactNode {
  const label = SIGNALS.map((signal, i) => `${SIGNAL_LOOK[signal].name} ${values[i] ?? 'not known'}`).join(', ');
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
  answer: 'Question answered',
  story: 'Story',
  advice: 'Advice',
  opinion: 'Strong opinion',
  figures: 'Figures',
  emotion: 'Emotion',
  humour: 'Humour',
  passage: 'Passage',
} as const;
