import { checkFit, formatLength, type Plan } from '@sift-reel/core';
import { useDraggable } from '@dnd-kit/core';
import clsx from 'clsx';
import { type ReactNode } from 'react';
import { Link } from 'react-router';
import type { BatchView, ScheduleShortView, ScheduleView } from '../../app/api.js';
import { Select } from '../../ui/select.js';
import type { Held } from './schedule-slice.js';
import { t, rich } from '../../texts/texts.js';

interface TrayProps {
  view: ScheduleView;
  plan: Plan;
  batches: readonly BatchView[];
  batch: BatchView | null;
  unplaced: readonly ScheduleShortView[];
  /** Evergreen shorts that may come again in the days shown. */
  again: readonly ScheduleShortView[];
  clientNames: ReadonlyMap<string, string>;
  onBatch: (batchId: string | null) => void;
}

/** Approved shorts that still want a place. */
export function Tray({ view, plan, batches, batch, unplaced, again, clientNames, onBatch }: TrayProps): ReactNode {
  const nowhere = unplaced.filter((short) => !view.posts.some((post) => post.shortId === short.id));
  const partly = unplaced.filter((short) => view.posts.some((post) => post.shortId === short.id));
  const total = batch?.shortIds.length ?? view.shorts.filter((short) => short.approved).length;
  return (
    <aside aria-label={t('planning.unplaced-shorts')} className="flex min-h-0 flex-col gap-2 border-r border-rule px-[14px] py-3">
      <Select
        label={t('planning.batch')}
        strong
        value={batch?.id ?? ''}
        onChange={(id) => onBatch(id === '' ? null : id)}
        options={[
          { value: '', name: t('planning.every-approved-short') },
          ...batches.map((one) => ({ value: one.id, name: t('planning.batch-name', { name: one.name }) })),
        ]}
      />
      <span className="time text-soft">{t('planning.of-unplaced', { count: nowhere.length, total })}</span>
      <div className="flex min-h-0 flex-1 flex-col gap-2 overflow-y-auto">
        {nowhere.map((short) => (
          <Card key={short.id} short={short} plan={plan} clientName={clientNames.get(short.clientId) ?? ''} />
        ))}
        {nowhere.length === 0 && (
          <p className="text-soft">
            {total === 0
              ? rich('planning.nothing-approved-yet', {
                  link: (chunks) => (
                    <Link className="underline" to="/shorts">
                      {chunks}
                    </Link>
                  ),
                })
              : t('planning.every-short-here-has-a-place')}
          </p>
        )}
        {partly.length > 0 && <div className="mt-2 border-t border-rule pt-2 text-[12px] font-semibold">{t('planning.not-yet-on-every-channel')}</div>}
        {partly.map((short) => (
          <Card key={short.id} short={short} plan={plan} clientName={clientNames.get(short.clientId) ?? ''} />
        ))}
        {again.length > 0 && <div className="mt-2 border-t border-rule pt-2 text-[12px] font-semibold">{t('planning.may-come-again')}</div>}
        {again.map((short) => (
          <Card key={short.id} short={short} plan={plan} clientName={clientNames.get(short.clientId) ?? ''} />
        ))}
      </div>
      <p className="text-[12px] text-soft">{t('planning.drag-a-short-to-a-day')}</p>
    </aside>
  );
}

function Card({ short, plan, clientName }: { short: ScheduleShortView; plan: Plan; clientName: string }): ReactNode {
  const held: Held = { kind: 'short', shortId: short.id };
  const { attributes, listeners, setNodeRef, isDragging } = useDraggable({ id: `tray ${short.id}`, data: held });
  const planShort = plan.shorts.find((one) => one.id === short.id)!;
  const misfit = plan.channels
    .filter((channel) => channel.clientId === short.clientId)
    .map((channel) => checkFit(planShort, channel)[0])
    .find((refusal) => refusal !== undefined);
  return (
    <button
      ref={setNodeRef}
      {...attributes}
      {...listeners}
      type="button"
      data-testid="tray-short"
      aria-roledescription={t('planning.short')}
      className={clsx(
        'block w-full rounded-sm border border-l-4 border-rule bg-sheet px-[9px] py-[7px] text-left',
        misfit === undefined ? 'border-l-ink' : 'border-l-madder',
        isDragging && 'opacity-40',
      )}
    >
      <span className="line-clamp-2 leading-[1.25] font-semibold">{short.title}</span>
      <span className="block truncate text-[11px] text-soft">
        {clientName} · {formatLength(short.lengthMs)} · {Math.round(short.score)}
      </span>
      {misfit !== undefined && <span className="block text-[11px] text-madder-text">{misfit.detail}</span>}
    </button>
  );
}

export function HeldCard({ view, held }: { view: ScheduleView; held: Held }): ReactNode {
  const shortId = held.kind === 'short' ? held.shortId : view.posts.find((post) => post.id === held.postId)?.shortId;
  const short = view.shorts.find((one) => one.id === shortId);
  return (
    <div className="w-[170px] rounded-sm border border-l-4 border-rule border-l-madder bg-sheet px-[9px] py-[7px] font-semibold shadow-[0_8px_24px_rgba(35,32,27,.25)]">
      {short?.title}
    </div>
  );
}
