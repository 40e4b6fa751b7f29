import { createHash, randomInt } from 'node:crypto';
import { spawn } from 'node:child_process';
import { createWriteStream } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { settings } from '../../../scripts/lib/config.mjs';
import { serviceEnv } from '../../../scripts/lib/services.mjs';
import { seeded } from '../../standins/dist/platforms/faults.js';
import type { PlatformPost } from '../../standins/dist/platforms/posts.js';
import { markOf } from '../dist/publishing/fixing.service.js';
import { type PublishingWorld, SERVICES } from './publishing-world.js';
import { query } from './world.js';

export interface StormWishes {
  readonly accounts: number;
  readonly posts: number;
  /** So long a stretch of simulated time they are planned over. */
  readonly overMs: number;
  /** Of the calls that go wrong. */
  readonly share: number;
  /** How often a worker is killed with -9. */
  readonly kills: number;
  readonly workers: number;
  readonly seed: number;
  /** All at one moment instead. */
  readonly dueMs?: number;
  readonly services?: readonly (typeof SERVICES)[number][];
  /** The kills after which the database goes away for a moment… */
  readonly restarts: readonly number[];
  /** …and how it does. */
  readonly restart?: () => Promise<void>;
}

export interface Storm {
  readonly postIds: readonly string[];
  readonly killed: number;
  /** Workers that ended by themselves, but for those that were starting while the database was away. */
  readonly fell: number;
  copiesOf(postId: string): PlatformPost[];
  sha256Of(postId: string): string;
  tooMany(): number;
  calls(): number;
  secrets(): string[];
  log(): Promise<string>;
}

const SHORTS_A_CLIENT = 8;
/** A worker is up after so long, on a busy machine too. */
const START_MS = 15_000;
const ENDED = `state IN ('posted', 'refused', 'missed')`;

/**
 * Posts many over many accounts while calls go wrong and workers are killed, until each has come to an end.
 * @throws Error where one does not
 */
