import { formatLength } from '../time/timecode.js';
import { addDays, formatDay, formatMinute, mondayOf, type WallTime } from './calendar.js';
import { type Plan, type PlanChannel, type PlannedPost, type PlanShort, type Refusal, STAGGER_MS } from './types.js';
import { instantOf } from './zone.js';

/** What never changes with the day: approval, client, length, copy. */
export function checkFit(short: PlanShort, channel: PlanChannel): Refusal[] {
  const refusals: Refusal[] = [];
  if (short.clientId !== channel.clientId) refusals.push({ code: 'other-client', detail: 'The short belongs to another client.' });
  if (!short.approved) refusals.push({ code: 'not-approved', detail: 'The short is not approved.' });
  const { minDurationMs, maxDurationMs, name } = channel.rules;
  if (short.lengthMs > maxDurationMs)
    refusals.push({ code: 'too-long', detail: `${formatLength(short.lengthMs)} is over the ${formatLength(maxDurationMs)} that ${name} allows.` });
  if (short.lengthMs < minDurationMs)
    refusals.push({ code: 'too-short', detail: `${formatLength(short.lengthMs)} is under the ${formatLength(minDurationMs)} that ${name} asks for.` });
  const copy = short.copyProblems[channel.id];
  if (copy !== undefined) refusals.push({ code: 'copy-over-limit', detail: `Its words break ${name}’s limits: ${copy}.` });
  return refusals;
}

/**
 * Everything that speaks against a short at a wall time of a channel; empty when it may go there.
 * @param movedPostId the post that is being moved, which does not stand in its own way
 */
export function checkPlacement(plan: Plan, short: PlanShort, channel: PlanChannel, wall: WallTime, movedPostId?: string): Refusal[] {
  const posts = plan.posts.filter((post) => post.id !== movedPostId);
  const onChannel = posts.filter((post) => post.channelId === channel.id);
  const { atMs, kind } = instantOf(channel.zone, wall);
  return [
    ...checkFit(short, channel),
    ...checkDay(plan, channel, onChannel, wall, atMs),
    ...(kind === 'skipped'
      ? [
          {
            code: 'skipped-hour' as const,
            detail: `${formatMinute(wall.minute)} does not exist on ${formatDay(wall.date)} in ${channel.zone}: clocks go forward.`,
          },
        ]
      : []),
    ...checkNeighbours(short, channel, onChannel, atMs),
    ...checkOtherChannels(plan, short, channel, posts, atMs),
  ];
}

function checkDay(plan: Plan, channel: PlanChannel, onChannel: readonly PlannedPost[], wall: WallTime, atMs: number): Refusal[] {
  const refusals: Refusal[] = [];
  if (atMs < plan.nowMs) refusals.push({ code: 'in-past', detail: `${formatDay(wall.date)} ${formatMinute(wall.minute)} is over.` });
  const blackout = channel.blackouts.find((one) => one.fromDate <= wall.date && wall.date <= one.toDate);
  if (blackout !== undefined) refusals.push({ code: 'blackout', detail: `No posts on ${formatDay(wall.date)}: ${blackout.reason}.` });
  const perDay = Math.min(channel.postsPerDay, channel.rules.postsPerDay);
  const thatDay = onChannel.filter((post) => post.date === wall.date).length;
  if (thatDay >= perDay) refusals.push({ code: 'day-full', detail: `${channel.name} already has ${thatDay} of ${perDay} posts on ${formatDay(wall.date)}.` });
  const monday = mondayOf(wall.date);
  const sunday = addDays(monday, 6);
  const thatWeek = onChannel.filter((post) => monday <= post.date && post.date <= sunday).length;
  if (thatWeek >= channel.postsPerWeek)
    refusals.push({
      code: 'week-full',
      detail: `${channel.name} already has ${thatWeek} of ${channel.postsPerWeek} posts in the week of ${formatDay(monday)}.`,
    });
  return refusals;
}

