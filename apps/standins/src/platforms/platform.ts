import { createHash, randomBytes } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { mkdir, rename, rm } from 'node:fs/promises';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { join } from 'node:path';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { setTimeout as wait } from 'node:timers/promises';
import { type Fault, Faults, hashOf, seeded } from './faults.js';
import { audience, type PlatformPost } from './posts.js';
import { Rights, type RightsState, type RightsStyle } from './rights.js';
import type { SimClock } from './sim-clock.js';

export interface PlatformStyle {
  readonly id: string;
  readonly name: string;
  /** What it says of itself on its page. */
  readonly about: string;
  readonly colour: string;
  readonly accounts: readonly { readonly id: string; readonly name: string }[];
  readonly rights: RightsStyle;
  /** Where an account is told its name; any right may ask that. */
  readonly whoPath: string;
  /** So many calls of an account in so long. */
  readonly pace: { readonly calls: number; readonly perMs: number };
  readonly postsADay: number;
  /** How it tells how long to wait (RFC 9110, 10.2.3). */
  readonly retryAfter: 'seconds' | 'date';
}

/** What a call is answered. */
export interface Reply {
  readonly status: number;
  readonly body?: object;
  readonly headers?: Readonly<Record<string, string>>;
}

/** A call of somebody who has a right. */
export interface Call {
  readonly method: string;
  /** Below the platform's own, such as `/posts/7`. */
  readonly path: string;
  readonly query: URLSearchParams;
  readonly request: IncomingMessage;
  readonly account: string;
  readonly base: string;
}

export interface PlatformState {
  readonly posts: readonly PlatformPost[];
  readonly rights: RightsState;
  readonly own: unknown;
}

const LARGEST_FILE = 600_000_000;
const LARGEST_JSON = 200_000;
const DAY_MS = 86_400_000;
const SLOW_MS = 45_000;

/** A made-up platform: what the five have in common. How each is spoken to is its own file's. */
export abstract class Platform {
  readonly faults = new Faults();
  readonly posts = new Map<string, PlatformPost>();
  readonly rights: Rights;
  /** Its clock against everybody else's. */
  offByMs = 0;
  /** Every so many posts is not shown in the end; 0 for none. */
  refuseEvery = 0;
  /** Calls of each account that it let pass, and those it had to turn away as too many. */
  readonly counted = { calls: 0, tooMany: 0 };
  private readonly recent = new Map<string, number[]>();
  private readonly random: () => number;
  changed: () => void = () => undefined;

  constructor(
    readonly style: PlatformStyle,
    protected readonly clock: SimClock,
    client: { readonly id: string; readonly secret: string },
    private readonly dir: string,
  ) {
    this.rights = new Rights(clock, style.rights, client);
    this.random = seeded(hashOf(style.id));
  }

  /** What its calls do. @returns null for what it does not know */
  protected abstract serve(call: Call): Promise<Reply | null> | Reply | null;
  /** Whether a call may put something before the public. */
  protected abstract publishes(call: Pick<Call, 'method' | 'path'>): boolean;
  /** An error in its own words. */
  protected abstract error(status: number, code: string, words: string): Reply;
  protected ownState(): unknown {
    return null;
  }
  protected restoreOwn(_state: unknown): void {}

  nowMs(): number {
    return this.clock.nowMs() + this.offByMs;
  }

  state(): PlatformState {
    return { posts: [...this.posts.values()], rights: this.rights.state(), own: this.ownState() };
  }
  restore({ posts, rights, own }: PlatformState): void {
    for (const post of posts) this.posts.set(post.id, post);
    this.rights.restore(rights);
    this.restoreOwn(own);
  }

  /** Answers a call of its interface, well or not. */
  async answer(request: IncomingMessage, response: ServerResponse, path: string, query: URLSearchParams): Promise<void> {
    response.setHeader('Date', new Date(this.nowMs()).toUTCString());
    const right = this.rights.of(request.headers.authorization);
    if (right === null) return this.send(response, this.noRight('invalid_token', 401, 'The token is over, or was taken back.'));
    const missing = this.style.rights.scopes.filter((scope) => !right.scopes.includes(scope));
    if (path !== this.style.whoPath && missing.length > 0)
      return this.send(response, this.noRight('insufficient_scope', 403, `This needs ${missing.join(' and ')}.`));
    const call: Call = {
      method: request.method ?? 'GET',
      path,
      query,
      request,
      account: right.account,
      base: `http://${request.headers.host ?? 'localhost'}/platforms/${this.style.id}`,
    };
    const waitMs = this.paced(right.account);
    if (waitMs > 0) {
      this.counted.tooMany += 1;
      request.resume();
      return this.send(response, { ...this.error(429, 'too-many', 'Too many calls. Slow down.'), headers: this.retryAfter(waitMs) });
    }
    this.counted.calls += 1;
    await this.withFault(this.faults.next(this.publishes(call)), call, response);
  }

