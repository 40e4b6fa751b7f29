import { formatLength, formatTimecode, type Transcript } from '@sift-reel/core';
import clsx from 'clsx';
import { Fragment, type ReactNode } from 'react';
import { Link } from 'react-router';
import type { AlternativeView, CandidateView, SignalView } from '../../app/api.js';
import { useAppDispatch, useAppSelector } from '../../app/store.js';
import { Button } from '../../ui/parts.js';
import { KIND_NAMES, SIGNAL_HINTS, SIGNAL_LOOK } from '../../ui/signals.js';
import { SpeedSelect } from '../../ui/speed-select.js';
import { Alternatives } from './alternatives.js';
import { signalLit } from './bench-slice.js';
import type { Player } from '../../app/player.js';
import type { Media } from '../../app/media.js';
import { PlayedPicture } from '../../app/played-picture.js';
import { PlayerTrouble } from '../../ui/player-trouble.js';
import { t, rich } from '../../texts/texts.js';

interface ReasonsProps {
  candidate: CandidateView;
  total: number;
  transcript: Transcript;
  player: Player;
  media: Media;
  hasSound: boolean;
  onState: (state: CandidateView['state']) => void;
  onPlay: () => void;
  onGoTo: (word: number) => void;
  onBack: () => void;
  onTake: (one: AlternativeView) => void;
  /** Takes one's own candidate away. */
  onRemove: () => void;
  /** How much each signal counts now. */
  weights: readonly number[];
}

/** Why this candidate: the score, the six signals, each with its sentence and times that lead to the words. */
export function Reasons({
  candidate,
  total,
  transcript,
  player,
  hasSound,
  onState,
  onPlay,
  onGoTo,
  onBack,
  onTake,
  onRemove,
  weights,
  media,
}: ReasonsProps): ReactNode {
  const moved = candidate.firstWord !== candidate.foundFirstWord || candidate.endWord !== candidate.foundEndWord;
  return (
    <section aria-label={t('sifting.reasons')} className="flex flex-col gap-3 px-[18px] py-[14px]">
      <PlayedPicture
        player={player}
        startMs={candidate.startMs}
        onToggle={() => (player.playing ? player.pause() : player.playSpan(candidate.startMs, candidate.endMs))}
        className="h-[168px] w-full"
      />
      <div className="flex items-end gap-4">
        <div>
          <div className="text-[44px] leading-none font-bold tracking-[-.05em]" data-testid="score">
            {Math.round(candidate.score)}
          </div>
          <div className="mt-1 text-soft">
            {t('sifting.rank-of', {
              own: String(candidate.origin === 'own'),
              rank: candidate.rank,
              total,
              length: lengthOf(candidate.endMs - candidate.startMs),
            })}
          </div>
        </div>
        <div className="ml-auto text-right">
          <div className="font-semibold">{KIND_NAMES[candidate.kind]}</div>
          <div className="time text-soft">
            {formatTimecode(candidate.startMs, 'tenths')} – {formatTimecode(candidate.endMs, 'tenths')}
          </div>
        </div>
      </div>
      <div className="grid grid-cols-2 gap-[6px]">
        <Button tone={candidate.state === 'kept' ? 'plain' : 'fill'} keyName="k" aria-pressed={candidate.state === 'kept'} onClick={() => onState('kept')}>
          {candidate.state === 'kept' ? t('sifting.kept') : t('sifting.keep')}
        </Button>
        <Button keyName="x" aria-pressed={candidate.state === 'dropped'} onClick={() => onState('dropped')}>
          {candidate.state === 'dropped' ? t('sifting.dropped') : t('sifting.drop')}
        </Button>
        <Button keyName="l" disabled={candidate.state === 'open'} onClick={() => onState('open')}>
          {t('sifting.leave-open')}
        </Button>
        <Button
          keyName=" "
          disabled={!hasSound}
          title={hasSound ? t('sifting.plays-exactly-this-candidate') : t('sifting.this-recording-has-no-sound-yet')}
          onClick={onPlay}
        >
          {player.playing ? t('sifting.pause') : t('sifting.play')}
        </Button>
        {hasSound && <SpeedSelect className="col-span-2 justify-self-start" />}
        {candidate.origin === 'own' && candidate.state !== 'kept' && (
          <Button className="col-span-2" tone="quiet" onClick={onRemove}>
            {t('sifting.take-this-candidate-away')}
          </Button>
        )}
      </div>
      <PlayerTrouble player={player} media={media} />
      {!hasSound && (
        <p className="text-[12px] text-soft">
          {rich('sifting.no-sound-yet-add-it-on', {
            link: (chunks) => (
              <Link className="underline" to="/recordings">
                {chunks}
              </Link>
            ),
          })}
        </p>
      )}
      <p className="font-serif text-[15px] leading-[1.4]">{candidate.reason}</p>
      {moved && (
        <p className="border-l-4 border-rule pl-3 text-[12px] text-soft">
          {t('sifting.you-moved-its-ends-score-and', {
            from: formatTimecode(transcript.words[candidate.foundFirstWord]!.startMs),
            to: formatTimecode(transcript.words[candidate.foundEndWord - 1]!.endMs),
          })}{' '}
          <button type="button" className="underline" onClick={onBack}>
            {t('sifting.back-to-where-it-was-found')}
          </button>
        </p>
      )}
      <div className="flex flex-col gap-[9px]">
        {candidate.signals.map((signal, k) => (
          <SignalRow
            key={signal.signal}
            signal={signal}
            counts={weights[k]! / weights.reduce((sum, weight) => sum + weight, 0)}
            transcript={transcript}
            onGoTo={onGoTo}
          />
        ))}
      </div>
      <Alternatives candidate={candidate} onTake={onTake} onGoTo={onGoTo} />
      <div className="border-t border-rule pt-[10px]">
        <div className="text-[12px] text-soft">{t('sifting.first-line')}</div>
        <p dir="auto" className="font-serif text-[15px]">
          {candidate.firstLine}
        </p>
        <div className="mt-1 text-[12px] text-soft">{t('sifting.last-line')}</div>
        <p dir="auto" className="font-serif text-[15px]">
          {candidate.lastLine}
        </p>
      </div>
      <div className="border-t border-rule pt-[10px]">
        <div className="flex justify-between text-[12px] text-soft">
          <span>{t('sifting.title-from-the-words-said')}</span>
          <span className="time">{t('sifting.characters', { count: candidate.title.length })}</span>
        </div>
        <p dir="auto" className="text-[15px] leading-[1.3] font-semibold">
          {candidate.title}
        </p>
        <p className="mt-[6px] text-verdigris-text">{candidate.hashtags.map((tag) => `#${tag}`).join(' ')}</p>
        <p className="mt-2 text-[11.5px] text-soft">{t('sifting.long-keep-it-then-word-it', { length: formatLength(candidate.endMs - candidate.startMs) })}</p>
      </div>
    </section>
  );
}

