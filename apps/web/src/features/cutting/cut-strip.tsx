import { formatTimecode, type Span } from '@sift-reel/core';
import { type PointerEvent, type ReactNode, useMemo, useRef, useState } from 'react';
import type { ShortView, TalkAroundView } from '../../app/api.js';
import type { Media } from '../../app/media.js';
import { type PlayerTime, usePlayerTime } from '../../app/player.js';
import { t } from '../../texts/texts.js';
import { Glimpse, usePointedAt } from '../../ui/glimpse.js';
import { wordNear } from './spoken.js';

const [WIDTH, HEIGHT] = [1_000, 56];
/** What is quieter than this is drawn as silence, in dB below full scale. */
const FLOOR_DB = -60;

interface StripProps {
  around: TalkAroundView;
  short: ShortView;
  cuts: readonly Span[];
  time: PlayerTime;
  sprite: Media['sprite'];
  locked: boolean;
  onSeek: (ms: number) => void;
  onEnds: (firstWord: number, endWord: number) => void;
}

/** The sound of a short and around it; what is not played is hatched. Its ends are dragged to where a thought begins or ends. */
export function CutStrip({ around, short, cuts, time, sprite, locked, onSeek, onEnds }: StripProps): ReactNode {
  const talk = around.talks[0]!;
  const [fromMs, toMs] = [talk.words[0]!.startMs, talk.words.at(-1)!.endMs];
  const percent = (ms: number): string => `${(100 * (ms - fromMs)) / (toMs - fromMs)}%`;
  const { pointedMs, handlers } = usePointedAt(fromMs, toMs);
  const strip = useRef<HTMLDivElement>(null);
  const [drag, setDrag] = useState<{ readonly edge: 'start' | 'end'; readonly word: number } | null>(null);
  const msAt = (event: PointerEvent): number => {
    const box = strip.current!.getBoundingClientRect();
    return fromMs + Math.min(1, Math.max(0, (event.clientX - box.left) / box.width)) * (toMs - fromMs);
  };
  const first = drag?.edge === 'start' ? drag.word : short.firstWord;
  const end = drag?.edge === 'end' ? drag.word + 1 : short.endWord;
  const startMs = talk.words[first - talk.firstWord]!.startMs;
  const endMs = talk.words[end - 1 - talk.firstWord]!.endMs;
  const left = useMemo(() => gaps(cuts, fromMs, toMs), [cuts, fromMs, toMs]);
  const moveTo = (edge: 'start' | 'end', word: number): void => {
    if (edge === 'start' ? word >= short.endWord : word < short.firstWord) return;
    setDrag({ edge, word });
  };
  const done = (): void => {
    setDrag(null);
    if (drag !== null && (first !== short.firstWord || end !== short.endWord)) onEnds(first, end);
  };
  const handle = (edge: 'start' | 'end', ms: number): ReactNode => (
    <div
      role="slider"
      tabIndex={locked ? -1 : 0}
      aria-label={edge === 'start' ? t('cutting.start') : t('cutting.end')}
      aria-orientation="horizontal"
      aria-valuemin={fromMs}
      aria-valuemax={toMs}
      aria-valuenow={ms}
      aria-valuetext={formatTimecode(ms, 'tenths')}
      aria-disabled={locked}
      className="absolute inset-y-0 z-10 w-[11px] -translate-x-1/2 cursor-ew-resize touch-none"
      style={{ left: percent(ms) }}
      onPointerDown={(event) => {
        if (locked) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        moveTo(edge, edge === 'start' ? first : end - 1);
      }}
      onPointerMove={(event) => drag?.edge === edge && moveTo(edge, wordNear(talk, msAt(event), edge))}
      onPointerUp={done}
      onPointerCancel={() => setDrag(null)}
      onKeyDown={(event) => {
        const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
        if (by === undefined || locked) return;
        event.preventDefault();
        const [a, b] = edge === 'start' ? [short.firstWord + by, short.endWord] : [short.firstWord, short.endWord + by];
        if (a < b && a >= talk.firstWord && b <= talk.firstWord + talk.words.length) onEnds(a, b);
      }}
    >
      <span className="mx-auto block h-full w-[2px] bg-madder" />
    </div>
  );
  return (
    <section aria-label={t('cutting.sound-of-the-short')} className="flex-none border-b border-rule bg-sheet px-6 pt-2 pb-1">
      <div
        ref={strip}
        className="relative h-[56px] cursor-pointer"
        data-testid="cut-strip"
        {...handlers}
        onClick={(event) => onSeek(msAt(event as unknown as PointerEvent))}
      >
        {around.levels === null ? <div className="absolute inset-x-0 top-1/2 h-px bg-ridge" /> : <Wave levels={around.levels} fromMs={fromMs} toMs={toMs} />}
        {left.map((span) => (
          <div
            key={span.startMs}
            data-testid="cut-out"
            className="hatched absolute inset-y-0 opacity-85"
            style={{ left: percent(span.startMs), width: `${(100 * (span.endMs - span.startMs)) / (toMs - fromMs)}%` }}
          />
        ))}
        <Head time={time} percent={percent} fromMs={fromMs} toMs={toMs} />
        {handle('start', startMs)}
        {handle('end', endMs)}
        {pointedMs !== null && <Glimpse ms={pointedMs} fromMs={fromMs} toMs={toMs} sprite={sprite} />}
      </div>
      <div className="flex justify-between text-[11px] text-soft">
        <span className="time">{formatTimecode(startMs, 'tenths')}</span>
        {around.spreadTimes && <span>{t('cutting.spread-times')}</span>}
        <span className="time">{formatTimecode(endMs, 'tenths')}</span>
      </div>
    </section>
  );
}

/** What lies between the spans that are played, and before and after them. */
function gaps(cuts: readonly Span[], fromMs: number, toMs: number): Span[] {
  const found: Span[] = [];
  let at = fromMs;
  for (const { startMs, endMs } of [...cuts].sort((a, b) => a.startMs - b.startMs)) {
    if (endMs <= fromMs || startMs >= toMs) continue;
    if (startMs > at) found.push({ startMs: at, endMs: startMs });
    at = Math.max(at, endMs);
  }
  return at < toMs ? [...found, { startMs: at, endMs: toMs }] : found;
}

function Wave({ levels, fromMs, toMs }: { levels: NonNullable<TalkAroundView['levels']>; fromMs: number; toMs: number }): ReactNode {
  const path = useMemo(() => {
    const at = (i: number): number => ((levels.fromMs + i * levels.stepMs - fromMs) / (toMs - fromMs)) * WIDTH;
    const heights = levels.db.map((db) => (Math.max(0, db - FLOOR_DB) / -FLOOR_DB) * (HEIGHT / 2 - 2) + 0.5);
    const above = heights.map((height, i) => `${at(i).toFixed(1)},${(HEIGHT / 2 - height).toFixed(1)}`);
    const below = heights.map((height, i) => `${at(i).toFixed(1)},${(HEIGHT / 2 + height).toFixed(1)}`).reverse();
    return `M${[...above, ...below].join('L')}Z`;
  }, [levels, fromMs, toMs]);
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} preserveAspectRatio="none" className="absolute inset-0 h-full w-full" aria-hidden="true">
      <path d={path} className="fill-edge" />
    </svg>
  );
}

function Head({ time, percent, fromMs, toMs }: { time: PlayerTime; percent: (ms: number) => string; fromMs: number; toMs: number }): ReactNode {
  const at = usePlayerTime(time, (ms) => ms);
  return at < fromMs || at > toMs ? null : <div className="absolute inset-y-0 w-[2px] bg-ink" style={{ left: percent(at) }} />;
}
