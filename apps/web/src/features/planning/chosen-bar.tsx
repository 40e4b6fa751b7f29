import { type ReactNode, useState } from 'react';
import type { PostView } from '../../app/api.js';
import { useKeys } from '../../app/keys.js';
import { useAppDispatch } from '../../app/store.js';
import { t } from '../../texts/texts.js';
import { atFoot } from '../../ui/foot.js';
import { Button } from '../../ui/parts.js';
import { chose, toggled } from './schedule-slice.js';
import { ShiftDialog } from './shift-dialog.js';
import type { Deeds, Shift } from './use-deeds.js';

const A_WEEK = 7;

/** What can be done with posts that are chosen; nothing is shown where none is. */
export function ChosenBar({ posts, titleOf, deeds }: { posts: readonly PostView[]; titleOf: (shortId: string) => string; deeds: Deeds }): ReactNode {
  const dispatch = useAppDispatch();
  const [asked, setAsked] = useState<Shift | null>(null);
  useKeys([
    {
      key: 'x',
      label: t('planning.choose-the-focused-post'),
      group: t('planning.move'),
      run: () => {
        const { post } = (document.activeElement as HTMLElement | null)?.dataset ?? {};
        if (post !== undefined) dispatch(toggled(post));
      },
    },
  ]);
  if (posts.length === 0) return null;
  const shift = (days: number): void => {
    const planned = deeds.shiftOf(
      posts.map((post) => post.id),
      days,
    );
    if (planned.refused.length > 0) setAsked(planned);
    else deeds.moveAll(planned.fitting);
  };
  const movable = posts.filter((post) => post.state !== 'posted');
  const planned = posts.filter((post) => post.state === 'planned');
  const letMove = planned.some((post) => !post.movable);
  return (
    <div
      ref={atFoot}
      role="region"
      aria-label={t('planning.chosen-posts')}
      className="flex flex-none flex-wrap items-center gap-2 border-t border-ink bg-paper px-[14px] py-[7px]"
    >
      <b className="mr-2">{t('planning.posts-chosen', { count: posts.length })}</b>
      <Button onClick={() => shift(-A_WEEK)}>{t('planning.a-week-earlier')}</Button>
      <Button onClick={() => shift(A_WEEK)}>{t('planning.a-week-later')}</Button>
      <Button disabled={planned.length === 0} title={t('planning.laying-out-may-move')} onClick={() => deeds.setMovable(planned, letMove)}>
        {letMove || planned.length === 0 ? t('planning.let-them-move') : t('planning.let-them-stay')}
      </Button>
      <Button
        tone="trouble"
        disabled={movable.length === 0}
        onClick={() => {
          deeds.takeOffAll(movable);
          dispatch(chose([]));
        }}
      >
        {t('planning.take-off-the-schedule')}
      </Button>
      <Button className="ml-auto" onClick={() => dispatch(chose([]))}>
        {t('planning.choose-none')}
      </Button>
      {asked !== null && <ShiftDialog shift={asked} posts={posts} titleOf={titleOf} onMove={deeds.moveAll} onClose={() => setAsked(null)} />}
    </div>
  );
}
