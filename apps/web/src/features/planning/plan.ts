import {
  addDays,
  checkMoves,
  checkPlacement,
  dayNumber,
  instantOf,
  mondayOf,
  openSlots,
  type Plan,
  planAround,
  PlanIndex,
  type PlanChannel,
  type PlanShort,
  type Refusal,
  wallTimeAt,
  weekdayOf,
} from '@sift-reel/core';
import type { BlackoutView, PostView, ScheduleView } from '../../app/api.js';
import { t } from '../../texts/texts.js';

const MINUTES_A_DAY = 1_440;

/** Channels client by client, in the order of the clients' names: the order of the board's rows, and of the arrow keys. */
export function inBoardOrder<C extends { readonly clientId: string }>(channels: readonly C[], clientNames: ReadonlyMap<string, string>): C[] {
  const nameOf = (channel: C): string => clientNames.get(channel.clientId) ?? '';
  return [...channels].sort((a, b) => nameOf(a).localeCompare(nameOf(b)) || (a.clientId < b.clientId ? -1 : a.clientId > b.clientId ? 1 : 0));
}

/** The schedule as the planning core knows it, so that the board refuses in the same words as the server. */
export function toPlan(view: ScheduleView): Plan {
  const channels: PlanChannel[] = view.channels.map(({ platform, ...channel }) => ({
    ...channel,
    rules: {
      name: platform.name,
      minDurationMs: platform.minDurationMs,
      maxDurationMs: platform.maxDurationMs,
      shapes: platform.shapes,
      copy: { title: platform.titleLimit, description: platform.descriptionLimit, hashtags: platform.hashtagLimit },
      postsPerDay: platform.postsPerDay,
      minGapMinutes: platform.minGapMinutes,
    },
    blackouts: view.blackouts.filter((one) => one.clientId === channel.clientId && (one.channelId === null || one.channelId === channel.id)),
  }));
  const shorts: PlanShort[] = view.shorts.map(({ recordingTitle: _, ...short }) => ({
    ...short,
    copyProblems: Object.fromEntries(short.copyProblems.map((one) => [one.channelId, one.detail])),
  }));
  return { channels, shorts, posts: view.posts.map((post) => ({ ...post, atMs: Date.parse(post.at) })), nowMs: Date.parse(view.now) };
}

type DropOutcome = { readonly kind: 'fits'; readonly date: string; readonly minute: number } | { readonly kind: 'refused'; readonly refusal: Refusal };

/** Whose calendar the board is read by: each channel's own, or the one of a zone. */
export type BoardClock = string | null;

/** When something is, by a board's clock. */
export function wallOf(clock: BoardClock, { date, minute, at }: Pick<PostView, 'date' | 'minute' | 'at'>): { date: string; minute: number } {
  return clock === null ? { date, minute } : wallTimeAt(clock, Date.parse(at));
}

interface WindowOnDay {
  /** By the channel's own clock. */
  readonly date: string;
  readonly minute: number;
  readonly weight: number;
  /** By the board's. */
  readonly shown: number;
}

/** The windows of a channel on a day of a board's clock, in the order of their times. */
export function windowsOn(channel: Pick<PlanChannel, 'zone' | 'windows'>, date: string, clock: BoardClock): WindowOnDay[] {
  const own = (day: string): WindowOnDay[] =>
    channel.windows.filter((window) => window.weekday === weekdayOf(day)).map(({ minute, weight }) => ({ date: day, minute, weight, shown: minute }));
  if (clock === null || clock === channel.zone) return own(date);
  return [addDays(date, -1), date, addDays(date, 1)]
    .flatMap(own)
    .flatMap((one) => {
      const here = wallTimeAt(clock, instantOf(channel.zone, one).atMs);
      return here.date === date ? [{ ...one, shown: here.minute }] : [];
    })
    .sort((a, b) => a.shown - b.shown);
}

/**
 * Where on a day of a channel a short may go: its best window that day that nothing speaks against, else the first reason
 * of its best window; for a post that moves, the hole that it leaves counts as well. A day without a window is refused with
 * that reason.
 */
