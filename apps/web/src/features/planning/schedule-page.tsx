import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import { addDays, dayNumber, daysBetween, formatMinute, mondayOf, type Plan } from '@sift-reel/core';
import { DndContext, DragOverlay } from '@dnd-kit/core';
import clsx from 'clsx';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { type ReactNode, useMemo, useState } from 'react';
import { useNarrow } from '../../app/narrow.js';
import { Link, useSearchParams } from 'react-router';
import { api, type ClientView, type PlacementView, type PostView, type ScheduleView } from '../../app/api.js';
import { useKeys } from '../../app/keys.js';
import { problemText } from '../../app/problems.js';
import { useAppDispatch, useAppSelector } from '../../app/store.js';
import { sayTrouble } from '../../app/undo.js';
import { Button, EmptyState, Loading, PageHead, Trouble } from '../../ui/parts.js';
import { Select } from '../../ui/select.js';
import { Board } from './board.js';
import { ChosenBar } from './chosen-bar.js';
import { DayList } from './day-list.js';
import { LayOutDialog } from './lay-out-dialog.js';
import { Month } from './month.js';
import { bestOpenSlot, comesAgainBy, dayHere, dayOr, inBoardOrder, toPlan, wallOf } from './plan.js';
import { PlanFileDialog } from './plan-file-dialog.js';
import { PostDialog } from './post-dialog.js';
import { ProposalPane } from './proposal-pane.js';
import { chose, type Held, pickedUp } from './schedule-slice.js';
import { ShiftDialog } from './shift-dialog.js';
import { HeldCard, Tray } from './tray.js';
import { useBoardDrag } from './use-board-drag.js';
import { type Shift, useDeeds } from './use-deeds.js';
import { t, rich } from '../../texts/texts.js';
import { formatDay } from '../../texts/formats.js';

export function SchedulePage(): ReactNode {
  const schedule = api.useReadScheduleQuery();
  const batches = api.useListBatchesQuery();
  const clients = api.useListClientsQuery();
  const error = schedule.error ?? batches.error ?? clients.error;
  if (error !== undefined)
    return <Trouble title={t('planning.the-schedule-cannot-be-shown')} detail={problemText(error)} onRetry={() => void schedule.refetch()} />;
  if (schedule.data === undefined || batches.data === undefined || clients.data === undefined)
    return (
      <>
        <PageHead title={t('common.schedule')} />
        <Loading what={t('planning.the-schedule')} />
      </>
    );
  if (schedule.data.channels.length === 0)
    return (
      <>
        <PageHead title={t('common.schedule')} />
        <EmptyState
          title={t('planning.no-channels-yet')}
          action={
            <Link className="font-semibold underline" to="/clients">
              {t('planning.go-to-the-clients')}
            </Link>
          }
        >
          {t('planning.a-clients-channels-with-their-posting')}
        </EmptyState>
      </>
    );
  return <Ordered onRecord={schedule.data} clients={clients.data} />;
}

/** How the schedule is laid out: so many weeks of a board, many weeks at a glance, or one day under the other. */
const LOOKS = ['board', 'board-2', 'board-4', 'glance', 'list'] as const;
type Look = (typeof LOOKS)[number];
const WEEKS_OF: Readonly<Record<Look, number>> = { board: 1, 'board-2': 2, 'board-4': 4, glance: 5, list: 2 };
const FORTNIGHT = 14;
const NONE: readonly PlacementView[] = [];

/** One order of the channels for all that follows. */
function Ordered({ onRecord, clients }: { onRecord: ScheduleView; clients: readonly ClientView[] }): ReactNode {
  const clientNames = useMemo(() => new Map(clients.map((client) => [client.id, client.name])), [clients]);
  const view = useMemo(() => ({ ...onRecord, channels: inBoardOrder(onRecord.channels, clientNames) }), [onRecord, clientNames]);
  const [params] = useSearchParams();
  const clientId = params.get('client');
  const known = view.channels.some((channel) => channel.clientId === clientId) ? clientId : null;
  return <Schedule all={view} clientId={known} clientNames={clientNames} />;
}

/** What one client has of a schedule, or all of it. */
function ofClient(all: ScheduleView, clientId: string | null): ScheduleView {
  if (clientId === null) return all;
  const own = <T extends { readonly clientId: string }>(rows: readonly T[]): T[] => rows.filter((row) => row.clientId === clientId);
  return { ...all, channels: own(all.channels), shorts: own(all.shorts), posts: own(all.posts) };
}

interface ScheduleProps {
  all: ScheduleView;
  clientId: string | null;
  clientNames: ReadonlyMap<string, string>;
}

