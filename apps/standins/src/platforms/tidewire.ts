import { createHmac } from 'node:crypto';
import { hashOf } from './faults.js';
import { type Call, Platform, type PlatformStyle, type Reply, tagsOf, textOf, Turned } from './platform.js';
import type { PlatformPost } from './posts.js';
import type { SimClock } from './sim-clock.js';

export const TIDEWIRE: PlatformStyle = {
  id: 'tidewire',
  name: 'Tidewire',
  about: 'Short takes that come and go with the day.',
  colour: '#1f7a76',
  accounts: [
    { id: 'tw-pellworth', name: 'Pellworth shoes' },
    { id: 'tw-bench', name: 'The bench' },
    { id: 'tw-empty', name: 'Nothing yet' },
  ],
  rights: { scopes: ['takes'], accessLifeS: 1_200, rotates: true },
  whoPath: '/whoami',
  pace: { calls: 90, perMs: 60_000 },
  postsADay: 20,
  retryAfter: 'date',
};
/** It is looked over for so long, by its name, ms. */
const [LEAST_MS, MOST_MS] = [60_000, 240_000];

/**
 * A take is put at an address that whoever posts it chooses, taken at once and looked over for minutes. What became of it is called back,
 * signed, sometimes twice; or it is asked.
 */
export class Tidewire extends Platform {
  constructor(
    clock: SimClock,
    client: { readonly id: string; readonly secret: string },
    dir: string,
    private readonly callback: { readonly url: string | null; readonly secret: string },
  ) {
    super(TIDEWIRE, clock, client, dir);
  }

  private readonly names = new Map<string, Promise<Reply>>();

  protected publishes({ method, path }: Pick<Call, 'method' | 'path'>): boolean {
    return method === 'PUT' && path.startsWith('/takes/');
  }
  protected error(status: number, code: string, words: string): Reply {
    return { status, body: { ok: false, reason: code, message: words } };
  }

  protected async serve(call: Call): Promise<Reply | null> {
    const { method, path, request } = call;
    const [, kind, name = ''] = path.split('/');
    if (kind === 'whoami' && method === 'GET') return { status: 200, body: { ok: true, who: call.account, called: this.called(call.account) } };
    if (kind !== 'takes' || !/^[\w-]{4,60}$/.test(name)) return null;
    if (method === 'PUT') return this.put(call, name);
    const post = this.named(call, name);
    if (post === undefined) throw new Turned(404, 'no-such-take', 'There is no such take of yours.');
    if (method === 'GET') return { status: 200, body: this.view(call, post) };
    if (method === 'PATCH') {
      post.text = textOf(await this.json(request), 'words', 240);
      return { status: 200, body: this.view(call, post) };
    }
    if (method === 'DELETE') {
      post.state = 'removed';
      return { status: 200, body: { ok: true } };
    }
    return null;
  }

  private named(call: Pick<Call, 'account'>, name: string): PlatformPost | undefined {
    return this.ofMine(call).find((post) => post.note === name);
  }

  /** The same name is the same take, however often it is put; whoever puts it while another does waits for that. */
  private put(call: Call, name: string): Promise<Reply> {
    const key = `${call.account}/${name}`;
    const known = this.named(call, name);
    const first = this.names.get(key);
    if (known !== undefined || first !== undefined) {
      call.request.resume();
      return first ?? Promise.resolve({ status: 202, body: this.view(call, known!) });
    }
    const work = this.take(call, name).finally(() => this.names.delete(key));
    this.names.set(key, work);
    return work;
  }

  private async take(call: Call, name: string): Promise<Reply> {
    let fields: Record<string, unknown>;
    try {
      fields = JSON.parse(Buffer.from(String(call.request.headers['take-words'] ?? ''), 'base64').toString('utf8')) as Record<string, unknown>;
    } catch {
      throw new Turned(400, 'no-words', 'take-words must be JSON in base 64.');
    }
    const words = {
      title: textOf(fields, 'title', 80, 1),
      text: textOf(fields, 'words', 240),
      tags: tagsOf(fields, 'tags', 2),
      coverText: textOf(fields, 'cover', 60),
      captions: '',
    };
    const file = await this.takeFile(call.request);
    const decidedMs = this.nowMs() + LEAST_MS + (hashOf(name) % (MOST_MS - LEAST_MS));
    const post = this.make({ account: call.account, note: name, ...words, ...file, state: 'processing', publicMs: decidedMs, decidedMs });
    return { status: 202, body: this.view(call, post) };
  }

  override settle(): PlatformPost[] {
    const settled = super.settle();
    for (const post of settled) {
      void this.callBack(post);
      // The same again later, as networks have it.
      if (hashOf(post.id) % 3 === 0) setTimeout(() => void this.callBack(post), this.clock.realMs(90_000)).unref();
    }
    return settled;
  }

  private async callBack(post: PlatformPost): Promise<void> {
    if (this.callback.url === null) return;
    const body = JSON.stringify({ take: post.note, became: post.state, at: Math.floor(this.nowMs() / 1_000) });
    const signature = createHmac('sha256', this.callback.secret).update(body).digest('hex');
    await fetch(this.callback.url, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', 'Take-Signature': `sha256=${signature}` },
      body,
      signal: AbortSignal.timeout(10_000),
    }).catch(() => undefined); // it can be asked
  }

  private view({ base }: Call, post: PlatformPost): object {
    return {
      ok: true,
      take: post.note,
      state: post.state === 'processing' ? 'looking' : post.state === 'public' ? 'out' : 'turned-down',
      page: post.state === 'public' ? `${base}/p/${post.id}` : null,
      because: post.state === 'refused' ? post.words : null,
    };
  }
}