function checkNeighbours(short: PlanShort, channel: PlanChannel, onChannel: readonly PlannedPost[], atMs: number): Refusal[] {
  const refusals: Refusal[] = [];
  const there = tooSoonAgain(short, onChannel, atMs);
  if (there !== undefined) {
    const again = short.comesAgainDays === null ? '' : `, on ${formatDay(there.date)}; it may come again after ${short.comesAgainDays} days`;
    refusals.push({ code: 'already-there', detail: `The short is already on ${channel.name}${again}.` });
  }
  const gapMs = channel.rules.minGapMinutes * 60_000;
  const close = onChannel.find((post) => Math.abs(post.atMs - atMs) < Math.max(1, gapMs));
  if (close !== undefined) {
    refusals.push({ code: 'too-close', detail: `Less than ${channel.rules.minGapMinutes} minutes from the post at ${formatMinute(close.minute)}.` });
  }
  const [before, after] = neighboursOf(onChannel, atMs);
  const twin = [before, after].find((post) => post?.recordingId === short.recordingId && (post.shortId !== short.id || there === undefined));
  if (twin !== undefined) {
    refusals.push({
      code: 'same-recording',
      detail: `It would stand next to another short from the same recording, on ${formatDay(twin.date)} ${formatMinute(twin.minute)}.`,
    });
  }
  return refusals;
}

const DAY_MS = 86_400_000;

/** A post of the short on a channel that is too near to an instant for it to stand there again. */
function tooSoonAgain({ id, comesAgainDays }: PlanShort, onChannel: readonly PlannedPost[], atMs: number): PlannedPost | undefined {
  return onChannel.find((post) => post.shortId === id && (comesAgainDays === null || Math.abs(post.atMs - atMs) < comesAgainDays * DAY_MS));
}

/** The posts of a channel right before and after an instant. */
export function neighboursOf(onChannel: readonly PlannedPost[], atMs: number): [PlannedPost | undefined, PlannedPost | undefined] {
  let before: PlannedPost | undefined;
  let after: PlannedPost | undefined;
  for (const post of onChannel) {
    if (post.atMs <= atMs && (before === undefined || post.atMs > before.atMs)) before = post;
    if (post.atMs > atMs && (after === undefined || post.atMs < after.atMs)) after = post;
  }
  return [before, after];
}

/**
 * A short's lead, the first of its client's channels that it fits, has it first; any other at least `STAGGER_MS` later. Of a short
 * that comes again, its first post there counts.
 */
function checkOtherChannels(plan: Plan, short: PlanShort, channel: PlanChannel, posts: readonly PlannedPost[], atMs: number): Refusal[] {
  const lead = leadOf(plan, short);
  if (lead === undefined) return [];
  const others = posts.filter((post) => post.shortId === short.id && post.channelId !== channel.id);
  if (lead.id !== channel.id) {
    const first = earliest(others.filter((post) => post.channelId === lead.id));
    if (first === undefined) return [{ code: 'before-first-channel', detail: `It has no place on ${lead.name} yet, which comes before ${channel.name}.` }];
    if (atMs >= first.atMs + STAGGER_MS) return [];
    const detail = `It reaches ${lead.name} first, on ${formatDay(first.date)} ${formatMinute(first.minute)}; ${channel.name} gets it a day later.`;
    return [{ code: 'before-first-channel', detail }];
  }
  const onLead = earliest(posts.filter((post) => post.shortId === short.id && post.channelId === channel.id));
  if (onLead !== undefined && onLead.atMs <= atMs) return [];
  const early = others.find((post) => atMs > post.atMs - STAGGER_MS);
  if (early === undefined) return [];
  const name = plan.channels.find((one) => one.id === early.channelId)?.name ?? 'its other channel';
  return [{ code: 'after-later-channel', detail: `It is on ${name} on ${formatDay(early.date)} already, which comes after ${channel.name}.` }];
}

const earliest = (posts: readonly PlannedPost[]): PlannedPost | undefined =>
  posts.reduce<PlannedPost | undefined>((first, post) => (first === undefined || post.atMs < first.atMs ? post : first), undefined);

/** The channel on which a short goes first; undefined where it fits none. */
export function leadOf(plan: Plan, short: PlanShort): PlanChannel | undefined {
  return plan.channels
    .filter((one) => one.clientId === short.clientId && checkFit(short, one).length === 0)
    .sort((a, b) => a.order - b.order || (a.id < b.id ? -1 : 1))[0];
}
