import { formatMinute, isUnderway, type Plan } from '@sift-reel/core';
import { useDraggable, useDroppable } from '@dnd-kit/core';
import clsx from 'clsx';
import { ArrowLeftRight, Lock } from 'lucide-react';
import { memo, type ReactNode, useMemo } from 'react';
import type { ChannelView, PlacementView, PostView, ProposedMoveView, ScheduleView } from '../../app/api.js';
import { useAppDispatch, useAppSelector } from '../../app/store.js';
import { ChannelRows } from './channel-rows.js';
import { GoesByItself } from './goes-by-itself.js';
import { type BoardClock, byCell, dropOn, minutesOver, shutBy, wallOf, windowsOn } from './plan.js';
import { isInTrouble, standingOf } from '../../ui/post-states.js';
import { leftOut, placeKey, toggled } from './schedule-slice.js';
import { t } from '../../texts/texts.js';
import { formatDay } from '../../texts/formats.js';

/** A place that is proposed: of a short, or of a post that moves. */
export type Wished = PlacementView | ProposedMoveView;

interface BoardProps {
  view: ScheduleView;
  plan: Plan;
  days: readonly string[];
  today: string;
  clock: BoardClock;
  /** What is proposed, beside what stands. */
  proposal: readonly Wished[];
  clientNames: ReadonlyMap<string, string>;
  onOpen: (post: PostView) => void;
  onDropAt: (channelId: string, date: string) => void;
}

/** Channels × days. While something is held, every cell says whether it would take it. */
export function Board({ view, plan, days, today, clock, proposal, clientNames, onOpen, onDropAt }: BoardProps): ReactNode {
  const held = useAppSelector((state) => state.schedule.held);
  const cursor = useAppSelector((state) => state.schedule.cursor);
  const heldPost = held?.kind === 'post' ? view.posts.find((post) => post.id === held.postId) : undefined;
  const heldShort = held === null ? null : held.kind === 'short' ? held.shortId : (heldPost?.shortId ?? null);
  const titleOf = useMemo(() => new Map(view.shorts.map((short) => [short.id, short])), [view.shorts]);
  const posts = useMemo(() => byCell(view.posts, clock), [view.posts, clock]);
  const wished = useMemo(() => byCell(proposal, clock), [proposal, clock]);
  return (
    <div className="min-h-0 flex-1 overflow-auto" data-testid="board" role="region" aria-label={t('planning.board')} tabIndex={0}>
      <table className="w-full table-fixed bg-sheet" style={{ minWidth: 150 + days.length * 122 }}>
        <thead className="sticky top-0 z-20">
          <tr>
            <th scope="col" className="sticky left-0 z-10 w-[150px] border border-rule bg-paper px-2 py-[6px] text-left text-xs font-semibold">
              {t('common.channel')}
            </th>
            {days.map((date) => (
              <th
                key={date}
                scope="col"
                className={clsx('border border-rule px-2 py-[6px] text-left text-xs font-semibold', date === today ? 'bg-tint' : 'bg-paper')}
              >
                {formatDay(date)}
                {date === today && <span className="font-normal">{` ${t('planning.today')}`}</span>}
              </th>
            ))}
          </tr>
        </thead>
        <ChannelRows view={view} clientNames={clientNames} columns={days.length + 1} className="py-1 text-xs">
          {(channel) => (
            <tr key={channel.id}>
              <ChannelHead channel={channel} />
              {days.map((date) => {
                const outcome =
                  heldShort === null
                    ? null
                    : heldPost?.channelId === channel.id && wallOf(clock, heldPost).date === date
                      ? null
                      : dropOn(plan, heldShort, channel.id, date, clock, heldPost?.id);
                return (
                  <Cell
                    key={date}
                    channelId={channel.id}
                    date={date}
                    under={cursor?.channelId === channel.id && cursor.date === date}
                    takes={outcome === null ? null : outcome.kind === 'fits'}
                    refusal={outcome?.kind === 'refused' ? outcome.refusal.detail : null}
                    onDropAt={onDropAt}
                  >
                    <Day
                      channel={channel}
                      date={date}
                      clock={clock}
                      posts={posts.get(`${channel.id} ${date}`) ?? NO_POSTS}
                      wished={wished.get(`${channel.id} ${date}`) ?? NONE}
                      blackout={shutBy(view.blackouts, channel, date)}
                      titleOf={titleOf}
                      onOpen={onOpen}
                      minutesOver={minutesOver(clock ?? channel.zone, plan.nowMs, date)}
                    />
                  </Cell>
                );
              })}
            </tr>
          )}
        </ChannelRows>
      </table>
    </div>
  );
}