export async function runStorm(here: PublishingWorld, wishes: StormWishes): Promise<Storm> {
  const random = seeded(wishes.seed);
  const services = wishes.services ?? SERVICES;
  await here.worker.stop(); // workers of its own follow
  // Channels by client: so many that no short is twice on one.
  const perChannel = Math.ceil(wishes.posts / wishes.accounts);
  const channelsEach = 10;
  const channels: { id: string; shortIds: string[] }[] = [];
  while (channels.length < wishes.accounts) {
    const { clientId, shortIds } = await here.clientWithShorts(Math.max(SHORTS_A_CLIENT, perChannel));
    await here.makeFiles(shortIds, 3_000);
    for (let i = 0; i < channelsEach && channels.length < wishes.accounts; i += 1) {
      const n = channels.length;
      const id = await here.channel(clientId, services[n % services.length]!, { order: i + 1 });
      const { status, text } = await here.connect(id, `storm-${n}`);
      if (status !== 201) throw new Error(text);
      channels.push({ id, shortIds });
    }
  }
  for (const platform of here.host.platforms.values()) {
    platform.allowADay(1_000);
    platform.faults.bySeed(wishes.seed, wishes.share);
  }
  here.host.platforms.get('tidewire')!.refuseEvery = wishes.share > 0 ? 7 : 0;
  const postIds: string[] = [];
  const beginMs = here.nowMs() + 12 * 60_000;
  for (let n = 0; n < wishes.posts; n += 1) {
    const channel = channels[n % channels.length]!;
    const shortId = channel.shortIds[Math.floor(n / channels.length)]!;
    const due = wishes.dueMs === undefined ? beginMs + Math.floor(random() * wishes.overMs) + n : wishes.dueMs + Math.floor(n / channels.length) * 1_000;
    postIds.push(await here.plan(channel.id, shortId, due));
  }
  // Too late is what nobody could send in a day: a machine that stands still is no reason. Time begins when there is somebody to send.
  await query('UPDATE clients SET late_minutes = 1440');
  if (wishes.dueMs === undefined) await here.setClock(beginMs - 60_000);
  const logFile = join(here.folder, 'workers.log');
  // As `npm start` has it: one that ends by itself is started again. How often that was, is told.
  const away: { fromMs: number; toMs: number }[] = [];
  let fell = 0;
  let isOver = false;
  const start = (which: number): void => {
    const worker = startWorker(logFile);
    const beganMs = Date.now();
    workers[which] = worker;
    worker.once('exit', (_, signal) => {
      if (isOver || signal === 'SIGKILL') return;
      if (!away.some(({ fromMs, toMs }) => fromMs < beganMs + START_MS && beganMs < toMs)) fell += 1;
      start(which);
    });
  };
  const workers: ReturnType<typeof startWorker>[] = [];
  for (let which = 0; which < wishes.workers; which += 1) start(which);
  let killed = 0;
  const killEvery = Math.floor((0.85 * wishes.posts) / Math.max(1, wishes.kills + 1));
  const grants = new Set<string>();
  const noteSecrets = (): void => {
    for (const platform of here.host.platforms.values()) {
      const { grants: all, access } = platform.rights.state();
      for (const { refresh } of all) grants.add(refresh);
      for (const [token] of access) grants.add(token);
    }
  };
  try {
    for (let looks = 0; ; looks += 1) {
      noteSecrets();
      const left = await query(`SELECT count(*)::int AS n FROM posts WHERE id = ANY ($1::uuid[]) AND NOT (${ENDED})`, [postIds]).catch(() => [{ n: -1 }]);
      if (left[0]!['n'] === 0) break;
      if (looks > 3_000) throw new Error(`${String(left[0]!['n'])} posts come to no end: ${JSON.stringify(await stuck(postIds))}`);
      // By what is done, not by the clock: a quick machine is killed as often as a slow one. Which, and at what line, is chance.
      const ended = wishes.posts - Number(left[0]!['n']);
      if (Number(left[0]!['n']) > 0 && killed < wishes.kills && ended >= (killed + 1) * killEvery) {
        await wait(random() * 300);
        const which = randomInt(workers.length);
        workers[which]!.kill('SIGKILL');
        killed += 1;
        start(which);
        if (wishes.restarts.includes(killed)) await goAway();
      }
      await wait(400);
    }
  } finally {
    isOver = true;
    for (const worker of workers) worker.kill('SIGKILL');
    for (const platform of here.host.platforms.values()) platform.faults.bySeed(1, 0);
  }
  // Whatever is still on its way inside a platform takes effect by then.
  await wait(2_500);
  return {
    postIds,
    killed,
    fell,
    copiesOf: (postId) =>
      SERVICES.flatMap((service) => here.there(service)).filter(
        (post) => (post.note === markOf(postId) || post.text.includes(`(${markOf(postId)})`)) && post.state !== 'refused',
      ),
    sha256Of: (postId) => files.get(postId)!,
    tooMany: () => [...here.host.platforms.values()].reduce((sum, { counted }) => sum + counted.tooMany, 0),
    calls: () => [...here.host.platforms.values()].reduce((sum, { counted }) => sum + counted.calls, 0),
    secrets: () => [...grants],
    log: () => readFile(logFile, 'utf8'),
    ...(await hashed()),
  };

  async function goAway(): Promise<void> {
    const time = { fromMs: Date.now(), toMs: Infinity };
    away.push(time);
    await wishes.restart?.();
    time.toMs = Date.now();
  }

  async function hashed(): Promise<object> {
    for (const { post_id, file } of await query('SELECT post_id, file FROM sendings WHERE post_id = ANY ($1::uuid[])', [postIds])) {
      const bytes = await readFile(join(process.env['SIFT_REEL_MEDIA_DIR']!, 'renders', String(file)));
      files.set(String(post_id), createHash('sha256').update(bytes).digest('hex'));
    }
    return {};
  }
}

const files = new Map<string, string>();

async function stuck(postIds: readonly string[]): Promise<object[]> {
  return query(
    `SELECT p.id, p.state, p.waits, p.try_at, p.at, s.service, s.doubt_since, s.remote_id, (SELECT array_agg(event || ':' || detail ORDER BY e.id) FROM sending_events e WHERE e.post_id = p.id) AS events
     FROM posts p LEFT JOIN sendings s ON s.post_id = p.id WHERE p.id = ANY ($1::uuid[]) AND NOT (${ENDED.replace('state', 'p.state')}) LIMIT 5`,
    [postIds],
  );
}

/** As `startService` does, with all that it says kept: a token that stood there would be found. */
function startWorker(logFile: string): ReturnType<typeof spawn> {
  const env = serviceEnv(settings('test'), process.env['SIFT_REEL_DATABASE_URL']!, { SIFT_REEL_LOG_LEVEL: 'debug', SIFT_REEL_PART: 'worker' });
  const child = spawn(process.execPath, ['apps/server/dist/bundled/worker.js'], { env, stdio: ['ignore', 'pipe', 'pipe', 'ipc'], detached: true });
  const file = createWriteStream(logFile, { flags: 'a' });
  child.stdout!.pipe(file, { end: false });
  child.stderr!.pipe(file, { end: false });
  return child;
}