export function dropOn(plan: Plan, shortId: string, channelId: string, day: string, clock: BoardClock, movedPostId?: string): DropOutcome {
  const { channels, shorts } = PlanIndex.of(plan);
  const [channel, short] = [channels.get(channelId), shorts.get(shortId)];
  if (channel === undefined || short === undefined) return { kind: 'refused', refusal: { code: 'no-slot', detail: t('planning.this-is-not-on-the-schedule') } };
  const windows = windowsOn(channel, day, clock).sort((a, b) => b.weight - a.weight);
  if (windows.length === 0)
    return { kind: 'refused', refusal: { code: 'no-slot', detail: t('planning.has-no-posting-window-on-this', { name: channel.name }) } };
  let first: Refusal | null = null;
  const near = planAround(plan, shortId, channelId);
  for (const { date, minute } of windows) {
    const refusal =
      movedPostId === undefined
        ? checkPlacement(near, short, channel, { date, minute })[0]
        : checkMoves(plan, [{ postId: movedPostId, channelId, date, minute }])[0]?.refusal;
    if (refusal === undefined) return { kind: 'fits', date, minute };
    first ??= refusal;
  }
  return { kind: 'refused', refusal: first! };
}

/** The open slot with the greatest weight in a stretch of days, for the foot of the board: neither its day nor its week is full. */
export function bestOpenSlot(plan: Plan, from: string, to: string): { channel: PlanChannel; date: string; minute: number } | null {
  let best: { channel: PlanChannel; date: string; minute: number; weight: number } | null = null;
  for (const channel of plan.channels) {
    const own = plan.posts.filter((post) => post.channelId === channel.id);
    const inWeek = (monday: string): number => own.filter((post) => mondayOf(post.date) === monday).length;
    for (const slot of openSlots(plan, channel, from, to)) {
      if (best !== null && slot.weight <= best.weight) continue;
      const { date, minute } = slot.local;
      if (own.some((post) => post.date === date) || inWeek(mondayOf(date)) >= channel.postsPerWeek) continue;
      best = { channel, date, minute, weight: slot.weight };
    }
  }
  return best;
}

const DAY_MS = 86_400_000;

/** Whether a short may come again on a channel of its client before the end of a day of UTC. */
export function comesAgainBy(view: Pick<ScheduleView, 'posts'>, { id, comesAgainDays }: { id: string; comesAgainDays: number | null }, to: string): boolean {
  if (comesAgainDays === null) return false;
  const latest = new Map<string, number>();
  for (const post of view.posts) if (post.shortId === id) latest.set(post.channelId, Math.max(latest.get(post.channelId) ?? -Infinity, Date.parse(post.at)));
  return [...latest.values()].some((at) => at + comesAgainDays * DAY_MS <= Date.parse(`${to}T23:59:59Z`));
}

/** The day it is where the producer sits; a channel may have another. @param zone of the producer, the browser's own if not given */
export function dayHere(nowMs: number, zone = new Intl.DateTimeFormat().resolvedOptions().timeZone): string {
  return wallTimeAt(zone, nowMs).date;
}

/** A day that somebody may have typed into an address, or another where it is none. */
export function dayOr(text: string | null, other: string): string {
  try {
    return text !== null && Number.isFinite(dayNumber(text)) ? text : other;
  } catch {
    return other;
  }
}

/** How much of a day is over on the wall of a channel's zone, in minutes: -1 for days to come, all of it for those gone by. */
export function minutesOver(zone: string, nowMs: number, date: string): number {
  const now = wallTimeAt(zone, nowMs);
  return date < now.date ? MINUTES_A_DAY : date > now.date ? -1 : now.minute;
}

/** What stands in each cell of a board, by `channel date`, in order of time. */
export function byCell<T extends Pick<PostView, 'channelId' | 'date' | 'minute' | 'at'>>(
  rows: readonly T[],
  clock: BoardClock,
): ReadonlyMap<string, readonly T[]> {
  const cells = new Map<string, T[]>();
  for (const row of [...rows].sort((a, b) => (a.at < b.at ? -1 : 1))) {
    const cell = `${row.channelId} ${wallOf(clock, row).date}`;
    const there = cells.get(cell);
    if (there === undefined) cells.set(cell, [row]);
    else there.push(row);
  }
  return cells;
}

/** Why nothing is posted on a channel on a day; null where that is not so. */
export function shutBy(blackouts: readonly BlackoutView[], { id, clientId }: Pick<PlanChannel, 'id' | 'clientId'>, date: string): string | null {
  const found = blackouts.find(
    (one) => one.clientId === clientId && (one.channelId === null || one.channelId === id) && one.fromDate <= date && date <= one.toDate,
  );
  return found?.reason ?? null;
}
