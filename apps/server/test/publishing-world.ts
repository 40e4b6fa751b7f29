import { randomBytes, randomUUID } from 'node:crypto';
import { mkdir, mkdtemp, rename, rm, writeFile } from 'node:fs/promises';
import { createServer, type Server } from 'node:http';
import { createServer as createNetServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from 'vitest';
import { settings } from '../../../scripts/lib/config.mjs';
import { platformsAt, serviceEnv, startService } from '../../../scripts/lib/services.mjs';
import type { Fault } from '../../standins/dist/platforms/faults.js';
import { PlatformHost } from '../../standins/dist/platforms/platform-host.js';
import type { PlatformPost } from '../../standins/dist/platforms/posts.js';
import { approveShorts, seedRanking } from './seed.js';
import { type Caller, filesForm, query, wav, World } from './world.js';

type Worker = ReturnType<typeof startService>;
export const SERVICES = ['fernpost', 'hearthside', 'loopline', 'northgate', 'tidewire'] as const;
export type Service = (typeof SERVICES)[number];

/** A moment in the time that is simulated: a Monday. */
export const BEGINNING = Date.parse('2026-03-02T06:00:00Z');
const SECRET = 'made-up';
const PATIENCE = { timeout: 40_000, interval: 100 };

/** An app, a worker and the five platforms, in simulated time that the test moves. */
export class PublishingWorld {
  world!: World;
  worker!: Worker;
  host!: PlatformHost;
  origin = '';
  readonly clientOf = new Map<string, string>();
  private server!: Server;
  private readonly before: Record<string, string | undefined> = {};

  private constructor(
    readonly folder: string,
    readonly speed: number,
    private readonly startMs: number,
  ) {}

  static async make(speed = 120, startMs = BEGINNING): Promise<PublishingWorld> {
    const here = new PublishingWorld(await mkdtemp(join(tmpdir(), 'sift-reel-posting-')), speed, startMs);
    await here.open();
    return here;
  }

  private async open(): Promise<void> {
    await this.setClock(this.startMs);
    const [port, standinsPort] = [await freePort(), await freePort()];
    this.origin = `http://127.0.0.1:${standinsPort}`;
    const env = {
      SIFT_REEL_CLOCK_FILE: this.clockFile,
      SIFT_REEL_PUBLIC_URL: `http://127.0.0.1:${port}`,
      SIFT_REEL_PLATFORMS: platformsAt(this.origin),
      SIFT_REEL_SEALING_KEYS: `test:${randomBytes(32).toString('base64')}`,
      SIFT_REEL_PLATFORMS_DIR: join(this.folder, 'platforms'),
    };
    for (const [name, value] of Object.entries(env)) {
      this.before[name] = process.env[name];
      process.env[name] = value;
    }
    this.host = new PlatformHost({
      dir: join(this.folder, 'platforms'),
      lasting: false,
      clockFile: this.clockFile,
      client: { id: 'sift-reel', secret: SECRET },
      redirects: [`http://127.0.0.1:${port}/connected`],
      callback: { url: `http://127.0.0.1:${port}/api/platforms/tidewire/callbacks`, secret: SECRET },
    });
    this.server = createServer((request, response) => void this.host.answer(request, response).catch(() => response.destroy()));
    await new Promise<void>((resolve) => this.server.listen(standinsPort, '127.0.0.1', resolve));
    this.world = await World.make(port);
    this.worker = this.startWorker();
    await this.worker.ready;
  }

  startWorker(extra: Record<string, string> = {}): Worker {
    const quiet = process.env['SIFT_REEL_TEST_LOUD'] !== 'yes';
    return startService('worker', serviceEnv(settings('test'), process.env['SIFT_REEL_DATABASE_URL'], extra), { quiet });
  }

  async close(): Promise<void> {
    await this.worker?.stop();
    await this.world?.close();
    this.host?.close();
    this.server?.closeAllConnections();
    this.server?.close();
    for (const [name, value] of Object.entries(this.before)) {
      if (value === undefined) delete process.env[name];
      else process.env[name] = value;
    }
    await rm(this.folder, { recursive: true, force: true });
  }

  // Time.

  private get clockFile(): string {
    return join(this.folder, 'clock.json');
  }
  /** It is then so late, for everybody. */
  async setClock(nowMs: number): Promise<void> {
    await writeFile(`${this.clockFile}.new`, JSON.stringify({ startMs: nowMs, sinceMs: Date.now(), speed: this.speed }));
    await rename(`${this.clockFile}.new`, this.clockFile);
    this.started = { startMs: nowMs, sinceMs: Date.now() };
  }
  private started = { startMs: 0, sinceMs: 0 };
  nowMs(): number {
    return this.started.startMs + (Date.now() - this.started.sinceMs) * this.speed;
  }
  async forward(ms: number): Promise<void> {
    await this.setClock(this.nowMs() + ms);
  }

  // What there is to post.

  /** A client with approved shorts, each with a file as it is now: of a few bytes, since nobody here looks at it. */
  async clientWithShorts(n: number): Promise<{ clientId: string; shortIds: string[] }> {
    const clientId = await this.world.client();
    const shortIds: string[] = [];
    while (shortIds.length < n) {
      const seeded = await seedRanking(this.world, clientId);
      const added = await this.world.owner.post(`recordings/${seeded.recordingId}/files`, filesForm({ sound: ['talk.wav', wav(240)] }));
      expect(added.status, added.text).toBeLessThan(300);
      shortIds.push(...(await approveShorts(this.world, seeded, Math.min(8, n - shortIds.length), 2)));
    }
    return { clientId, shortIds };
  }

  async channel(clientId: string, service: Service, fields: object = {}): Promise<string> {
    const platformProfileId = await this.world.platform({
      service,
      shapes: ['vertical'],
      maxDurationMs: 120_000,
      titleLimit: 60,
      descriptionLimit: 220,
      hashtagLimit: 2,
    });
    const channelId = await this.world.channel(clientId, { platformProfileId, name: `On ${service} ${randomUUID().slice(0, 6)}`, zone: 'UTC', ...fields });
    this.clientOf.set(channelId, clientId);
    return channelId;
  }

  /** Files of shorts as a worker would have made them, but small. */
  async makeFiles(shortIds: readonly string[], bytes = 20_000): Promise<void> {
    const folder = join(process.env['SIFT_REEL_MEDIA_DIR']!, 'renders');
    await mkdir(folder, { recursive: true });
    for (const shortId of shortIds) {
      const asked = await this.world.owner.post(`shorts/${shortId}/renders`, { shape: 'vertical' });
      expect(asked.status, asked.text).toBe(201);
      const { id } = asked.body as { id: string };
      const file = `${id}-made.mp4`;
      await writeFile(join(folder, file), randomBytes(bytes));
      await query(`UPDATE jobs SET state = 'done', stage = 'done', finished_at = now() WHERE kind = 'render' AND subject_id = $1`, [id]);
      await query('UPDATE renders SET file = $2, bytes = $3 WHERE id = $1', [id, file, bytes]);
    }
  }

  /** A planned post, whatever the rules of the plan say of its place. */
  async plan(channelId: string, shortId: string, atMs: number): Promise<string> {
    const at = new Date(atMs);
    const minute = at.getUTCHours() * 60 + at.getUTCMinutes();
    const [row] = await query(
      `INSERT INTO posts (client_id, channel_id, short_id, date, minute, at, why) VALUES ($1, $2, $3, $4, $5, $6, 'Put here by a test.') RETURNING id`,
      [this.clientOf.get(channelId), channelId, shortId, at.toISOString().slice(0, 10), minute, at],
    );
    return String(row!['id']);
  }

  // Accounts.

  /** Goes to the platform as a browser would, says yes there, and comes back. @returns what the API answers then */
  async connect(channelId: string, account: string, fields: Record<string, string> = {}): Promise<Awaited<ReturnType<Caller['post']>>> {
    return this.world.owner.post('accounts', await this.allow(channelId, account, this.world.owner, fields));
  }

  /** What the browser comes back with. */
  async allow(channelId: string, account: string, by: Caller = this.world.owner, fields: Record<string, string> = {}): Promise<Record<string, string>> {
    const begun = await by.post(`channels/${channelId}/connecting`);
    expect(begun.status, begun.text).toBe(200);
    const { address } = begun.body as { address: string };
    const page = await fetch(address);
    expect(page.status).toBe(200);
    const form = new URLSearchParams(new URL(address).searchParams);
    form.set('account', account);
    for (const [name, value] of Object.entries({ answer: 'allow', ...fields })) form.set(name, value);
    const sentBack = await fetch(address.split('?')[0]!, { method: 'POST', body: form, redirect: 'manual' });
    return Object.fromEntries(new URL(sentBack.headers.get('location')!).searchParams);
  }

  // What came of it.

  async post(postId: string): Promise<{ state: string; waits: string | null; failure: string | null; version: number }> {
    const [row] = await query('SELECT state, waits, failure, version FROM posts WHERE id = $1', [postId]);
    return row as never;
  }
  async becomes(postId: string, state: string): Promise<void> {
    await expect.poll(() => this.told(postId), PATIENCE).toMatch(new RegExp(`^${state} `));
  }
  async waitsFor(postId: string, waits: string): Promise<void> {
    await expect.poll(() => this.told(postId), PATIENCE).toMatch(new RegExp(`^waiting ${waits} `));
  }
  /** How it stands and what happened, in a line. */
  private async told(postId: string): Promise<string> {
    const { state, waits, failure } = await this.post(postId);
    const events = await query('SELECT event, detail FROM sending_events WHERE post_id = $1 ORDER BY id', [postId]);
    return (
      [state, waits ?? '', failure ?? '', ...events.map(({ event, detail }) => `${String(event)}:${String(detail)}`), '']
        .filter((one, n) => n === 0 || one !== '')
        .join(' ') + ' '
    );
  }
  async events(postId: string): Promise<string[]> {
    return (await query('SELECT event FROM sending_events WHERE post_id = $1 ORDER BY id', [postId])).map((row) => String(row['event']));
  }
  /** What stands at a platform, whoever sees it. */
  there(service: Service): PlatformPost[] {
    const platform = this.host.platforms.get(service)!;
    platform.settle();
    return [...platform.posts.values()].filter((post) => post.state !== 'removed');
  }
  order(service: Service, ...faults: Fault[]): void {
    this.host.platforms.get(service)!.faults.order(faults);
  }
}

async function freePort(): Promise<number> {
  const server = createNetServer();
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const { port } = server.address() as { port: number };
  await new Promise((resolve) => server.close(resolve));
  return port;
}
