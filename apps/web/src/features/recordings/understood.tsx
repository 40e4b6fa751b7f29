import { formatLength, formatTimecode } from '@sift-reel/core';
import type { ReactNode } from 'react';
import type { TranscriptReadingView } from '../../app/api.js';
import { formatNumber } from '../../texts/formats.js';
import { t } from '../../texts/texts.js';
import { Button } from '../../ui/parts.js';

/** How a loosely written transcript was understood, before it is taken. */
export function Understood({
  reading,
  sounding,
  onTake,
  onLeave,
}: {
  reading: TranscriptReadingView;
  /** Whether there is sound to hear its times in, where it has none. */
  sounding: boolean;
  onTake: () => void;
  onLeave: () => void;
}): ReactNode {
  const { timed, wordCount, speakers, durationMs, excerpt, repairs, repairCount } = reading;
  const facts = [
    t('recordings.words', { wordCount: formatNumber(wordCount) }),
    speakers.length === 0 ? t('recordings.no-voices-named') : speakers.slice(0, 6).join(', '),
    ...(timed ? [t('recordings.until', { length: formatLength(durationMs) })] : []),
  ];
  return (
    <div className="col-span-full grid gap-2 border-l-4 border-edge py-1 pl-3" data-testid="understood">
      <p>
        <b>{t('recordings.this-is-how-it-was-understood')}</b> {facts.join(' · ')}
      </p>
      <table className="max-w-[820px]">
        <tbody>
          {excerpt.map(({ startMs, speaker, text }, i) => (
            <tr key={i} className="align-top">
              <td className="time w-[70px] pr-3 text-[12px] text-soft">{startMs === null ? '–' : formatTimecode(startMs)}</td>
              <td className="w-[110px] pr-3 text-[12px] font-semibold">{speaker ?? <span className="font-normal text-soft">{t('recordings.nobody')}</span>}</td>
              <td className="font-serif">{text}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {!timed && (
        <p className={sounding ? 'text-[12px]' : 'text-madder-text'}>
          {sounding ? t('recordings.it-has-no-times') : t('recordings.it-has-no-times-and-no-sound')}
        </p>
      )}
      {repairs.length > 0 && (
        <p className="text-[12px] text-soft">
          {t('recordings.line', { line: repairs[0]!.line })}: {repairs[0]!.detail}
          {repairCount > 1 && ` ${t('recordings.and-count-more', { count: repairCount - 1 })}`}
        </p>
      )}
      <div className="flex gap-2">
        <Button tone="fill" disabled={!timed && !sounding} onClick={onTake}>
          {t('recordings.take-it')}
        </Button>
        <Button onClick={onLeave}>{t('recordings.leave-it')}</Button>
      </div>
    </div>
  );
}
