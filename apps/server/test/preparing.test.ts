import { execFile } from 'node:child_process';
import { readdirSync, readFileSync } from 'node:fs';
import { mkdtemp, readdir, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import pg from 'pg';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { settings } from '../../../scripts/lib/config.mjs';
import { serviceEnv, startService } from '../../../scripts/lib/services.mjs';
import { listenTo } from '../dist/media/listen.js';
import { whyProxy } from '../dist/media/playable.js';
import { FfmpegError } from '../dist/media/run-ffmpeg.js';
import { PreparingService } from '../dist/preparing/preparing.service.js';
import { proxyArgs } from '../dist/preparing/proxy.js';
import { type Answer, filesForm, query, World } from './world.js';

vi.setConfig({ testTimeout: 240_000, hookTimeout: 240_000 });

const run = promisify(execFile);
const ffmpeg = async (...args: string[]): Promise<Buffer> =>
  (await run('ffmpeg', ['-v', 'error', '-nostdin', '-y', ...args], { encoding: 'buffer', maxBuffer: 400_000_000 })).stdout;

/** Who waits in this database for a lock of another. */
const WAITING = `SELECT count(*)::int AS n FROM pg_stat_activity WHERE datname = current_database() AND wait_event_type = 'Lock'`;
const DEADLOCKS = 'SELECT deadlocks FROM pg_stat_database WHERE datname = current_database()';
type Worker = ReturnType<typeof startService>;
let world: World;
let clientId: string;
let folder: string;
let worker: Worker;
const startWorker = (): Worker =>
  startService('worker', serviceEnv(settings('test'), process.env['SIFT_REEL_DATABASE_URL']!, { SIFT_REEL_LOG_LEVEL: 'silent' }), { quiet: true });

beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'sift-reel-preparing-'));
  world = await World.make();
  clientId = await world.client();
  worker = startWorker();
  await worker.ready;
});
afterAll(async () => {
  await worker.stop();
  await world.close();
  await rm(folder, { recursive: true, force: true });
});

/** A recording of what `args` make of ffmpeg's own generators. */
async function brought(name: string, ...args: string[]): Promise<string> {
  const path = join(folder, name);
  await ffmpeg(...args, path);
  const { status, text, body } = await world.owner.post(`clients/${clientId}/recordings`, filesForm({ sound: [name, new Uint8Array(await readFile(path))] }));
  expect(status, text).toBe(201);
  return body.id;
}
const read = async (recordingId: string): Promise<Answer['body']> => (await world.read(`recordings/${recordingId}`)).body;
async function until(recordingId: string, holds: (preparation: Answer['body']) => boolean): Promise<Answer['body']> {
  for (let i = 0; i < 4_000; i += 1) {
    const recording = await read(recordingId);
    if (holds(recording.preparation)) return recording;
    await new Promise((resolve) => {
      setTimeout(resolve, 50);
    });
  }
  throw new Error('it never comes');
}
async function prepared(recordingId: string): Promise<Answer['body']> {
  const recording = await until(recordingId, ({ state }) => ['done', 'failed'].includes(state));
  expect([recording.preparation.state, recording.preparation.failure]).toEqual(['done', null]);
  return recording;
}
/** What was made, here. */
async function fetched(path: string, name: string): Promise<string> {
  const response = await fetch(`${world.base}/api/${path}`, { headers: { cookie: world.owner.cookie } });
  expect(response.status).toBe(200);
  const to = join(folder, name);
  await writeFile(to, Buffer.from(await response.arrayBuffer()));
  return to;
}
const heard = (path: string, track = 0) => listenTo(path, { signal: new AbortController().signal, track, loudness: true, onHeard: () => undefined });

/** Programs that a process started, by name. */
function childrenOf(pid: number, name: string): number[] {
  const threads = readdirSync(`/proc/${pid}/task`);
  const children = threads.flatMap((thread) => readFileSync(`/proc/${pid}/task/${thread}/children`, 'utf8').split(' ').filter(Boolean).map(Number));
  return children.filter((child) => readFileSync(`/proc/${child}/comm`, 'utf8').trim() === name);
}

