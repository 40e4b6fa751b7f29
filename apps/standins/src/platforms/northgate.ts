import { randomBytes } from 'node:crypto';
import { Readable } from 'node:stream';
import { type Call, Platform, type PlatformStyle, type Reply, tagsOf, textOf, Turned } from './platform.js';
import type { PlatformPost } from './posts.js';

export const NORTHGATE: PlatformStyle = {
  id: 'northgate',
  name: 'Northgate',
  about: 'For people at work: longer clips, wide or square.',
  colour: '#2f5d7c',
  accounts: [
    { id: 'ng-pellworth', name: 'Pellworth Shoe Repair' },
    { id: 'ng-last', name: 'The Last and the Welt' },
    { id: 'ng-other', name: 'Somebody else’s page' },
  ],
  rights: { scopes: ['page:publish'], accessLifeS: 7_200, rotates: false },
  whoPath: '/page',
  pace: { calls: 60, perMs: 60_000 },
  postsADay: 10,
  retryAfter: 'date',
};

interface Video {
  readonly account: string;
  state: 'fetching' | 'ready' | 'failed';
  why: string;
  sha256: string;
  bytes: number;
}

/** It is given an address, fetches from there in its own time, and publishes when it is told to. The note can be looked for. */
export class Northgate extends Platform {
  private videos = new Map<string, Video>();

  protected override ownState(): unknown {
    return [...this.videos];
  }
  protected override restoreOwn(state: unknown): void {
    this.videos = new Map(state as [string, Video][]);
  }

  protected publishes({ method, path }: Pick<Call, 'method' | 'path'>): boolean {
    return method === 'POST' && path === '/updates';
  }
  protected error(status: number, code: string, words: string): Reply {
    return { status, body: { problems: [{ code, words }] } };
  }

  protected async serve(call: Call): Promise<Reply | null> {
    const { method, path, query, request } = call;
    const [, kind, id = ''] = path.split('/');
    if (kind === 'page' && method === 'GET') return { status: 200, body: { page: { id: call.account, title: this.called(call.account) } } };
    if (kind === 'videos' && method === 'POST' && id === '') return this.take(call, await this.json(request));
    if (kind === 'videos' && method === 'GET') {
      const video = this.videos.get(id);
      if (video === undefined || video.account !== call.account) throw new Turned(404, 'no-such-video', 'There is no such video.');
      return { status: 200, body: { video: id, state: video.state, why: video.why } };
    }
    if (kind !== 'updates') return null;
    if (method === 'POST' && id === '') return this.publish(call, await this.json(request));
    if (method === 'GET' && id === '') {
      const note = query.get('internal_note');
      return {
        status: 200,
        body: {
          updates: this.ofMine(call)
            .filter((post) => note === null || post.note === note)
            .map((post) => this.view(call, post)),
        },
      };
    }
    const post = this.mine(call, id);
    if (method === 'GET') return { status: 200, body: this.view(call, post) };
    if (method === 'POST') {
      const body = await this.json(request);
      post.title = textOf(body, 'title', 120, 1);
      post.text = textOf(body, 'text', 1_400);
      return { status: 200, body: this.view(call, post) };
    }
    if (method === 'DELETE') {
      post.state = 'removed';
      return { status: 204 };
    }
    return null;
  }

  private take(call: Call, body: Record<string, unknown>): Reply {
    const address = textOf(body, 'source', 2_000, 1);
    if (!URL.canParse(address)) throw new Turned(422, 'bad-source', 'source must be an address.');
    const id = randomBytes(9).toString('hex');
    const video: Video = { account: call.account, state: 'fetching', why: '', sha256: '', bytes: 0 };
    this.videos.set(id, video);
    void this.fetch(address, video).finally(() => this.changed());
    return { status: 202, body: { video: id, state: video.state } };
  }

  private async fetch(address: string, video: Video): Promise<void> {
    try {
      const response = await fetch(address, { signal: AbortSignal.timeout(60_000) });
      if (!response.ok || response.body === null) throw new Error(`the address answers ${response.status}`);
      const { sha256, bytes } = await this.takeFile(Readable.fromWeb(response.body as never));
      Object.assign(video, { state: 'ready', sha256, bytes });
    } catch (error) {
      Object.assign(video, { state: 'failed', why: error instanceof Error ? error.message : 'It could not be fetched.' });
    }
  }

  private publish(call: Call, body: Record<string, unknown>): Reply {
    const video = this.videos.get(textOf(body, 'video', 40, 1));
    if (video === undefined || video.account !== call.account || video.state !== 'ready') throw new Turned(422, 'not-ready', 'The video is not there yet.');
    const post = this.make({
      account: call.account,
      note: textOf(body, 'internal_note', 80),
      title: textOf(body, 'title', 120, 1),
      text: textOf(body, 'text', 1_400),
      tags: tagsOf(body, 'topics', 3),
      coverText: textOf(body, 'cover', 60),
      captions: textOf(body, 'captions', 100_000),
      sha256: video.sha256,
      bytes: video.bytes,
      state: 'public',
      publicMs: this.nowMs(),
    });
    return { status: 201, body: this.view(call, post) };
  }

  private view({ base }: Call, post: PlatformPost): object {
    return { update: post.id, internal_note: post.note, address: `${base}/p/${post.id}`, title: post.title, text: post.text, state: post.state };
  }
}
