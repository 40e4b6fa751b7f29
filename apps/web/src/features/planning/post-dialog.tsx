import { checkTakeOff, formatMinute, isUnderway, type Plan } from '@sift-reel/core';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { api, type PostView, type ScheduleView } from '../../app/api.js';
import { Dialog, DialogFoot } from '../../ui/dialog.js';
import { Button } from '../../ui/parts.js';
import type { Deeds } from './use-deeds.js';
import { t } from '../../texts/texts.js';
import { formatDay } from '../../texts/formats.js';
import { standingOf } from '../../ui/post-states.js';
import { Sending, SendingDeeds } from './sending.js';

/** One post: when in its channel's zone and in UTC, why there, and what can be done with it. */
interface PostDialogProps {
  post: PostView;
  view: ScheduleView;
  plan: Plan;
  deeds: Pick<Deeds, 'takeOff' | 'markPosted' | 'setMovable'>;
  onClose: () => void;
}

export function PostDialog({ post, view, plan, deeds, onClose }: PostDialogProps): ReactNode {
  const short = view.shorts.find((one) => one.id === post.shortId);
  const channel = view.channels.find((one) => one.id === post.channelId);
  const { data: sending } = api.useReadSendingQuery(post.id);
  /** Sift Reel sends it, or has sent it: its marks are not anybody's to set. */
  const isSent = isUnderway(post.state) && (post.state !== 'posted' || sending?.postedAt != null);
  const hole = isUnderway(post.state) ? undefined : checkTakeOff(plan, post.id);
  const over = Date.parse(post.at) <= Date.parse(view.now);
  return (
    <Dialog open onClose={onClose} title={short?.title ?? t('planning.post-2')}>
      <dl className="grid grid-cols-[110px_1fr] gap-y-1">
        <dt className="text-soft">{t('common.channel')}</dt>
        <dd>
          {channel?.name} · {channel?.platform.name}
        </dd>
        <dt className="text-soft">{t('planning.when')}</dt>
        <dd>
          {t('planning.in', { day: formatDay(post.date), minute: formatMinute(post.minute), zone: channel?.zone })}
          <div className="time text-soft">{t('common.utc', { at: post.at.slice(0, 16).replace('T', ' ') })}</div>
        </dd>
        <dt className="text-soft">{t('common.state')}</dt>
        <dd>
          {standingOf(post)}
          {post.failure !== null && <span className="text-madder-text">: {post.failure}</span>}
        </dd>
        <dt className="text-soft">{t('planning.why-here')}</dt>
        <dd>{post.why}</dd>
        {post.state === 'planned' && (
          <>
            <dt className="text-soft">{t('planning.when-laid-out')}</dt>
            <dd>
              {post.movable ? t('planning.it-may-move') : t('planning.it-stays')}{' '}
              <button type="button" className="underline" onClick={() => deeds.setMovable([post], !post.movable)}>
                {post.movable ? t('planning.let-it-stay') : t('planning.let-it-move')}
              </button>
            </dd>
          </>
        )}
        <dt className="text-soft">{t('common.recording')}</dt>
        <dd>{short?.recordingTitle}</dd>
      </dl>
      <p className="mt-3">
        <Link className="font-semibold underline" to={`/shorts/${post.shortId}`}>
          {t('planning.its-words')}
        </Link>
      </p>
      {sending !== undefined && <Sending post={post} sending={sending} />}
      {hole !== undefined && (
        <p className="mt-3 border-l-4 border-madder pl-2 text-madder-text">{t('planning.taken-off-it-leaves-a-hole', { detail: hole.detail })}</p>
      )}
      <DialogFoot>
        {!isUnderway(post.state) && (
          <Button
            tone="trouble"
            className="mr-auto"
            onClick={() => {
              deeds.takeOff(post);
              onClose();
            }}
          >
            {t('planning.take-off-the-schedule')}
          </Button>
        )}
        {sending !== undefined && <SendingDeeds post={post} sending={sending} />}
        {isSent ? null : post.state === 'posted' ? (
          <Button
            onClick={() => {
              deeds.markPosted(post, false);
              onClose();
            }}
          >
            {t('planning.not-posted-after-all')}
          </Button>
        ) : (
          <Button
            disabled={!over}
            title={over ? undefined : t('planning.its-time-has-not-come-yet')}
            onClick={() => {
              deeds.markPosted(post, true);
              onClose();
            }}
          >
            {t('planning.mark-as-posted')}
          </Button>
        )}
        <Button tone="fill" onClick={onClose}>
          {t('common.close')}
        </Button>
      </DialogFoot>
    </Dialog>
  );
}