/** Spans of a sine of 1 kHz on both channels: peak in dBFS, and seconds. */
async function sines(name: string, ...spans: readonly (readonly [number, number])[]): Promise<string> {
  const path = join(folder, name);
  const parts = spans.map(
    ([db, seconds], i) => `aevalsrc='${10 ** (db / 20)}*sin(2*PI*1000*t)|${10 ** (db / 20)}*sin(2*PI*1000*t)':s=48000:d=${seconds}[s${i}]`,
  );
  const filter = `${parts.join(';')};${spans.map((_, i) => `[s${i}]`).join('')}concat=n=${spans.length}:v=0:a=1[out]`;
  await ffmpeg('-filter_complex', filter, '-map', '[out]', '-c:a', 'pcm_f32le', path);
  return path;
}

// Signals and tolerances of EBU Tech 3341 (table 1) and Tech 3342 (table 1), synthesised from their description, from memory.
describe('loudness', () => {
  it.each([
    ['3341-1', [[-23, 20]], -23],
    ['3341-2', [[-33, 20]], -33],
    [
      '3341-3',
      [
        [-36, 10],
        [-23, 60],
        [-36, 10],
      ],
      -23,
    ],
    [
      '3341-4',
      [
        [-72, 10],
        [-36, 10],
        [-23, 60],
        [-36, 10],
        [-72, 10],
      ],
      -23,
    ],
    [
      '3341-5',
      [
        [-26, 20],
        [-20, 20.1],
        [-26, 20],
      ],
      -23,
    ],
  ] as const)('integrated, of signal %s', async (name, spans, wanted) => {
    const { loudness } = await heard(await sines(`${name}.wav`, ...spans));
    expect(loudness!.integrated).toBeGreaterThanOrEqual(wanted - 0.1);
    expect(loudness!.integrated).toBeLessThanOrEqual(wanted + 0.1);
  });
  it('short-term, of the loudest three seconds', async () => {
    const { loudness } = await heard(await sines('short.wav', [-40, 5], [-23, 4], [-40, 5]));
    expect(Math.abs(loudness!.shortTerm + 23)).toBeLessThanOrEqual(0.1);
  });
  it.each([
    [
      '3342-1',
      [
        [-20, 20],
        [-30, 20],
      ],
      10,
    ],
    [
      '3342-2',
      [
        [-20, 20],
        [-15, 20],
      ],
      5,
    ],
  ] as const)('range, of signal %s', async (name, spans, wanted) => {
    expect(Math.abs((await heard(await sines(`${name}.wav`, ...spans))).loudness!.range - wanted)).toBeLessThanOrEqual(1);
  });
  it('true peak between the samples (3341-16: a quarter of the rate at 45 degrees)', async () => {
    const path = join(folder, 'peak.wav');
    await ffmpeg(
      '-f',
      'lavfi',
      '-i',
      "aevalsrc='0.5*sin(2*PI*12000*t+PI/4)|0.5*sin(2*PI*12000*t+PI/4)':s=48000:d=5",
      '-af',
      'afade=d=0.5,afade=t=out:st=4.5:d=0.5',
      '-c:a',
      'pcm_f32le',
      path,
    );
    const { truePeak } = (await heard(path)).loudness!;
    expect(truePeak).toBeGreaterThanOrEqual(-6.4);
    expect(truePeak).toBeLessThanOrEqual(-5.8);
  });
  it('is not taken for what cannot be heard where ffmpeg was killed', async () => {
    const path = await sines('long.wav', [-23, 240]);
    const killed = listenTo(path, {
      signal: new AbortController().signal,
      track: 0,
      loudness: true,
      onHeard: () => {
        for (const child of childrenOf(process.pid, 'ffmpeg')) process.kill(child, 'SIGKILL');
      },
    });
    await expect(killed).rejects.toThrow(FfmpegError);
  });
  it('of silence is none', async () => {
    const path = join(folder, 'silence.wav');
    await ffmpeg('-f', 'lavfi', '-i', 'anullsrc=r=16000:cl=mono', '-t', '5', path);
    expect((await heard(path)).loudness).toBeNull();
  });
});

