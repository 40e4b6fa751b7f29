import { type CalendarDate, daysBetween, weekdayOf, type WallTime } from './calendar.js';
import type { Plan, PlanChannel } from './types.js';
import { instantOf } from './zone.js';

/** A channel's possible time on a day. */
interface Slot extends WallTime {
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