function SignalRow({
  signal,
  counts,
  transcript,
  onGoTo,
}: {
  signal: SignalView;
  /** Its share of the score, 0 to 1. */
  counts: number;
  transcript: Transcript;
  onGoTo: (word: number) => void;
}): ReactNode {
  const lit = useAppSelector((state) => state.bench.lit);
  const dispatch = useAppDispatch();
  const look = SIGNAL_LOOK[signal.signal];
  const starts = signal.evidence.filter((_, i) => i % 2 === 0).slice(0, 3);
  const dimmed = lit !== null && lit !== signal.signal;
  return (
    <div
      className={clsx('grid grid-cols-[88px_1fr_30px] items-center gap-x-[6px] gap-y-[3px]', dimmed && 'text-soft')}
      title={t('sifting.counts-of-100-in-the-score', { hint: SIGNAL_HINTS[signal.signal], number: Math.round(counts * 100) })}
      onMouseEnter={() => dispatch(signalLit(signal.signal))}
      onMouseLeave={() => dispatch(signalLit(null))}
      onFocus={() => dispatch(signalLit(signal.signal))}
      onBlur={() => dispatch(signalLit(null))}
      data-testid={`signal-${signal.signal}`}
      data-dimmed={dimmed}
    >
      <span tabIndex={0} className="rounded-sm">
        {look.name}
      </span>
      <span className="h-[6px] bg-faint" aria-hidden="true">
        {signal.known && <span className={clsx('block h-full', dimmed && 'opacity-40')} style={{ width: `${signal.value}%`, background: look.colour }} />}
      </span>
      <span
        className="time text-right"
        aria-label={signal.known ? t('sifting.of-100', { name: look.name, value: signal.value }) : t('sifting.not-known', { name: look.name })}
      >
        {signal.known ? signal.value : '–'}
      </span>
      <span className="col-span-3 text-[12px] leading-[1.35] text-soft">
        {signal.sentence}
        {starts.map((word) => (
          <Fragment key={word}>
            {' '}
            <button type="button" className="time text-madder-text hover:underline" onClick={() => onGoTo(word)}>
              {formatTimecode(transcript.words[word]?.startMs ?? 0)}
            </button>
          </Fragment>
        ))}
      </span>
    </div>
  );
}

/** Shorts are spoken of in seconds, long cuts in minutes. */
const lengthOf = (ms: number): string => (ms < 100_000 ? `${Math.round(ms / 1_000)} s` : formatLength(ms));
