import { formatMinute } from '@sift-reel/core';
import { type ReactNode, useState } from 'react';
import { api, type PlacementView, type ScheduleView } from '../../app/api.js';
import { formatDay, formatNumber, weekdayName } from '../../texts/formats.js';
import { t } from '../../texts/texts.js';
import { DayField } from '../../ui/day-field.js';
import { TextField } from '../../ui/fields.js';
import { Button, FormTrouble } from '../../ui/parts.js';
import { Select } from '../../ui/select.js';
import { joined, type Proposed, toMoveForm, toPlacementForm } from './schedule-slice.js';

const CHANGES = ['week', 'day', 'window', 'blackout'] as const;
type Change = (typeof CHANGES)[number];
const WEEKDAYS = [1, 2, 3, 4, 5, 6, 7] as const;

/** Tries a change of a channel, and shows what the plan would gain or lose by it. Nothing is changed. */
export function WhatIf({ view, proposal }: { view: ScheduleView; proposal: Proposed }): ReactNode {
  const clients = new Set(view.shorts.filter((short) => proposal.asked.shortIds.includes(short.id)).map((short) => short.clientId));
  const channels = view.channels.filter((channel) => clients.has(channel.clientId));
  const [channelId, setChannel] = useState(channels[0]?.id ?? '');
  const [change, setChange] = useState<Change>('week');
  const [weekday, setWeekday] = useState('1');
  const [time, setTime] = useState('18:00');
  const [weight, setWeight] = useState('70');
  const [stretch, setStretch] = useState({ fromDate: proposal.asked.fromDate, toDate: proposal.asked.fromDate });
  const [tryPlan, { data, error, isLoading, reset }] = api.useProposePlanMutation();
  const channel = channels.find((one) => one.id === channelId);
  if (channel === undefined) return null;
  const set =
    <V,>(write: (value: V) => void) =>
    (value: V): void => {
      reset();
      write(value);
    };
  const submit = (): void => {
    const window = { weekday: Number(weekday), minute: minuteOf(time), weight: Number(weight) };
    void tryPlan({
      ...proposal.asked,
      kept: proposal.kept.map(toPlacementForm),
      keptMoves: proposal.keptMoves.map(toMoveForm),
      whatIf: [
        {
          channelId,
          postsPerWeek: change === 'week' ? channel.postsPerWeek + 1 : null,
          postsPerDay: change === 'day' ? channel.postsPerDay + 1 : null,
          windows: change === 'window' ? [window] : [],
          blackouts: change === 'blackout' ? [stretch] : [],
        },
      ],
    });
  };
  return (
    <form
      aria-label={t('planning.what-if')}
      className="grid gap-2 border-t border-rule pt-3"
      onSubmit={(event) => {
        event.preventDefault();
        submit();
      }}
    >
      <div className="flex flex-wrap items-end gap-3">
        <Select
          label={t('planning.what-if-on')}
          value={channelId}
          options={channels.map(({ id, name }) => ({ value: id, name }))}
          onChange={set(setChannel)}
          className="w-[180px]"
        />
        <Select
          label={t('planning.what-if')}
          value={change}
          options={CHANGES.map((value) => ({ value, name: CHANGE_NAMES[value] }))}
          onChange={set(setChange)}
          className="w-[220px]"
        />
        {change === 'window' && (
          <>
            <Select
              label={t('planning.weekday')}
              value={weekday}
              options={WEEKDAYS.map((day) => ({ value: String(day), name: weekdayName(day) }))}
              onChange={set(setWeekday)}
              className="w-[130px]"
            />
            <TextField label={t('planning.time')} type="time" required value={time} onChange={(event) => set(setTime)(event.target.value)} />
            <TextField
              label={t('planning.weight')}
              type="number"
              min={1}
              max={100}
              value={weight}
              onChange={(event) => set(setWeight)(event.target.value)}
              className="w-[80px]"
            />
          </>
        )}
        {change === 'blackout' && (
          <>
            <DayField
              label={t('common.from')}
              value={stretch.fromDate}
              onChange={(fromDate) => set(setStretch)({ fromDate, toDate: fromDate > stretch.toDate ? fromDate : stretch.toDate })}
            />
            <DayField label={t('common.to')} value={stretch.toDate} min={stretch.fromDate} onChange={(toDate) => set(setStretch)({ ...stretch, toDate })} />
          </>
        )}
        <Button type="submit" disabled={isLoading}>
          {t('planning.try-it')}
        </Button>
      </div>
      <FormTrouble error={error} />
      {data !== undefined && <Outcome view={view} before={proposal} after={joined(data, proposal)} />}
    </form>
  );
}

function minuteOf(time: string): number {
  const [hours, minutes] = time.split(':').map(Number);
  return hours! * 60 + minutes!;
}

function Outcome({ view, before, after }: { view: ScheduleView; before: Proposed; after: { placements: readonly PlacementView[]; value: number } }): ReactNode {
  const keyOf = (one: PlacementView): string => `${one.shortId} ${one.channelId}`;
  const had = new Set(before.placements.map(keyOf));
  const fresh = after.placements.filter((one) => !had.has(keyOf(one)));
  const gain = after.value - before.value;
  return (
    <div role="status" data-testid="what-if">
      <b className={gain < 0 ? 'text-madder-text' : 'text-verdigris-text'}>
        {Math.abs(gain) < 0.05
          ? t('planning.it-would-change-nothing')
          : t(gain > 0 ? 'planning.it-would-gain' : 'planning.it-would-lose', {
              value: formatNumber(Math.abs(gain), 1),
              count: Math.abs(after.placements.length - before.placements.length),
              more: String(after.placements.length > before.placements.length),
            })}
      </b>
      {gain > 0 && (
        <ul className="text-[12px] text-soft">
          {fresh.slice(0, 6).map((one) => (
            <li key={keyOf(one)}>
              {`${formatDay(one.date)} ${formatMinute(one.minute)} · ${view.channels.find((channel) => channel.id === one.channelId)?.name ?? ''} · ${view.shorts.find((short) => short.id === one.shortId)?.title ?? ''}`}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

const CHANGE_NAMES: Readonly<Record<Change, string>> = {
  week: t('planning.one-more-post-a-week'),
  day: t('planning.one-more-post-a-day'),
  window: t('planning.another-window'),
  blackout: t('planning.days-without-posts'),
};
