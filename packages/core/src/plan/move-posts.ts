import { addDays, formatDay, formatMinute, weekdayOf, type WallTime } from './calendar.js';
import { checkPlacement, neighboursOf } from './check-placement.js';
import { PlanIndex, planAround } from './plan-index.js';
import { isUnderway, type Plan, type PlannedPost, type Refusal } from './types.js';
import { instantOf } from './zone.js';

/** A post and the place that it is to have. */
export interface PostMove extends WallTime {
  readonly postId: string;
  readonly channelId: string;
}

/** Why a post may not move so. */
export interface RefusedMove {
  readonly postId: string;
  readonly refusal: Refusal;
}

/**
 * What speaks against moving posts, all of them at once: each where it goes, beside the others where they go, and where it was,
 * for the posts before and after it that would follow each other there. Empty when they may; at most one refusal each.
 */
export function checkMoves(plan: Plan, moves: readonly PostMove[]): RefusedMove[] {
  const { posts, shorts, channels } = PlanIndex.of(plan);
  const going = new Set(moves.map((move) => move.postId));
  const there = whereTheyGo(plan, moves);
  return moves.flatMap((move): RefusedMove[] => {
    const [post, channel] = [posts.get(move.postId), channels.get(move.channelId)];
    const short = shorts.get(post?.shortId ?? '');
    if (post === undefined || channel === undefined || short === undefined)
      return [{ postId: move.postId, refusal: { code: 'no-slot', detail: 'This is not on the schedule any more.' } }];
    if (isUnderway(post.state))
      return [
        {
          postId: post.id,
          refusal: { code: 'posted', detail: `It ${post.state === 'posted' ? 'was posted already' : 'is on its way already'}, so it cannot move.` },
        },
      ];
    const refusal =
      checkPlacement(planAround(plan, short.id, channel.id, going, there), short, channel, move, post.id)[0] ??
      holeOf(planAround(plan, short.id, post.channelId, going, there).posts, post, going);
    return refusal === undefined ? [] : [{ postId: post.id, refusal }];
  });
}

/** A plan with posts where they are to go. */
export function planMoved(plan: Plan, moves: readonly PostMove[]): Plan {
  const there = new Map(whereTheyGo(plan, moves).map((post) => [post.id, post]));
  return { ...plan, posts: plan.posts.map((post) => there.get(post.id) ?? post) };
}

/** Posts at the places that they are to have; without those that are not in the plan, or whose channel is not. */
function whereTheyGo(plan: Plan, moves: readonly PostMove[]): PlannedPost[] {
  const { posts, channels } = PlanIndex.of(plan);
  return moves.flatMap((move): PlannedPost[] => {
    const [post, channel] = [posts.get(move.postId), channels.get(move.channelId)];
    if (post === undefined || channel === undefined) return [];
    const { channelId, date, minute } = move;
    return [{ ...post, channelId, date, minute, atMs: instantOf(channel.zone, move).atMs }];
  });
}

/** The most of some moves that may be made together: the refused ones are left out, until none of the rest is. */
export function movesThatFit(plan: Plan, moves: readonly PostMove[]): PostMove[] {
  let fitting = [...moves];
  for (;;) {
    const refused = new Set(checkMoves(plan, fitting).map((one) => one.postId));
    if (refused.size === 0) return fitting;
    fitting = fitting.filter((move) => !refused.has(move.postId));
  }
}

/**
 * Moves of posts by some days, each on its own channel: at its time where that weekday has a window there, else at the heaviest
 * window of the day. A post whose new day has no window is refused.
 */
export function movesByDays(
  plan: Plan,
  postIds: readonly string[],
  days: number,
): { readonly moves: readonly PostMove[]; readonly refused: readonly RefusedMove[] } {
  const [moves, refused]: [PostMove[], RefusedMove[]] = [[], []];
  const { posts, channels } = PlanIndex.of(plan);
  for (const id of postIds) {
    const post = posts.get(id);
    const channel = channels.get(post?.channelId ?? '');
    if (post === undefined || channel === undefined) continue;
    const date = addDays(post.date, days);
    const windows = channel.windows.filter((window) => window.weekday === weekdayOf(date)).sort((a, b) => b.weight - a.weight);
    const window = windows.find(({ minute }) => minute === post.minute) ?? windows[0];
    // A week later is the same time, whether or not the channel has a window there: it was put there by hand.
    const minute = days % 7 === 0 ? post.minute : window?.minute;
    if (minute !== undefined) moves.push({ postId: post.id, channelId: post.channelId, date, minute });
    else refused.push({ postId: post.id, refusal: { code: 'no-slot', detail: `${channel.name} has no posting window on ${formatDay(date)}.` } });
  }
  return { moves, refused };
}

/** What speaks against the hole that a post leaves when it is taken off. */
export function checkTakeOff(plan: Plan, postId: string): Refusal | undefined {
  const post = PlanIndex.of(plan).posts.get(postId);
  if (post === undefined) return undefined;
  const going = new Set([postId]);
  return holeOf(planAround(plan, post.shortId, post.channelId, going).posts, post, going);
}

/**
 * The posts before and after a hole, where they come from one recording and neither is among those that go: what goes is
 * checked where it goes.
 * @param left what is left, on its channel and elsewhere
 */
function holeOf(left: readonly PlannedPost[], was: PlannedPost, going: ReadonlySet<string>): Refusal | undefined {
  const [before, next] = neighboursOf(
    left.filter((post) => post.channelId === was.channelId),
    was.atMs,
  );
  if (before === undefined || next === undefined || before.recordingId !== next.recordingId) return undefined;
  if (going.has(before.id) || going.has(next.id)) return undefined;
  const days = `${formatDay(before.date)} ${formatMinute(before.minute)} and ${formatDay(next.date)} ${formatMinute(next.minute)}`;
  return { code: 'same-recording', detail: `The posts before and after it, on ${days}, come from one recording and would follow each other.` };
}
