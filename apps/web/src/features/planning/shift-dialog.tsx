import type { PostMove } from '@sift-reel/core';
import type { ReactNode } from 'react';
import type { PostView } from '../../app/api.js';
import { formatDay } from '../../texts/formats.js';
import { t } from '../../texts/texts.js';
import { Dialog, DialogFoot } from '../../ui/dialog.js';
import { Button } from '../../ui/parts.js';
import type { Shift } from './use-deeds.js';

interface ShiftDialogProps {
  shift: Shift;
  posts: readonly PostView[];
  titleOf: (shortId: string) => string;
  onMove: (moves: readonly PostMove[]) => void;
  onClose: () => void;
}

/** Which of some posts cannot go where they were sent, and why, before any goes. */
export function ShiftDialog({ shift: { fitting, refused }, posts, titleOf, onMove, onClose }: ShiftDialogProps): ReactNode {
  const postOf = (id: string): PostView | undefined => posts.find((post) => post.id === id);
  return (
    <Dialog open onClose={onClose} title={t('planning.cannot-move-so', { count: refused.length })}>
      <ul className="max-h-[320px] overflow-y-auto">
        {refused.map(({ postId, refusal }) => (
          <li key={postId} className="border-b border-rule py-[6px] last:border-0">
            <b>{titleOf(postOf(postId)?.shortId ?? '')}</b> <span className="text-soft">{formatDay(postOf(postId)?.date ?? '1970-01-01')}</span>
            <div className="text-[12px] text-madder-text">{refusal.detail}</div>
          </li>
        ))}
      </ul>
      <DialogFoot>
        <Button onClick={onClose}>{t('planning.leave-all-where-they-are')}</Button>
        <Button
          tone="fill"
          disabled={fitting.length === 0}
          onClick={() => {
            onMove(fitting);
            onClose();
          }}
        >
          {t('planning.move-those-that-can', { count: fitting.length })}
        </Button>
      </DialogFoot>
    </Dialog>
  );
}
