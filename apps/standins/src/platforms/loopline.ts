import { randomBytes } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { mkdir, open, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { type Call, Platform, type PlatformStyle, type Reply, tagsOf, textOf, Turned } from './platform.js';
import type { PlatformPost } from './posts.js';

export const LOOPLINE: PlatformStyle = {
  id: 'loopline',
  name: 'Loopline',
  about: 'Upright clips, one after the other, round and round.',
  colour: '#7a3b69',
  accounts: [
    { id: 'll-ardcree', name: '@ardcree.chimneys' },
    { id: 'll-pellworth', name: '@pellworth.shoes' },
    { id: 'll-spare', name: '@spare.loop' },
  ],
  rights: { scopes: ['clips', 'clips.upload'], accessLifeS: 1_800, rotates: true },
  whoPath: '/account',
  pace: { calls: 240, perMs: 60_000 },
  postsADay: 25,
  retryAfter: 'seconds',
};
const PIECE = 4_000_000;

interface Upload {
  readonly account: string;
  readonly size: number;
  sha256: string | null;
}

/** Upload in pieces that can be resumed, then publish. Nothing keeps who asks twice from posting twice; the note can be looked for. */
export class Loopline extends Platform {
  private uploads = new Map<string, Upload>();

  protected override ownState(): unknown {
    return [...this.uploads];
  }
  protected override restoreOwn(state: unknown): void {
    this.uploads = new Map(state as [string, Upload][]);
  }

  protected publishes({ method, path }: Pick<Call, 'method' | 'path'>): boolean {
    return method === 'POST' && path === '/clips';
  }
  protected error(status: number, code: string, words: string): Reply {
    return { status, body: { fault: code, text: words } };
  }

  protected async serve(call: Call): Promise<Reply | null> {
    const { method, path, query, request } = call;
    const [, kind, id = ''] = path.split('/');
    if (kind === 'account' && method === 'GET') return { status: 200, body: { handle: this.called(call.account), id: call.account } };
    if (kind === 'uploads') return this.upload(call, id);
    if (kind !== 'clips') return null;
    if (method === 'POST' && id === '') return this.publish(call, await this.json(request));
    if (method === 'GET' && id === '') {
      const note = query.get('note');
      return {
        status: 200,
        body: {
          clips: this.ofMine(call)
            .filter((post) => note === null || post.note === note)
            .map((post) => this.view(call, post)),
        },
      };
    }
    const post = this.mine(call, id);
    if (method === 'GET') return { status: 200, body: this.view(call, post) };
    if (method === 'PUT') {
      post.text = textOf(await this.json(request), 'caption', 400);
      return { status: 200, body: this.view(call, post) };
    }
    if (method === 'DELETE') {
      post.state = 'removed';
      return { status: 200, body: {} };
    }
    return null;
  }

  private async upload(call: Call, id: string): Promise<Reply | null> {
    const { method, request } = call;
    if (method === 'POST' && id === '') {
      const size = Number((await this.json(request))['size']);
      if (!Number.isInteger(size) || size < 1 || size > 500_000_000) throw new Turned(422, 'bad-size', 'size must be 1 to 500000000.');
      const key = randomBytes(9).toString('hex');
      this.uploads.set(key, { account: call.account, size, sha256: null });
      return { status: 201, body: { upload: key, piece: PIECE } };
    }
    const upload = this.uploads.get(id);
    if (upload === undefined || upload.account !== call.account) throw new Turned(404, 'no-such-upload', 'There is no such upload.');
    const part = join(this.folder(), `upload-${id}`);
    const there = (await stat(part).catch(() => null))?.size ?? 0;
    if (method === 'GET') return { status: 200, body: { received: upload.sha256 === null ? there : upload.size, size: upload.size } };
    if (method !== 'PATCH') return null;
    const from = Number(request.headers['upload-from']);
    if (upload.sha256 !== null || from !== there) throw new Turned(409, 'other-place', `It goes on at ${upload.sha256 === null ? there : upload.size}.`);
    const received = await this.append(request, part, there, Math.min(PIECE, upload.size - there));
    if (received === upload.size) upload.sha256 = (await this.takeFile(createReadStream(part))).sha256;
    return { status: 200, body: { received, size: upload.size } };
  }

  /** What has come of a piece stays, though its line breaks. */
  private async append(request: NodeJS.ReadableStream, part: string, from: number, most: number): Promise<number> {
    await mkdir(this.folder(), { recursive: true });
    const file = await open(part, from === 0 ? 'w' : 'r+');
    let at = from;
    try {
      for await (const chunk of request as AsyncIterable<Buffer>) {
        const piece = chunk.subarray(0, from + most - at);
        await file.write(piece, 0, piece.length, at);
        at += piece.length;
      }
    } catch {
      // the line is gone; the reply goes nowhere
    } finally {
      await file.close();
    }
    return at;
  }

  private publish(call: Call, body: Record<string, unknown>): Reply {
    const upload = this.uploads.get(textOf(body, 'upload', 40, 1));
    if (upload === undefined || upload.account !== call.account || upload.sha256 === null) throw new Turned(422, 'no-video', 'The upload is not complete.');
    const post = this.make({
      account: call.account,
      note: textOf(body, 'note', 80),
      title: textOf(body, 'title', 100, 1),
      text: textOf(body, 'caption', 400),
      tags: tagsOf(body, 'tags', 5),
      coverText: textOf(body, 'coverText', 60),
      captions: textOf(body, 'captions', 100_000),
      sha256: upload.sha256,
      bytes: upload.size,
      state: 'public',
      publicMs: this.nowMs(),
    });
    return { status: 200, body: this.view(call, post) };
  }

  private view({ base }: Call, post: PlatformPost): object {
    return { clip: post.id, note: post.note, url: `${base}/p/${post.id}`, title: post.title, caption: post.text, visible: post.state === 'public' };
  }
}