describe('what browsers cannot play as it stands', () => {
  const picture = (codec: string, height = 720) => ({ width: 1_280, height, rate: { numerator: 25, denominator: 1 }, codec });
  const sound = (codec: string) => [{ codec, channels: 2, language: '', title: '' }];
  const MP4 = 'mov,mp4,m4a,3gp,3g2,mj2';
  it.each([
    [MP4, picture('h264'), sound('aac'), 1_000, []],
    [MP4, picture('h264'), sound('aac'), 10_000, ['pictures-apart']],
    [MP4, picture('h264', 2_160), sound('aac'), 1_000, ['large']],
    [MP4, picture('hevc'), sound('ac3'), 1_000, ['picture-codec', 'sound-codec']],
    [MP4, picture('h264'), [...sound('aac'), ...sound('aac')], 1_000, ['other-track']],
    [MP4, null, sound('alac'), 0, ['sound-codec']],
    ['matroska,webm', picture('vp9'), sound('opus'), 500, []],
    ['matroska,webm', picture('h264'), sound('aac'), 500, ['container']],
    ['mp3', null, sound('mp3'), 0, ['places-guessed']],
    ['ogg', null, sound('opus'), 0, []],
    ['wav', null, sound('pcm_s24le'), 0, []],
    [MP4, picture('h264'), sound('aac'), 1_000, ['long-index'], 10],
    [MP4, picture('h264'), sound('aac'), 1_000, [], 3],
    [MP4, null, sound('aac'), 0, ['long-index'], 10],
    [MP4, picture('h264'), sound('pcm_s16le'), 1_000, [], 10],
    ['matroska,webm', picture('vp9'), sound('opus'), 500, [], 10],
  ] as const)('%s', (format, seen, soundTracks, gapMs, why, hours: number = 1) => {
    expect(whyProxy({ durationMs: hours * 3_600_000, format, picture: seen, soundTracks }, 0, gapMs)).toEqual(why);
  });
});

it('a long file is wrapped anew with every sample at its time, and a list of where they stand in front', async () => {
  const [from, to] = [join(folder, 'delayed.mp4'), join(folder, 'wrapped.mp4')];
  const film = ['-f', 'lavfi', '-i', 'testsrc2=s=160x90:r=25:d=30', '-f', 'lavfi', '-i', 'sine=frequency=300:duration=30'];
  await ffmpeg(...film, '-c:v', 'libx264', '-preset', 'veryfast', '-bf', '3', '-g', '25', '-pix_fmt', 'yuv420p', '-c:a', 'aac', from);
  const long = { durationMs: 36_000_000, picture: { width: 160, height: 90, rate: { numerator: 25, denominator: 1 }, codec: 'h264' } };
  await ffmpeg(...proxyArgs(from, long, 0, ['long-index'], to));
  for (const track of ['v', 'a']) {
    const samples = async (path: string): Promise<string[]> =>
      (await run('ffprobe', ['-v', 'error', '-select_streams', track, '-show_entries', 'packet=pts_time,size', '-of', 'csv=p=0', path])).stdout
        .trim()
        .split(/,?\s+/);
    const [original, wrapped] = [await samples(from), await samples(to)];
    expect([wrapped.length, wrapped]).toEqual([original.length, original]);
    expect(original.length).toBeGreaterThan(700);
  }
  // ISO/IEC 14496-12: each box begins with its length and its name.
  const bytes = await readFile(to);
  const boxes: string[] = [];
  for (let at = 0; at < bytes.length; at += bytes.readUInt32BE(at)) boxes.push(bytes.toString('latin1', at + 4, at + 8));
  expect(boxes.slice(0, 6)).toEqual(['ftyp', 'moov', 'sidx', 'sidx', 'moof', 'mdat']);
  expect(boxes.filter((one) => one === 'moof').length).toBeGreaterThanOrEqual(7);
});

/** Of a file: where the picture turns bright, and where the sound turns loud, in ms. */
async function flashAndBeep(path: string): Promise<{ readonly flashMs: number; readonly beepMs: number }> {
  const frames = await ffmpeg('-i', path, '-map', '0:v:0', '-vf', 'fps=50:start_time=0,scale=2:2,format=gray', '-f', 'rawvideo', '-');
  const samples = await ffmpeg('-i', path, '-map', '0:a:0', '-af', 'aresample=8000:async=1:first_pts=0', '-ac', '1', '-f', 's16le', '-');
  let bright = 0;
  while (bright < frames.length && frames[bright]! < 128) bright += 4;
  let loud = 0;
  while (loud < samples.length && Math.abs(samples.readInt16LE(loud)) < 6_000) loud += 2;
  return { flashMs: bright * 5, beepMs: loud / 16 };
}

const FILM = [
  ...['-f', 'lavfi', '-i', "color=c=black:s=1280x720:r=10:d=16,drawbox=c=white:t=fill:enable='gte(t,8)'"],
  ...['-f', 'lavfi', '-i', "aevalsrc='if(gte(t,8),0.5*sin(2*PI*500*t),0.003*sin(2*PI*200*t))':s=48000:d=16"],
];

