import { clsx } from 'clsx';
import type { ReactNode } from 'react';
import type { Media } from '../app/media.js';
import type { Player } from '../app/player.js';
import { formatNumber, timeLeft } from '../texts/formats.js';
import { t } from '../texts/texts.js';

/** Why nothing is heard or seen: it cannot be played, or not yet. Nothing where all is well. */
export function PlayerTrouble({ player, media: { coming }, className }: { player: Player; media: Media; className?: string }): ReactNode {
  if (coming !== null && (coming.converting || player.trouble !== null))
    return (
      <p role="status" className={clsx('text-[12px] text-soft', className)}>
        {t('app.it-is-made-playable', { percent: formatNumber(Math.floor(coming.fraction * 100), 0) })}
        {coming.leftMs !== null && coming.leftMs > 0 && ` · ${t('common.left', { left: timeLeft(coming.leftMs) })}`}
      </p>
    );
  return (
    player.trouble !== null && (
      <p role="alert" className={clsx('text-[12px] text-madder-text', className)}>
        {player.trouble}
      </p>
    )
  );
}
