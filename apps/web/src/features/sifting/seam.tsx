import { formatTimecode } from '@sift-reel/core';
import { memo, type MouseEvent, type PointerEvent, type ReactNode, useMemo, useRef } from 'react';
import type { CandidateView, ChapterView, SoundLevelsView } from '../../app/api.js';
import type { Media } from '../../app/media.js';
import { Glimpse, usePointedAt } from '../../ui/glimpse.js';
import { MakeUpBand } from './make-up.js';
import { type PlayerTime, usePlayerTime } from '../../app/player.js';
import { t } from '../../texts/texts.js';

interface SeamProps {
  durationMs: number;
  ridge: readonly number[];
  /** What is said at each step, where that is known. */
  madeOf?: readonly number[] | undefined;
  chapters: readonly ChapterView[];
  candidates: readonly CandidateView[];
  strongCount: number;
  partStartMs: number;
  partEndMs: number;
  chosen: CandidateView | null;
  time: PlayerTime;
  /** Small pictures, shown where the pointer is. */
  sprite: Media['sprite'];
  /** How loud it is over its length, once it was heard. */
  levels: SoundLevelsView | undefined;
  /** Times of search hits. */
  hitsMs: readonly number[];
  onSeek: (ms: number) => void;
  onChoose: (candidateId: string) => void;
  /** Where the part that counts can be set by dragging: told both ends. */
  onPart?: (startMs: number, endMs: number) => void;
}

const WIDTH = 1_244;
const RIDGE_HEIGHT = 58;
/** A drag shorter than this share of the recording is a click. */
const LEAST_DRAG = 0.004;

/** The recording on the table as one strip: its worth over time, chapters, candidates, and what is left out. */
export function Seam(props: SeamProps): ReactNode {
  const { durationMs, chosen, onSeek, onPart } = props;
  const percent = (ms: number): string => `${(100 * ms) / durationMs}%`;
  const { pointedMs, handlers } = usePointedAt(0, durationMs);
  const drag = useRef<{ fromMs: number; moved: boolean } | null>(null);
  const msAt = (event: PointerEvent<HTMLDivElement> | MouseEvent<HTMLDivElement>): number => {
    const box = event.currentTarget.getBoundingClientRect();
    return Math.round(Math.min(1, Math.max(0, (event.clientX - box.left) / box.width)) * durationMs);
  };
  const onDown = (event: PointerEvent<HTMLDivElement>): void => {
    if (onPart === undefined) return;
    drag.current = { fromMs: msAt(event), moved: false };
    event.currentTarget.setPointerCapture(event.pointerId);
  };
  const onMove = (event: PointerEvent<HTMLDivElement>): void => {
    if (drag.current === null || onPart === undefined) return;
    const ms = msAt(event);
    const { fromMs } = drag.current;
    if (!drag.current.moved && Math.abs(ms - fromMs) < durationMs * LEAST_DRAG) return;
    drag.current.moved = true;
    onPart(Math.min(fromMs, ms), Math.max(fromMs, ms));
  };
  const onClick = (event: MouseEvent<HTMLDivElement>): void => {
    if (drag.current?.moved !== true) onSeek(msAt(event));
    drag.current = null;
  };
  return (
    <section aria-label={t('sifting.the-recording-from-start-to-end')} className="flex-none border-b border-rule bg-sheet px-[18px] pt-[6px]">
      <div className="relative h-[98px]">
        <div
          className="absolute inset-x-0 top-0 z-10 h-[60px] cursor-pointer"
          {...handlers}
          onClick={onClick}
          onPointerDown={onDown}
          onPointerMove={(event) => {
            handlers.onPointerMove(event);
            onMove(event);
          }}
          data-testid="seam"
        >
          <Ridge ridge={props.ridge} />
          {props.levels !== undefined && <Wave levels={props.levels} durationMs={durationMs} />}
          {props.madeOf !== undefined && <MakeUpBand steps={props.madeOf} />}
          {props.partStartMs > 0 && (
            <div
              title={t('sifting.left-out-by-the-brief')}
              className="hatched absolute inset-y-0 left-0 opacity-80"
              style={{ width: percent(props.partStartMs) }}
            />
          )}
          {props.partEndMs < durationMs && (
            <div
              title={t('sifting.left-out-by-the-brief')}
              className="hatched absolute inset-y-0 right-0 opacity-80"
              style={{ width: percent(durationMs - props.partEndMs) }}
            />
          )}
          {chosen !== null && (
            <div
              className="pointer-events-none absolute top-0 h-[68px] bg-madder/18"
              style={{ left: percent(chosen.startMs), width: percent(chosen.endMs - chosen.startMs), minWidth: 3 }}
            />
          )}
          {props.hitsMs.map((ms) => (
            <span key={ms} aria-hidden="true" className="pointer-events-none absolute top-0 h-[10px] w-[2px] bg-indigo" style={{ left: percent(ms) }} />
          ))}
          <Playhead time={props.time} durationMs={durationMs} />
          {pointedMs !== null && <Glimpse ms={pointedMs} fromMs={0} toMs={durationMs} sprite={props.sprite} />}
        </div>
        <Ticks candidates={props.candidates} durationMs={durationMs} strongCount={props.strongCount} chosenId={chosen?.id ?? null} onChoose={props.onChoose} />
        <Chapters chapters={props.chapters} durationMs={durationMs} onSeek={onSeek} />
      </div>
    </section>
  );
}

