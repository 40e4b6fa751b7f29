import { formatMinute, mondayOf, type Plan, weekdayOf } from '@sift-reel/core';
import clsx from 'clsx';
import { memo, type ReactNode, useMemo } from 'react';
import type { ChannelView, PlacementView, PostView, ScheduleView } from '../../app/api.js';
import { formatDay, weekdayName } from '../../texts/formats.js';
import { t } from '../../texts/texts.js';
import { ChannelRows } from './channel-rows.js';
import { type BoardClock, byCell, minutesOver, shutBy, wallOf, windowsOn } from './plan.js';
import { POST_STATE_NAMES, standingOf } from '../../ui/post-states.js';

interface MonthProps {
  view: ScheduleView;
  plan: Plan;
  days: readonly string[];
  today: string;
  clock: BoardClock;
  /** What is proposed, beside what stands. */
  proposal: readonly PlacementView[];
  clientNames: ReadonlyMap<string, string>;
  onWeek: (monday: string) => void;
}

/** Many channels over many days at a glance: a mark for each post, an open ring where a window stands empty. */
export function Month({ view, plan, days, today, clock, proposal, clientNames, onWeek }: MonthProps): ReactNode {
  const cells = useMemo(() => byCell(view.posts, clock), [view.posts, clock]);
  const wished = useMemo(() => byCell(proposal, clock), [proposal, clock]);
  const titles = useMemo(() => new Map(view.shorts.map((short) => [short.id, short.title])), [view.shorts]);
  return (
    <div className="min-h-0 flex-1 overflow-auto" data-testid="month" role="region" aria-label={t('planning.month-at-a-glance')} tabIndex={0}>
      <table className="w-full table-fixed border-collapse bg-sheet" style={{ minWidth: 150 + days.length * 23 }}>
        <thead className="sticky top-0 z-20">
          <tr>
            <th scope="col" className="sticky left-0 z-10 w-[150px] border border-rule bg-paper px-2 text-left text-xs font-semibold">
              {t('common.channel')}
            </th>
            {days.map((date) => (
              <th
                key={date}
                scope="col"
                className={clsx('border-b border-rule p-0 text-center text-[10.5px]', edge(date), date === today ? 'bg-tint' : 'bg-paper')}
              >
                <button
                  type="button"
                  className="block w-full py-[3px] leading-[1.15]"
                  title={t('planning.open-the-week-of', { day: formatDay(date) })}
                  onClick={() => onWeek(mondayOf(date))}
                >
                  <span className="block font-normal text-soft">{weekdayName(weekdayOf(date)).slice(0, 2)}</span>
                  {Number(date.slice(8))}
                </button>
              </th>
            ))}
          </tr>
        </thead>
        <ChannelRows view={view} clientNames={clientNames} columns={days.length + 1} className="py-[1px] text-[11px]">
          {(channel) => (
            <tr key={channel.id}>
              <th
                scope="row"
                className="sticky left-0 z-10 h-[23px] truncate border border-rule bg-paper px-2 text-left text-[11.5px] font-normal"
                title={channel.zone}
              >
                {channel.name}
              </th>
              {days.map((date) => (
                <Marks
                  key={date}
                  channel={channel}
                  date={date}
                  clock={clock}
                  posts={cells.get(`${channel.id} ${date}`) ?? NO_POSTS}
                  wished={wished.get(`${channel.id} ${date}`)?.length ?? 0}
                  titles={titles}
                  shut={shutBy(view.blackouts, channel, date) !== null}
                  minutesOver={minutesOver(clock ?? channel.zone, plan.nowMs, date)}
                />
              ))}
            </tr>
          )}
        </ChannelRows>
      </table>
      <p className="sticky left-0 flex flex-wrap gap-x-5 gap-y-1 px-[14px] py-3 text-[12px] text-soft">
        {(['planned', 'waiting', 'sending', 'posted', 'refused'] as const).map((state) => (
          <span key={state} className="flex items-center gap-[6px]">
            <i className={clsx('h-[13px] w-[8px]', MARKS[state])} />
            {state === 'refused' ? t('planning.refused-or-missed') : POST_STATE_NAMES[state]}
          </span>
        ))}
        <span className="flex items-center gap-[6px]">
          <i className="h-[7px] w-[7px] rounded-full border border-edge" />
          {t('planning.an-empty-window')}
        </span>
        <span className="flex items-center gap-[6px]">
          <i className="hatched h-[13px] w-[13px] border border-rule" />
          {t('planning.days-without-posts')}
        </span>
      </p>
    </div>
  );
}

const NO_POSTS: readonly PostView[] = [];
const MARKS = {
  planned: 'bg-ink',
  waiting: 'border-2 border-madder bg-sheet',
  sending: 'border-2 border-verdigris bg-sheet',
  processing: 'border-2 border-verdigris bg-sheet',
  posted: 'bg-verdigris',
  refused: 'bg-madder',
  missed: 'bg-madder',
} as const;
/** Weeks are told apart by a stronger line. */
const edge = (date: string): string => (weekdayOf(date) === 1 ? 'border-l border-l-edge' : 'border-l border-l-rule');

interface MarksProps {
  channel: ChannelView;
  date: string;
  clock: BoardClock;
  posts: readonly PostView[];
  /** How many are proposed. */
  wished: number;
  titles: ReadonlyMap<string, string>;
  shut: boolean;
  minutesOver: number;
}

const Marks = memo(function Marks({ channel, date, clock, posts, wished, titles, shut, minutesOver: over }: MarksProps): ReactNode {
  const open = posts.length + wished === 0 && !shut ? windowsOn(channel, date, clock).filter(({ shown }) => shown > over) : [];
  const said = posts.map((post) => `${formatMinute(wallOf(clock, post).minute)} ${titles.get(post.shortId) ?? ''}, ${standingOf(post)}`);
  if (wished > 0) said.push(t('planning.posts-proposed', { count: wished }));
  const label = said.length > 0 ? said.join('; ') : open.length > 0 ? t('planning.open', { open: open.map(({ shown }) => formatMinute(shown)).join(' ') }) : '';
  return (
    <td
      className={clsx('h-[23px] border-b border-b-rule p-0', edge(date), shut && 'hatched')}
      title={label === '' ? undefined : `${formatDay(date)}: ${label}`}
    >
      {label !== '' && (
        <span className="flex items-center justify-center gap-[2px]" role="img" aria-label={label}>
          {posts.map((post) => (
            <i key={post.id} className={clsx('h-[13px] w-[8px]', MARKS[post.state])} />
          ))}
          {Array.from({ length: wished }, (_, i) => (
            <i key={i} className="h-[13px] w-[8px] border border-dashed border-ink bg-tint" />
          ))}
          {open.length > 0 && <i className="h-[7px] w-[7px] rounded-full border border-edge" />}
        </span>
      )}
    </td>
  );
});
