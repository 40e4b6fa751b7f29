import { instantOf, type Plan, type PlanChannel, type PlannedPost, type PlanShort, type PostMove } from '@sift-reel/core';
import type { PlacementForm } from '@sift-reel/forms';
import { found } from '../identity/actor.js';

/** A plan with placements besides what it has, in the order in which they were asked for. */
export function place(
  plan: Plan,
  placements: readonly PlacementForm[],
): { plan: Plan; placed: { short: PlanShort; channel: PlanChannel; post: PlannedPost }[] } {
  const placed = placements.map(({ shortId, channelId, date, minute }, n) => {
    const short = find(plan.shorts, shortId, 'short');
    const channel = find(plan.channels, channelId, 'channel');
    const { atMs } = instantOf(channel.zone, { date, minute });
    const post: PlannedPost = { id: `wished:${n}`, shortId, recordingId: short.recordingId, channelId, date, minute, atMs, state: 'planned' };
    return { short, channel, post };
  });
  return { plan: { ...plan, posts: [...plan.posts, ...placed.map((one) => one.post)] }, placed };
}

/** A plan with posts where they are to go. */
export function moved(plan: Plan, moves: readonly PostMove[]): Plan {
  const going = new Map(moves.map((move) => [move.postId, move]));
  return {
    ...plan,
    posts: plan.posts.map((post) => {
      const move = going.get(post.id);
      if (move === undefined) return post;
      const { channelId, date, minute } = move;
      return { ...post, channelId, date, minute, atMs: instantOf(find(plan.channels, channelId, 'channel').zone, move).atMs };
    }),
  };
}

export function find<T extends { readonly id: string }>(rows: readonly T[], id: string, what: string): T {
  return found(
    rows.find((row) => row.id === id),
    what,
  );
}
