import clsx from 'clsx';
import { type ReactNode, useLayoutEffect, useRef } from 'react';
import { t } from '../texts/texts.js';
import type { Player } from './player.js';

/** The picture of what is played, where it has one. A click plays or stops it, as its button does. @param startMs where it begins */
export function PlayedPicture({
  player,
  startMs,
  onToggle,
  className,
}: {
  player: Player;
  startMs: number;
  onToggle: () => void;
  className: string;
}): ReactNode {
  const place = useRef<HTMLButtonElement>(null);
  const { pictures } = player;
  useLayoutEffect(() => {
    if (place.current === null) return;
    // Moved, not made anew: each goes on playing where it stands.
    for (const [i, picture] of pictures.entries()) {
      if (picture.parentElement === place.current) continue;
      place.current.append(picture);
      picture.hidden = false;
      const visibility = picture.style.visibility || (i === 0 ? 'visible' : 'hidden');
      picture.style.cssText = `position:absolute;inset:0;width:100%;height:100%;object-fit:contain;visibility:${visibility}`;
    }
    return () => {
      for (const picture of pictures) {
        if (!picture.isConnected) continue; // its player is gone, and it with it
        picture.hidden = true;
        document.body.append(picture);
      }
    };
  }, [pictures]);
  // The picture of the place where it would begin, until something is played.
  useLayoutEffect(() => {
    const shown = pictures.find(({ style }) => style.visibility !== 'hidden');
    if (shown?.paused === true) shown.currentTime = startMs / 1_000;
  }, [pictures, startMs]);
  if (pictures.length === 0) return null;
  return (
    <button
      type="button"
      ref={place}
      aria-label={t('common.picture-of-the-recording')}
      aria-pressed={player.playing}
      className={clsx('block bg-bar', !/\babsolute\b/.test(className) && 'relative', className)}
      onClick={onToggle}
    />
  );
}
