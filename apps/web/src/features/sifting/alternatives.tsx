import { formatLength, formatTimecode } from '@sift-reel/core';
import type { ReactNode } from 'react';
import type { AlternativeView, CandidateView } from '../../app/api.js';
import { Button } from '../../ui/parts.js';
import { t } from '../../texts/texts.js';

/** Other cuts of a candidate, to take in its place, and other places that say the same. */
export function Alternatives({
  candidate,
  onTake,
  onGoTo,
}: {
  candidate: CandidateView;
  onTake: (one: AlternativeView) => void;
  onGoTo: (word: number) => void;
}): ReactNode {
  if (candidate.alternatives.length === 0) return null;
  return (
    <div className="border-t border-rule pt-[10px]" data-testid="alternatives">
      <div className="text-[12px] text-soft">{t('sifting.also-possible')}</div>
      <ul className="mt-1 flex flex-col gap-[9px]">
        {candidate.alternatives.map((one) => {
          const taken = one.firstWord === candidate.firstWord && one.endWord === candidate.endWord;
          return (
            <li key={`${one.firstWord}-${one.endWord}`} className="grid grid-cols-[1fr_auto] items-start gap-x-2">
              <span>
                <button type="button" className="time text-madder-text hover:underline" onClick={() => onGoTo(one.firstWord)}>
                  {formatTimecode(one.startMs)}
                </button>{' '}
                <span className="time text-soft">
                  · {formatLength(one.endMs - one.startMs)} · {Math.round(one.score)}
                </span>{' '}
                <span className="text-[12px] text-soft">{one.why === 'said-again' ? t('sifting.says-the-same-again') : difference(one, candidate)}</span>
                <span dir="auto" className="line-clamp-2 font-serif text-[14px] leading-[1.35]">
                  {one.firstLine}
                </span>
              </span>
              {one.why === 'other-cut' && (
                <Button disabled={taken} title={t('sifting.moves-the-ends-of-this-candidate')} onClick={() => onTake(one)}>
                  {taken ? t('sifting.taken') : t('sifting.take')}
                </Button>
              )}
            </li>
          );
        })}
      </ul>
    </div>
  );
}

/** How another cut differs: "starts 4 s later, 12 s shorter". */
function difference(one: AlternativeView, candidate: CandidateView): string {
  const seconds = (ms: number): number => Math.round(Math.abs(ms) / 1_000);
  const start = one.startMs - candidate.startMs;
  const end = one.endMs - candidate.endMs;
  const parts: string[] = [];
  if (seconds(start) > 0) parts.push(t(start < 0 ? 'sifting.starts-sooner' : 'sifting.starts-later', { seconds: seconds(start) }));
  if (seconds(end) > 0) parts.push(t(end < 0 ? 'sifting.ends-sooner' : 'sifting.ends-later', { seconds: seconds(end) }));
  return parts.join(', ');
}
