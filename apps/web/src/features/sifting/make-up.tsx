import { STUFFS, type Stuff } from '@sift-reel/core';
import { memo, type ReactNode, useMemo } from 'react';
import type { MakeUpView } from '../../app/api.js';
import { t } from '../../texts/texts.js';

/** What talk is made of, as it looks on the seam: by tone and grain, since the colours are the signals'. */
const LOOK: Readonly<Record<Stuff, { name: string; tone: string }>> = {
  explaining: { name: t('sifting.explaining'), tone: 'bg-ink/40' },
  verdicts: { name: t('sifting.verdicts'), tone: 'bg-ink' },
  questions: { name: t('sifting.questions'), tone: 'beaded' },
  stories: { name: t('sifting.stories'), tone: 'slanted' },
  procedure: { name: t('sifting.procedure'), tone: 'striped' },
  chatter: { name: t('sifting.housekeeping'), tone: 'dotted' },
};

/** Stuff of less than this share is not named. */
const NAMED_FROM = 0.03;

/** The band under the ridge: what is said at each time. */
export const MakeUpBand = memo(function MakeUpBand({ steps }: { steps: readonly number[] }): ReactNode {
  const stretches = useMemo(() => {
    const out: { stuff: number; from: number; to: number }[] = [];
    steps.forEach((stuff, step) => {
      const last = out.at(-1);
      if (last?.stuff === stuff) last.to = step + 1;
      else out.push({ stuff, from: step, to: step + 1 });
    });
    return out.filter(({ stuff }) => stuff >= 0);
  }, [steps]);
  return (
    <div aria-hidden="true" className="pointer-events-none absolute inset-x-0 top-[54px] h-[5px]" data-testid="make-up">
      {stretches.map(({ stuff, from, to }) => (
        <span
          key={from}
          className={`absolute h-full ${LOOK[STUFFS[stuff]!].tone}`}
          style={{ left: `${(100 * from) / steps.length}%`, width: `${(100 * (to - from)) / steps.length}%` }}
        />
      ))}
    </div>
  );
});

/** What kind of recording this is, in a sentence, and the share of each stuff with its look on the seam. */
export function MakeUpLine({ makeUp }: { makeUp: MakeUpView }): ReactNode {
  return (
    <p className="flex flex-wrap items-baseline gap-x-[14px]">
      <span className="text-ink">{makeUp.sentence}</span>
      {STUFFS.map((stuff, k) => ({ stuff, share: makeUp.shares[k]! }))
        .filter(({ share }) => share >= NAMED_FROM)
        .map(({ stuff, share }) => (
          <span key={stuff} className="whitespace-nowrap">
            <span aria-hidden="true" className={`mr-[5px] inline-block h-[8px] w-[16px] ${LOOK[stuff].tone}`} />
            {LOOK[stuff].name} {Math.round(100 * share)} %
          </span>
        ))}
    </p>
  );
}
