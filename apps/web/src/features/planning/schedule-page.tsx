import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import { addDays, daysBetween, formatMinute, mondayOf, type Plan } from '@sift-reel/core';
import { DndContext, DragOverlay } from '@dnd-kit/core';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { type ReactNode, useMemo, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { api, type ClientView, type PostView, type ScheduleView } from '../../app/api.js';
import { useKeys } from '../../app/keys.js';
import { problemText } from '../../app/problems.js';
import { useAppDispatch, useAppSelector } from '../../app/store.js';
import { sayTrouble } from '../../app/undo.js';
import { Button, EmptyState, Loading, PageHead, Trouble } from '../../ui/parts.js';
import { Select } from '../../ui/select.js';
import { Board } from './board.js';
import { LayOutDialog } from './lay-out-dialog.js';
import { bestOpenSlot, dayHere, dayOr, inBoardOrder, toPlan } from './plan.js';
import { PostDialog } from './post-dialog.js';
import { ProposalDialog } from './proposal-dialog.js';
import { pickedUp } from './schedule-slice.js';
import { HeldCard, Tray } from './tray.js';
import { useBoardDrag } from './use-board-drag.js';
import { useDeeds } from './use-deeds.js';
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

const WEEKS = [1, 2, 4] as const;

/** One order of the channels for all that follows. */
function Ordered({ onRecord, clients }: { onRecord: ScheduleView; clients: readonly ClientView[] }): ReactNode {
  const clientNames = useMemo(() => new Map(clients.map((client) => [client.id, client.name])), [clients]);
  const view = useMemo(() => ({ ...onRecord, channels: inBoardOrder(onRecord.channels, clientNames) }), [onRecord, clientNames]);
  return <Schedule view={view} clientNames={clientNames} />;
}

function Schedule({ view, clientNames }: { view: ScheduleView; clientNames: ReadonlyMap<string, string> }): ReactNode {
  const [params, setParams] = useSearchParams();
  const plan = useMemo(() => toPlan(view), [view]);
  const today = dayHere(plan.nowMs);
  const from = mondayOf(dayOr(params.get('week'), today)); // an address may have been typed
  const weeks = WEEKS.find((n) => String(n) === params.get('weeks')) ?? 1;
  const days = daysBetween(from, addDays(from, weeks * 7 - 1));
  const batchId = params.get('batch');
  const [laying, setLaying] = useState(false);
  const [opened, setOpened] = useState<PostView | null>(null);
  const { held, proposal } = useAppSelector((state) => state.schedule);
  const dispatch = useAppDispatch();
  const deeds = useDeeds(view, plan);
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
  const waiting = unplaced.filter((short) => !view.posts.some((post) => post.shortId === short.id));
  useScheduleKeys({ onLayOut: () => setLaying(true), onWeek: go, onToday: () => set('week', null) });
  const { byKeys, ...drag } = useBoardDrag({ view, plan, days, deeds });
  const to = days.at(-1)!;
  return (
    <DndContext {...drag}>
      <div className="flex h-full flex-col">
        <PageHead title={`${formatDay(from)} – ${formatDay(to)}`} aside={t('planning.each-row-in-its-channels-own')}>
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
            value={String(weeks)}
            onChange={(value) => set('weeks', value === '1' ? null : value)}
            options={WEEKS.map((n) => ({ value: String(n), name: t('planning.weeks', { count: n }) }))}
          />
          <ExportMenu from={from} to={to} />
          <Button tone="fill" keyName="l" disabled={unplaced.length === 0} onClick={() => setLaying(true)}>
            {t('planning.lay-out-shorts', { count: waiting.length > 0 ? waiting.length : unplaced.length })}
          </Button>
        </PageHead>
        <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)] max-md:grid-rows-[minmax(0,2fr)_minmax(0,3fr)] md:grid-cols-[252px_minmax(0,1fr)]">
          <Tray view={view} plan={plan} batches={batches} batch={batch} unplaced={unplaced} clientNames={clientNames} onBatch={(id) => set('batch', id)} />
          <div className="flex min-h-0 flex-col">
            <Board
              view={view}
              plan={plan}
              days={days}
              today={today}
              clientNames={clientNames}
              onOpen={setOpened}
              onDropAt={(channelId, date) => {
                if (held !== null) {
                  deeds.drop(held, channelId, date);
                  dispatch(pickedUp(null));
                }
              }}
            />
            <Foot plan={plan} view={view} from={from} to={to} />
          </div>
        </div>
      </div>
      <DragOverlay dropAnimation={null}>{held !== null && !byKeys && <HeldCard view={view} held={held} />}</DragOverlay>
      {laying && (
        <LayOutDialog shorts={waiting.length > 0 ? waiting : unplaced} batch={batch} from={today} clientNames={clientNames} onClose={() => setLaying(false)} />
      )}
      {proposal !== null && <ProposalDialog view={view} proposal={proposal} />}
      {opened !== null && (
        <PostDialog post={view.posts.find((post) => post.id === opened.id) ?? opened} view={view} deeds={deeds} onClose={() => setOpened(null)} />
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

function ExportMenu({ from, to }: { from: string; to: string }): ReactNode {
  const item = 'block w-full px-3 py-[7px] text-left data-focus:bg-faint';
  const range = `from=${from}&to=${to}`;
  return (
    <Menu>
      <MenuButton className="rounded border border-ink px-[11px] py-[5px] text-xs font-semibold hover:bg-sheet">{t('planning.export')}</MenuButton>
      <MenuItems anchor="bottom end" className="z-50 w-[230px] border border-rule bg-sheet py-1 shadow-[0_8px_24px_rgba(35,32,27,.2)]">
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

function Foot({ plan, view, from, to }: { plan: Plan; view: ScheduleView; from: string; to: string }): ReactNode {
  const shown = view.posts.filter((post) => post.date >= from && post.date <= to);
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