function Schedule({ all, clientId, clientNames }: ScheduleProps): ReactNode {
  const [params, setParams] = useSearchParams();
  const view = useMemo(() => ofClient(all, clientId), [all, clientId]);
  const plan = useMemo(() => toPlan(view), [view]);
  const today = dayHere(plan.nowMs);
  const narrow = useNarrow();
  const look = LOOKS.find((one) => one === params.get('as')) ?? (narrow ? 'list' : 'board');
  const from = mondayOf(dayOr(params.get('week'), today)); // an address may have been typed
  const weeks = WEEKS_OF[look];
  const days = useMemo(() => daysBetween(from, addDays(from, weeks * 7 - 1)), [from, weeks]);
  const own = params.get('clock') === 'own';
  const clock = own ? new Intl.DateTimeFormat().resolvedOptions().timeZone : null;
  const batchId = params.get('batch');
  const [laying, setLaying] = useState<'new' | 'holes' | null>(null);
  const [reading, setReading] = useState(false);
  const [opened, setOpened] = useState<PostView | null>(null);
  const { held, chosen, proposal } = useAppSelector((state) => state.schedule);
  const dispatch = useAppDispatch();
  const deeds = useDeeds(view, plan, clock);
  const set = (name: string, value: string | null): void =>
    setParams((old) => {
      if (value === null) old.delete(name);
      else old.set(name, value);
      return old;
    });
  const go = (by: number): void => set('week', addDays(from, by * 7 * weeks));
  const batches = api.useListBatchesQuery().data ?? [];
  const batch = batches.find((one) => one.id === batchId) ?? null;
  const unplaced = view.shorts.filter(
    (short) =>
      short.approved &&
      (batch === null || batch.shortIds.includes(short.id)) &&
      view.channels.some(
        (channel) => channel.clientId === short.clientId && !view.posts.some((post) => post.shortId === short.id && post.channelId === channel.id),
      ),
  );
  const again = view.shorts.filter((short) => short.approved && !unplaced.includes(short) && comesAgainBy(view, short, days.at(-1)!));
  const waiting = unplaced.filter((short) => !view.posts.some((post) => post.shortId === short.id));
  useScheduleKeys({ onLayOut: () => setLaying('new'), onWeek: go, onToday: () => set('week', null) });
  const shown = view.posts.filter((post) => days.includes(wallOf(clock, post).date));
  const chosenPosts = view.posts.filter((post) => chosen.includes(post.id));
  const titleOf = (shortId: string): string => view.shorts.find((short) => short.id === shortId)?.title ?? '';
  /** One of several that are chosen takes the others with it, by as many days. */
  const [shift, setShift] = useState<Shift | null>(null);
  const drop = (what: Held, channelId: string, date: string): void => {
    const post = what.kind === 'post' ? view.posts.find((one) => one.id === what.postId) : undefined;
    if (post === undefined || chosenPosts.length < 2 || !chosen.includes(post.id) || post.channelId !== channelId) return deeds.drop(what, channelId, date);
    const days = dayNumber(date) - dayNumber(wallOf(clock, post).date);
    if (days === 0) return;
    const planned = deeds.shiftOf(chosen, days);
    if (planned.refused.length > 0) setShift(planned);
    else deeds.moveAll(planned.fitting);
  };
  const { byKeys, ...drag } = useBoardDrag({ view, plan, days, clock, onDrop: drop });
  const to = days.at(-1)!;
  const boarded = look !== 'list' && look !== 'glance';
  return (
    <DndContext {...drag}>
      <div className="flex h-full flex-col">
        <PageHead
          title={`${formatDay(from)} – ${formatDay(to)}`}
          aside={
            <button
              type="button"
              aria-pressed={own}
              className="underline decoration-dotted underline-offset-2"
              onClick={() => set('clock', own ? null : 'own')}
            >
              {own ? t('planning.all-by-your-own-clock', { zone: clock }) : t('planning.each-row-in-its-channels-own')}
            </button>
          }
        >
          <span className="inline-flex items-center rounded border border-ink">
            <button type="button" aria-label={t('planning.earlier')} title={t('planning.earlier-2')} className="p-[6px]" onClick={() => go(-1)}>
              <ChevronLeft size={14} />
            </button>
            <button type="button" className="px-1 text-xs font-semibold" onClick={() => set('week', null)}>
              {t('planning.this-week')}
            </button>
            <button type="button" aria-label={t('planning.later')} title={t('planning.later-2')} className="p-[6px]" onClick={() => go(1)}>
              <ChevronRight size={14} />
            </button>
          </span>
          <Select
            label={t('planning.weeks-shown')}
            value={look}
            onChange={(value) => set('as', value)}
            options={LOOKS.map((one) => ({ value: one, name: lookName(one) }))}
          />
          <Select
            label={t('planning.clients-shown')}
            value={clientId ?? ''}
            onChange={(value) => set('client', value === '' ? null : value)}
            className="max-w-[150px]"
            options={[
              { value: '', name: t('planning.every-client') },
              ...[...new Set(all.channels.map((channel) => channel.clientId))].map((id) => ({ value: id, name: clientNames.get(id) ?? '' })),
            ]}
          />
          <MoreMenu
            from={from}
            to={to}
            clientId={clientId}
            onFill={unplaced.length + again.length === 0 || to < today ? null : () => setLaying('holes')}
            onRead={() => setReading(true)}
            onChoose={boarded ? () => dispatch(chose(shown.filter((post) => post.state !== 'posted').map((post) => post.id))) : null}
          />
          <Button tone="fill" keyName="l" disabled={unplaced.length === 0} onClick={() => setLaying('new')}>
            {t('planning.lay-out-shorts', { count: waiting.length > 0 ? waiting.length : unplaced.length })}
          </Button>
        </PageHead>
        <div
          className={clsx(
            'grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)]',
            (boarded || proposal !== null) && 'max-md:grid-rows-[minmax(0,2fr)_minmax(0,3fr)]',
            proposal !== null ? 'md:grid-cols-[340px_minmax(0,1fr)]' : boarded && 'md:grid-cols-[252px_minmax(0,1fr)]',
          )}
        >
          {proposal !== null && <ProposalPane view={view} proposal={proposal} onShow={(date) => set('week', mondayOf(date))} />}
          {boarded && proposal === null && (
            <Tray
              view={view}
              plan={plan}
              batches={batches}
              batch={batch}
              unplaced={unplaced}
              again={again}
              clientNames={clientNames}
              onBatch={(id) => set('batch', id)}
            />
          )}
          <div className="flex min-h-0 flex-col">
            {look === 'list' ? (
              <DayList view={view} days={days} today={today} clock={clock} clientNames={clientNames} onOpen={setOpened} />
            ) : look === 'glance' ? (
              <Month
                view={view}
                plan={plan}
                days={days}
                today={today}
                clock={clock}
                proposal={proposal?.placements ?? NONE}
                clientNames={clientNames}
                onWeek={(monday) =>
                  setParams((old) => {
                    old.set('week', monday);
                    old.set('as', 'board');
                    return old;
                  })
                }
              />
            ) : (
              <Board
                view={view}
                plan={plan}
                days={days}
                today={today}
                clock={clock}
                proposal={proposal?.placements ?? NONE}
                clientNames={clientNames}
                onOpen={setOpened}
                onDropAt={(channelId, date) => {
                  if (held !== null) {
                    drop(held, channelId, date);
                    dispatch(pickedUp(null));
                  }
                }}
              />
            )}
            {boarded && <ChosenBar posts={chosenPosts} titleOf={titleOf} deeds={deeds} />}
            <Foot plan={plan} shown={shown} from={from} to={to} />
          </div>
        </div>
      </div>
      <DragOverlay dropAnimation={null}>{held !== null && !byKeys && <HeldCard view={view} held={held} />}</DragOverlay>
      {laying !== null && (
        <LayOutDialog
          shorts={laying === 'holes' ? [...unplaced, ...again] : waiting.length > 0 ? waiting : unplaced}
          batch={batch}
          earliest={today}
          from={laying === 'holes' && from > today ? from : today}
          to={laying === 'holes' ? to : addDays(today, FORTNIGHT - 1)}
          clientNames={clientNames}
          onClose={() => setLaying(null)}
        />
      )}
      {reading && <PlanFileDialog view={view} clientId={clientId} onClose={() => setReading(false)} />}
      {shift !== null && <ShiftDialog shift={shift} posts={view.posts} titleOf={titleOf} onMove={deeds.moveAll} onClose={() => setShift(null)} />}
      {opened !== null && (
        <PostDialog post={view.posts.find((post) => post.id === opened.id) ?? opened} view={view} plan={plan} deeds={deeds} onClose={() => setOpened(null)} />
      )}
    </DndContext>
  );
}

