import { randomUUID } from 'node:crypto';
import { mkdir, readdir, utimes, writeFile } from 'node:fs/promises';
import { request, type Server } from 'node:http';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { MediaStore } from '../dist/media/media-store.service.js';
import { RecordingsService } from '../dist/recordings/recordings.service.js';
import { approveShorts, seedRanking } from './seed.js';
import { filesForm, query, talk, wav, World } from './world.js';

let world: World;
let clientId: string;
const mediaDir = process.env['SIFT_REEL_MEDIA_DIR']!;
beforeAll(async () => {
  world = await World.make();
  clientId = await world.client();
});
afterAll(() => world.close());

const partials = async (): Promise<string[]> => (await readdir(mediaDir)).filter((name) => name.endsWith('.partial'));
const bringIn = (files: Parameters<typeof filesForm>[0]) => world.owner.post(`clients/${clientId}/recordings`, filesForm(files));

/** Sends a multipart body piece by piece, as slow or as broken as a test wants it. @returns status and problem, as soon as they are there */
function sendRaw(
  pieces: (send: (text: string | Buffer) => Promise<void>) => Promise<void>,
  end: 'whole' | 'cut' = 'whole',
): Promise<{ status: number; detail: string }> {
  return new Promise((resolve, reject) => {
    const call = request(`${world.base}/api/clients/${clientId}/recordings`, {
      method: 'POST',
      headers: { cookie: world.owner.cookie, 'x-csrf-token': world.owner.csrf, 'content-type': 'multipart/form-data; boundary=XX' },
    });
    let answered = false;
    call.on('response', (response) => {
      answered = true;
      let text = '';
      response.setEncoding('utf8').on('data', (chunk: string) => (text += chunk));
      response.on('end', () => resolve({ status: response.statusCode!, detail: (JSON.parse(text || '{}') as { detail?: string }).detail ?? '' }));
    });
    call.on('error', (error) => {
      if (!answered) reject(error);
    });
    const send = (text: string | Buffer): Promise<void> =>
      new Promise((next) => {
        if (answered || call.destroyed) next();
        else call.write(text, () => next());
      });
    void pieces(send).then(() => {
      if (end === 'cut') call.destroy();
      else if (!answered) call.end();
    });
  });
}
const part = (field: string, name: string): string => `--XX\r\nContent-Disposition: form-data; name="${field}"; filename="${name}"\r\n\r\n`;

