import { formatDay, formatMinute } from '@sift-reel/core';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import type { PostView, ScheduleView } from '../../app/api.js';
import { Dialog, DialogFoot } from '../../ui/dialog.js';
import { Button } from '../../ui/parts.js';
import type { Deeds } from './use-deeds.js';

/** One post: when in its channel's zone and in UTC, why there, and what can be done with it. */
export function PostDialog({ post, view, deeds, onClose }: { post: PostView; view: ScheduleView; deeds: Deeds; onClose: () => void }): ReactNode {
  const short = view.shorts.find((one) => one.id === post.shortId);
  const channel = view.channels.find((one) => one.id === post.channelId);
  const over = Date.parse(post.at) <= Date.parse(view.now);
  return (
    <Dialog open onClose={onClose} title={short?.title ?? 'Post'}>
      <dl className="grid grid-cols-[110px_1fr] gap-y-1">
        <dt className="text-soft">Channel</dt>
        <dd>
          {channel?.name} · {channel?.platform.name}
        </dd>
        <dt className="text-soft">When</dt>
        <dd>
          {formatDay(post.date)} {formatMinute(post.minute)} in {channel?.zone}
          <div className="time text-soft">{post.at.slice(0, 16).replace('T', ' ')} UTC</div>
        </dd>
        <dt className="text-soft">State</dt>
        <dd>
          {post.state}
          {post.failure !== null && <span className="text-madder-text">: {post.failure}</span>}
        </dd>
        <dt className="text-soft">Why here</dt>
        <dd>{post.why}</dd>
        <dt className="text-soft">Recording</dt>
        <dd>{short?.recordingTitle}</dd>
      </dl>
      <p className="mt-3">
        <Link className="font-semibold underline" to={`/shorts/${post.shortId}`}>
          Its words
        </Link>
      </p>
      <DialogFoot>
        {post.state !== 'posted' && (
          <Button
            tone="trouble"
            className="mr-auto"
            onClick={() => {
              deeds.takeOff(post);
              onClose();
            }}
          >
            Take off the schedule
          </Button>
        )}
        {post.state === 'posted' ? (
          <Button
            onClick={() => {
              deeds.markPosted(post, false);
              onClose();
            }}
          >
            Not posted after all
          </Button>
        ) : (
          <Button
            disabled={!over}
            title={over ? undefined : 'Its time has not come yet'}
            onClick={() => {
              deeds.markPosted(post, true);
              onClose();
            }}
          >
            Mark as posted
          </Button>
        )}
        <Button tone="fill" onClick={onClose}>
          Close
        </Button>
      </DialogFoot>
    </Dialog>
  );
}
