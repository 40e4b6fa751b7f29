import { execFile } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdir, mkdtemp, readdir, readFile, rm, utimes, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { fromBuffer, type Entry } from 'yauzl';
import { afterAll, afterEach, beforeAll, describe, expect, it, vi } from 'vitest';
import { settings } from '../../../scripts/lib/config.mjs';
import { serviceEnv, startService } from '../../../scripts/lib/services.mjs';
import { RendersService } from '../dist/rendering/renders.service.js';
import { seedRanking } from './seed.js';
import { type Answer, filesForm, query, World } from './world.js';

// Films are encoded here, on machines that may be busy.
vi.setConfig({ testTimeout: 180_000, hookTimeout: 240_000 });

const run = promisify(execFile);
const ffmpeg = async (...args: string[]): Promise<{ out: Buffer; said: string }> => {
  const { stdout, stderr } = await run('ffmpeg', ['-hide_banner', '-nostdin', '-y', ...args], { encoding: 'buffer', maxBuffer: 400_000_000 });
  return { out: stdout, said: stderr.toString('utf8') };
};
const probe = async (path: string): Promise<Answer['body']> =>
  JSON.parse((await run('ffprobe', ['-v', 'error', '-count_frames', '-show_streams', '-show_format', '-of', 'json', path])).stdout);

type Worker = ReturnType<typeof startService>;
let world: World;
let clientId: string;
let folder: string;
let worker: Worker | null = null;
const needWorker = (): Worker =>
  (worker ??= startService('worker', serviceEnv(settings('test'), process.env['SIFT_REEL_DATABASE_URL']!, { SIFT_REEL_LOG_LEVEL: 'silent' }), { quiet: true }));
async function noWorker(): Promise<void> {
  await worker?.stop();
  worker = null;
}

/** A kept candidate of a recording that has what `args` make of ffmpeg's own generators. */
async function shortOf(
  name: string,
  of: string,
  ...args: string[]
): Promise<{ shortId: string; recordingId: string; candidateId: string; startMs: number; endMs: number }> {
  const seeded = await seedRanking(world, of, 1.5);
  const { recordingId } = seeded;
  // The shortest: an encoder takes its time.
  const [candidate] = [...seeded.candidates].sort((a, b) => a.endWord - a.firstWord - (b.endWord - b.firstWord));
  const path = join(folder, name);
  await ffmpeg('-v', 'error', ...args, path);
  const added = await world.owner.post(`recordings/${recordingId}/files`, filesForm({ sound: [name, new Uint8Array(await readFile(path))] }));
  expect(added.status, added.text).toBe(201);
  await world.owner.put(`candidates/${candidate!.id}/state`, { state: 'kept' });
  const [short] = await world.shorts(recordingId);
  return { shortId: short.id, recordingId, candidateId: candidate!.id, startMs: short.startMs, endMs: short.endMs };
}
const ask = (shortId: string, shape: string, platformProfileId?: string): Promise<Answer> =>
  world.owner.post(`shorts/${shortId}/renders`, { shape, platformProfileId });
const readRender = async (shortId: string, id: string): Promise<Answer['body']> =>
  (await world.read(`shorts/${shortId}/renders`)).body.find((one: { id: string }) => one.id === id);
async function until(shortId: string, id: string, holds: (one: Answer['body']) => boolean): Promise<Answer['body']> {
  for (let i = 0; i < 2_400; i += 1) {
    const one = await readRender(shortId, id);
    if (holds(one)) return one;
    await new Promise((resolve) => {
      setTimeout(resolve, 50);
    });
  }
  throw new Error('it never comes');
}
const over = (one: { state: string }): boolean => ['done', 'failed', 'cancelled'].includes(one.state);

/** Asks for a file, waits for it, and has it here. */
async function rendered(shortId: string, shape: string, platformProfileId?: string): Promise<string> {
  await needWorker().ready;
  const { body } = await ask(shortId, shape, platformProfileId);
  const made = await until(shortId, body.id, over);
  expect([made.state, made.failure]).toEqual(['done', null]);
  const response = await fetch(`${world.base}/api/renders/${body.id}/file`, { headers: { cookie: world.owner.cookie } });
  const path = join(folder, `${body.id}.${shape === 'sound' ? 'm4a' : 'mp4'}`);
  await writeFile(path, Buffer.from(await response.arrayBuffer()));
  expect((await readFile(path)).length).toBe(made.bytes);
  return path;
}