function ChannelHead({ channel }: { channel: ChannelView }): ReactNode {
  const weekdays = new Set(channel.windows.map((window) => window.weekday));
  return (
    <th scope="row" className="sticky left-0 z-10 w-[150px] border border-rule bg-paper px-2 py-[7px] text-left align-top font-normal">
      <b className="block leading-[1.25]">{channel.name}</b>
      <span className="block text-[11px] leading-[1.45] text-soft">
        {t('planning.a-week', { name: channel.platform.name, postsPerWeek: channel.postsPerWeek })}
        <GoesByItself channel={channel} />
        <br />
        {channel.zone}
      </span>
      <span className="mt-1 flex gap-[2px]" role="img" aria-label={t('planning.windows-on-weekdays', { count: weekdays.size })}>
        {[1, 2, 3, 4, 5, 6, 7].map((day) => (
          <i key={day} className={clsx('h-[6px] w-[9px]', weekdays.has(day) ? 'bg-ink' : 'bg-faint')} />
        ))}
      </span>
    </th>
  );
}

interface CellProps {
  channelId: string;
  date: string;
  under: boolean;
  takes: boolean | null;
  refusal: string | null;
  onDropAt: (channelId: string, date: string) => void;
  children: ReactNode;
}

function Cell({ channelId, date, under, takes, refusal, onDropAt, children }: CellProps): ReactNode {
  const { setNodeRef, isOver } = useDroppable({ id: `${channelId} ${date}`, data: { channelId, date } });
  const here = isOver || under;
  return (
    <td
      ref={setNodeRef}
      data-cell={`${channelId} ${date}`}
      onDoubleClick={() => {
        if (takes !== null) onDropAt(channelId, date);
      }}
      title={refusal ?? undefined}
      className={clsx(
        'relative h-[66px] border border-rule p-[5px] align-top',
        takes === true && 'bg-tint',
        takes === false && 'hatched',
        here && 'outline-2 -outline-offset-2',
        here && (takes === false ? 'outline-madder' : 'outline-verdigris'),
      )}
    >
      {children}
      {here && refusal !== null && (
        <div role="status" className="absolute top-full left-0 z-30 w-[230px] border-l-4 border-madder bg-bar px-2 py-1 text-[11.5px] text-bar-text">
          {refusal}
        </div>
      )}
      {under && takes === true && (
        <div role="status" className="absolute top-full left-0 z-30 bg-verdigris px-2 py-1 text-[11.5px] text-sheet">
          {t('planning.p-puts-it-here')}
        </div>
      )}
    </td>
  );
}

const NONE: readonly Wished[] = [];
const NO_POSTS: readonly PostView[] = [];

interface DayProps {
  channel: ChannelView;
  date: string;
  clock: BoardClock;
  posts: readonly PostView[];
  wished: readonly Wished[];
  blackout: string | null;
  titleOf: ReadonlyMap<string, { title: string; score: number }>;
  onOpen: (post: PostView) => void;
  /** See `minutesOver`. */
  minutesOver: number;
}

const Day = memo(function Day({ channel, date, clock, posts, wished, blackout, titleOf, onOpen, minutesOver: over }: DayProps): ReactNode {
  if (posts.length + wished.length > 0)
    return (
      <div className="flex flex-col gap-1">
        {posts.map((post) => (
          <PostCard
            key={post.id}
            post={post}
            clock={clock}
            title={titleOf.get(post.shortId)?.title ?? ''}
            score={titleOf.get(post.shortId)?.score ?? 0}
            onOpen={onOpen}
          />
        ))}
        {wished.map((one) => (
          <WishedCard key={`${placeKey(one)} ${one.at}`} one={one} clock={clock} title={titleOf.get(one.shortId)?.title ?? ''} />
        ))}
      </div>
    );
  if (blackout !== null) return <div className="hatched h-[54px] px-[7px] py-[5px] text-[11px] text-soft">{t('planning.no-posts', { blackout })}</div>;
  const windows = windowsOn(channel, date, clock);
  if (windows.length === 0) return null;
  const open = windows.filter(({ shown }) => shown > over);
  return (
    <div className="time h-[54px] rounded-sm border border-dashed border-rule px-[6px] py-1 text-soft">
      {open.length === 0 ? t('planning.went-empty') : t('planning.open', { open: open.map(({ shown }) => formatMinute(shown)).join(' ') })}
    </div>
  );
});

