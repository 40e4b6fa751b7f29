import { type CalendarDate, daysBetween, weekdayOf, type WallTime } from './calendar.js';
import type { Plan, PlanChannel, PostingWindow } from './types.js';
import { slotInstant, wallTimeAt } from './zone.js';

/** A channel's possible time on a day: a window, before anything that stands speaks against it. */
export interface Slot {
  readonly atMs: number;
  readonly local: WallTime;
  readonly weight: number;
}

/** What a channel's slots come from. Blackout days: both ends inside. */
interface SlotSource {
  readonly zone: string;
  readonly windows: readonly PostingWindow[];
  readonly blackouts: readonly { readonly from: CalendarDate; readonly to: CalendarDate }[];
}

/**
 * Every slot of a channel from one day to another, both inside, that is not over and not blacked out, in order of time. A
 * time that the clocks skip is moved to the end of what they skip; two that come to one instant are the heavier one.
 */
export function slotsOf({ zone, windows, blackouts }: SlotSource, from: CalendarDate, to: CalendarDate, nowMs: number): Slot[] {
  const slots = new Map<number, Slot>();
  for (const date of daysBetween(from, to)) {
    if (blackouts.some((one) => one.from <= date && date <= one.to)) continue;
    const weekday = weekdayOf(date);
    for (const window of windows) {
      if (window.weekday !== weekday) continue;
      const { atMs, kind } = slotInstant(zone, { date, minute: window.minute });
      if (atMs < nowMs || window.weight <= (slots.get(atMs)?.weight ?? -1)) continue;
      const local = kind === 'skipped' ? wallTimeAt(zone, atMs) : { date, minute: window.minute };
      slots.set(atMs, { atMs, local, weight: window.weight });
    }
  }
  return [...slots.values()].sort((a, b) => a.atMs - b.atMs);
}

/** Least time between two posts of a channel, in ms: never two at one instant. */
export function leastGapMs(gapMinutes: number): number {
  return Math.max(1, gapMinutes * 60_000);
}

/** The slots of a channel in a stretch of days that no post is too near to. */
export function openSlots(plan: Plan, channel: PlanChannel, fromDate: CalendarDate, toDate: CalendarDate): Slot[] {
  const posts = plan.posts.filter((post) => post.channelId === channel.id);
  const gapMs = leastGapMs(channel.rules.minGapMinutes);
  const blackouts = channel.blackouts.map((one) => ({ from: one.fromDate, to: one.toDate }));
  return slotsOf({ ...channel, blackouts }, fromDate, toDate, plan.nowMs).filter(({ atMs }) => posts.every((post) => Math.abs(post.atMs - atMs) >= gapMs));
}
