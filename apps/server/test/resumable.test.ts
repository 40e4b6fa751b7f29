import { randomBytes } from 'node:crypto';
import { readdir, stat } from 'node:fs/promises';
import { connect } from 'node:net';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ResumableUploads } from '../dist/recordings/resumable-uploads.service.js';
import { type Answer, type Caller, filesForm, talk, wav, World } from './world.js';

let world: World;
let clientId: string;
beforeAll(async () => {
  world = await World.make();
  clientId = await world.client();
});
afterAll(() => world.close());

const mediaDir = (): string => process.env['SIFT_REEL_MEDIA_DIR']!;
/** What tus 1.0 asks of every request (tus.io/protocols/resumable-upload, “Headers”, “Creation”). */
const TUS = { 'tus-resumable': '1.0.0' };
const PIECE = { ...TUS, 'content-type': 'application/offset+octet-stream' };

async function ask(
  method: string,
  path: string,
  headers: Record<string, string>,
  body?: Uint8Array<ArrayBuffer>,
  by: Caller = world.owner,
  base = world.base,
): Promise<Response> {
  return fetch(`${base}/api/${path}`, { method, headers: { cookie: by.cookie, 'x-csrf-token': by.csrf, ...headers }, ...(body === undefined ? {} : { body }) });
}
async function begin(size: number, name = 'talk.wav', by: Caller = world.owner): Promise<string> {
  const metadata = `filename ${Buffer.from(name).toString('base64')}`;
  const response = await ask('POST', 'uploads', { ...TUS, 'upload-length': String(size), 'upload-metadata': metadata }, undefined, by);
  expect(response.status, await response.text()).toBe(201);
  return response.headers.get('location')!.split('/').at(-1)!;
}
const offsetOf = async (id: string): Promise<number> => Number((await ask('HEAD', `uploads/${id}`, TUS)).headers.get('upload-offset'));
const append = (id: string, offset: number, bytes: Uint8Array<ArrayBuffer>): Promise<Response> =>
  ask('PATCH', `uploads/${id}`, { ...PIECE, 'upload-offset': String(offset) }, bytes);
async function whole(bytes: Uint8Array<ArrayBuffer>, name?: string): Promise<string> {
  const id = await begin(bytes.length, name);
  expect((await append(id, 0, bytes)).status).toBe(204);
  return id;
}
function bringIn(uploadId: string, transcript: string | null = talk(1), by: Caller = world.owner): Promise<Answer> {
  const form = filesForm(transcript === null ? {} : { transcript: ['talk.vtt', transcript] });
  form.set('uploaded', uploadId);
  return by.post(`clients/${clientId}/recordings`, form);
}
const lying = async (id: string): Promise<string[]> => (await readdir(join(mediaDir(), 'uploads'))).filter((name) => name.startsWith(id));