/** A place that is proposed: a click leaves it out, or takes it again. */
function WishedCard({ one, clock, title }: { one: Wished; clock: BoardClock; title: string }): ReactNode {
  const dispatch = useAppDispatch();
  const key = placeKey(one);
  const taken = !useAppSelector((state) => state.schedule.leftOut.includes(key));
  const isLocked = useAppSelector((state) => state.schedule.locked.includes(key));
  const time = formatMinute(wallOf(clock, one).minute);
  const what = !taken ? t('planning.left-out') : 'postId' in one ? t('planning.moves-here') : t('planning.proposed');
  return (
    <button
      type="button"
      data-testid="wished"
      aria-pressed={taken}
      aria-label={`${time} ${title}, ${what}. ${one.why}`}
      title={one.why}
      onClick={() => dispatch(leftOut(key))}
      className={clsx(
        'block h-[54px] w-full overflow-hidden rounded-sm border-2 border-dashed px-[6px] py-[2px] text-left',
        taken ? 'border-ink bg-tint' : 'border-edge text-soft',
      )}
    >
      <span className="time flex justify-between">
        <span>{time}</span>
        {isLocked && <Lock size={12} aria-label={t('planning.locked')} />}
      </span>
      <span className={clsx('block truncate text-[12px] font-semibold', !taken && 'line-through')}>{title}</span>
      <span className="block text-[10.5px]">{what}</span>
    </button>
  );
}

const isMovable = ({ movable, state }: PostView): boolean => movable && state === 'planned';

const LOOKS = {
  planned: 'border-l-ink bg-sheet',
  waiting: 'border-l-madder bg-sheet',
  sending: 'border-l-verdigris bg-sheet',
  processing: 'border-l-verdigris bg-sheet',
  posted: 'border-l-verdigris bg-verdigris text-sheet',
  refused: 'border-l-madder bg-madder-tint',
  missed: 'border-l-madder bg-madder-tint',
} as const;

interface PostCardProps {
  post: PostView;
  clock: BoardClock;
  title: string;
  score: number;
  onOpen: (post: PostView) => void;
}

function PostCard({ post, clock, title, score, onOpen }: PostCardProps): ReactNode {
  const dispatch = useAppDispatch();
  const chosen = useAppSelector((state) => state.schedule.chosen.includes(post.id));
  const leaves = useAppSelector(({ schedule: { proposal, leftOut: left } }) =>
    proposal?.moves.some((move) => move.postId === post.id && !left.includes(placeKey(move))),
  );
  const time = formatMinute(wallOf(clock, post).minute);
  const held = { kind: 'post' as const, postId: post.id };
  const { attributes, listeners, setNodeRef, isDragging } = useDraggable({ id: post.id, data: held, disabled: isUnderway(post.state) });
  return (
    <button
      ref={setNodeRef}
      {...attributes}
      {...listeners}
      type="button"
      aria-disabled={undefined} // it cannot be dragged once it is on its way, and still opens
      data-testid="post"
      data-post={post.id}
      title={post.why}
      aria-pressed={chosen}
      onClick={(event) => {
        if (event.shiftKey || event.ctrlKey || event.metaKey) dispatch(toggled(post.id));
        else onOpen(post);
      }}
      aria-roledescription={t('planning.post')}
      aria-label={`${time} ${title}, ${[standingOf(post), ...(isMovable(post) ? [t('planning.may-move')] : [])].join(', ')}. ${post.why}`}
      className={clsx(
        'block h-[54px] w-full overflow-hidden rounded-sm border border-l-4 border-rule px-[6px] py-[3px] text-left',
        LOOKS[post.state],
        (isDragging || leaves) && 'opacity-40',
        chosen && 'outline-2 -outline-offset-1 outline-ink',
      )}
    >
      <span className={clsx('time flex justify-between', post.state === 'posted' ? '' : 'text-soft')}>
        <span>{time}</span>
        <span className="flex items-center gap-1">
          {isMovable(post) && <ArrowLeftRight size={12} aria-label={t('planning.may-move')} />}
          {Math.round(score)}
        </span>
      </span>
      <span className="block truncate text-[12px] font-semibold">{title}</span>
      <span className={clsx('block truncate text-[10.5px]', isInTrouble(post) && 'text-madder-text')}>{standingOf(post)}</span>
    </button>
  );
}
