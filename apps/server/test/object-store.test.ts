import { execFile } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { link, mkdir, readdir, readFile, rm, utimes, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { readConfig } from '../dist/config/config.js';
import { Database } from '../dist/database/database.service.js';
import { FileCache } from '../dist/media/file-cache.js';
import { MediaStore } from '../dist/media/media-store.service.js';
import { MissingFileError } from '../dist/media/store-errors.js';
import { ObjectStore } from '../dist/media/object-store.js';
import { seedRanking } from './seed.js';
import { StoreWorld } from './store-world.js';
import { type Answer, filesForm, query, until, World } from './world.js';

const run = promisify(execFile);
const MB = 1_000_000;

let on: StoreWorld;
let clientId: string;
let film: Buffer;
beforeAll(async () => {
  on = await StoreWorld.make();
  clientId = await on.world.client();
  const path = join(on.folder, 'film.mkv');
  // In a container that browsers do not play, so that another file is made of it.
  const source = ['-f', 'lavfi', '-i', 'testsrc2=s=320x180:r=25:d=95', '-f', 'lavfi', '-i', `aevalsrc='0.2*sin(2*PI*300*t)*(1+0.6*sin(2*t))':s=22050:d=95`];
  await run('ffmpeg', ['-v', 'error', ...source, '-c:v', 'libx264', '-preset', 'ultrafast', '-g', '50', '-c:a', 'aac', '-shortest', path]);
  film = await readFile(path);
});
afterAll(() => on.close());

const file = (path: string, headers: Record<string, string> = {}, method = 'GET'): Promise<Response> =>
  fetch(`${on.world.base}/api/${path}`, { method, headers: { cookie: on.world.owner.cookie, ...headers }, redirect: 'manual' });
const bytesOf = async (response: Response): Promise<Buffer> => Buffer.from(await response.arrayBuffer());
const store = (): ObjectStore => new ObjectStore(readConfig().store!);
const local = (name: string, folder = '.'): Promise<string[]> => readdir(join(on.folder, name, folder)).catch(() => []);

/** A kept candidate of a recording that has the film. */
async function filmed(): Promise<{ recordingId: string; shortId: string }> {
  const { recordingId, candidates } = await seedRanking(on.world, clientId, 1.5);
  const [candidate] = [...candidates].sort((a, b) => a.endWord - a.firstWord - (b.endWord - b.firstWord));
  const added = await on.world.owner.post(`recordings/${recordingId}/files`, filesForm({ sound: ['film.mkv', new Uint8Array(film)] }));
  expect(added.status, added.text).toBe(201);
  await on.world.owner.put(`candidates/${candidate!.id}/state`, { state: 'kept' });
  return { recordingId, shortId: (await on.world.shorts(recordingId))[0].id };
}
const recordingOf = async (id: string): Promise<Answer['body']> => (await on.world.read(`recordings/${id}`)).body;
const prepared = (id: string): Promise<Answer['body']> =>
  until(
    () => recordingOf(id),
    ({ preparation }) => ['done', 'failed'].includes(preparation?.state),
  );
const rendersOf = async (shortId: string): Promise<Answer['body']> => (await on.world.read(`shorts/${shortId}/renders`)).body;

describe('media in a bucket', () => {
  it('are worked on by machines that share the database and the bucket alone', async () => {
    const [one, two] = [await on.worker('worker-1'), await on.worker('worker-2')];
    const made = [await filmed(), await filmed()];
    for (const { shortId } of made) expect((await on.world.owner.post(`shorts/${shortId}/renders`, { shape: 'sound' })).status).toBe(201);
    for (const { recordingId, shortId } of made) {
      const { preparation } = await prepared(recordingId);
      expect([preparation.state, preparation.failure]).toEqual(['done', null]);
      const [render] = await until(
        () => rendersOf(shortId),
        ([first]) => ['done', 'failed'].includes(first?.state),
      );
      expect([render.state, render.failure]).toEqual(['done', null]);
      const [proxy, sprite, whole] = await Promise.all(
        [`preparations/${preparation.id}/proxy`, `preparations/${preparation.id}/sprite`, `renders/${render.id}/file`].map((path) => file(path)),
      );
      expect([proxy!.status, sprite!.status, whole!.status]).toEqual([200, 200, 200]);
      expect((await bytesOf(sprite!)).subarray(0, 2)).toEqual(Buffer.from([0xff, 0xd8]));
      expect((await bytesOf(whole!)).length).toBe(render.bytes);
      expect(whole!.headers.get('content-disposition')).toContain('attachment');
      await bytesOf(proxy!);
      const zip = await bytesOf(await file(`renders/files.zip?shape=sound&shortIds=${shortId}`));
      expect(zip.includes(Buffer.from('.srt'))).toBe(true);
    }
    // Each file once: what a run that was taken over made would lie beside.
    const keys = await on.keys();
    expect(keys.filter((key) => key.startsWith('renders/'))).toHaveLength(2);
    expect(keys.filter((key) => /^prepared\/.*mp4$/.test(key))).toHaveLength(2);
    const runs = await query(`SELECT max(attempt) AS most, count(*) AS all FROM jobs WHERE kind IN ('render', 'prepare') AND state = 'done'`);
    expect([Number(runs[0]!['most']), Number(runs[0]!['all'])]).toEqual([1, 4]);
    // Whoever worked on a film has it at hand, and nobody holds one any more.
    const [atOne, atTwo] = [await local('worker-1'), await local('worker-2')];
    expect([...atOne, ...atTwo].filter((name) => name.endsWith('.webm')).length).toBeGreaterThanOrEqual(2);
    await one.stop();
    await two.stop();
    expect([...(await local('worker-1', 'held')), ...(await local('worker-2', 'held'))]).toEqual([]);
  });

  it('are put there once by a worker that is killed while it puts them, and nothing of them is left over', async () => {
    const { shortId } = await filmed();
    const before = new Set(await on.keys());
    const worker = await on.worker('worker-3');
    const killed = new Promise<void>((resolve) => {
      on.store.fault = ({ method, key }) => {
        if (method !== 'PUT' || !key.includes('/renders/')) return;
        on.store.fault = () => undefined;
        process.kill(worker.child.pid!, 'SIGKILL');
        resolve();
        throw new Error('the line is dead');
      };
    });
    await on.world.owner.post(`shorts/${shortId}/renders`, { shape: 'sound' });
    await killed;
    const next = await on.worker('worker-4');
    const [render] = await until(
      () => rendersOf(shortId),
      ([first]) => ['done', 'failed'].includes(first?.state),
    );
    expect([render.state, render.failure]).toEqual(['done', null]);
    expect((await on.keys()).filter((key) => key.startsWith('renders/') && !before.has(key))).toHaveLength(1);
    await next.stop();
  });

  it('wait for a store that is away: work goes on when it is back, through no fault of its own, and whoever asks is told', async () => {
    const { recordingId, shortId } = await filmed();
    const worker = await on.worker('worker-5');
    on.store.fault = () => {
      throw new Error('away');
    };
    try {
      await on.world.owner.post(`shorts/${shortId}/renders`, { shape: 'sound' });
      const [waits] = await until(
        () => rendersOf(shortId),
        ([first]) => first?.failure !== null,
      );
      expect([waits.state, waits.failure]).toEqual(['waiting', 'The place where media live cannot be reached just now.']);
      const told = await file(`recordings/${recordingId}/sound`);
      expect([told.status, told.headers.get('content-type'), told.headers.get('cache-control')]).toEqual([
        503,
        'application/problem+json; charset=utf-8',
        expect.not.stringContaining('max-age=3600'),
      ]);
      expect(((await told.json()) as { detail: string }).detail).toBe('The place where media live cannot be reached just now. Nothing was changed; try again.');
    } finally {
      on.store.fault = () => undefined;
    }
    const [render] = await until(
      () => rendersOf(shortId),
      ([first]) => ['done', 'failed'].includes(first?.state),
    );
    expect([render.state, render.failure]).toEqual(['done', null]);
    expect(await query(`SELECT faults, crashes FROM jobs WHERE subject_id = $1`, [render.id])).toEqual([{ faults: 0, crashes: 0 }]);
    await worker.stop();
  });

  it('that are not there are said not to be, and nobody remembers that for a day', async () => {
    const { recordingId } = await filmed();
    const [row] = await query('SELECT sound_file FROM recordings WHERE id = $1', [recordingId]);
    await rm(on.store.pathOf(`${on.prefix}${String(row!['sound_file'])}`));
    const answer = await file(`recordings/${recordingId}/sound`);
    expect([answer.status, ((await answer.json()) as { detail: string }).detail]).toEqual([404, 'The file is not in its place.']);
    expect(answer.headers.get('cache-control') ?? '').not.toContain('max-age=3600');
    expect(answer.headers.get('content-type')).toContain('problem+json');
  });

  it('are answered by range as RFC 9110 has it', async () => {
    const { recordingId } = await filmed();
    const sound = `recordings/${recordingId}/sound`;
    const all = await file(sound);
    expect([all.status, all.headers.get('accept-ranges'), all.headers.get('content-length')]).toEqual([200, 'bytes', String(film.length)]);
    expect((await bytesOf(all)).equals(film)).toBe(true);
    const some = await file(sound, { range: 'bytes=100-199' });
    expect([some.status, some.headers.get('content-range')]).toEqual([206, `bytes 100-199/${film.length}`]);
    expect((await bytesOf(some)).equals(film.subarray(100, 200))).toBe(true);
    expect((await bytesOf(await file(sound, { range: 'bytes=-5' }))).equals(film.subarray(-5))).toBe(true);
    const beyond = await file(sound, { range: `bytes=${film.length + 5}-` });
    expect([beyond.status, beyond.headers.get('content-range')]).toEqual([416, `bytes */${film.length}`]);
    expect((await file(sound, { range: 'bytes=0-1,5-6' })).status).toBe(200);
    const head = await file(sound, {}, 'HEAD');
    expect([head.status, head.headers.get('content-length')]).toEqual([200, String(film.length)]);
    const nobody = await fetch(`${on.world.base}/api/${sound}`);
    expect(nobody.status).toBe(401);
  });

  it('go with what they are of', async () => {
    const { recordingId } = await filmed();
    const [row] = await query('SELECT sound_file FROM recordings WHERE id = $1', [recordingId]);
    expect(await on.keys()).toContain(row!['sound_file']);
    expect((await on.world.owner.delete(`recordings/${recordingId}`)).status).toBe(204);
    expect(await on.keys()).not.toContain(row!['sound_file']);
  });

  it('are played from the bucket itself, under an address signed for whoever may, where browsers reach it', async () => {
    const { recordingId } = await filmed();
    process.env['SIFT_REEL_S3_PUBLIC_ENDPOINT'] = on.endpoint;
    const near = await World.make();
    delete process.env['SIFT_REEL_S3_PUBLIC_ENDPOINT'];
    const ask = (cookie: string): Promise<Response> => fetch(`${near.base}/api/recordings/${recordingId}/sound`, { headers: { cookie }, redirect: 'manual' });
    const sent = await ask(near.owner.cookie);
    expect([sent.status, sent.headers.get('cache-control')]).toEqual([307, 'private, no-store']);
    expect(sent.headers.get('content-security-policy')).toContain(`media-src 'self' blob: ${on.endpoint}`);
    const address = sent.headers.get('location')!;
    const origin = 'http://sift-reel.example';
    const answer = await fetch(address, { headers: { range: 'bytes=0-9', origin } });
    expect([answer.status, answer.headers.get('content-type'), answer.headers.get('access-control-allow-origin')]).toEqual([206, 'video/webm', origin]);
    expect((await bytesOf(answer)).equals(film.subarray(0, 10))).toBe(true);
    for (const spoilt of [address.replace('.webm?', '.web?'), address.replace(/Signature=./, 'Signature=_'), address.replace('Expires=43200', 'Expires=99999')])
      if (spoilt !== address) expect((await fetch(spoilt)).status).toBe(403);
    expect((await ask('')).status).toBe(401);
    await near.close();
  });
});

describe('the store', () => {
  it('takes a file in parts, whole or not at all, and gives it back', async () => {
    const path = join(on.folder, 'large.bin');
    const bytes = randomBytes(21 * MB);
    await writeFile(path, bytes);
    const objects = store();
    on.store.asked.length = 0;
    let broken = 1;
    on.store.fault = ({ method, key }) => {
      if (method === 'PUT' && key.endsWith('large.bin') && broken > 0) {
        broken -= 1;
        throw new Error('once');
      }
    };
    await objects.put('renders/large.bin', path); // a part that is refused once is sent again
    expect(on.store.asked.filter(({ method, key }) => method === 'PUT' && key.endsWith('large.bin')).length).toBe(4);
    const back = join(on.folder, 'back.bin');
    await objects.fetchTo('renders/large.bin', back);
    expect((await readFile(back)).equals(bytes)).toBe(true);
    on.store.fault = ({ method, key }) => {
      if (method === 'PUT' && key.endsWith('never.bin')) throw new Error('always');
    };
    await expect(objects.put('renders/never.bin', path)).rejects.toThrow();
    on.store.fault = () => undefined;
    expect(await objects.has('renders/never.bin')).toBe(false);
    expect((await readdir(join(on.folder, 'bucket', 'uploads'))).filter((name) => name.includes('never.bin'))).toEqual([]);
    await expect(objects.fetchTo('renders/never.bin', back)).rejects.toThrow(MissingFileError);
    objects.close();
  });

  it('lists more than it shows at once', async () => {
    const objects = store();
    const some = Array.from({ length: 1_003 }, (_, i) => `many/${String(i).padStart(4, '0')}`);
    await mkdir(join(on.folder, 'bucket', 'objects'), { recursive: true });
    for (const key of some) await writeFile(on.store.pathOf(on.prefix + key), 'x');
    const found: string[] = [];
    for await (const { key } of objects.list('many/')) found.push(key);
    expect(found).toEqual(some);
    for (const key of some) await rm(on.store.pathOf(on.prefix + key));
    objects.close();
  });

  it.each([
    ['another secret', { SIFT_REEL_S3_SECRET: 'guessed' }, /signature/i],
    ['another key', { SIFT_REEL_S3_KEY_ID: 'guessed' }, /key/i],
  ])('lets nobody in with %s, and the program says so when it starts', async (_, wrong, says) => {
    const before = { ...process.env };
    Object.assign(process.env, wrong);
    await expect(World.make()).rejects.toThrow(says);
    Object.assign(process.env, before);
  });

  it('is not shared by two databases: one would sweep away what the other has', async () => {
    const mark = on.store.pathOf(`${on.prefix}sift-reel.json`);
    const own = await readFile(mark);
    await writeFile(mark, '{"installation":"another"}');
    await expect(World.make()).rejects.toThrow(/another database/);
    // Whoever sweeps looks at it first, whatever else the program does when it starts.
    const [objects, database] = [store(), on.world.app.get(Database)];
    const stranger = new MediaStore(readConfig(), database, objects);
    const before = await on.keys();
    await expect(stranger.sweep(() => Promise.resolve(new Set()), Date.now() + 3_600_000, 'renders')).rejects.toThrow(/another database/);
    expect(await on.keys()).toEqual(expect.arrayContaining(before));
    objects.close();
    await writeFile(mark, own);
  });
});

describe('what nobody names', () => {
  const HOUR_MS = 3_600_000;

  it('is swept from the store; what lay in the folder before there was one is brought over', async () => {
    const media = on.world.app.get(MediaStore);
    const dir = join(on.folder, 'api', 'renders');
    await mkdir(dir, { recursive: true });
    for (const name of ['named-before.mp4', 'left.mp4']) await writeFile(join(dir, name), name);
    for (const name of ['orphan.mp4', 'named.mp4']) await writeFile(on.store.pathOf(`${on.prefix}renders/${name}`), name);
    const named = (): Promise<Set<string>> => Promise.resolve(new Set(['named-before.mp4', 'named.mp4']));
    const own = (await on.keys()).filter((key) => key.startsWith('renders/') && !/named|orphan/.test(key));
    await media.sweep(() => named().then((some) => new Set([...some, ...own.map((key) => key.slice(8))])), Date.now(), 'renders');
    expect(await on.keys()).toEqual(expect.arrayContaining(['renders/orphan.mp4', 'renders/named.mp4', 'renders/named-before.mp4']));
    await media.sweep(() => named().then((some) => new Set([...some, ...own.map((key) => key.slice(8))])), Date.now() + HOUR_MS, 'renders');
    const keys = await on.keys();
    expect(keys).toEqual(expect.arrayContaining([...own, 'renders/named.mp4', 'renders/named-before.mp4', 'sift-reel.json']));
    expect(keys).not.toContain('renders/orphan.mp4');
    expect(await local('api', 'renders')).not.toContain('left.mp4');
  });
});

describe('a machine', () => {
  it('keeps at hand what was used last, as far as there is room, and never lets go of what is not in the store', async () => {
    const [objects, dir] = [store(), join(on.folder, 'small')];
    const cache = new FileCache(objects, dir, 25 * MB);
    for (const name of ['a', 'b', 'c']) {
      await writeFile(join(on.folder, name), randomBytes(10 * MB));
      await objects.put(`renders/${name}.mp4`, join(on.folder, name));
    }
    await mkdir(dir, { recursive: true });
    await writeFile(join(dir, 'own.wav'), randomBytes(4 * MB));
    await utimes(join(dir, 'own.wav'), 1, 1); // the oldest of all
    on.store.asked.length = 0;
    const read = (key: string): Promise<number> => cache.use(key, async (path) => (await readFile(path)).length);
    expect(await Promise.all([read('renders/a.mp4'), read('renders/a.mp4')])).toEqual([10 * MB, 10 * MB]);
    expect(on.store.asked.filter(({ method, key }) => method === 'GET' && key.endsWith('a.mp4'))).toHaveLength(1); // once for both
    await read('renders/b.mp4');
    await utimes(join(dir, 'renders/a.mp4'), 1, 1);
    await cache.use('renders/a.mp4', async (path) => {
      await utimes(join(dir, 'renders/a.mp4'), 1, 1);
      await read('renders/c.mp4');
      await cache.trim(Date.now() + 120_000);
      expect(await readdir(join(dir, 'renders'))).toEqual(['b.mp4', 'c.mp4']);
      expect((await readFile(path)).length).toBe(10 * MB); // whoever works on it has it still
    });
    expect(await readdir(dir)).toEqual(['held', 'own.wav', 'renders']);
    expect(await readdir(join(dir, 'held'))).toEqual([]);
    await expect(read('renders/none.mp4')).rejects.toThrow(MissingFileError);
    expect(await readdir(join(dir, 'renders'))).toEqual(['b.mp4', 'c.mp4']);
    // What a killed process held goes after a day.
    await link(join(dir, 'own.wav'), join(dir, 'held', 'x.wav'));
    await cache.trim(Date.now() + 25 * 3_600_000);
    expect(await readdir(join(dir, 'held'))).toEqual([]);
    objects.close();
  });
});