/** The only part of the seam that moves while it plays. */
function Playhead({ time, durationMs }: { time: PlayerTime; durationMs: number }): ReactNode {
  const atMs = usePlayerTime(time, (ms) => ms);
  return atMs <= 0 ? null : <div className="pointer-events-none absolute top-0 h-[68px] w-[2px] bg-ink" style={{ left: `${(100 * atMs) / durationMs}%` }} />;
}

const Ridge = memo(function Ridge({ ridge }: { ridge: readonly number[] }): ReactNode {
  const path = useMemo(() => {
    if (ridge.length === 0) return '';
    const smooth = ridge.map((_, i) => {
      let sum = 0;
      let n = 0;
      for (let k = Math.max(0, i - 3); k <= Math.min(ridge.length - 1, i + 3); k += 1) {
        sum += ridge[k]!;
        n += 1;
      }
      return sum / n;
    });
    const x = (i: number): string => ((i * WIDTH) / (ridge.length - 1)).toFixed(1);
    const y = (value: number): string => (RIDGE_HEIGHT - 3 - (value / 100) * (RIDGE_HEIGHT - 8)).toFixed(1);
    return `M0 ${RIDGE_HEIGHT} ${smooth.map((value, i) => `L${x(i)} ${y(value)}`).join(' ')} L${WIDTH} ${RIDGE_HEIGHT} Z`;
  }, [ridge]);
  return (
    <svg aria-hidden="true" viewBox={`0 0 ${WIDTH} ${RIDGE_HEIGHT}`} preserveAspectRatio="none" className="h-[58px] w-full">
      <path d={path} className="fill-ridge" />
      <path d={`M0 ${RIDGE_HEIGHT}H${WIDTH}`} className="stroke-rule" />
    </svg>
  );
});

const WAVE_HEIGHT = 20;

/** The recorded level along the foot of the ridge: laughter, applause and silence are seen. */
const Wave = memo(function Wave({ levels, durationMs }: { levels: SoundLevelsView; durationMs: number }): ReactNode {
  const path = useMemo(() => {
    const x = (i: number): string => ((i * levels.stepMs * WIDTH) / durationMs).toFixed(1);
    // As amplitudes, beside the loudest place of this recording: in dB, talk would be one band.
    const amplitudes = levels.db.map((db) => 10 ** (db / 20));
    const loudest = Math.max(...amplitudes);
    const heights = amplitudes.map((one) => 0.5 + (one / loudest) * (WAVE_HEIGHT - 1));
    return `M0 ${WAVE_HEIGHT} ${heights.map((height, i) => `L${x(i)} ${(WAVE_HEIGHT - height).toFixed(1)}`).join(' ')} L${x(heights.length)} ${WAVE_HEIGHT} Z`;
  }, [levels, durationMs]);
  return (
    <svg
      aria-hidden="true"
      data-testid="wave"
      viewBox={`0 0 ${WIDTH} ${WAVE_HEIGHT}`}
      preserveAspectRatio="none"
      className="absolute inset-x-0 top-[38px] h-[20px] w-full"
    >
      <path d={path} className="fill-edge/55" />
    </svg>
  );
});

const Ticks = memo(function Ticks({
  candidates,
  durationMs,
  strongCount,
  chosenId,
  onChoose,
}: {
  candidates: readonly CandidateView[];
  durationMs: number;
  strongCount: number;
  chosenId: string | null;
  onChoose: (id: string) => void;
}): ReactNode {
  const colour = (one: CandidateView): string =>
    one.id === chosenId ? 'bg-madder' : one.state === 'kept' ? 'bg-verdigris' : one.state === 'dropped' || one.rank > strongCount ? 'bg-ridge' : 'bg-ink';
  return (
    <div className="absolute inset-x-0 top-[61px] h-[8px]" aria-hidden="true">
      {candidates.map((one) => (
        <button
          key={one.id}
          type="button"
          tabIndex={-1}
          title={`${one.rank}. ${one.title} · ${formatTimecode(one.startMs)}`}
          onClick={() => onChoose(one.id)}
          className={`absolute h-[7px] ${colour(one)}`}
          style={{ left: `${(100 * one.startMs) / durationMs}%`, width: `${(100 * (one.endMs - one.startMs)) / durationMs}%`, minWidth: 2 }}
        />
      ))}
    </div>
  );
});

const Chapters = memo(function Chapters({
  chapters,
  durationMs,
  onSeek,
}: {
  chapters: readonly ChapterView[];
  durationMs: number;
  onSeek: (ms: number) => void;
}): ReactNode {
  return (
    <div className="absolute inset-x-0 top-[72px] h-[24px]" data-testid="chapters">
      {chapters.map((chapter, i) => (
        <button
          key={chapter.firstWord}
          type="button"
          title={`${chapter.title} · ${formatTimecode(chapter.startMs)}`}
          onClick={() => onSeek(chapter.startMs)}
          aria-label={chapter.title}
          className="@container absolute h-full border-l border-edge/60 px-[5px] pt-[3px] text-left text-[11.5px] text-soft hover:text-ink"
          style={{
            left: `${(100 * chapter.startMs) / durationMs}%`,
            width: `${(100 * ((chapters[i + 1]?.startMs ?? durationMs) - chapter.startMs)) / durationMs}%`,
          }}
        >
          {/* A letter or two of a title tell nothing: a narrow chapter is named where the pointer rests. */}
          <span className="hidden truncate @min-[48px]:block">{chapter.title}</span>
        </button>
      ))}
    </div>
  );
});