describe('what is brought in', () => {
  it('as a transcript over 64 MB is refused while it is still being sent', async () => {
    let sent = 0;
    const answer = await sendRaw(async (send) => {
      await send(part('transcript', 'huge.vtt'));
      const block = Buffer.alloc(1_000_000, 'a');
      for (; sent < 200; sent += 1) await send(block); // 200 MB, if nobody stops us
    });
    expect(answer).toEqual({ status: 413, detail: expect.stringContaining('over 64 MB') });
    expect(sent).toBeLessThan(150);
  });
  it('may take as long as it likes, as long as something comes', () => {
    const server = world.app.getHttpServer() as Server;
    expect(server.requestTimeout).toBe(0);
    expect(server.timeout).toBeGreaterThanOrEqual(60_000);
  });
  it('a sound that a row names stays, whatever fails once the rows stand', async () => {
    const read = vi.spyOn(world.app.get(RecordingsService), 'read').mockRejectedValueOnce(new Error('the line went'));
    expect((await bringIn({ sound: ['stays.wav', wav(2)] })).status).toBe(500);
    read.mockRestore();
    const [row] = await query("SELECT sound_file FROM recordings WHERE sound_name = 'stays.wav'");
    expect(await readdir(mediaDir)).toContain(row!['sound_file']);
  });
  it('twice of a kind, or as something else, is refused; nothing is dropped in silence', async () => {
    const twice = new FormData();
    for (const name of ['a.vtt', 'b.vtt']) twice.append('transcript', new Blob([talk(1)]), name);
    expect((await world.owner.post(`clients/${clientId}/recordings`, twice)).body).toMatchObject({
      status: 400,
      detail: 'There are two transcripts. Send one.',
    });
    const sounds = new FormData();
    for (const name of ['a.wav', 'b.wav']) sounds.append('sound', new Blob([wav(1)]), name);
    expect((await world.owner.post(`clients/${clientId}/recordings`, sounds)).body).toMatchObject({
      status: 400,
      detail: 'There are two sound files. Send one.',
    });
    const odd = new FormData();
    odd.append('video', new Blob(['x']), 'a.bin');
    expect((await world.owner.post(`clients/${clientId}/recordings`, odd)).status).toBe(400);
    expect(await partials()).toEqual([]);
  });
  it('leaves nothing behind when a part is malformed, or the line breaks', async () => {
    const malformed = await sendRaw(async (send) => {
      await send(part('sound', 'a.wav'));
      await send(Buffer.from(wav(2)));
      await send('\r\n--XX\r\nthis is no header at all\r\n\r\n');
    });
    expect(malformed.status).toBe(400);
    await sendRaw(async (send) => {
      await send(part('sound', 'a.wav'));
      await send(Buffer.from(wav(2)));
      await wait(100);
    }, 'cut').catch(() => undefined);
    await expect.poll(partials).toEqual([]);
  });
  it.each([
    ['a playlist', '#EXTM3U\n#EXT-X-TARGETDURATION:10\n#EXTINF:10,\nVICTIM\n#EXT-X-ENDLIST\n'],
    ['a list of files', "ffconcat version 1.0\nfile 'VICTIM'\n"],
  ])('as %s is no sound, whatever it is called, and reads nobody else’s file', async (_, text) => {
    const victim = `${randomUUID()}.wav`;
    await writeFile(join(mediaDir, victim), wav(3));
    const answer = await bringIn({ sound: ['song.mp3', Buffer.from(text.replace('VICTIM', join(mediaDir, victim)))] });
    expect([answer.status, answer.body.detail]).toEqual([422, expect.stringContaining('neither sound nor video that can be read')]);
  });
  it('a sound that is shorter than its transcript does not shorten the recording', async () => {
    const { body } = await bringIn({ transcript: ['hour.vtt', talk(60)] });
    const added = await world.owner.post(`recordings/${body.id}/files`, filesForm({ sound: ['ten-seconds.wav', wav(10)] }));
    expect(added.body.durationMs).toBe(body.durationMs);
  });
  it('a sound under approved shorts is not replaced in silence', async () => {
    const seeded = await seedRanking(world, clientId);
    const path = `recordings/${seeded.recordingId}/files`;
    expect((await world.owner.post(path, filesForm({ sound: ['a.wav', wav(4)] }))).status).toBe(201);
    await approveShorts(world, seeded, 1);
    const refused = await world.owner.post(path, filesForm({ sound: ['b.wav', wav(4)] }));
    expect([refused.status, refused.body.detail]).toEqual([409, expect.stringContaining('Approved shorts are cut from this sound')]);
  });
  it('a transcript is not swapped under a sift, whichever comes first', async () => {
    const { body } = await bringIn({ transcript: ['a.vtt', talk(2)] });
    const brief = { partStartMs: 0, partEndMs: null, minMs: 10_000, maxMs: 30_000, roughCount: 5, topics: [], kinds: [], avoid: [] };
    const [sift, swap] = await Promise.all([
      world.owner.post(`recordings/${body.id}/sifts`, brief),
      world.owner.post(`recordings/${body.id}/files`, filesForm({ transcript: ['b.vtt', talk(3, 'other ')] })),
    ]);
    const [row] = await query('SELECT source_name FROM transcripts WHERE recording_id = $1', [body.id]);
    const [sifts] = await query(
      'SELECT created_at > (SELECT created_at FROM transcripts WHERE recording_id = $1) AS after FROM sifts WHERE recording_id = $1',
      [body.id],
    );
    expect(sift.status).toBe(201);
    if (swap.status === 201) expect([row, sifts]).toEqual([{ source_name: 'b.vtt' }, { after: true }]);
    else expect([swap.status, row]).toEqual([409, { source_name: 'a.vtt' }]);
  });
  it('that needs more time or memory than a transcript may is refused, and holds nobody up', async () => {
    const words = `WEBVTT\n\n00:00.000 --> 00:05.000\n${'a'.repeat(1_000_000)}\n`;
    const [answer, other] = await Promise.all([bringIn({ transcript: ['one-word.vtt', words] }), bringIn({ transcript: ['fine.vtt', talk(1)] })]);
    expect(other.status).toBe(201);
    expect([201, 422]).toContain(answer.status);
  });
});

describe('files that no row names', () => {
  it('are swept away when they are old: left by a kill between file and row, or by an upload that never ended', async () => {
    const store = new MediaStore({ mediaDir, store: null } as never, null as never, null);
    await mkdir(mediaDir, { recursive: true });
    const named = (): Promise<Set<string>> =>
      query('SELECT sound_file FROM recordings WHERE sound_file IS NOT NULL').then((rows) => new Set(rows.map((one) => String(one['sound_file']))));
    await store.sweep(named); // what other files of this process left a quarter of an hour ago
    const [orphan, partial, young] = [`${randomUUID()}.mp3`, `${randomUUID()}.partial`, `${randomUUID()}.partial`];
    for (const name of [orphan, partial, young]) await writeFile(join(mediaDir, name), 'x');
    const { body } = await bringIn({ sound: ['kept.wav', wav(2)] });
    const [row] = await query('SELECT sound_file FROM recordings WHERE id = $1', [body.id]);
    expect(await store.sweep(named)).toBe(0); // all of it is of this minute
    const later = Date.now() + 16 * 60_000;
    await utimes(join(mediaDir, young), new Date(later), new Date(later)); // still being written, as it were
    expect(await store.sweep(named, later)).toBeGreaterThanOrEqual(2);
    const left = await readdir(mediaDir);
    expect(left).toContain(row!['sound_file']);
    expect(left).toContain(young);
    expect(left.some((name) => name === orphan || name === partial)).toBe(false);
  });
});
