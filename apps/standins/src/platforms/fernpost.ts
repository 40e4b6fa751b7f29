import busboy from 'busboy';
import { type Call, Platform, type PlatformStyle, type Reply, tagsOf, textOf, Turned } from './platform.js';
import type { PlatformPost } from './posts.js';

export const FERNPOST: PlatformStyle = {
  id: 'fernpost',
  name: 'Fernpost',
  about: 'Square pictures that move, with a note underneath.',
  colour: '#5b7a3a',
  accounts: [
    { id: 'fp-ardcree', name: 'Ardcree Chimneys' },
    { id: 'fp-hearth', name: 'Hearth notes' },
    { id: 'fp-private', name: 'A private page' },
  ],
  rights: { scopes: ['notes.write', 'notes.read'], accessLifeS: 3_600, rotates: false },
  whoPath: '/me',
  pace: { calls: 60, perMs: 60_000 },
  postsADay: 12,
  retryAfter: 'seconds',
};
const KEY_LIFE_MS = 24 * 3_600_000;

/** Everything in one request (multipart/form-data); who sends an idempotency key with it gets the same answer again for a day. */
export class Fernpost extends Platform {
  private keys = new Map<string, { readonly post: string; readonly atMs: number }>();
  /** Keys whose first request is at work. */
  private readonly atWork = new Map<string, Promise<Reply>>();

  protected override ownState(): unknown {
    return [...this.keys];
  }
  protected override restoreOwn(state: unknown): void {
    this.keys = new Map(state as [string, { post: string; atMs: number }][]);
  }

  protected publishes({ method, path }: Pick<Call, 'method' | 'path'>): boolean {
    return method === 'POST' && path === '/notes';
  }
  protected error(status: number, code: string, words: string): Reply {
    return { status, body: { error: { code, message: words } } };
  }

  protected async serve(call: Call): Promise<Reply | null> {
    const { method, path, query } = call;
    const [, kind, id = ''] = path.split('/');
    if (kind === 'me' && method === 'GET') return { status: 200, body: { id: call.account, name: this.called(call.account) } };
    if (kind !== 'notes') return null;
    if (method === 'POST' && id === '') return this.once(call);
    if (method === 'GET' && id === '') {
      const ref = query.get('ref');
      return {
        status: 200,
        body: {
          notes: this.ofMine(call)
            .filter((post) => ref === null || post.note === ref)
            .map((post) => this.view(call, post)),
        },
      };
    }
    const post = this.mine(call, id);
    if (method === 'GET') return { status: 200, body: this.view(call, post) };
    if (method === 'PATCH') {
      const body = await this.json(call.request);
      if (body['caption'] !== undefined) post.text = textOf(body, 'caption', 600);
      if (body['headline'] !== undefined) post.title = textOf(body, 'headline', 60, 1);
      return { status: 200, body: this.view(call, post) };
    }
    if (method === 'DELETE') {
      post.state = 'removed';
      return { status: 204 };
    }
    return null;
  }

  /** The same key, the same answer; while the first is at work, the second waits for it. */
  private async once(call: Call): Promise<Reply> {
    const given = call.request.headers['idempotency-key'];
    const key = typeof given === 'string' && given !== '' ? `${call.account}:${given}` : null;
    if (key === null) return this.post(call, null);
    const first = this.atWork.get(key);
    const known = this.keys.get(key);
    if (first !== undefined || (known !== undefined && known.atMs > this.clock.nowMs() - KEY_LIFE_MS)) {
      call.request.resume();
      return first ?? { status: 201, body: this.view(call, this.posts.get(known!.post)!) };
    }
    const work = this.post(call, key).finally(() => this.atWork.delete(key));
    this.atWork.set(key, work);
    return work;
  }

  private async post(call: Call, key: string | null): Promise<Reply> {
    const { fields, file } = await this.parts(call);
    const post = this.make({
      account: call.account,
      note: textOf(fields, 'ref', 80),
      title: textOf(fields, 'headline', 60, 1),
      text: textOf(fields, 'caption', 600),
      tags: tagsOf(fields, 'tags', 8),
      coverText: textOf(fields, 'cover', 60),
      captions: textOf(fields, 'subtitles', 100_000),
      ...file,
      state: 'public',
      publicMs: this.nowMs(),
    });
    if (key !== null) this.keys.set(key, { post: post.id, atMs: this.clock.nowMs() });
    return { status: 201, body: this.view(call, post) };
  }

  private async parts({ request }: Call): Promise<{ fields: Record<string, string>; file: { sha256: string; bytes: number } }> {
    const fields: Record<string, string> = {};
    let file: Promise<{ sha256: string; bytes: number }> | null = null;
    try {
      const reader = busboy({ headers: request.headers, limits: { fieldSize: 120_000, files: 1 } });
      reader.on('field', (name, value) => (fields[name] = value));
      reader.on('file', (_, stream) => {
        file = this.takeFile(stream);
        file.catch(() => undefined);
      });
      await new Promise<void>((resolve, reject) => {
        reader.on('close', resolve).on('error', reject);
        request.on('aborted', () => reject(new Turned(400, 'broken-off', 'The request broke off.')));
        request.pipe(reader);
      });
    } catch (error) {
      throw error instanceof Turned ? error : new Turned(400, 'no-form', 'This is no form.');
    }
    if (file === null) throw new Turned(422, 'no-video', 'There is no video in this.');
    return { fields, file: await (file as Promise<{ sha256: string; bytes: number }>) };
  }

  private view({ base }: Call, post: PlatformPost): object {
    return {
      id: post.id,
      ref: post.note,
      link: `${base}/p/${post.id}`,
      headline: post.title,
      caption: post.text,
      state: post.state === 'public' ? 'up' : post.state,
    };
  }
}