describe('a recording', () => {
  it('that no browser plays is given a file that each plays, with its times, and small pictures', async () => {
    const film = [...FILM, '-c:v', 'libx264', '-preset', 'ultrafast', '-g', '1000', '-sc_threshold', '0', '-c:a', 'ac3', '-shortest'];
    const recording = await prepared(await brought('film.mkv', ...film));
    const { preparation, sound } = recording;
    expect(sound).toMatchObject({ picture: { width: 1_280, height: 720 }, tracks: [{ codec: 'ac3', channels: 1 }], track: 0 });
    expect(preparation).toMatchObject({ proxied: true, heard: true, loudness: { integrated: expect.any(Number) } });
    const proxy = await fetched(`preparations/${preparation.id}/proxy`, 'proxy.mp4');
    const { streams } = JSON.parse((await run('ffprobe', ['-v', 'error', '-show_streams', '-of', 'json', proxy])).stdout);
    expect(streams.map((one: Answer['body']) => [one.codec_name, one.height])).toEqual([
      ['h264', 540],
      ['aac', undefined],
    ]);
    const { stdout } = await run('ffprobe', ['-v', 'error', '-select_streams', 'v', '-show_entries', 'packet=pts_time,flags', '-of', 'csv=p=0', proxy]);
    const whole = stdout
      .split('\n')
      .filter((line) => line.includes(',K'))
      .map((line) => Number(line.split(',')[0]));
    expect(Math.max(...whole.slice(1).map((at, i) => at - whole[i]!))).toBeLessThanOrEqual(0.61);
    const [before, after] = [await flashAndBeep(join(folder, 'film.mkv')), await flashAndBeep(proxy)];
    expect(Math.abs(before.flashMs - after.flashMs)).toBeLessThanOrEqual(40);
    expect(Math.abs(before.beepMs - after.beepMs)).toBeLessThanOrEqual(20);
    const { columns, count, everyMs, width, height } = preparation.sprite;
    expect([columns, count, everyMs, width, height]).toEqual([8, 8, 2_000, 160, 90]);
    const sheet = await fetched(`preparations/${preparation.id}/sprite`, 'sheet.jpg');
    const grey = await ffmpeg('-i', sheet, '-vf', `scale=${columns}:1,format=gray`, '-f', 'rawvideo', '-');
    expect([...grey].map((light) => light > 128)).toEqual([...Array<boolean>(4).fill(false), ...Array<boolean>(4).fill(true)]);
    const levels = (await world.read(`recordings/${recording.id}/levels`)).body;
    expect(levels.stepMs * levels.db.length).toBeGreaterThan(15_000);
    expect(Math.max(...levels.db.slice(0, levels.db.length / 2 - 20))).toBeLessThan(Math.min(...levels.db.slice(levels.db.length / 2 + 20, -2)));
  });
  it('that a browser plays is left as it is', async () => {
    const recording = await prepared(await brought('plain.webm', ...FILM, '-t', '6', '-c:v', 'libvpx', '-deadline', 'realtime', '-g', '10', '-c:a', 'libopus'));
    expect(recording.preparation).toMatchObject({ proxied: false, sprite: { count: 3 } });
    expect((await world.read(`preparations/${recording.preparation.id}/proxy`)).status).toBe(404);
  });
  it('of mp3 without an index is as long as it is, not as it was guessed', async () => {
    const sound = "aevalsrc='if(lt(mod(t,20),10),0.4*random(0),0)':s=44100:d=60";
    const id = await brought('guess.mp3', '-f', 'lavfi', '-i', sound, '-c:a', 'libmp3lame', '-q:a', '4', '-write_xing', '0');
    const recording = await prepared(id);
    expect(Math.abs(recording.durationMs - 60_000)).toBeLessThan(100);
    expect(recording.preparation.proxied).toBe(true);
    expect(Math.abs((await heard(await fetched(`preparations/${recording.preparation.id}/proxy`, 'guess.m4a'))).lengthMs - 60_000)).toBeLessThan(100);
  });
  it('with two sound tracks is heard on the one that was chosen', async () => {
    const tracks = ['-f', 'lavfi', '-i', 'sine=frequency=300:duration=8', '-f', 'lavfi', '-i', 'aevalsrc=0.01*sin(2*PI*300*t):d=8'];
    const said = ['-metadata:s:a:0', 'language=eng', '-metadata:s:a:1', 'language=spa', '-metadata:s:a:1', 'title=Interpreter'];
    const id = await brought('two.mka', ...tracks, '-map', '0:a', '-map', '1:a', ...said, '-c:a', 'libopus');
    const first = await prepared(id);
    expect(first.sound.tracks).toEqual([
      { codec: 'opus', channels: 1, language: 'eng', title: '' },
      { codec: 'opus', channels: 1, language: 'spa', title: 'Interpreter' },
    ]);
    expect(first.preparation.proxied).toBe(true);
    const refused = await world.owner.put(`recordings/${id}/sound-track`, { track: 2, version: first.version });
    expect([refused.status, refused.body.errors[0].field]).toEqual([400, 'track']);
    const chosen = await world.owner.put(`recordings/${id}/sound-track`, { track: 1, version: first.version });
    expect([chosen.status, chosen.body.sound.track, chosen.body.preparation.heard]).toEqual([200, 1, false]);
    const second = await prepared(id);
    expect(first.preparation.loudness.integrated - second.preparation.loudness.integrated).toBeGreaterThan(15);
    expect(second.preparation.id).not.toBe(first.preparation.id);
    const stale = await world.owner.put(`recordings/${id}/sound-track`, { track: 0, version: first.version });
    expect(stale.status).toBe(409);
  });
  it.each([
    ['whole', 'mp4', 'aac', true],
    ['what no fragment takes', 'mov', 'pcm_s16le', false],
  ])('whose index is long is wrapped anew: %s', async (name, container, sound, wrapped) => {
    const picture = ['-c:v', 'libx264', '-preset', 'ultrafast', '-g', '10'];
    const id = await brought(`long-${name.length}.${container}`, ...FILM, '-t', '6', ...picture, '-c:a', sound);
    const first = (await prepared(id)).preparation.id;
    // As if the file were of ten hours, which would take a test minutes.
    await query(`UPDATE preparations SET why_proxy = '{long-index}', proxy_file = NULL, heard_ms = NULL, sprite_file = NULL, sprite = NULL WHERE id = $1`, [
      first,
    ]);
    await query(`UPDATE jobs SET state = 'waiting', finished_at = NULL, due_at = now() WHERE subject_id = $1`, [first]);
    const { preparation } = await prepared(id);
    expect(preparation).toMatchObject({ proxied: wrapped, heard: true, sprite: { count: 3 } });
    const [row] = await query('SELECT why_proxy FROM preparations WHERE id = $1', [first]);
    expect(row!['why_proxy']).toEqual(wrapped ? ['long-index'] : []);
    if (wrapped)
      expect(await flashAndBeep(await fetched(`preparations/${first}/proxy`, 'long.mp4'))).toEqual(
        await flashAndBeep(join(folder, `long-${name.length}.${container}`)),
      );
  });
  it('of a picture without sound is taken, too', async () => {
    const recording = await prepared(await brought('silent.mp4', ...FILM.slice(0, 4), '-t', '4', '-c:v', 'libx264', '-preset', 'ultrafast', '-g', '10'));
    expect(recording).toMatchObject({
      sound: { tracks: [], track: null },
      preparation: { proxied: false, heard: false, loudness: null, sprite: { count: 2 } },
    });
    expect((await world.read(`recordings/${recording.id}/levels`)).status).toBe(404);
  });
  it('is not prepared by a run that was overtaken: another file ends it', async () => {
    const slow = [...FILM, '-c:v', 'libx264', '-preset', 'ultrafast', '-g', '1000', '-c:a', 'aac'];
    const id = await brought('slow.mkv', ...slow);
    await until(id, ({ stage }) => stage !== 'waiting');
    const other = await readFile(join(folder, 'silent.mp4'));
    expect((await world.owner.post(`recordings/${id}/files`, filesForm({ sound: ['silent.mp4', new Uint8Array(other)] }))).status).toBe(201);
    const recording = await prepared(id);
    expect(recording.preparation).toMatchObject({ proxied: false, heard: false });
    expect(Number((await query(`SELECT count(*) AS n FROM preparations WHERE recording_id = $1`, [id]))[0]!['n'])).toBe(1);
  });
});

