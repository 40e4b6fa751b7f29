import { type CalendarDate, formatDay, formatMinute, weekdayName, weekdayOf } from './calendar.js';
import { checkFit, checkPlacement } from './check-placement.js';
import { openSlots, type Slot, slotsByCadence } from './slots.js';
import type { Plan, PlanChannel, PlannedPost, PlanShort, Refusal } from './types.js';

interface LayOutRequest {
  readonly plan: Plan;
  /** Shorts to place, by id; each on every channel of its client that takes it. */
  readonly shortIds: readonly string[];
  readonly fromDate: CalendarDate;
  readonly toDate: CalendarDate;
}

/** A proposed post, with the reason for the place. */
interface Placement extends PlannedPost {
  readonly why: string;
}

/** A short that did not get a place on a channel, with the reason. */
export interface Unplaced extends Refusal {
  readonly shortId: string;
  readonly channelId: string;
}

interface Proposal {
  readonly placements: readonly Placement[];
  readonly unplaced: readonly Unplaced[];
}

/**
 * Lays shorts out over the slots that each channel's cadence allows, in order of time, so that a later channel can build
 * on what an earlier one has. At each slot the best short that may go there is taken; where one recording has more left
 * than all others together, it goes first, since its shorts must not follow each other. Nothing is written: a proposal.
 */
export function layOut(request: LayOutRequest): Proposal {
  const shorts = request.plan.shorts.filter((short) => request.shortIds.includes(short.id));
  const placements: Placement[] = [];
  const grown = { ...request.plan, posts: [...request.plan.posts] };
  // A later channel depends only on channels before it, so clients are independent and slots can be walked by time.
  for (const channel of [...request.plan.channels].sort((a, b) => a.order - b.order || a.id.localeCompare(b.id))) {
    const mine = shorts.filter((short) => short.clientId === channel.clientId && checkFit(short, channel).length === 0);
    for (const slot of slotsByCadence(grown, channel, request.fromDate, request.toDate)) {
      const left = mine.filter((short) => !grown.posts.some((post) => post.shortId === short.id && post.channelId === channel.id));
      const short = pickShort(grown, left, channel, slot);
      if (short === undefined) continue;
      const post = {
        id: `proposed:${short.id}:${channel.id}`,
        shortId: short.id,
        recordingId: short.recordingId,
        channelId: channel.id,
        date: slot.date,
        minute: slot.minute,
        atMs: slot.atMs,
        state: 'planned' as const,
      };
      placements.push({ ...post, why: explainPlacement(grown, short, channel, slot) });
      grown.posts.push(post);
    }
  }
  return {
    placements: placements.sort((a, b) => a.atMs - b.atMs || a.channelId.localeCompare(b.channelId)),
    unplaced: explainUnplaced(grown, shorts, request),
  };
}

function pickShort(plan: Plan, left: readonly PlanShort[], channel: PlanChannel, slot: Slot): PlanShort | undefined {
  const allowed = left.filter((short) => checkPlacement(plan, short, channel, slot).length === 0);
  const leftOf = new Map<string, number>();
  for (const short of left) leftOf.set(short.recordingId, (leftOf.get(short.recordingId) ?? 0) + 1);
  const crowded = [...leftOf].find(([, n]) => n > left.length - n)?.[0];
  return [...allowed].sort((a, b) => Number(b.recordingId === crowded) - Number(a.recordingId === crowded) || b.score - a.score || a.id.localeCompare(b.id))[0];
}

function explainPlacement(plan: Plan, short: PlanShort, channel: PlanChannel, slot: Slot): string {
  const parts = [`${weekdayName(weekdayOf(slot.date))} ${formatMinute(slot.minute)} is a window of weight ${slot.weight} on ${channel.name}`];
  const earlier = plan.posts.filter((post) => post.shortId === short.id).sort((a, b) => a.atMs - b.atMs)[0];
  const first = plan.channels.find((one) => one.id === earlier?.channelId);
  if (earlier !== undefined && first !== undefined) parts.push(`after ${first.name} had it on ${formatDay(earlier.date)}`);
  const before = plan.posts.filter((post) => post.channelId === channel.id && post.atMs < slot.atMs).sort((a, b) => b.atMs - a.atMs)[0];
  if (before !== undefined && before.recordingId !== short.recordingId) parts.push('the post before it is from another recording');
  parts.push(`sift score ${Math.round(short.score)}`);
  return `${parts.join('; ')}.`;
}

function explainUnplaced(plan: Plan, shorts: readonly PlanShort[], request: LayOutRequest): Unplaced[] {
  const unplaced: Unplaced[] = [];
  for (const short of shorts) {
    for (const channel of plan.channels) {
      if (channel.clientId !== short.clientId) continue;
      if (plan.posts.some((post) => post.shortId === short.id && post.channelId === channel.id)) continue;
      unplaced.push({ shortId: short.id, channelId: channel.id, ...whyUnplaced(plan, short, channel, request) });
    }
  }
  return unplaced;
}

/** What stood in the way most often, over the channel's windows in these days. */
function whyUnplaced(plan: Plan, short: PlanShort, channel: PlanChannel, request: LayOutRequest): Refusal {
  const fixed = checkFit(short, channel)[0];
  if (fixed !== undefined) return fixed;
  if (channel.windows.length === 0) return { code: 'no-slot', detail: `${channel.name} has no posting windows.` };
  const withoutPosts = { ...plan, posts: plan.posts.filter((post) => post.channelId !== channel.id) };
  const slots = openSlots(withoutPosts, channel, request.fromDate, request.toDate);
  if (slots.length === 0)
    return {
      code: 'no-slot',
      detail: `${channel.name} has no window between ${formatDay(request.fromDate)} and ${formatDay(request.toDate)} that is not blacked out or over.`,
    };
  const tally = new Map<string, { refusal: Refusal; n: number }>();
  for (const slot of slots) {
    const refusal = checkPlacement(plan, short, channel, slot)[0];
    if (refusal === undefined) continue;
    const entry = tally.get(refusal.code) ?? { refusal, n: 0 };
    tally.set(refusal.code, { refusal: entry.refusal, n: entry.n + 1 });
  }
  // A slot that is taken is no news; what keeps the short from a free one comes first.
  const isFull = ({ refusal }: { refusal: Refusal }): number => Number(['day-full', 'week-full', 'too-close'].includes(refusal.code));
  const most = [...tally.values()].sort((a, b) => isFull(a) - isFull(b) || b.n - a.n)[0];
  if (most === undefined)
    return {
      code: 'no-slot',
      detail: `The cadence of ${channel.name} leaves no slot between ${formatDay(request.fromDate)} and ${formatDay(request.toDate)}.`,
    };
  if (isFull(most) === 1) {
    return {
      code: 'no-slot',
      detail: `Every slot of ${channel.name} between ${formatDay(request.fromDate)} and ${formatDay(request.toDate)} is taken: ${channel.postsPerWeek} a week.`,
    };
  }
  return most.refusal;
}
