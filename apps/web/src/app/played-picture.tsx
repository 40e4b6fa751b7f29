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
  const { picture } = player;
  useLayoutEffect(() => {
    if (picture === null || place.current === null) return;
    // Moved, not made anew: it goes on playing where it stands.
    place.current.append(picture);
    picture.hidden = false;
    picture.style.cssText = 'width:100%;height:100%;object-fit:contain';
    return () => {
      if (!picture.isConnected) return; // its player is gone, and it with it
      picture.hidden = true;
      document.body.append(picture);
    };
  }, [picture]);
  // The picture of the place where it would begin, until something is played.
  useLayoutEffect(() => {
    if (picture?.paused === true) picture.currentTime = startMs / 1_000;
  }, [picture, startMs]);
  if (picture === null) return null;
  return (
    <button
      type="button"
      ref={place}
      aria-label={t('common.picture-of-the-recording')}
      aria-pressed={player.playing}
      className={`block bg-bar ${className}`}
      onClick={onToggle}
    />
  );
}