interface KeyProps {
  readonly onLayOut: () => void;
  readonly onWeek: (by: number) => void;
  readonly onToday: () => void;
}

function useScheduleKeys({ onLayOut, onWeek, onToday }: KeyProps): void {
  useKeys([
    { key: 'l', label: t('planning.lay-out-shorts-2'), group: t('common.schedule'), run: onLayOut },
    { key: ',', label: t('planning.earlier'), group: t('common.schedule'), run: () => onWeek(-1) },
    { key: '.', label: t('planning.later'), group: t('common.schedule'), run: () => onWeek(1) },
    { key: 't', label: t('planning.this-week'), group: t('common.schedule'), run: onToday },
    {
      key: 'm',
      label: t('planning.pick-up-the-focused-post-or'),
      group: t('planning.move'),
      run: () => sayTrouble(new Error(t('planning.go-to-a-post-or-a'))),
    },
    // What follows is listened to by the drag itself, see `useBoardDrag`.
    { key: 'ArrowLeft', label: t('planning.a-day-earlier'), group: t('planning.move') },
    { key: 'ArrowRight', label: t('planning.a-day-later'), group: t('planning.move') },
    { key: 'ArrowUp', label: t('planning.the-channel-above'), group: t('planning.move') },
    { key: 'ArrowDown', label: t('planning.the-channel-below'), group: t('planning.move') },
    { key: 'p', label: t('planning.put-it-down-here'), group: t('planning.move') },
    { key: 'Escape', label: t('planning.put-it-back'), group: t('planning.move') },
  ]);
}

