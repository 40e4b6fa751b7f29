import clsx from 'clsx';
import type { ReactNode } from 'react';
import type { CandidateView } from '../../app/api.js';
import { Button } from '../../ui/parts.js';
import { t } from '../../texts/texts.js';

/** Panes of the bench, in their order; on a narrow screen one is shown at a time. */
const PANES = ['Ranking', 'Transcript', 'Reasons'] as const;
export type Pane = (typeof PANES)[number];

const PANE_NAMES: Readonly<Record<Pane, string>> = {
  Ranking: t('sifting.ranking'),
  Transcript: t('common.transcript'),
  Reasons: t('sifting.reasons'),
};

/** What a narrow screen leaves out of the three panes. */
export const ONLY: Readonly<Record<Pane, string>> = {
  Ranking: 'max-md:[&>*:not(:nth-child(1))]:hidden',
  Transcript: 'max-md:[&>*:not(:nth-child(2))]:hidden',
  Reasons: 'max-md:[&>*:not(:nth-child(3))]:hidden',
};

/** Turns from one pane to another, where they do not stand side by side. */
export function PaneSwitch({ shown, onShow }: { shown: Pane; onShow: (pane: Pane) => void }): ReactNode {
  return (
    <div role="group" aria-label={t('sifting.part-of-the-bench')} className="grid flex-none grid-cols-3 border-b border-rule md:hidden">
      {PANES.map((pane) => (
        <button
          key={pane}
          type="button"
          aria-pressed={pane === shown}
          className={clsx('border-b-2 py-[9px] text-[13px]', pane === shown ? 'border-madder font-semibold' : 'border-transparent text-soft')}
          onClick={() => onShow(pane)}
        >
          {PANE_NAMES[pane]}
        </button>
      ))}
    </div>
  );
}

interface ActionBarProps {
  candidate: CandidateView;
  hasSound: boolean;
  playing: boolean;
  onPlay: () => void;
  onState: (state: CandidateView['state']) => void;
}

/** Play, keep and drop under the thumb, whichever pane is shown. */
export function ActionBar({ candidate, hasSound, playing, onPlay, onState }: ActionBarProps): ReactNode {
  const toggled = (state: 'kept' | 'dropped'): void => onState(candidate.state === state ? 'open' : state);
  return (
    <div
      role="group"
      aria-label={t('sifting.candidate', { rank: candidate.rank })}
      className="grid flex-none grid-cols-3 gap-2 border-t border-rule bg-paper px-[18px] py-2 md:hidden"
    >
      <Button className="py-[10px]" disabled={!hasSound} onClick={onPlay}>
        {playing ? t('sifting.pause') : t('sifting.play')}
      </Button>
      <Button
        className="py-[10px]"
        tone={candidate.state === 'kept' ? 'plain' : 'fill'}
        aria-pressed={candidate.state === 'kept'}
        onClick={() => toggled('kept')}
      >
        {candidate.state === 'kept' ? t('sifting.kept') : t('sifting.keep')}
      </Button>
      <Button className="py-[10px]" aria-pressed={candidate.state === 'dropped'} onClick={() => toggled('dropped')}>
        {candidate.state === 'dropped' ? t('sifting.dropped') : t('sifting.drop')}
      </Button>
    </div>
  );
}
