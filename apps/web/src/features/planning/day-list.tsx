import { formatMinute } from '@sift-reel/core';
import clsx from 'clsx';
import type { ReactNode } from 'react';
import type { PostView, ScheduleView } from '../../app/api.js';
import { formatDay } from '../../texts/formats.js';
import { t } from '../../texts/texts.js';
import { type BoardClock, wallOf } from './plan.js';
import { isInTrouble, standingOf } from '../../ui/post-states.js';

interface DayListProps {
  view: ScheduleView;
  days: readonly string[];
  today: string;
  clock: BoardClock;
  clientNames: ReadonlyMap<string, string>;
  onOpen: (post: PostView) => void;
}

const EDGES = {
  planned: 'border-l-ink',
  waiting: 'border-l-madder',
  sending: 'border-l-verdigris',
  processing: 'border-l-verdigris',
  posted: 'border-l-verdigris',
  refused: 'border-l-madder',
  missed: 'border-l-madder',
} as const;

/** The posts of some days, one day under the other: for a narrow screen, and for whoever posts today. */
export function DayList({ view, days, today, clock, clientNames, onOpen }: DayListProps): ReactNode {
  const byDay = new Map<string, { post: PostView; minute: number }[]>(days.map((date) => [date, []]));
  for (const post of view.posts) {
    const { date, minute } = wallOf(clock, post);
    byDay.get(date)?.push({ post, minute });
  }
  const shown = [...byDay].filter(([date, posts]) => posts.length > 0 || date === today);
  const short = new Map(view.shorts.map((one) => [one.id, one]));
  const channel = new Map(view.channels.map((one) => [one.id, one]));
  return (
    <div className="min-h-0 flex-1 overflow-y-auto" data-testid="day-list" role="region" aria-label={t('planning.posts-by-day')} tabIndex={0}>
      {shown.length === 0 && <p className="px-[14px] py-6 text-soft">{t('planning.nothing-stands-on-these-days')}</p>}
      {shown.map(([date, posts]) => (
        <section key={date} aria-label={formatDay(date)}>
          <h2 className={clsx('sticky top-0 z-10 border-b border-rule px-[14px] py-[6px]', date === today ? 'bg-tint' : 'bg-band')}>
            {formatDay(date)}
            {date === today && <span className="font-normal">{` ${t('planning.today')}`}</span>}
          </h2>
          {posts.length === 0 && <p className="px-[14px] py-[9px] text-soft">{t('planning.nothing-today')}</p>}
          <ul>
            {posts
              .sort((a, b) => a.minute - b.minute || (a.post.at < b.post.at ? -1 : 1))
              .map(({ post, minute }) => (
                <li key={post.id} className="border-b border-rule">
                  <button
                    type="button"
                    data-testid="listed-post"
                    className={clsx(
                      'grid min-h-[52px] w-full grid-cols-[52px_1fr] gap-x-2 border-l-4 bg-sheet px-[10px] py-[7px] text-left',
                      EDGES[post.state],
                    )}
                    onClick={() => onOpen(post)}
                  >
                    <span className="time pt-[1px]">{formatMinute(minute)}</span>
                    <span className="min-w-0">
                      <b className="line-clamp-2 leading-[1.3]">{short.get(post.shortId)?.title}</b>
                      <span className="block text-[12px] text-soft">
                        {clientNames.get(post.clientId)} · {channel.get(post.channelId)?.name}
                        {clock === null && ` · ${channel.get(post.channelId)?.zone ?? ''}`}
                      </span>
                      <span className={clsx('block text-[12px]', isInTrouble(post) ? 'text-madder-text' : 'text-soft')}>
                        {standingOf(post)}
                        {post.failure !== null && `: ${post.failure}`}
                      </span>
                    </span>
                  </button>
                </li>
              ))}
          </ul>
        </section>
      ))}
    </div>
  );
}
