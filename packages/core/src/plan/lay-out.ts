import { weekdayOf, type WallTime } from './calendar.js';
import { type LayOutRequest, problemOf, secondRounds } from './lay-out-problem.js';
import { explainPlan } from './optimum/explain.js';
import type { PlanProblem } from './optimum/problem.js';
import { type PlanSolution, sizeOf, solvePlan } from './optimum/solve.js';
import type { PlannedPost, Refusal } from './types.js';

/** A proposed post, with the reason for the place. */
interface Placement extends PlannedPost {
  readonly why: string;
  /** Score × weight / 100. */
  readonly worth: number;
}

/** A post that stands and may move, and its better place on its channel. */
export interface ProposedMove extends WallTime {
  readonly postId: string;
  readonly channelId: string;
  readonly atMs: number;
  readonly why: string;
  /** Score × weight / 100, there and where it stands. */
  readonly worth: number;
  readonly worthBefore: number;
}

/** A short that did not get a place on a channel, with the reason. */
export interface Unplaced extends Refusal {
  readonly shortId: string;
  readonly channelId: string;
}

export interface Proposal {
  readonly placements: readonly Placement[];
  readonly moves: readonly ProposedMove[];
  readonly unplaced: readonly Unplaced[];
  /** Σ score × weight / 100 of the placements, and what the moves add to it. */
  readonly value: number;
  /** No plan of these shorts on these days is worth more. */
  readonly bound: number;
}

/** A post that moves must be worth so much more to the plan, score × weight / 100, so that no plan is turned over for nothing. */
export const MOVE_PRICE = 2;
/** How many moves are tried without, in a problem of this size at most, and in a larger one. */
const [SMALL, TRIES, TRIES_OF_LARGE] = [60_000, 12, 2];

/**
 * Lays shorts out over their clients' channels as near to the best as is found, with a bound on the best there is. Posts that stand stay
 * where they are, but for those that may move: each of them keeps its channel, and moves only where the plan gains `MOVE_PRICE` by it.
 * Nothing is written: a proposal.
 */
export function layOut(request: LayOutRequest): Proposal {
  const movable = movableOf(request);
  const still = lay(request, movable, []);
  if (movable.length === 0) return proposalOf(request, movable, still, still.solution.bound);
  const all = lay(request, movable, movable);
  // What all may do is no less than what some may; of it, what they are worth where they stand.
  const bound = all.freeBound - movable.reduce((sum, post) => sum + homeWorth(request, post), 0);
  return proposalOf(request, movable, withoutIdleMoves(request, movable, all.total > still.total ? all : still), bound);
}

/** How shorts and posts that may move are laid out. */
interface Way {
  readonly problem: PlanProblem;
  readonly solution: PlanSolution;
  readonly moves: readonly Omit<ProposedMove, 'why'>[];
  /** What all of it is worth, less the price of what moves. */
  readonly total: number;
  /** The bound with all that was free at first. */
  readonly freeBound: number;
}

/** Lays out with posts that are free to move; one that finds no place then stays where it is. */
function lay(request: LayOutRequest, movable: readonly PlannedPost[], free: readonly PlannedPost[]): Way {
  let freeBound: number | null = null;
  for (let left = free; ;) {
    const problem = problemOf(request, left);
    const solution = solvePlan(problem);
    freeBound ??= solution.bound;
    const placeOf = (post: PlannedPost): PlanSolution['posts'][number] | undefined =>
      solution.posts.find((one) => one.short === post.shortId && one.channel === post.channelId);
    const found = left.filter((post) => placeOf(post) !== undefined);
    if (found.length < left.length) {
      left = found;
      continue;
    }
    const moves = left.flatMap((post): Way['moves'] => {
      const { local, atMs, worth } = placeOf(post)!;
      return atMs === post.atMs ? [] : [{ postId: post.id, channelId: post.channelId, ...local, atMs, worth, worthBefore: homeWorth(request, post) }];
    });
    const stay = movable.filter((post) => !left.includes(post)).reduce((sum, post) => sum + homeWorth(request, post), 0);
    return { problem, solution, moves, total: solution.value + stay - MOVE_PRICE * moves.length, freeBound };
  }
}

