import { checkFit, leadOf } from './check-placement.js';
import type { CalendarDate } from './calendar.js';
import type { PlanProblem, ProblemShort } from './optimum/problem.js';
import { type Plan, type PlanChannel, type PlannedPost, type PlanShort, STAGGER_MS } from './types.js';

export interface LayOutRequest {
  readonly plan: Plan;
  /** Posts of the plan that are proposed themselves and kept: where a short has one of them, it has its place there. */
  readonly keptIds?: readonly string[];
  /** Posts of the plan that may move on their channels, where the plan is so much better by it. */
  readonly movableIds?: readonly string[];
  /** Shorts to place, by id; each on every channel of its client that takes it. */
  readonly shortIds: readonly string[];
  readonly fromDate: CalendarDate;
  readonly toDate: CalendarDate;
}

/** A short that stands on a channel already and may come there again: to the problem a short of its own, for that channel alone. */
export interface SecondRound {
  readonly id: string;
  readonly short: PlanShort;
  readonly channelId: string;
  readonly notBeforeMs: number;
}

export function secondRounds({ plan, shortIds, keptIds = [] }: LayOutRequest): SecondRound[] {
  const [wanted, kept] = [new Set(shortIds), new Set(keptIds)];
  return plan.shorts.flatMap((short) => {
    const { comesAgainDays } = short;
    if (comesAgainDays === null || !wanted.has(short.id)) return [];
    return plan.channels.flatMap((channel): SecondRound[] => {
      const there = plan.posts.filter((post) => post.shortId === short.id && post.channelId === channel.id);
      const notBeforeMs = Math.max(...there.map((post) => post.atMs)) + comesAgainDays * 86_400_000;
      return there.length === 0 || there.some((post) => kept.has(post.id))
        ? []
        : [{ id: `${short.id} again ${channel.id}`, short, channelId: channel.id, notBeforeMs }];
    });
  });
}

/** Shapes are chosen when a short is made for a channel, so every channel takes every short's. */
const ANY_SHAPE = 'any';

/**
 * What is to be laid out, as a problem.
 * @param free posts that stand and may move on their channels: to the problem they are shorts without a place there
 */
export function problemOf(request: LayOutRequest, free: readonly PlannedPost[]): PlanProblem {
  const { plan, shortIds, fromDate, toDate } = request;
  const [wanted, freed] = [new Set(shortIds), new Set(free.map((post) => post.id))];
  const shorts = plan.shorts.filter((short) => wanted.has(short.id));
  const clients = new Set(shorts.map((short) => short.clientId));
  const channels = plan.channels.filter((channel) => clients.has(channel.clientId));
  const known = new Set(channels.map((channel) => channel.id));
  return {
    nowMs: plan.nowMs,
    from: fromDate,
    to: toDate,
    platforms: channels.map(({ id, rules }) => ({
      id,
      name: rules.name,
      minSeconds: rules.minDurationMs / 1_000,
      maxSeconds: rules.maxDurationMs / 1_000,
      shapes: [ANY_SHAPE],
      perDay: rules.postsPerDay,
    })),
    channels: channels.map((channel) => ({
      id: channel.id,
      name: channel.name,
      client: channel.clientId,
      platform: channel.id,
      zone: channel.zone,
      order: channel.order,
      perDay: channel.postsPerDay,
      perWeek: channel.postsPerWeek,
      gapMinutes: channel.rules.minGapMinutes,
      windows: channel.windows,
      blackouts: channel.blackouts.map((one) => ({ from: one.fromDate, to: one.toDate })),
    })),
    shorts: [
      ...shorts.map((short) => ({ ...problemShort(short), notBeforeMs: null, barred: barredFrom(short, channels), keeps: placesOf(short, free) })),
      ...secondRounds(request).map(({ id, short, channelId, notBeforeMs }) => {
        const elsewhere = channels.filter((channel) => channel.id !== channelId).map((channel) => [channel.id, 'It stands elsewhere.']);
        return {
          ...problemShort(short),
          id,
          notBeforeMs,
          barred: { ...barredFrom(short, channels), ...(Object.fromEntries(elsewhere) as Record<string, string>) },
        };
      }),
      ...onlyMoving(plan, channels, free, wanted),
    ],
    posts: plan.posts
      .filter((post) => known.has(post.channelId) && !freed.has(post.id))
      .map((post) => ({ short: post.shortId, channel: post.channelId, recording: post.recordingId, atMs: post.atMs })),
    rules: { crossPostHours: STAGGER_MS / 3_600_000, floor: 0, leadAfterOthers: 'may-not' },
  };
}

/** Shorts of posts that may move and that are placed nowhere else: each for its channels alone, and no sooner than its lead lets it. */
function onlyMoving(plan: Plan, channels: readonly PlanChannel[], free: readonly PlannedPost[], wanted: ReadonlySet<string>): ProblemShort[] {
  const shortIds = new Set(free.map((post) => post.shortId).filter((id) => !wanted.has(id)));
  return plan.shorts.flatMap((short): ProblemShort[] => {
    if (!shortIds.has(short.id)) return [];
    const own = new Set(free.filter((post) => post.shortId === short.id).map((post) => post.channelId));
    const lead = leadOf(plan, short);
    const onLead = lead === undefined || own.has(lead.id) ? [] : plan.posts.filter((post) => post.shortId === short.id && post.channelId === lead.id);
    const elsewhere = channels.filter((channel) => !own.has(channel.id)).map((channel) => [channel.id, 'It is not placed there now.']);
    return [
      {
        ...problemShort(short),
        notBeforeMs: onLead.length === 0 ? null : Math.min(...onLead.map((post) => post.atMs)) + STAGGER_MS,
        barred: { ...barredFrom(short, channels), ...(Object.fromEntries(elsewhere) as Record<string, string>) },
        keeps: placesOf(short, free),
      },
    ];
  });
}

const placesOf = ({ id }: PlanShort, free: readonly PlannedPost[]): Record<string, number> =>
  Object.fromEntries(free.filter((post) => post.shortId === id).map((post) => [post.channelId, post.atMs]));

const problemShort = (short: PlanShort): Omit<ProblemShort, 'notBeforeMs' | 'barred'> => ({
  id: short.id,
  name: short.title,
  client: short.clientId,
  recording: short.recordingId,
  score: short.score,
  seconds: short.lengthMs / 1_000,
  shape: ANY_SHAPE,
  notAfterMs: null,
});

/** What keeps a short from channels besides its length: that it is not approved, or its words. */
function barredFrom(short: PlanShort, channels: readonly PlanChannel[]): Record<string, string> {
  const barred: Record<string, string> = {};
  for (const channel of channels) {
    const refusal = checkFit(short, channel).find((one) => one.code === 'not-approved' || one.code === 'copy-over-limit');
    if (refusal !== undefined) barred[channel.id] = refusal.detail;
  }
  return barred;
}
