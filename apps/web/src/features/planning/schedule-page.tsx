import { addDays, dayNumber, daysBetween, isUnderway, mondayOf } from '@sift-reel/core';
import { DndContext, DragOverlay } from '@dnd-kit/core';
import clsx from 'clsx';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { type ReactNode, useMemo, useState } from 'react';
import { useNarrow } from '../../app/narrow.js';
import { Link, useSearchParams } from 'react-router';
import { api, type ClientView, type PostView, type ScheduleView } from '../../app/api.js';
import { problemText } from '../../app/problems.js';
import { useAppDispatch, useAppSelector } from '../../app/store.js';
import { Button, EmptyState, Loading, PageHead, Trouble } from '../../ui/parts.js';
import { Select } from '../../ui/select.js';
import { Board, type Wished } from './board.js';
import { ChosenBar } from './chosen-bar.js';
import { DayList } from './day-list.js';
import { LayOutDialog } from './lay-out-dialog.js';
import { lookName, LOOKS, WEEKS_OF } from './looks.js';
import { Month } from './month.js';
import { MoreMenu } from './more-menu.js';
import { comesAgainBy, dayHere, dayOr, inBoardOrder, toPlan, wallOf } from './plan.js';
import { PlanFileDialog } from './plan-file-dialog.js';
import { PostDialog } from './post-dialog.js';
import { ProposalPane } from './proposal-pane.js';
import { ScheduleFoot } from './schedule-foot.js';
import { chose, type Held, pickedUp } from './schedule-slice.js';
import { ShiftDialog } from './shift-dialog.js';
import { HeldCard, Tray } from './tray.js';
import { Stopped, useStopAll } from './stopped.js';
import { useBoardDrag } from './use-board-drag.js';
import { type Shift, useDeeds } from './use-deeds.js';
import { useScheduleKeys } from './use-schedule-keys.js';
import { t } from '../../texts/texts.js';
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

const FORTNIGHT = 14;
const NONE: readonly Wished[] = [];

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
  const [opened, setOpened] = useState<PostView | null>(() => view.posts.find((post) => post.id === params.get('post')) ?? null);
  const { held, chosen, proposal } = useAppSelector((state) => state.schedule);
  const dispatch = useAppDispatch();
  const deeds = useDeeds(view, plan, clock);
  const stopAll = useStopAll();
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
  const wished = useMemo(() => (proposal === null ? NONE : [...proposal.placements, ...proposal.moves]), [proposal]);
  const boarded = look !== 'list' && look !== 'glance';
  const shownOn = { view, days, today, clock, clientNames };
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
            onChoose={boarded ? () => dispatch(chose(shown.filter((post) => !isUnderway(post.state)).map((post) => post.id))) : null}
            onStop={stopAll === null || stopAll.isStopped ? null : () => stopAll.set(true)}
          />
          <Button tone="fill" keyName="l" disabled={unplaced.length === 0} onClick={() => setLaying('new')}>
            {t('planning.lay-out-shorts', { count: waiting.length > 0 ? waiting.length : unplaced.length })}
          </Button>
        </PageHead>
        <Stopped />
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
              <DayList {...shownOn} onOpen={setOpened} />
            ) : look === 'glance' ? (
              <Month
                {...shownOn}
                plan={plan}
                proposal={wished}
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
                {...shownOn}
                plan={plan}
                proposal={wished}
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
            <ScheduleFoot plan={plan} shown={shown} from={from} to={to} />
          </div>
        </div>
      </div>
      <DragOverlay dropAnimation={null}>{held !== null && !byKeys && <HeldCard view={view} held={held} />}</DragOverlay>
      {laying !== null && (
        <LayOutDialog
          shorts={laying === 'holes' ? [...unplaced, ...again] : waiting.length > 0 ? waiting : unplaced}
          batch={batch}
          movable={view.posts.filter((post) => post.movable && post.state === 'planned' && post.at > view.now)}
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
