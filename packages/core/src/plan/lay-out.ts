import type { CalendarDate } from './calendar.js';
import { checkFit } from './check-placement.js';
import { explainPlan } from './optimum/explain.js';
import type { PlanProblem, ProblemShort } from './optimum/problem.js';
import { solvePlan } from './optimum/solve.js';
import { type Plan, type PlanChannel, type PlannedPost, type PlanShort, type Refusal, STAGGER_MS } from './types.js';

export interface LayOutRequest {
  readonly plan: Plan;
  /** Posts of the plan that are proposed themselves and kept: where a short has one of them, it has its place there. */
  readonly keptIds?: readonly string[];
  /** Shorts to place, by id; each on every channel of its client that takes it. */
  readonly shortIds: readonly string[];
  readonly fromDate: CalendarDate;
  readonly toDate: CalendarDate;
}

/** A proposed post, with the reason for the place. */
interface Placement extends PlannedPost {
  readonly why: string;
  /** Score × weight / 100. */
  readonly worth: number;
}

/** A short that did not get a place on a channel, with the reason. */
export interface Unplaced extends Refusal {
  readonly shortId: string;
  readonly channelId: string;
}

export interface Proposal {
  readonly placements: readonly Placement[];
  readonly unplaced: readonly Unplaced[];
  /** Σ score × weight / 100 of the placements. */
  readonly value: number;
  /** No plan of these shorts on these days is worth more. */
  readonly bound: number;
}

/**
 * Lays shorts out over their clients' channels as near to the best as is found, with a bound on the best there is; posts
 * that stand stay where they are. Nothing is written: a proposal.
 */
export function layOut(request: LayOutRequest): Proposal {
  const problem = problemOf(request);
  const { posts, unplaced, value, bound } = explainPlan(problem, solvePlan(problem));
  const recordingOf = new Map(problem.shorts.map((short) => [short.id, short.recording]));
  const again = new Map(secondRounds(request).map((one) => [one.id, one]));
  const shortOf = (id: string): string => again.get(id)?.short.id ?? id;
  return {
    placements: posts.map(({ short, channel, atMs, local, why, worth }) => ({
      id: `proposed:${shortOf(short)}:${channel}`,
      shortId: shortOf(short),
      recordingId: recordingOf.get(short)!,
      channelId: channel,
      date: local.date,
      minute: local.minute,
      atMs,
      state: 'planned',
      why,
      worth,
    })),
    unplaced: unplaced.flatMap(({ short, channel, code, why }): Unplaced[] => {
      const round = again.get(short);
      if (round === undefined) return [{ shortId: short, channelId: channel, code, detail: why }];
      if (round.channelId !== channel) return []; // that is told of the short itself
      if (code !== 'outside-dates') return [{ shortId: round.short.id, channelId: channel, code, detail: why }];
      const { title, comesAgainDays } = round.short;
      return [
        {
          shortId: round.short.id,
          channelId: channel,
          code: 'already-there',
          detail: `“${title}” stands there, and comes again after ${comesAgainDays} days.`,
        },
      ];
    }),
    value,
    bound,
  };
}

/** A short that stands on a channel already and may come there again: to the problem a short of its own, for that channel alone. */
interface SecondRound {
  readonly id: string;
  readonly short: PlanShort;
  readonly channelId: string;
  readonly notBeforeMs: number;
}

function secondRounds({ plan, shortIds, keptIds = [] }: LayOutRequest): SecondRound[] {
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

function problemOf(request: LayOutRequest): PlanProblem {
  const { plan, shortIds, fromDate, toDate } = request;
  const wanted = new Set(shortIds);
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
      ...shorts.map((short) => ({ ...problemShort(short), notBeforeMs: null, barred: barredFrom(short, channels) })),
      ...secondRounds(request).map(({ id, short, channelId, notBeforeMs }) => {
        const elsewhere = channels.filter((channel) => channel.id !== channelId).map((channel) => [channel.id, 'It stands elsewhere.']);
        return {
          ...problemShort(short),
          id,
          notBeforeMs,
          barred: { ...barredFrom(short, channels), ...(Object.fromEntries(elsewhere) as Record<string, string>) },
        };
      }),
    ],
    posts: plan.posts
      .filter((post) => known.has(post.channelId))
      .map((post) => ({ short: post.shortId, channel: post.channelId, recording: post.recordingId, atMs: post.atMs })),
    rules: { crossPostHours: STAGGER_MS / 3_600_000, floor: 0, leadAfterOthers: 'may-not' },
  };
}

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