/** Lets each post that moves, those that gain least by themselves first, stay where it is instead, where that is as good. */
function withoutIdleMoves(request: LayOutRequest, movable: readonly PlannedPost[], first: Way): Way {
  const gain = ({ worth, worthBefore }: Way['moves'][number]): number => worth - worthBefore;
  const tries = sizeOf(first.problem) <= SMALL ? TRIES : TRIES_OF_LARGE;
  let best = first;
  for (const { postId } of [...first.moves].sort((a, b) => gain(a) - gain(b) || (a.postId < b.postId ? -1 : 1)).slice(0, tries)) {
    const moving = new Set(best.moves.map((move) => move.postId));
    if (!moving.delete(postId)) continue;
    const way = lay(
      request,
      movable,
      movable.filter((post) => moving.has(post.id)),
    );
    if (way.total >= best.total - 1e-9) best = way;
  }
  return best;
}

/** Posts that may move: planned ones to come, on the asked days, on channels that are laid out, once there. */
function movableOf({ plan, movableIds = [], keptIds = [], shortIds, fromDate, toDate }: LayOutRequest): PlannedPost[] {
  const [asked, kept, wanted] = [new Set(movableIds), new Set(keptIds), new Set(shortIds)];
  const clients = new Set(plan.shorts.filter((short) => wanted.has(short.id)).map((short) => short.clientId));
  const channels = new Set(plan.channels.filter((channel) => clients.has(channel.clientId)).map((channel) => channel.id));
  // A short that is to come there again counts its days from where its post stands.
  const shorts = new Set(plan.shorts.filter((short) => short.comesAgainDays === null || !wanted.has(short.id)).map((short) => short.id));
  const timesThere = (post: PlannedPost): number => plan.posts.filter((one) => one.shortId === post.shortId && one.channelId === post.channelId).length;
  return plan.posts.filter(
    (post) =>
      asked.has(post.id) &&
      !kept.has(post.id) &&
      post.state === 'planned' &&
      post.atMs > plan.nowMs &&
      fromDate <= post.date &&
      post.date <= toDate &&
      channels.has(post.channelId) &&
      shorts.has(post.shortId) &&
      timesThere(post) === 1,
  );
}

/** What a post is worth where it stands; put there by hand, outside its channel's windows, it counts for nothing. */
function homeWorth({ plan }: LayOutRequest, { shortId, channelId, date, minute }: PlannedPost): number {
  const windows = plan.channels.find((one) => one.id === channelId)?.windows ?? [];
  const weights = windows.filter((window) => window.weekday === weekdayOf(date) && window.minute === minute).map((window) => window.weight);
  return (plan.shorts.find((one) => one.id === shortId)!.score * Math.max(0, ...weights)) / 100;
}

function proposalOf(request: LayOutRequest, movable: readonly PlannedPost[], { problem, solution, moves }: Way, bound: number): Proposal {
  const { posts, unplaced } = explainPlan(problem, solution);
  const shortAt = new Map(movable.map((post) => [post.id, post.shortId]));
  const moving = new Map(moves.map((move) => [`${shortAt.get(move.postId)!} ${move.channelId}`, move]));
  const standing = new Set(movable.map((post) => `${post.shortId} ${post.channelId}`));
  const recordingOf = new Map(problem.shorts.map((short) => [short.id, short.recording]));
  const again = new Map(secondRounds(request).map((one) => [one.id, one]));
  const shortOf = (id: string): string => again.get(id)?.short.id ?? id;
  const wanted = new Set([...request.shortIds, ...again.keys()]);
  const placed = posts.filter((post) => !standing.has(`${post.short} ${post.channel}`));
  const value = placed.reduce((sum, post) => sum + post.worth, 0) + moves.reduce((sum, move) => sum + move.worth - move.worthBefore, 0);
  return {
    placements: placed.map(({ short, channel, atMs, local, why, worth }) => ({
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
    moves: posts.flatMap(({ short, channel, why }): ProposedMove[] => {
      const move = moving.get(`${short} ${channel}`);
      return move === undefined ? [] : [{ ...move, why }];
    }),
    unplaced: unplaced.flatMap(({ short, channel, code, why }): Unplaced[] => {
      if (!wanted.has(short)) return [];
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
    bound: Math.max(bound, value),
  };
}
