import { randomBytes } from 'node:crypto';
import { type Call, Platform, type PlatformStyle, type Reply, tagsOf, textOf, Turned } from './platform.js';
import type { PlatformPost } from './posts.js';

export const HEARTHSIDE: PlatformStyle = {
  id: 'hearthside',
  name: 'Hearthside',
  about: 'Programmes to sit down for, each at its hour.',
  colour: '#9a5a1f',
  accounts: [
    { id: 'hs-brackwater', name: 'Brackwater Drains' },
    { id: 'hs-archive', name: 'Brackwater, the archive' },
    { id: 'hs-quiet', name: 'The quiet channel' },
  ],
  rights: { scopes: ['programmes.manage'], accessLifeS: 3_600, rotates: false },
  whoPath: '/station',
  pace: { calls: 60, perMs: 60_000 },
  postsADay: 6,
  retryAfter: 'seconds',
};

interface Medium {
  readonly account: string;
  readonly sha256: string;
  readonly bytes: number;
}

/** Publishes at a time given. There is no note and no key: what was posted is found again by its words. */
export class Hearthside extends Platform {
  private media = new Map<string, Medium>();

  protected override ownState(): unknown {
    return [...this.media];
  }
  protected override restoreOwn(state: unknown): void {
    this.media = new Map(state as [string, Medium][]);
  }

  protected publishes({ method, path }: Pick<Call, 'method' | 'path'>): boolean {
    return method === 'POST' && path === '/programmes';
  }
  protected error(status: number, code: string, words: string): Reply {
    return { status, body: { type: `hearthside:${code}`, title: words, status } };
  }

  protected async serve(call: Call): Promise<Reply | null> {
    const { method, path, request } = call;
    const [, kind, id = ''] = path.split('/');
    if (kind === 'station' && method === 'GET') return { status: 200, body: { station: call.account, label: this.called(call.account) } };
    if (kind === 'media' && method === 'POST') {
      const file = await this.takeFile(request);
      const key = randomBytes(9).toString('hex');
      this.media.set(key, { account: call.account, ...file });
      return { status: 201, body: { medium: key } };
    }
    if (kind !== 'programmes') return null;
    if (method === 'POST' && id === '') return this.schedule(call, await this.json(request));
    if (method === 'GET' && id === '') return { status: 200, body: { programmes: this.ofMine(call).map((post) => this.view(call, post)) } };
    const post = this.mine(call, id);
    if (method === 'GET') return { status: 200, body: this.view(call, post) };
    if (method === 'PATCH') {
      const body = await this.json(request);
      post.title = textOf(body, 'title', 100, 1);
      post.text = textOf(body, 'description', 6_000);
      return { status: 200, body: this.view(call, post) };
    }
    if (method === 'DELETE') {
      post.state = 'removed';
      return { status: 204 };
    }
    return null;
  }

  private schedule(call: Call, body: Record<string, unknown>): Reply {
    const medium = this.media.get(textOf(body, 'medium', 40, 1));
    if (medium === undefined || medium.account !== call.account) throw new Turned(422, 'no-video', 'There is no such medium.');
    const at = Date.parse(textOf(body, 'publish_at', 40, 1));
    if (Number.isNaN(at)) throw new Turned(422, 'bad-time', 'publish_at must be a time.');
    const now = this.nowMs();
    if (at > now + 30 * 86_400_000) throw new Turned(422, 'bad-time', 'publish_at is too far away.');
    const post = this.make({
      account: call.account,
      note: '',
      title: textOf(body, 'title', 100, 1),
      text: textOf(body, 'description', 6_000),
      tags: tagsOf(body, 'tags', 12),
      coverText: textOf(body, 'cover', 60),
      captions: textOf(body, 'captions', 100_000),
      sha256: medium.sha256,
      bytes: medium.bytes,
      state: at <= now ? 'public' : 'scheduled',
      publicMs: Math.max(at, now),
    });
    return { status: 201, body: this.view(call, post) };
  }

  private view({ base }: Call, post: PlatformPost): object {
    return {
      programme: post.id,
      href: `${base}/p/${post.id}`,
      title: post.title,
      description: post.text,
      publish_at: new Date(post.publicMs).toISOString(),
      state: post.state === 'public' ? 'on' : post.state === 'scheduled' ? 'to-come' : post.state,
      because: post.state === 'refused' ? post.words : null,
    };
  }
}
