import { dayNumber, type WallTime } from '../calendar.js';
import { Arrangement } from './arrangement.js';
import { changePlaces, slotOrder, TIE } from './exchange.js';
import { type Instance, instancesOf } from './instance.js';
import { Prices } from './prices.js';
import type { PlanProblem } from './problem.js';
import { Search } from './search.js';

/** A short's new post. `worth`: score × weight / 100. */
export interface SolvedPost {
  readonly short: string;
  readonly channel: string;
  readonly atMs: number;
  readonly local: WallTime;
  readonly weight: number;
  readonly worth: number;
}

export interface PlanSolution {
  /** In order of time, then of channel. */
  readonly posts: readonly SolvedPost[];
  /** Σ worth. */
  readonly value: number;
  /** No plan is worth more than this. */
  readonly bound: number;
}

/** Near enough to the bound: no more is looked for. */
const NEAR = 1e-4;
/** Further from the bound than this, it is looked for twice as long. */
const FAR = 0.05;
/**
 * How long is looked for, so that a problem of any size takes seconds at most: in all, slots times shorts of all clients
 * times rounds; and the fewest and most rounds of each client.
 */
const EFFORT = { moves: { work: 1_000_000, least: 2, most: 60 }, rounds: { work: 2_000_000, least: 3, most: 900 } };

/**
 * The best plan that this finds, with a bound on the best there is. The same problem has the same plan, whatever order its
 * rows come in. Clients are solved apart: prices from a relaxation (`prices.ts`) give the bound and lead the construction,
 * exchanges and laying stretches out anew make it better (`search.ts`).
 */
export function solvePlan(problem: PlanProblem): PlanSolution {
  const effort = effortFor(problem);
  const solved = instancesOf(problem).map((instance) => solveInstance(instance, effort));
  const posts = solved.flatMap((one) => one.posts).sort((a, b) => a.atMs - b.atMs || (a.channel < b.channel ? -1 : 1));
  return { posts, value: posts.reduce((sum, post) => sum + post.worth, 0), bound: solved.reduce((sum, one) => sum + one.bound, 0) };
}

/** How many moves of the prices and rounds of the search each client gets. */
export interface Effort {
  readonly moves: number;
  readonly rounds: number;
}

/** The size of a problem: over its clients, their shorts times the slots that their windows give, whatever then closes them. */
export function sizeOf({ channels, shorts, from, to }: PlanProblem): number {
  const weeks = (dayNumber(to) - dayNumber(from) + 1) / 7;
  const shortsOf = new Map<string, number>();
  for (const short of shorts) shortsOf.set(short.client, (shortsOf.get(short.client) ?? 0) + 1);
  return channels.reduce((sum, channel) => sum + channel.windows.length * weeks * (shortsOf.get(channel.client) ?? 0), 0);
}

/** What a problem is worth looking at; a change of a channel's limits does not change it. */
export function effortFor(problem: PlanProblem): Effort {
  const size = Math.max(1, sizeOf(problem));
  const within = ({ work, least, most }: (typeof EFFORT)['moves']): number => Math.round(Math.min(most, Math.max(least, work / size)));
  return { moves: within(EFFORT.moves), rounds: within(EFFORT.rounds) };
}

/** The plan of one client. */
export function solveInstance(instance: Instance, { moves, rounds }: Effort): PlanSolution {
  const prices = new Prices(instance, new Arrangement(instance).placeAsItStands());
  const search = new Search(instance, prices);
  search.beginAsItStands();
  const bound = lowerBound(prices, search, moves);
  search.refine(rounds, bound * (1 - NEAR));
  if (rounds === EFFORT.rounds.most && search.bestValue < bound * (1 - FAR)) search.refine(rounds, bound * (1 - NEAR));
  const plan = search.takeBest();
  tidy(plan);
  const posts = postsOf(plan);
  const value = posts.reduce((sum, post) => sum + post.worth, 0);
  return { posts, value, bound: Math.max(bound, value) };
}

/** Lowers the bound by moving the prices, and makes a plan by them now and then. Leaves the prices at the lowest. */
function lowerBound(prices: Prices, search: Search, moves: number): number {
  let saved = prices.save();
  let lowest = prices.bound();
  /** Keeps the prices as they are where they are the best so far. */
  const look = (): number => {
    const bound = prices.bound();
    if (bound < lowest - TIE) {
      lowest = bound;
      saved = prices.save();
    }
    return bound;
  };
  const isNear = (): boolean => lowest - search.bestValue <= NEAR * lowest;
  leanPrices(prices, look);
  search.follow();
  for (const grain of ['slot', 'recording'] as const) {
    let share = 0.1;
    let since = 0;
    prices.restore(saved);
    prices.bound();
    for (let n = 0; n < moves && !isNear() && share > 0.002; n += 1) {
      const before = lowest;
      prices.step(Math.max(lowest - search.bestValue, 1e-6 * lowest), share, grain);
      look();
      since = lowest < before ? 0 : since + 1;
      if (since === 0) share = Math.min(2, share * 1.1);
      else if (since % 10 === 0) share *= 0.66;
      if (n % 15 === 14) search.follow();
    }
    if (isNear()) break;
  }
  prices.restore(saved);
  prices.bound();
  search.follow();
  return lowest;
}

/** Finds how far prices should lean, by doubling and then by halves between. */
function leanPrices(prices: Prices, look: () => number): void {
  const start = prices.save();
  const at = (by: number): number => {
    prices.restore(start);
    prices.lean(by);
    return look();
  };
  let best = { by: 0, bound: look() };
  const attempt = (by: number): boolean => {
    const bound = at(by);
    if (bound >= best.bound) return false;
    best = { by, bound };
    return true;
  };
  let by = 5;
  while (by < 500 && attempt(by)) by *= 2;
  for (let width = best.by / 4; width > best.by / 10 && width > 0; width /= 2) if (!attempt(best.by + width)) attempt(best.by - width);
}

/** Takes posts away that bring nothing, and lets of two shorts of one score the first by its id go earlier. */
function tidy(plan: Arrangement): void {
  const { tracks, score } = plan.instance;
  tracks.forEach((track, c) => {
    const slots = slotOrder(plan, c).sort((a, b) => a - b);
    for (const i of slots) {
      const s = plan.taken[c]![i]!;
      if (s < 0 || plan.worth(c, i, s) > 0 || plan.isLeaned(c, s) || plan.keeps(c, s)) continue;
      plan.clear(c, i);
      if (plan.hasTwins(c, i)) plan.place(c, i, s);
    }
    for (const i of slots)
      for (const j of slots) {
        const [a, b] = [plan.taken[c]![i]!, plan.taken[c]![j]!];
        if (i < j && a > b && b >= 0 && (score[a] === score[b] || track.worth[i] === track.worth[j])) changePlaces(plan, c, i, j);
      }
  });
}

function postsOf(plan: Arrangement): SolvedPost[] {
  return plan.instance.tracks.flatMap((track, c) =>
    [...plan.taken[c]!.entries()]
      .filter(([, s]) => s >= 0)
      .map(([i, s]) => ({
        short: plan.instance.shorts[s]!.id,
        channel: track.channel.id,
        atMs: track.at[i]!,
        local: track.local[i]!,
        weight: Math.round(track.worth[i]! * 100 * 1e9) / 1e9,
        worth: plan.worth(c, i, s),
      })),
  );
}
