import type { Plan, PlanChannel, PlannedPost, PlanShort } from './types.js';

/** A plan's rows by what they are asked for: a place rests on few of its posts, and many places are looked at. */
export class PlanIndex {
  private static readonly known = new WeakMap<Plan, PlanIndex>();
  readonly posts: ReadonlyMap<string, PlannedPost>;
  readonly shorts: ReadonlyMap<string, PlanShort>;
  readonly channels: ReadonlyMap<string, PlanChannel>;
  private readonly byChannel: ReadonlyMap<string, readonly PlannedPost[]>;
  private readonly byShort: ReadonlyMap<string, readonly PlannedPost[]>;

  private constructor(plan: Plan) {
    this.posts = byId(plan.posts);
    this.shorts = byId(plan.shorts);
    this.channels = byId(plan.channels);
    this.byChannel = grouped(plan.posts, 'channelId');
    this.byShort = grouped(plan.posts, 'shortId');
  }

  /** The index of a plan, made once: a plan is a value. */
  static of(plan: Plan): PlanIndex {
    let index = PlanIndex.known.get(plan);
    if (index === undefined) PlanIndex.known.set(plan, (index = new PlanIndex(plan)));
    return index;
  }

  on(channelId: string): readonly PlannedPost[] {
    return this.byChannel.get(channelId) ?? [];
  }

  ofShort(shortId: string): readonly PlannedPost[] {
    return this.byShort.get(shortId) ?? [];
  }
}

/**
 * A plan with no posts but those of a channel, and a short's on others: all that `checkPlacement` looks at there.
 * @param gone posts that are left out
 * @param come posts that are there besides
 */
export function planAround(plan: Plan, shortId: string, channelId: string, gone: ReadonlySet<string> = NONE, come: readonly PlannedPost[] = []): Plan {
  const index = PlanIndex.of(plan);
  const near = [...index.on(channelId), ...index.ofShort(shortId).filter((post) => post.channelId !== channelId)];
  const posts = [...near.filter((post) => !gone.has(post.id)), ...come.filter((post) => post.channelId === channelId || post.shortId === shortId)];
  return { ...plan, posts };
}

const NONE: ReadonlySet<string> = new Set();

const byId = <T extends { readonly id: string }>(rows: readonly T[]): Map<string, T> => new Map(rows.map((row) => [row.id, row]));

function grouped(posts: readonly PlannedPost[], key: 'channelId' | 'shortId'): Map<string, PlannedPost[]> {
  const groups = new Map<string, PlannedPost[]>();
  for (const post of posts) {
    const group = groups.get(post[key]);
    if (group === undefined) groups.set(post[key], [post]);
    else group.push(post);
  }
  return groups;
}