/** How loud a file is, measured by another path than the one that set it: LUFS and dBTP. */
async function heardIn(path: string): Promise<{ integrated: number; peak: number }> {
  const { said } = await ffmpeg('-i', path, '-map', 'a:0', '-af', 'loudnorm=print_format=json', '-f', 'null', '-');
  const told = JSON.parse(/\{[^{}]*"input_i"[^{}]*\}/.exec(said)![0]) as { input_i: string; input_tp: string };
  return { integrated: Number(told.input_i), peak: Number(told.input_tp) };
}

beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'sift-reel-renders-'));
  world = await World.make();
  clientId = await world.client();
});
afterAll(async () => {
  await noWorker();
  await world.close();
  await rm(folder, { recursive: true, force: true });
});

/** White for one frame, and a tone, every two seconds; 25 frames a second. */
const FLASH_AND_BEEP = [
  ...['-f', 'lavfi', '-i', `color=black:s=320x180:r=25:d=95,drawbox=color=white:t=fill:enable='lt(mod(n,50),1)'`],
  ...['-f', 'lavfi', '-i', `aevalsrc='if(lt(mod(t,2),0.04),0.5*sin(2*PI*1000*t),0)':s=48000:d=95`],
  ...['-c:v', 'libx264', '-preset', 'ultrafast', '-g', '250', '-c:a', 'aac', '-shortest'],
];
const TONE = ['-f', 'lavfi', '-i', `aevalsrc='0.05*sin(2*PI*(200+60*sin(3*t))*t)*(1+0.6*sin(2*t))':s=22050:d=95`, '-c:a', 'libmp3lame'];

/** When light and tone begin in a file, in ms. */
async function flashesAndBeeps(path: string): Promise<{ flashes: number[]; beeps: number[] }> {
  const light = (await ffmpeg('-v', 'error', '-i', path, '-vf', 'crop=1080:400:0:700,scale=1:1:flags=area,format=gray', '-f', 'rawvideo', '-')).out;
  const flashes = [...light].flatMap((value, i) => (value > 128 && (light[i - 1] ?? 0) <= 128 ? [(i * 1_000) / 25] : []));
  const pcm = (await ffmpeg('-v', 'error', '-i', path, '-ac', '1', '-ar', '48000', '-f', 's16le', '-')).out;
  const beeps: number[] = [];
  let quietSince = 0;
  for (let i = 0; i < pcm.length / 2; i += 1)
    if (Math.abs(pcm.readInt16LE(2 * i)) > 2_000) {
      if (i - quietSince > 24_000 || beeps.length === 0) beeps.push(i / 48);
      quietSince = i;
    }
  return { flashes, beeps };
}