function lookName(look: Look): string {
  if (look === 'list') return t('planning.list-by-day');
  if (look === 'glance') return t('planning.weeks-at-a-glance', { count: WEEKS_OF.glance });
  return t('planning.weeks', { count: WEEKS_OF[look] });
}

interface MoreMenuProps {
  from: string;
  to: string;
  clientId: string | null;
  /** Null where there is nothing to do it with. */
  onFill: (() => void) | null;
  onChoose: (() => void) | null;
  onRead: () => void;
}

function MoreMenu({ from, to, clientId, onFill, onChoose, onRead }: MoreMenuProps): ReactNode {
  const item = 'block w-full px-3 py-[7px] text-left data-disabled:text-soft data-focus:bg-faint';
  const range = `from=${from}&to=${to}${clientId === null ? '' : `&clientId=${clientId}`}`;
  return (
    <Menu>
      <MenuButton className="rounded border border-ink px-[11px] py-[5px] text-xs font-semibold hover:bg-sheet">{t('planning.more')}</MenuButton>
      <MenuItems anchor="bottom end" className="z-50 w-[270px] border border-rule bg-sheet py-1 shadow-[0_8px_24px_rgba(35,32,27,.2)]">
        <MenuItem disabled={onFill === null}>
          <button type="button" className={item} onClick={() => onFill?.()}>
            {t('planning.fill-the-holes-shown')}
          </button>
        </MenuItem>
        <MenuItem disabled={onChoose === null}>
          <button type="button" className={item} onClick={() => onChoose?.()}>
            {t('planning.choose-all-that-is-planned-here')}
          </button>
        </MenuItem>
        <MenuItem>
          <button type="button" className={item} onClick={onRead}>
            {t('planning.read-a-plan-2')}
          </button>
        </MenuItem>
        <MenuItem>
          <a className={item} href={`/api/schedule/plan.csv?${range}`} download>
            {t('planning.shown-weeks-as-csv')}
          </a>
        </MenuItem>
        <MenuItem>
          <a className={item} href={`/api/schedule/plan.ics?${range}`} download>
            {t('planning.shown-weeks-as-calendar-ical')}
          </a>
        </MenuItem>
      </MenuItems>
    </Menu>
  );
}

interface FootProps {
  plan: Plan;
  shown: readonly PostView[];
  from: string;
  to: string;
}

function Foot({ plan, shown, from, to }: FootProps): ReactNode {
  const weeks = Math.round(daysBetween(from, to).length / 7);
  const slots = plan.channels.reduce((sum, channel) => sum + Math.min(channel.postsPerWeek, channel.windows.length) * weeks, 0);
  const best = bestOpenSlot(plan, from, to);
  const failed = shown.filter((post) => post.state === 'failed');
  const b = (chunks: ReactNode): ReactNode => <b className="text-ink">{chunks}</b>;
  return (
    <div className="flex flex-none flex-wrap gap-x-[26px] gap-y-1 border-t border-rule px-[14px] py-[11px] text-soft">
      <span>{rich('planning.slots-filled', { weeks, count: shown.length, slots, b })}</span>
      <span>{rich('planning.posted-count', { count: shown.filter((post) => post.state === 'posted').length, b })}</span>
      {best !== null && (
        <span>{rich('planning.best-open-slot', { name: best.channel.name, day: formatDay(best.date), minute: formatMinute(best.minute), b })}</span>
      )}
      {failed.length > 0 && <span className="text-madder-text">{t('planning.posts-failed', { count: failed.length })}</span>}
    </div>
  );
}
