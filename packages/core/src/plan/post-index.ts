import type { Plan, PlannedPost } from './types.js';

/** The posts of a plan by channel and by short: what a place rests on is a few of them, and many places are looked at. */
export class PostIndex {
  private readonly byChannel = new Map<string, PlannedPost[]>();
  private readonly byShort = new Map<string, PlannedPost[]>();

  constructor(private readonly plan: Plan) {
    for (const post of plan.posts) this.add(post);
  }

  add(post: PlannedPost): void {
    put(this.byChannel, post.channelId, post);
    put(this.byShort, post.shortId, post);
  }

  on(channelId: string): readonly PlannedPost[] {
    return this.byChannel.get(channelId) ?? [];
  }

  /** The plan with no posts but those of a channel, and a short's on others: all that `checkPlacement` looks at there. */
  around(shortId: string, channelId: string): Plan {
    const elsewhere = (this.byShort.get(shortId) ?? []).filter((post) => post.channelId !== channelId);
    return { ...this.plan, posts: [...this.on(channelId), ...elsewhere] };
  }
}

function put(map: Map<string, PlannedPost[]>, key: string, post: PlannedPost): void {
  const list = map.get(key);
  if (list === undefined) map.set(key, [post]);
  else list.push(post);
}