describe('a file of a recording with a picture', () => {
  let source: { shortId: string; startMs: number; endMs: number };
  let path: string;
  beforeAll(async () => {
    source = await shortOf('flash.mp4', clientId, ...FLASH_AND_BEEP);
    path = await rendered(source.shortId, 'vertical');
  });

  it('is what players want: H.264 High, square pixels, BT.709, one rate, AAC, the index first', async () => {
    const { streams, format } = await probe(path);
    const [video, audio] = [
      streams.find((one: { codec_type: string }) => one.codec_type === 'video'),
      streams.find((one: { codec_type: string }) => one.codec_type === 'audio'),
    ];
    expect(video).toMatchObject({
      codec_name: 'h264',
      profile: 'High',
      width: 1080,
      height: 1920,
      pix_fmt: 'yuv420p',
      color_space: 'bt709',
      color_transfer: 'bt709',
      color_primaries: 'bt709',
      r_frame_rate: '25/1',
      avg_frame_rate: '25/1',
    });
    expect(['1:1', undefined]).toContain(video.sample_aspect_ratio);
    expect(audio).toMatchObject({ codec_name: 'aac', sample_rate: '48000', channels: 2 });
    expect(Number(video.nb_read_frames)).toBe(Math.round(((source.endMs - source.startMs) * 25) / 1_000));
    expect(Math.abs(Number(format.duration) * 1_000 - (source.endMs - source.startMs))).toBeLessThan(60);
    const bytes = await readFile(path);
    expect(bytes.indexOf('moov')).toBeLessThan(bytes.indexOf('mdat'));
  });

  it('keeps picture and sound within 20 ms of each other through every cut', async () => {
    const { firstWord, version, edit } = (await world.read(`shorts/${source.shortId}`)).body;
    const removed = [3, 9, 10, 17, 30].map((at) => ({ firstWord: firstWord + at, endWord: firstWord + at + 2 }));
    const { status, text } = await world.owner.put(`shorts/${source.shortId}/edit`, { edit: { ...edit, removed }, version });
    expect(status, text).toBe(200);
    const { cuts } = (await world.read(`shorts/${source.shortId}/passage`)).body as { cuts: { startMs: number; endMs: number }[] };
    expect(cuts.length).toBeGreaterThan(3);
    const cut = await rendered(source.shortId, 'vertical');
    const { streams } = await probe(cut);
    const played = cuts.reduce((sum, { startMs, endMs }) => sum + endMs - startMs, 0);
    expect(Number(streams.find((one: { codec_type: string }) => one.codec_type === 'video').nb_read_frames)).toBe(Math.round((played * 25) / 1_000));
    const { flashes, beeps } = await flashesAndBeeps(cut);
    // A flash is one frame, so a cut can take it and leave the tail of its beep; every flash that is seen is heard.
    expect(flashes.length).toBeGreaterThan(2);
    for (const at of flashes) expect(Math.min(...beeps.map((beep) => Math.abs(beep - at)))).toBeLessThan(20);
    // And each stands where the cut list says, to a frame.
    const wanted = cuts.flatMap(({ startMs, endMs }, i) => {
      const before = cuts.slice(0, i).reduce((sum, one) => sum + one.endMs - one.startMs, 0);
      const found: number[] = [];
      for (let at = Math.ceil((startMs + 60) / 2_000) * 2_000; at < endMs - 100; at += 2_000) found.push(before + at - startMs);
      return found;
    });
    for (const at of wanted) expect(Math.min(...flashes.map((flash) => Math.abs(flash - at)))).toBeLessThanOrEqual(60);
    await world.owner.put(`shorts/${source.shortId}/edit`, { edit, version: version + 1 });
  });

  it('keeps picture and sound within 20 ms of each other, and shows what was there', async () => {
    const { flashes, beeps } = await flashesAndBeeps(path);
    expect(flashes.length).toBeGreaterThan(3);
    expect(beeps.length).toBe(flashes.length);
    for (const [i, at] of flashes.entries()) expect(Math.abs(beeps[i]! - at)).toBeLessThan(20);
    // Where the first flash of the source falls inside the cut, to a frame.
    const first = Math.ceil(source.startMs / 2_000) * 2_000 - source.startMs;
    expect(Math.abs(flashes[0]! - first)).toBeLessThanOrEqual(40);
  });

  it('shows its captions, as pixels, while they are said', async () => {
    const band = (
      await ffmpeg(
        '-v',
        'error',
        '-t',
        '8',
        '-i',
        path,
        '-vf',
        'fps=5,crop=1080:420:0:1270,scale=270:105:flags=area,format=gray,signalstats,metadata=print:key=lavfi.signalstats.YMAX:file=-',
        '-f',
        'null',
        '-',
      )
    ).out;
    const brightest = [...band.toString('utf8').matchAll(/YMAX=(\d+)/g)].map(([, value]) => Number(value));
    const shown = brightest.filter((value) => value > 150).length;
    // Lines of 4.5 s every 5 s, held for half a second: captions stand most of the time.
    expect(shown / brightest.length).toBeGreaterThan(0.7);
  });
});