describe('an upload in pieces', () => {
  const sound = wav(30);

  it('is brought in as one, under its name, and nothing of it is left among the uploads', async () => {
    const id = await begin(sound.length, 'The Long Talk.wav');
    const half = sound.length >> 1;
    const first = await append(id, 0, sound.slice(0, half));
    expect([first.status, first.headers.get('upload-offset'), first.headers.get('tus-resumable')]).toEqual([204, String(half), '1.0.0']);
    expect((await bringIn(id)).body.detail).toBe('“The Long Talk.wav” is not all there yet.');
    expect(await offsetOf(id)).toBe(half);
    expect((await append(id, half, sound.slice(half))).status).toBe(204);
    const { status, body, text } = await bringIn(id);
    expect(status, text).toBe(201);
    expect(body.sound).toMatchObject({ name: 'The Long Talk.wav', bytes: sound.length });
    const kept = new Uint8Array(
      await (await fetch(`${world.base}/api/recordings/${body.id}/sound`, { headers: { cookie: world.owner.cookie } })).arrayBuffer(),
    );
    expect(Buffer.compare(kept, sound)).toBe(0);
    expect(await lying(id)).toEqual([]);
  });

  it('goes on where it was when the line breaks in the middle of a piece', async () => {
    const id = await begin(sound.length);
    const { hostname, port } = new URL(world.base);
    const half = sound.length >> 1;
    await new Promise<void>((resolve) => {
      const line = connect(Number(port), hostname, () => {
        const head = Object.entries({
          host: `${hostname}:${port}`,
          cookie: world.owner.cookie,
          'x-csrf-token': world.owner.csrf,
          ...PIECE,
          'upload-offset': '0',
          'content-length': String(sound.length),
        });
        line.write(`PATCH /api/uploads/${id} HTTP/1.1\r\n${head.map(([name, value]) => `${name}: ${value}\r\n`).join('')}\r\n`);
        line.write(sound.slice(0, half), () => setTimeout(() => line.destroy(), 300));
      });
      line.on('close', () => resolve());
      line.on('error', () => undefined);
    });
    let at = 0;
    await expect.poll(async () => (at = await offsetOf(id)), { timeout: 20_000 }).toBeGreaterThan(0);
    await expect.poll(async () => (await append(id, (at = await offsetOf(id)), sound.slice(at))).status, { timeout: 20_000 }).toBe(204);
    expect(await offsetOf(id)).toBe(sound.length);
    expect((await bringIn(id)).status).toBe(201);
  });

  it('takes one of two pieces that come for the same place at once', async () => {
    const id = await begin(sound.length);
    const two = await Promise.all([append(id, 0, sound.slice(0, 50_000)), append(id, 0, sound.slice(0, 50_000))]);
    const statuses = two.map(({ status }) => status).sort();
    expect(statuses[0]).toBe(204);
    expect(statuses[1]).toBeGreaterThanOrEqual(400);
    expect(await offsetOf(id)).toBe(50_000);
    expect((await append(id, 7, sound.slice(7))).status).toBe(409); // another place than it is at
  });

  it('is brought in by one of two who ask at once', async () => {
    const id = await whole(sound);
    const both = await Promise.all([bringIn(id), bringIn(id)]);
    expect(both.map(({ status }) => status).filter((status) => status === 201)).toHaveLength(1);
    expect([404, 409]).toContain(both.map(({ status }) => status).find((status) => status !== 201));
  });

  it('stays when the transcript beside it is refused, so that nobody sends it again', async () => {
    const id = await whole(sound);
    expect((await bringIn(id, 'WEBVTT\n\nno times at all')).status).toBe(422);
    const { status, text } = await bringIn(id);
    expect(status, text).toBe(201);
    expect(await lying(id)).toEqual([]);
  });

  it('of something that is no sound is refused by name, and gone', async () => {
    const id = await whole(new Uint8Array(randomBytes(4_000)), 'holiday.wav');
    const { status, body } = await bringIn(id, null);
    expect([status, body.detail]).toEqual([422, expect.stringContaining('“holiday.wav”')]);
    expect((await bringIn(id, null)).status).toBe(404);
  });

  it('is its uploader’s alone: another finds, adds to, stops and brings in nothing', async () => {
    const id = await whole(sound);
    const other = await world.producer([clientId]);
    const answers = [
      await ask('HEAD', `uploads/${id}`, TUS, undefined, other),
      await ask('PATCH', `uploads/${id}`, { ...PIECE, 'upload-offset': '0' }, sound.slice(0, 9), other),
      await ask('DELETE', `uploads/${id}`, TUS, undefined, other),
    ];
    expect(answers.map(({ status }) => status)).toEqual([404, 404, 404]);
    expect((await bringIn(id, talk(1), other)).status).toBe(404);
    expect((await fetch(`${world.base}/api/uploads/${id}`, { method: 'HEAD', headers: TUS })).status).toBe(401);
    expect((await ask('PATCH', `uploads/${id}`, { ...PIECE, 'x-csrf-token': 'guessed', 'upload-offset': '0' })).status).toBe(403);
    expect((await ask('HEAD', `uploads/${id}`, { ...TUS, 'x-http-method-override': 'DELETE' })).status).toBe(400);
    for (const path of ['..%2F..%2Fetc%2Fpasswd', `${id}.json`, 'x']) expect((await ask('HEAD', `uploads/${path}`, TUS)).status).toBe(404);
    expect(await offsetOf(id)).toBe(sound.length);
  });

  it('is too large before anything of it is sent, and can be stopped', async () => {
    const response = await ask('POST', 'uploads', { ...TUS, 'upload-length': String(13 * 1_024 ** 3) });
    expect(response.status).toBe(413);
    const id = await begin(sound.length);
    expect((await ask('DELETE', `uploads/${id}`, TUS)).status).toBe(204);
    expect(await lying(id)).toEqual([]);
  });

  it('that nobody goes on with is swept away after two days, and not before', async () => {
    const id = await begin(sound.length);
    const uploads = world.app.get(ResumableUploads);
    await uploads.sweep(Date.now() + 47 * 3_600_000);
    expect((await lying(id)).length).toBe(2);
    await uploads.sweep(Date.now() + 49 * 3_600_000);
    expect(await lying(id)).toEqual([]);
  });

  it('that is gone on with is not swept in halves, however long ago it was begun', async () => {
    const id = await begin(sound.length);
    const [, json] = (await lying(id)).sort();
    const before = (await stat(join(mediaDir(), 'uploads', json!))).ctimeMs;
    await new Promise((resolve) => {
      setTimeout(resolve, 30);
    });
    await append(id, 0, sound.slice(0, 1_000));
    expect((await stat(join(mediaDir(), 'uploads', json!))).ctimeMs).toBeGreaterThan(before);
  });

  it('goes on in a program that was started anew', async () => {
    const id = await begin(sound.length);
    await append(id, 0, sound.slice(0, 1_000));
    const email = world.ownerEmail;
    await world.close();
    world = await World.make();
    await world.owner.signIn(email);
    expect(await offsetOf(id)).toBe(1_000);
    expect((await append(id, 1_000, sound.slice(1_000))).status).toBe(204);
    expect((await bringIn(id)).status).toBe(201);
  });
});
