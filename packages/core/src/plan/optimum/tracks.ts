import { type CalendarDate, mondayOf, type WallTime } from '../calendar.js';
import { leastGapMs, slotsOf } from '../slots.js';
import { wallTimeAt } from '../zone.js';
import type { PlanProblem, ProblemChannel, ProblemPlatform, StandingPost } from './problem.js';

/**
 * A channel's times in order: the slots that can still be had, and the posts that stand. Arrays go by node, from 0 to
 * `length` − 1, in order of `at`; instants in ms.
 */
export interface Track {
  readonly channel: ProblemChannel;
  readonly platform: ProblemPlatform;
  readonly length: number;
  readonly at: Float64Array;
  /** What a score is multiplied with, 0 to 1; 0 where a post stands. */
  readonly worth: Float64Array;
  /** Recording of the post that stands there, by its index; −1 at a slot. */
  readonly standing: Int32Array;
  /** Day and ISO week, counted from 0 over the track. */
  readonly day: Int32Array;
  readonly week: Int32Array;
  /** How many new posts a day and a week take, by day and by week. */
  readonly dayRoom: Int32Array;
  readonly weekRoom: Int32Array;
  readonly gapMs: number;
  readonly local: readonly WallTime[];
}

/** How many of these posts lie on each day and in each ISO week of a zone; weeks by their Monday. */
function countPosts(
  zone: string,
  instants: readonly number[],
): { readonly days: ReadonlyMap<CalendarDate, number>; readonly weeks: ReadonlyMap<CalendarDate, number> } {
  const days = new Map<CalendarDate, number>();
  const weeks = new Map<CalendarDate, number>();
  for (const atMs of instants) {
    const { date } = wallTimeAt(zone, atMs);
    days.set(date, (days.get(date) ?? 0) + 1);
    weeks.set(mondayOf(date), (weeks.get(mondayOf(date)) ?? 0) + 1);
  }
  return { days, weeks };
}

/** The track of a channel. @param indexOf the index of a recording, which is made where it is new */
export function makeTrack(problem: PlanProblem, channel: ProblemChannel, posts: readonly StandingPost[], indexOf: (recording: string) => number): Track {
  const platform = problem.platforms.find((one) => one.id === channel.platform)!;
  const gapMs = leastGapMs(channel.gapMinutes);
  const standing = countPosts(
    channel.zone,
    posts.map((post) => post.atMs),
  );
  const perDay = Math.min(channel.perDay, platform.perDay);
  const roomOn = (date: CalendarDate): number => Math.max(0, perDay - (standing.days.get(date) ?? 0));
  const roomIn = (monday: CalendarDate): number => Math.max(0, channel.perWeek - (standing.weeks.get(monday) ?? 0));
  const slots = slotsOf(channel, problem.from, problem.to, problem.nowMs);
  const fullDays = new Set([...new Set(slots.map((slot) => slot.local.date))].filter((date) => roomOn(date) === 0 || roomIn(mondayOf(date)) === 0));
  const open = slots.filter(({ atMs, local }) => !fullDays.has(local.date) && posts.every((post) => Math.abs(post.atMs - atMs) >= gapMs));
  const nodes = [
    ...open.map((slot) => ({ ...slot, recording: -1 })),
    ...posts.map((post) => ({ atMs: post.atMs, local: wallTimeAt(channel.zone, post.atMs), weight: 0, recording: indexOf(post.recording) })),
  ].sort((a, b) => a.atMs - b.atMs || a.recording - b.recording);
  const days = [...new Set(nodes.map((node) => node.local.date))].sort();
  const weeks = [...new Set(days.map(mondayOf))];
  const dayAt = new Map(days.map((date, i) => [date, i]));
  const weekAt = new Map(days.map((date) => [date, weeks.indexOf(mondayOf(date))]));
  return {
    channel,
    platform,
    length: nodes.length,
    at: Float64Array.from(nodes, (node) => node.atMs),
    worth: Float64Array.from(nodes, (node) => node.weight / 100),
    standing: Int32Array.from(nodes, (node) => node.recording),
    day: Int32Array.from(nodes, (node) => dayAt.get(node.local.date)!),
    week: Int32Array.from(nodes, (node) => weekAt.get(node.local.date)!),
    dayRoom: Int32Array.from(days, roomOn),
    weekRoom: Int32Array.from(weeks, roomIn),
    gapMs,
    local: nodes.map((node) => node.local),
  };
}