describe('a recording that is deleted', () => {
  it('in the middle of converting leaves nothing, and the worker goes on', async () => {
    const noise = ['-f', 'lavfi', '-i', 'testsrc2=s=1280x720:r=15:d=30', '-f', 'lavfi', '-i', 'sine=frequency=300:duration=30'];
    const id = await brought('gone.mkv', ...noise, '-c:v', 'libx264', '-preset', 'ultrafast', '-crf', '30', '-g', '450', '-c:a', 'aac');
    const { preparation } = await until(id, ({ stage, fraction }) => stage === 'converting' && fraction > 0.12);
    expect((await world.owner.delete(`recordings/${id}`)).status).toBe(204);
    expect(await query(`SELECT id FROM jobs WHERE subject_id = $1`, [preparation.id])).toEqual([]);
    // Its ffmpeg ends with it: the next one gets the only long slot, and what was half-made goes.
    await prepared(await brought('next.mp4', ...FILM.slice(0, 4), '-t', '4', '-c:v', 'libx264', '-preset', 'ultrafast', '-g', '10'));
    const left = async (): Promise<string[]> =>
      (await readdir(join(process.env['SIFT_REEL_MEDIA_DIR']!, 'prepared'))).filter((name) => name.startsWith(preparation.id));
    await vi.waitFor(async () => expect(await left()).toEqual([]), { timeout: 30_000, interval: 50 });
  });
  it('while a run keeps what it made does not stand in its way, nor it in that of the deleting', async () => {
    const id = await brought('busy.mka', '-f', 'lavfi', '-i', 'sine=frequency=300:duration=8', '-c:a', 'libopus');
    const { preparation } = await read(id);
    // As a run that keeps what it made: the job, then the row; as whoever ends it: not the other way round.
    const keeping = new pg.Client(process.env['SIFT_REEL_DATABASE_URL']);
    await keeping.connect();
    await prepared(id);
    await query(`UPDATE jobs SET state = 'running', finished_at = NULL WHERE subject_id = $1`, [preparation.id]);
    await keeping.query('BEGIN');
    await keeping.query(`SELECT id FROM jobs WHERE subject_id = $1 FOR UPDATE`, [preparation.id]);
    const before = Number((await query(DEADLOCKS))[0]!['deadlocks']);
    const deleted = world.owner.delete(`recordings/${id}`);
    await vi.waitFor(async () => expect(Number((await query(WAITING))[0]!['n'])).toBeGreaterThan(0), {
      timeout: 20_000,
    });
    await keeping.query(`UPDATE preparations SET heard_ms = 1 WHERE id = $1`, [preparation.id]);
    await keeping.query('COMMIT');
    await keeping.end();
    expect((await deleted).status).toBe(204);
    expect(Number((await query(DEADLOCKS))[0]!['deadlocks'])).toBe(before);
  });
});

