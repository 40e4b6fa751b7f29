import type { WallTime } from './calendar.js';
import { checkPlacement } from './check-placement.js';
import { PlanIndex, planAround } from './plan-index.js';
import type { Plan, PlannedPost, Refusal, RefusalCode } from './types.js';
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

/** What another post may put right: a first channel that it comes to later, another recording between two of one. */
const PASSING: ReadonlySet<RefusalCode> = new Set(['before-first-channel', 'same-recording']);

/**
 * Which of some wishes, made elsewhere, a plan can take together: earliest first, each beside those taken before it, and again
 * until nothing more is taken, since a short may wait for its first channel.
 * @returns for each wish, in its order, what speaks against it beside those that are taken; undefined where it is
 */
export function fitTogether(plan: Plan, wishes: readonly WishedPost[]): (Refusal | undefined)[] {
  const refusals: (Refusal | undefined)[] = wishes.map(() => ({ code: 'no-slot', detail: 'This is not on the schedule any more.' }));
  const { shorts, channels } = PlanIndex.of(plan);
  const taken: PlannedPost[] = [];
  let left: Wish[] = wishes
    .flatMap((wish, n): Wish[] => {
      const [channel, short] = [channels.get(wish.channelId), shorts.get(wish.shortId)];
      if (channel === undefined || short === undefined) return [];
      const { atMs } = instantOf(channel.zone, wish);
      return [{ n, post: { ...wish, id: `wished:${n}`, recordingId: short.recordingId, atMs, state: 'planned' } }];
    })
    .sort((a, b) => a.post.atMs - b.post.atMs || a.n - b.n);
  for (let before = -1; before !== left.length;) {
    before = left.length;
    left = left.filter(({ n, post }) => {
      const against = checkPlacement(
        planAround(plan, post.shortId, post.channelId, undefined, taken),
        shorts.get(post.shortId)!,
        channels.get(post.channelId)!,
        post,
      );
      refusals[n] = against[0];
      if (against.length === 0) taken.push(post);
      return against.length > 0 && against.every(({ code }) => PASSING.has(code));
    });
  }
  return refusals;
}
