import { FRAME_SIZES, formatLength, type Shape, SHAPES, type Span } from '@sift-reel/core';
import { Pause, Play } from 'lucide-react';
import { type ReactNode, useMemo, useState } from 'react';
import { api, type FramesView, type ShortView } from '../../app/api.js';
import { PlayedPicture } from '../../app/played-picture.js';
import { type Player, usePlayerTime } from '../../app/player.js';
import { problemText } from '../../app/problems.js';
import { t } from '../../texts/texts.js';
import { Button } from '../../ui/parts.js';
import { Select } from '../../ui/select.js';
import { SpeedSelect } from '../../ui/speed-select.js';
import { SHAPE_NAMES } from '../../ui/shapes.js';

const imageOf = (svg: string): string => `data:image/svg+xml,${encodeURIComponent(svg)}`;

interface PreviewProps {
  short: ShortView;
  cuts: readonly Span[];
  totalMs: number;
  player: Player;
  onToggle: () => void;
  /** A cut is tried: what is heard is not the short as it stands. */
  trying: boolean;
}

/** A short as it will be: what is cut out is skipped, ground and captions stand as in its file. */
export function CutPreview({ short, cuts, totalMs, player, onToggle, trying }: PreviewProps): ReactNode {
  const [shape, setShape] = useState<Shape>('vertical');
  const frames = api.useDrawFramesQuery({ shortId: short.id, shape });
  const { width, height } = FRAME_SIZES[shape];
  return (
    <section aria-label={t('cutting.preview')} className="flex flex-none flex-col items-center gap-2 border-b border-rule px-4 py-3">
      <div
        className="relative max-h-[330px] w-full overflow-hidden rounded-sm border border-rule bg-bar"
        style={{ aspectRatio: `${width} / ${height}`, maxWidth: `${(330 * width) / height}px` }}
        data-testid="preview"
      >
        {frames.currentData !== undefined && <img alt="" src={imageOf(frames.currentData.ground)} className="absolute inset-0 h-full w-full" />}
        <PlayedPicture
          player={player}
          startMs={cuts[0]?.startMs ?? short.startMs}
          onToggle={onToggle}
          className="absolute inset-0 h-full w-full !bg-transparent"
        />
        {frames.currentData !== undefined && !trying && <Caption frames={frames.currentData} player={player} />}
        {frames.error !== undefined && (
          <p role="alert" className="absolute inset-0 grid place-items-center p-3 text-center text-[12px] text-bar-text">
            {problemText(frames.error)}
          </p>
        )}
      </div>
      <div className="flex w-full items-center gap-2">
        <Button aria-label={player.playing ? t('cutting.stop') : t('cutting.play')} onClick={onToggle}>
          {player.playing ? <Pause size={13} /> : <Play size={13} />}
        </Button>
        <span className="time text-[12px] whitespace-nowrap text-soft">
          <PlayedTime player={player} totalMs={totalMs} />
        </span>
        <SpeedSelect className="ml-auto" />
        <Select label={t('cutting.shape')} value={shape} onChange={setShape} options={SHAPES.map((value) => ({ value, name: SHAPE_NAMES[value] }))} />
      </div>
    </section>
  );
}

/** The caption that is read now. All are there at once, so that none comes late. */
function Caption({ frames: { captions }, player }: { frames: FramesView; player: Player }): ReactNode {
  const images = useMemo(() => captions.map(({ svg }) => imageOf(svg)), [captions]);
  const shown = usePlayerTime(player.played, (ms) => captions.findIndex(({ startMs, endMs }) => ms >= startMs && ms < endMs));
  return captions.map(({ text, startMs }, i) => (
    <img
      key={startMs}
      alt={i === shown ? text : ''}
      src={images[i]}
      data-testid={i === shown ? 'caption' : undefined}
      className="pointer-events-none absolute inset-0 h-full w-full"
      style={{ visibility: i === shown ? 'visible' : 'hidden' }}
    />
  ));
}

function PlayedTime({ player, totalMs }: { player: Player; totalMs: number }): ReactNode {
  const at = usePlayerTime(player.played, (ms) => Math.round(ms / 100) * 100);
  return `${formatLength(Math.min(at, totalMs))} / ${formatLength(totalMs)}`;
}