describe('a file of a recording without a picture', () => {
  let source: { shortId: string; recordingId: string; candidateId: string; startMs: number; endMs: number };
  beforeAll(async () => {
    source = await shortOf('tone.mp3', clientId, ...TONE);
  });
  // A test that fails in the middle must not leave the next one without a worker, or with one too many.
  afterEach(() =>
    query(`UPDATE jobs SET state = 'cancelled', finished_at = now() WHERE kind = 'render' AND client_id = $1 AND state IN ('waiting', 'running')`, [clientId]),
  );

  // Measured by the meter of ffmpeg's loudnorm (EBU R 128, ITU-R BS.1770); the level was set by what its ebur128 heard.
  it('is as loud as players play, and never louder than it may', async () => {
    const { integrated, peak } = await heardIn(await rendered(source.shortId, 'sound'));
    expect(Math.abs(integrated - -14)).toBeLessThan(0.3);
    expect(peak).toBeLessThanOrEqual(-1);
  });

  it('is as loud as the platform that it is for, and outdated once that plays at another loudness', async () => {
    const own = await world.client();
    const [quiet, loud] = [
      await world.platform({ loudness: -18, truePeak: -2, shapes: ['wide'] }),
      await world.platform({ loudness: -12, truePeak: -1, shapes: ['square'] }),
    ];
    for (const [i, platformProfileId] of [quiet, loud].entries()) await world.channel(own, { name: `Channel ${i}`, platformProfileId, order: i + 1 });
    const short = await shortOf('for-platforms.mp3', own, ...TONE);
    // The first of its channels leads where nobody says for whom; another may be named.
    const files = [await rendered(short.shortId, 'sound'), await rendered(short.shortId, 'sound', loud)];
    for (const [i, wanted] of [
      { integrated: -18, peak: -2 },
      { integrated: -12, peak: -1 },
    ].entries()) {
      const { integrated, peak } = await heardIn(files[i]!);
      expect(Math.abs(integrated - wanted.integrated)).toBeLessThan(0.3);
      expect(peak).toBeLessThanOrEqual(wanted.peak);
    }
    const shown = async (): Promise<unknown[]> =>
      (await world.read(`shorts/${short.shortId}/renders`)).body.map((one: Answer['body']) => [one.loudness, one.truePeak, one.outdated]);
    expect(await shown()).toEqual([
      [-12, -1, false],
      [-18, -2, false],
    ]);
    // An archive is as loud as the platform that is named; the first where none is.
    const archived = async (platform: string): Promise<Buffer> => {
      const at = `${world.base}/api/renders/files.zip?shape=sound&shortIds=${short.shortId}${platform}`;
      const response = await fetch(at, { headers: { cookie: world.owner.cookie } });
      expect(response.status).toBe(200);
      return [...(await unzipped(Buffer.from(await response.arrayBuffer())))][0]![1];
    };
    expect((await archived('')).equals(await readFile(files[0]!))).toBe(true);
    expect((await archived(`&platformProfileId=${loud}`)).equals(await readFile(files[1]!))).toBe(true);
    const other = await world.owner.get(`renders/ready?shape=sound&shortIds=${short.shortId}&platformProfileId=${await world.platform()}`);
    expect(other.status).toBe(404);
    expect((await ask(short.shortId, 'wide', loud)).status).toBe(409);
    expect((await ask(short.shortId, 'sound', await world.platform())).status).toBe(404);
    const profile = (await world.read('platform-profiles')).body.find(({ id }: { id: string }) => id === quiet);
    const { id: _, ...fields } = profile;
    expect((await world.owner.put(`platform-profiles/${quiet}`, { ...fields, loudness: -20 })).status).toBe(200);
    expect(await shown()).toEqual([
      [-12, -1, false],
      [-18, -2, true],
    ]);
    const ready = async () => (await world.read(`renders/ready?shape=sound&shortIds=${short.shortId}`)).body[0].ready;
    expect(await ready()).toBe(false);
  });

  it('of the sound alone is sound alone', async () => {
    const { streams, format } = await probe(await rendered(source.shortId, 'sound'));
    expect(streams.map((one: { codec_type: string }) => one.codec_type)).toEqual(['audio']);
    expect(Math.abs(Number(format.duration) * 1_000 - (source.endMs - source.startMs))).toBeLessThan(60);
  });

  it('is made once of the same, whoever asks and how often, and anew when the short has changed', async () => {
    await noWorker();
    const two = await Promise.all([ask(source.shortId, 'wide'), ask(source.shortId, 'wide')]);
    expect(two.map(({ status }) => status)).toEqual([201, 201]);
    expect(two[0]!.body.id).toBe(two[1]!.body.id);
    const jobs = await query(`SELECT attempt FROM jobs WHERE kind = 'render' AND subject_id = $1`, [two[0]!.body.id]);
    expect(jobs).toEqual([{ attempt: 0 }]);
    const copy = (await world.read(`shorts/${source.shortId}`)).body.copy;
    const written = await world.writeShort('PUT', source.shortId, 'copy', { ...copy, title: `Cold air is heavy ${randomUUID().slice(0, 4)}` });
    expect(written.status, written.text).toBe(200);
    expect((await readRender(source.shortId, two[0]!.body.id)).outdated).toBe(true);
    const other = await ask(source.shortId, 'wide');
    expect([other.body.id === two[0]!.body.id, other.body.outdated]).toEqual([false, false]);
    for (const id of [two[0]!.body.id, other.body.id]) expect((await world.owner.delete(`renders/${id}`)).status).toBe(204);
    expect((await world.owner.delete(`renders/${other.body.id}`)).status).toBe(409);
    expect((await world.owner.get(`renders/${other.body.id}/file`)).status).toBe(404);
  });

  it('is not swept away while its worker is at it, however long that takes', async () => {
    await noWorker();
    const { body } = await ask(source.shortId, 'portrait');
    const [job] = await query(
      `UPDATE jobs SET state = 'running', attempt = 3, due_at = now() + interval '1 hour' WHERE kind = 'render' AND subject_id = $1 RETURNING id`,
      [body.id],
    );
    expect(job).toBeDefined();
    const renders = join(process.env['SIFT_REEL_MEDIA_DIR']!, 'renders');
    const [atWork, left] = [join(renders, `${body.id}.3.work`), join(renders, `${body.id}.2.work`)];
    const old = new Date(Date.now() - 3_600_000);
    for (const name of [atWork, left]) {
      await mkdir(name, { recursive: true });
      await utimes(name, old, old);
    }
    const service = world.app.get(RendersService);
    await service.sweep(Date.now() + 3_600_000);
    const names = await readdir(renders);
    expect([names.includes(`${body.id}.3.work`), names.includes(`${body.id}.2.work`)]).toEqual([true, false]);
    await rm(atWork, { recursive: true });
    await query(`UPDATE jobs SET state = 'cancelled', finished_at = now() WHERE kind = 'render' AND subject_id = $1`, [body.id]);
  });

  it('is made first where it is posted soonest, whoever asked first', async () => {
    await noWorker();
    await ffmpeg('-v', 'error', ...TONE, join(folder, 'order.mp3'));
    const channelId = await world.channel(clientId);
    const seeded = await seedRanking(world, clientId, 1.5);
    await world.owner.post(
      `recordings/${seeded.recordingId}/files`,
      filesForm({ sound: ['order.mp3', new Uint8Array(await readFile(join(folder, 'order.mp3')))] }),
    );
    for (const { id } of seeded.candidates.slice(0, 3)) await world.owner.put(`candidates/${id}/state`, { state: 'kept' });
    const shorts = (await world.shorts(seeded.recordingId)).map(({ id }: { id: string }) => id);
    const [never, late, soon] = shorts as [string, string, string];
    for (const [shortId, day] of [
      [late, 20],
      [soon, 10],
    ]) {
      await query(`UPDATE shorts SET approved_at = now(), approved_version = version WHERE id = $1`, [shortId]);
      await query(
        `INSERT INTO posts (client_id, channel_id, short_id, date, minute, at, why) VALUES ($1, $2, $3, $4::date, 600, $4::date + interval '10 hours', 'first')`,
        [clientId, channelId, shortId, `2061-03-${day}`],
      );
    }
    const ids: string[] = [];
    for (const shortId of [never, late, soon]) ids.push((await ask(shortId, 'sound')).body.id);
    await needWorker().ready;
    for (const [i, shortId] of [never, late, soon].entries()) await until(shortId, ids[i]!, over);
    const started = await query(`SELECT subject_id AS id FROM jobs WHERE kind = 'render' AND subject_id = ANY ($1) ORDER BY started_at`, [ids]);
    expect(started.map(({ id }) => id)).toEqual([...ids].reverse());
  });
  it('is outdated by what it is made of, and by nothing else', async () => {
    await noWorker();
    const { body } = await ask(source.shortId, 'wide');
    const outdated = async (): Promise<boolean> => (await readRender(source.shortId, body.id)).outdated;
    const { copy } = (await world.read(`shorts/${source.shortId}`)).body;
    await world.writeShort('PUT', source.shortId, 'copy', { ...copy, description: 'Nobody sees this in the file.' });
    expect(await outdated()).toBe(false);
    const client = (await world.read('clients')).body.find(({ id }: { id: string }) => id === clientId);
    const style = { typeface: 'mono', ground: '#102030', ink: '#f0f0f0' };
    const styled = await world.owner.put(`clients/${clientId}/card-style`, { cardStyle: style, version: client.version });
    expect(styled.status, styled.text).toBe(200);
    expect(await outdated()).toBe(true);
    const back = await world.owner.put(`clients/${clientId}/card-style`, { cardStyle: client.cardStyle, version: await world.version('clients', clientId) });
    expect([back.status, await outdated()]).toEqual([200, false]);
    const { firstWord, version, edit } = (await world.read(`shorts/${source.shortId}`)).body;
    await world.owner.put(`shorts/${source.shortId}/edit`, { edit: { ...edit, removed: [{ firstWord, endWord: firstWord + 1 }] }, version });
    expect(await outdated()).toBe(true);
    await world.owner.put(`shorts/${source.shortId}/edit`, { edit, version: version + 1 });
    expect([await outdated(), (await ask(source.shortId, 'wide')).body.id]).toEqual([false, body.id]);
    await world.owner.delete(`renders/${body.id}`);
  });

  it('is finished once when its worker is killed in the middle, and leaves nothing behind', async () => {
    await noWorker();
    await needWorker().ready;
    const { body } = await ask(source.shortId, 'square');
    await until(source.shortId, body.id, (one) => one.stage === 'rendering' || over(one));
    process.kill(worker!.child.pid!, 'SIGKILL');
    await worker!.ended;
    worker = null;
    await needWorker().ready;
    const made = await until(source.shortId, body.id, over);
    expect([made.state, made.failure]).toEqual(['done', null]);
    const [job] = await query(`SELECT attempt FROM jobs WHERE kind = 'render' AND subject_id = $1`, [body.id]);
    expect(job!['attempt']).toBe(2);
    await noWorker(); // its folder goes after the job is done
    const files = (await readdir(join(process.env['SIFT_REEL_MEDIA_DIR']!, 'renders'))).filter((name) => name.startsWith(body.id));
    expect(files.filter((name) => name !== `${body.id}.1.work`)).toEqual([`${body.id}-2.mp4`]);
  });

  it('is cancelled while it is made', async () => {
    await needWorker().ready;
    const { body } = await ask(source.shortId, 'portrait');
    await until(source.shortId, body.id, (one) => one.state === 'running');
    expect((await world.owner.delete(`renders/${body.id}`)).status).toBe(204);
    expect((await readRender(source.shortId, body.id)).state).toBe('cancelled');
    // Asked for again, it is taken up again.
    expect((await ask(source.shortId, 'portrait')).body.id).toBe(body.id);
    await until(source.shortId, body.id, (one) => one.state === 'running');
    expect((await world.owner.delete(`renders/${body.id}`)).status).toBe(204);
  });
});