describe('a worker that is killed', () => {
  it('in the middle of converting is followed by one that goes on after what is done, and leaves nothing half-made', async () => {
    const noise = ['-f', 'lavfi', '-i', 'testsrc2=s=1280x720:r=15:d=30', '-f', 'lavfi', '-i', 'sine=frequency=300:duration=30'];
    const id = await brought('long.mkv', ...noise, '-c:v', 'libx264', '-preset', 'ultrafast', '-crf', '30', '-g', '450', '-c:a', 'aac');
    const seen = await until(id, ({ stage, fraction }) => stage === 'converting' && fraction > 0.12);
    expect(seen.preparation.heard).toBe(true);
    const [{ xmin: heardBy }] = (await query('SELECT xmin::text FROM voice_tracks WHERE recording_id = $1', [id])) as [{ xmin: string }];
    process.kill(worker.child.pid!, 'SIGKILL');
    await worker.ended;
    worker = startWorker();
    await worker.ready;
    const recording = await prepared(id);
    expect(recording.preparation).toMatchObject({ proxied: true, sprite: { count: 15 } });
    const [job] = await query(`SELECT attempt, crashes FROM jobs WHERE subject_id = $1`, [recording.preparation.id]);
    expect(job).toEqual({ attempt: 2, crashes: 1 });
    // Not heard again.
    expect(await query('SELECT xmin::text FROM voice_tracks WHERE recording_id = $1', [id])).toEqual([{ xmin: heardBy }]);
    await world.app.get(PreparingService).sweep(Date.now() + 3_600_000);
    const files = (await readdir(join(process.env['SIFT_REEL_MEDIA_DIR']!, 'prepared'))).filter((name) => name.startsWith(recording.preparation.id));
    expect(files.sort()).toEqual([`${recording.preparation.id}-2.jpg`, `${recording.preparation.id}-2.mp4`]);
  });
});