  private async withFault(fault: Fault | null, call: Call, response: ServerResponse): Promise<void> {
    if (fault === 'throttle') {
      call.request.resume();
      return this.send(response, { ...this.error(429, 'busy', 'Busy. Come again.'), headers: this.retryAfter(20_000) });
    }
    if (fault === 'before') {
      call.request.resume();
      return this.send(response, this.error(503, 'out-of-order', 'Something went wrong on our side.'));
    }
    if (fault === 'broken') {
      call.request.socket.destroy();
      return;
    }
    if (fault === 'late') await wait(this.clock.realMs(SLOW_MS));
    const reply = await this.reply(call);
    this.changed();
    if (fault === 'lost') call.request.socket.destroy();
    else if (fault === 'after') this.send(response, this.error(502, 'lost-inside', 'Something went wrong on our side.'));
    else if (fault === 'slow') setTimeout(() => this.send(response, reply), this.clock.realMs(SLOW_MS));
    else this.send(response, reply);
  }

  private async reply(call: Call): Promise<Reply> {
    try {
      return (await this.serve(call)) ?? this.error(404, 'nothing-here', 'There is nothing here.');
    } catch (error) {
      if (error instanceof Turned) {
        const reply = this.error(error.status, error.code, error.message);
        return error.againMs === null ? reply : { ...reply, headers: this.retryAfter(error.againMs) };
      }
      throw error;
    }
  }

  /** @returns how long an account has to wait, in ms; 0 when the call may pass */
  private paced(account: string): number {
    const now = this.clock.nowMs();
    const { calls, perMs } = this.style.pace;
    const times = (this.recent.get(account) ?? []).filter((at) => at > now - perMs);
    this.recent.set(account, times);
    if (times.length >= calls) return times[times.length - calls]! + perMs - now;
    times.push(now);
    return 0;
  }

  private retryAfter(waitMs: number): Record<string, string> {
    const seconds = Math.max(1, Math.ceil(waitMs / 1_000));
    return { 'Retry-After': this.style.retryAfter === 'seconds' ? String(seconds) : new Date(this.nowMs() + seconds * 1_000).toUTCString() };
  }

  private noRight(code: string, status: number, words: string): Reply {
    return {
      ...this.error(status, code, words),
      headers: { 'WWW-Authenticate': `Bearer realm="${this.style.name}", error="${code}", error_description="${words}"` },
    };
  }

  private send(response: ServerResponse, { status, body, headers }: Reply): void {
    if (response.destroyed) return;
    response.writeHead(status, { 'Content-Type': 'application/json', ...headers }).end(body === undefined ? undefined : JSON.stringify(body));
  }

  // What the five build with.

  /** Puts a post there. @throws Turned when the day is full, or the same video is there already */
  protected make(
    fields: Omit<PlatformPost, 'id' | 'madeMs' | 'decidedMs' | 'words' | 'state'> & { readonly state: PlatformPost['state']; readonly decidedMs?: number },
  ): PlatformPost {
    const now = this.nowMs();
    const mine = [...this.posts.values()].filter((post) => post.account === fields.account && post.state !== 'removed');
    const twin = mine.find((post) => post.sha256 === fields.sha256 && post.title === fields.title && post.state !== 'refused');
    if (twin !== undefined && this.refusesTwins) throw new Turned(409, 'duplicate', `This was posted already, as ${twin.id}.`);
    const day = Math.floor(fields.publicMs / DAY_MS);
    const most = this.postsADay ?? this.style.postsADay;
    if (mine.filter((post) => post.state !== 'refused' && Math.floor(post.publicMs / DAY_MS) === day).length >= most)
      throw new Turned(403, 'day-full', `No more than ${most} posts a day.`, (day + 1) * DAY_MS - now);
    const words = this.refuseEvery > 0 && (this.posts.size + 1) % this.refuseEvery === 0 ? 'It looks like an advertisement without its label.' : '';
    const post: PlatformPost = { ...fields, id: this.newId(), madeMs: now, decidedMs: fields.decidedMs ?? now, words };
    this.posts.set(post.id, post);
    return post;
  }

  private refusesTwins = false;
  private postsADay: number | null = null;

  /** Whether the same video with the same title is turned away. */
  turnTwinsAway(turned: boolean): void {
    this.refusesTwins = turned;
  }
  allowADay(posts: number): void {
    this.postsADay = posts;
  }

