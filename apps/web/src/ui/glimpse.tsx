import { formatTimecode } from '@sift-reel/core';
import { type PointerEvent, type ReactNode, useState } from 'react';
import type { Media } from '../app/media.js';

/** Half a px beside a strip's end is still in it. */
const within = (value: number, least: number, most: number): number => Math.min(most, Math.max(least, value));

/** Which moment of a strip the pointer is at. */
export function usePointedAt(
  fromMs: number,
  toMs: number,
): {
  readonly pointedMs: number | null;
  readonly handlers: { onPointerEnter: (event: PointerEvent) => void; onPointerMove: (event: PointerEvent) => void; onPointerLeave: () => void };
} {
  const [pointedMs, setPointed] = useState<number | null>(null);
  const follow = (event: PointerEvent): void => {
    if (event.pointerType === 'touch') return;
    const box = event.currentTarget.getBoundingClientRect();
    setPointed(fromMs + within((event.clientX - box.left) / box.width, 0, 1) * (toMs - fromMs));
  };
  return { pointedMs, handlers: { onPointerEnter: follow, onPointerMove: follow, onPointerLeave: () => setPointed(null) } };
}

/** The picture of a moment beneath the pointer, and when that is. Stands inside the strip, under it. */
export function Glimpse({ ms, fromMs, toMs, sprite }: { ms: number; fromMs: number; toMs: number; sprite: Media['sprite'] }): ReactNode {
  const share = (ms - fromMs) / (toMs - fromMs);
  const index = sprite === null ? 0 : within(Math.floor(ms / sprite.everyMs), 0, sprite.count - 1);
  return (
    <div
      className="pointer-events-none absolute top-full z-30 border border-rule bg-bar text-bar-text shadow-[0_4px_14px_rgba(35,32,27,.25)]"
      style={{ left: `${100 * share}%`, transform: `translateX(${-100 * within(share, 0, 1)}%)` }}
      data-testid="glimpse"
      aria-hidden="true"
    >
      {sprite !== null && (
        <div
          style={{
            width: sprite.width,
            height: sprite.height,
            backgroundImage: `url(${sprite.url})`,
            backgroundPosition: `-${(index % sprite.columns) * sprite.width}px -${Math.floor(index / sprite.columns) * sprite.height}px`,
          }}
        />
      )}
      <div className="time px-2 py-[2px] text-center text-[11.5px]">{formatTimecode(ms)}</div>
    </div>
  );
}
