import type { WallTime } from './calendar.js';
import { checkPlacement } from './check-placement.js';
import type { Plan, PlannedPost, Refusal } from './types.js';
import { instantOf } from './zone.js';

/** A short that is to stand on a channel at a time on that channel's wall. */
export interface WishedPost extends WallTime {
  readonly shortId: string;
  readonly channelId: string;
}

interface Wish {
  /** Where it stands in the list that was asked for. */
  readonly n: number;
  readonly post: PlannedPost;
}

/**
 * Which of some wishes, made elsewhere, a plan can take together: earliest first, each beside those taken before it, and again
 * until nothing more is taken, since a short may wait for its first channel.
 * @returns for each wish, in its order, what speaks against it beside those that are taken; undefined where it is
 */
export function fitTogether(plan: Plan, wishes: readonly WishedPost[]): (Refusal | undefined)[] {
  const refusals: (Refusal | undefined)[] = wishes.map(() => ({ code: 'no-slot', detail: 'This is not on the schedule any more.' }));
  let taken = plan;
  let left: Wish[] = wishes
    .flatMap((wish, n): Wish[] => {
      const [channel, short] = [plan.channels.find((one) => one.id === wish.channelId), plan.shorts.find((one) => one.id === wish.shortId)];
      if (channel === undefined || short === undefined) return [];
      const { atMs } = instantOf(channel.zone, wish);
      return [{ n, post: { ...wish, id: `wished:${n}`, recordingId: short.recordingId, atMs, state: 'planned' } }];
    })
    .sort((a, b) => a.post.atMs - b.post.atMs || a.n - b.n);
  for (let before = -1; before !== left.length;) {
    before = left.length;
    left = left.filter(({ n, post }) => {
      const short = taken.shorts.find((one) => one.id === post.shortId)!;
      const channel = taken.channels.find((one) => one.id === post.channelId)!;
      const refusal = checkPlacement(taken, short, channel, post)[0];
      refusals[n] = refusal;
      if (refusal === undefined) taken = { ...taken, posts: [...taken.posts, post] };
      return refusal !== undefined;
    });
  }
  return refusals;
}