  private newId(): string {
    return Math.floor(this.random() * 36 ** 8)
      .toString(36)
      .padStart(8, '0')
      .concat(randomBytes(2).toString('hex'));
  }

  /** What has come of the posts by now. */
  settle(): PlatformPost[] {
    const now = this.nowMs();
    const settled = [...this.posts.values()].filter(
      (post) => (post.state === 'processing' && post.decidedMs <= now) || (post.state === 'scheduled' && post.publicMs <= now),
    );
    for (const post of settled) {
      post.state = post.words === '' ? 'public' : 'refused';
      if (post.publicMs < post.decidedMs) post.publicMs = post.decidedMs;
    }
    if (settled.length > 0) this.changed();
    return settled;
  }

  /** What an account is called there. */
  protected called(account: string): string {
    return this.style.accounts.find((one) => one.id === account)?.name ?? account;
  }

  protected mine({ account }: Pick<Call, 'account'>, id: string): PlatformPost {
    this.settle();
    const post = this.posts.get(id);
    if (post === undefined || post.account !== account || post.state === 'removed') throw new Turned(404, 'no-such-post', 'There is no such post of yours.');
    return post;
  }

  protected ofMine({ account }: Pick<Call, 'account'>): PlatformPost[] {
    this.settle();
    return [...this.posts.values()].filter((post) => post.account === account && post.state !== 'removed');
  }

  shown(post: PlatformPost): { views: number; reactions: number } {
    return audience(post, this.nowMs());
  }

  /** The file that a call brings along. @throws Turned when it is too large, or none */
  protected async takeFile(stream: Readable): Promise<{ readonly sha256: string; readonly bytes: number }> {
    const hash = createHash('sha256');
    let bytes = 0;
    await mkdir(this.dir, { recursive: true });
    const part = join(this.dir, `${randomBytes(8).toString('hex')}.part`);
    try {
      await pipeline(
        stream,
        async function* (chunks: AsyncIterable<unknown>) {
          for await (const chunk of chunks as AsyncIterable<Buffer>) {
            bytes += chunk.length;
            if (bytes > LARGEST_FILE) throw new Turned(413, 'too-large', 'The file is too large.');
            hash.update(chunk);
            yield chunk;
          }
        },
        createWriteStream(part),
      );
      if (bytes === 0) throw new Turned(422, 'no-video', 'There is no video in this.');
      const sha256 = hash.digest('hex');
      await rename(part, this.fileOf(sha256));
      return { sha256, bytes };
    } catch (error) {
      await rm(part, { force: true });
      throw error;
    }
  }

  fileOf(sha256: string): string {
    return join(this.dir, `${sha256}.mp4`);
  }

  protected folder(): string {
    return this.dir;
  }

  protected async json(request: IncomingMessage): Promise<Record<string, unknown>> {
    let text = '';
    for await (const chunk of request.setEncoding('utf8')) {
      text += chunk as string;
      if (text.length > LARGEST_JSON) throw new Turned(413, 'too-large', 'That is too much text.');
    }
    try {
      const read: unknown = JSON.parse(text);
      if (typeof read === 'object' && read !== null && !Array.isArray(read)) return read as Record<string, unknown>;
    } catch {
      // said below
    }
    throw new Turned(400, 'no-json', 'This is no JSON object.');
  }
}

/** A call that is turned away, by what it asks. */
export class Turned extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    words: string,
    /** When it would be taken, ms from now. */
    readonly againMs: number | null = null,
  ) {
    super(words);
  }
}

/** A field that must be text of at most so many characters. @throws Turned */
export function textOf(body: Readonly<Record<string, unknown>>, field: string, most: number, least = 0): string {
  const value = body[field] ?? '';
  if (typeof value !== 'string') throw new Turned(422, 'bad-field', `${field} must be text.`);
  if (value.length > most) throw new Turned(422, 'bad-field', `${field} is over ${most} characters.`);
  if (value.length < least) throw new Turned(422, 'bad-field', `${field} is missing.`);
  return value;
}

export function tagsOf(body: Readonly<Record<string, unknown>>, field: string, most: number): string[] {
  const value = body[field] ?? [];
  const list = typeof value === 'string' ? value.split(',').filter((one) => one !== '') : value;
  if (!Array.isArray(list) || list.some((one) => typeof one !== 'string')) throw new Turned(422, 'bad-field', `${field} must be a list of text.`);
  if (list.length > most) throw new Turned(422, 'bad-field', `${field} has more than ${most}.`);
  return list as string[];
}
