import { type CalendarDate, daysBetween, mondayOf, weekdayOf, type WallTime } from './calendar.js';
import { dayDistance } from './check-placement.js';
import type { Plan, PlanChannel } from './types.js';
import { instantOf } from './zone.js';

/** A channel's possible time on a day. */
export interface Slot extends WallTime {
  readonly channelId: string;
  readonly atMs: number;
  readonly weight: number;
}

/**
 * Every open time of a channel in a stretch of days: its windows, less blackout days, times that are over, times the
 * clocks skip, and times too near to a post that stands.
 */
export function openSlots(plan: Plan, channel: PlanChannel, fromDate: CalendarDate, toDate: CalendarDate): Slot[] {
  const posts = plan.posts.filter((post) => post.channelId === channel.id);
  const gapMs = Math.max(1, channel.rules.minGapMinutes * 60_000);
  const slots: Slot[] = [];
  for (const date of daysBetween(fromDate, toDate)) {
    if (channel.blackouts.some((one) => one.fromDate <= date && date <= one.toDate)) continue;
    for (const window of channel.windows) {
      if (window.weekday !== weekdayOf(date)) continue;
      const { atMs, kind } = instantOf(channel.zone, { date, minute: window.minute });
      if (kind === 'skipped' || atMs < plan.nowMs || posts.some((post) => Math.abs(post.atMs - atMs) < gapMs)) continue;
      slots.push({ channelId: channel.id, date, minute: window.minute, atMs, weight: window.weight });
    }
  }
  return slots.sort((a, b) => a.atMs - b.atMs);
}

/** A day further from its neighbours is worth this many points of weight, up to three days. */
const SPREAD_POINTS = 12;

/**
 * The slots of a channel that its cadence allows, week by week: the strongest window first, days apart from one another
 * preferred, never more than a day's or a week's posts. Posts that stand count.
 */
export function slotsByCadence(plan: Plan, channel: PlanChannel, fromDate: CalendarDate, toDate: CalendarDate): Slot[] {
  const perDay = Math.min(channel.postsPerDay, channel.rules.postsPerDay);
  const gapMs = Math.max(1, channel.rules.minGapMinutes * 60_000);
  const standing = plan.posts.filter((post) => post.channelId === channel.id).map((post) => ({ date: post.date, atMs: post.atMs }));
  const taken: { date: string; atMs: number }[] = [...standing];
  const chosen: Slot[] = [];
  const byWeek = new Map<string, Slot[]>();
  for (const slot of openSlots(plan, channel, fromDate, toDate)) {
    const week = mondayOf(slot.date);
    byWeek.set(week, [...(byWeek.get(week) ?? []), slot]);
  }
  for (const [week, slots] of byWeek) {
    let left = channel.postsPerWeek - taken.filter((one) => mondayOf(one.date) === week).length;
    while (left > 0) {
      const free = slots.filter(
        (slot) => taken.filter((one) => one.date === slot.date).length < perDay && taken.every((one) => Math.abs(one.atMs - slot.atMs) >= gapMs),
      );
      const best = free.reduce<Slot | undefined>((a, b) => (a === undefined || worth(b, taken) > worth(a, taken) ? b : a), undefined);
      if (best === undefined) break;
      taken.push(best);
      chosen.push(best);
      left -= 1;
    }
  }
  return chosen.sort((a, b) => a.atMs - b.atMs);
}

function worth(slot: Slot, taken: readonly { date: string }[]): number {
  const nearest = taken.reduce((least, one) => Math.min(least, dayDistance(slot.date, one.date)), 3);
  return slot.weight + SPREAD_POINTS * nearest;
}