/** Names and bytes in an archive, read by another program than the one that wrote it. */
const unzipped = (bytes: Buffer): Promise<Map<string, Buffer>> =>
  new Promise((resolve, reject) => {
    fromBuffer(bytes, { lazyEntries: true }, (failed, zip) => {
      if (failed !== null) return reject(failed);
      const found = new Map<string, Buffer>();
      zip.on('entry', (entry: Entry) =>
        zip.openReadStream(entry, (broken, stream) => {
          if (broken !== null) return reject(broken);
          const parts: Buffer[] = [];
          stream
            .on('data', (part: Buffer) => parts.push(part))
            .on('end', () => {
              found.set(entry.fileName, Buffer.concat(parts));
              zip.readEntry();
            });
        }),
      );
      zip.on('end', () => resolve(found)).on('error', reject);
      zip.readEntry();
    });
  });

describe('files of several shorts', () => {
  it('are taken away as one archive, numbered as they were asked for, each with its captions', async () => {
    const made: { shortId: string; path: string }[] = [];
    for (const name of ['one.mp3', 'two.mp3']) {
      const { shortId } = await shortOf(name, clientId, ...TONE);
      made.push({ shortId, path: await rendered(shortId, 'sound') });
    }
    const query = `shape=sound&shortIds=${made.map(({ shortId }) => shortId).join(',')}`;
    expect((await world.owner.get(`renders/ready?${query}`)).body.map(({ ready }: { ready: boolean }) => ready)).toEqual([true, true]);
    const response = await fetch(`${world.base}/api/renders/files.zip?${query}`, { headers: { cookie: world.owner.cookie } });
    expect([response.status, response.headers.get('content-type')]).toEqual([200, 'application/zip']);
    const files = [...(await unzipped(Buffer.from(await response.arrayBuffer())))];
    expect(files.map(([name]) => name.replace(/^(\d\d) - .* - sound\./, '$1.'))).toEqual(['01.m4a', '01.srt', '02.m4a', '02.srt']);
    for (const [i, { path }] of made.entries()) expect(files[2 * i]![1].equals(await readFile(path))).toBe(true);
    expect(files[1]![1].toString('utf8')).toMatch(/^1\r\n00:00:00,/);
  });

  it('are refused where one is not made, names which; and where one is not theirs to see, as if it were not there', async () => {
    const { shortId } = await shortOf('three.mp3', clientId, ...TONE);
    const refused = await world.owner.get(`renders/files.zip?shape=wide&shortIds=${shortId}`);
    expect([refused.status, refused.body.detail]).toEqual([409, expect.stringMatching(/^There is no file of this shape yet of “.+”\.$/)]);
    expect((await world.owner.get(`renders/ready?shape=wide&shortIds=${shortId}`)).body).toMatchObject([{ shortId, ready: false }]);
    const stranger = await world.producer([await world.client()]);
    for (const path of ['ready', 'files.zip']) {
      expect((await stranger.get(`renders/${path}?shape=wide&shortIds=${shortId}`)).status).toBe(404);
      expect((await world.owner.get(`renders/${path}?shape=wide&shortIds=${shortId},${randomUUID()}`)).status).toBe(404);
      expect((await world.owner.get(`renders/${path}?shape=wide&shortIds=x`)).status).toBe(400);
    }
  });
});

describe('asking for a file', () => {
  it('is refused without a sound, and for a shape that is none', async () => {
    const seeded = await seedRanking(world, clientId);
    await world.owner.put(`candidates/${seeded.candidates[0]!.id}/state`, { state: 'kept' });
    const [short] = await world.shorts(seeded.recordingId);
    const refused = await ask(short.id, 'vertical');
    expect([refused.status, refused.body.detail]).toEqual([409, 'The recording has no sound yet. Add it on the recordings screen.']);
    expect((await ask(short.id, 'round')).status).toBe(400);
  });

  it('of a sound that is gone fails in words', async () => {
    await needWorker().ready;
    const { shortId, recordingId } = await shortOf('short-lived.mp3', clientId, ...TONE);
    const [row] = await query('SELECT sound_file FROM recordings WHERE id = $1', [recordingId]);
    await rm(join(process.env['SIFT_REEL_MEDIA_DIR']!, String(row!['sound_file'])));
    const { body } = await ask(shortId, 'square');
    const made = await until(shortId, body.id, over);
    expect([made.state, made.failure]).toEqual(['failed', 'The recording has another sound now. Ask for the file again.']);
  });
});
