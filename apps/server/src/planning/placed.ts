import { instantOf, type Plan, type PlanChannel, type PlannedPost, type PlanShort } from '@sift-reel/core';
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

export function find<T extends { readonly id: string }>(rows: readonly T[], id: string, what: string): T {
  return found(
    rows.find((row) => row.id === id),
    what,
  );
}
