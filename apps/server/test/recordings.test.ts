import { execFileSync } from 'node:child_process';
import { readdirSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { unpackTranscript } from '@sift-reel/core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { filesForm, query, World } from './world.js';

let world: World;
let clientId: string;
let sound: Uint8Array;
beforeAll(async () => {
  world = await World.make();
  clientId = await world.client();
  const file = join(tmpdir(), `sift-reel-tone-${process.pid}.ogg`);
  execFileSync('ffmpeg', ['-v', 'error', '-y', '-f', 'lavfi', '-i', 'sine=frequency=300:duration=12', '-c:a', 'libopus', '-b:a', '24k', file]);
  sound = readFileSync(file);
});
afterAll(() => world.close());

const VTT = 'WEBVTT\n\n00:00.000 --> 00:04.000\n<v Ann>Hello there. It works.\n\n00:04.000 --> 00:08.000\n<v Bo>Does it? It does.\n';
const bring = (files: Parameters<typeof filesForm>[0]) => world.owner.post(`clients/${clientId}/recordings`, filesForm(files));
const stored = async (): Promise<number> => Number((await query('SELECT count(*) AS n FROM recordings WHERE client_id = $1', [clientId]))[0]!['n']);
const onDisk = (): string[] => readdirSync(process.env['SIFT_REEL_MEDIA_DIR']!);

describe('bringing in', () => {
  it.each([
    ['talk.vtt', VTT, 'webvtt'],
    ['talk.srt', '1\r\n00:00:00,000 --> 00:00:02,000\r\nHello there.\r\n', 'subrip'],
    ['talk.json', JSON.stringify({ version: '1.0.0', segments: [{ startTime: 0, endTime: 2, speaker: 'Ann', body: 'Hello there.' }] }), 'podcast-json'],
    ['talk.txt', '[00:00] Ann: Hello there.\n[00:05] Bo: And you.\n', 'stamped-text'],
  ])('%s', async (name, text, format) => {
    const answer = await bring({ transcript: [name, text] });
    expect(answer.status).toBe(201);
    expect(answer.body).toMatchObject({ title: 'talk', sound: null, transcript: { format, sourceName: name } });
    const packed = (await world.owner.get(`recordings/${answer.body.id}/transcript`)).body;
    expect(unpackTranscript(packed).words[0]).toMatchObject({ text: 'Hello', startMs: 0 });
  });
  it('takes a sound beside it, to disk, and answers ranges', async () => {
    const answer = await bring({ title: 'With sound', transcript: ['a.vtt', VTT], sound: ['a.ogg', sound] });
    expect(answer.body).toMatchObject({
      title: 'With sound',
      durationMs: expect.any(Number),
      sound: { name: 'a.ogg', bytes: sound.length, type: 'audio/ogg' },
    });
    expect(answer.body.durationMs).toBeGreaterThan(11_900);
    const part = await world.owner.call('GET', `recordings/${answer.body.id}/sound`, undefined, { range: 'bytes=0-99' });
    expect([part.status, part.headers.get('content-range'), part.headers.get('content-type')]).toEqual([206, `bytes 0-99/${sound.length}`, 'audio/ogg']);
  });
  it('lets a recording wait for its transcript', async () => {
    const { body } = await bring({ sound: ['waits.ogg', sound] });
    expect(body.transcript).toBeNull();
    expect(
      (
        await world.owner.post(`recordings/${body.id}/sifts`, {
          partStartMs: 0,
          partEndMs: null,
          minMs: 5_000,
          maxMs: 9_000,
          roughCount: 3,
          topics: [],
          kinds: [],
          avoid: [],
        })
      ).status,
    ).toBe(409);
    const added = await world.owner.post(`recordings/${body.id}/files`, filesForm({ transcript: ['waits.vtt', VTT] }));
    expect(added.body.transcript.wordCount).toBe(8);
  });
  it('lists what was repaired', async () => {
    const { body } = await bring({
      transcript: ['messy.vtt', 'WEBVTT\n\n00:05.000 --> 00:04.000\nBackwards.\n\n00:02.000 --> 00:03.000\nLate.\n\n00:07.000 --> 00:08.000\n\n'],
    });
    const repairs = (await world.owner.get(`recordings/${body.id}/repairs`)).body;
    expect(repairs.repairs.map((one: { code: string }) => one.code)).toEqual(expect.arrayContaining(['negative-length', 'unordered']));
    expect(body.transcript.repairCount).toBe(repairs.count);
  });
});

describe('what is refused leaves nothing behind', () => {
  const cases: [string, { transcript?: [string, string]; sound: boolean }, number, object][] = [
    ['bad time', { transcript: ['bad.vtt', 'WEBVTT\n\nsoon --> 00:01.000\nx\n'], sound: true }, 422, { file: 'bad.vtt', line: 3, code: 'bad-time' }],
    ['no transcript at all', { transcript: ['feed.txt', '<rss version="2.0"><channel/></rss>\n'], sound: true }, 422, { code: 'unknown-format' }],
    ['text without times, and no sound to hear them in', { transcript: ['letter.txt', 'Dear all,\n'], sound: false }, 422, { code: 'unknown-format' }],
    ['field of a JSON', { transcript: ['x.json', '{"segments":[{"startTime":"a","body":"b"}]}'], sound: false }, 422, { field: 'segments[0].startTime' }],
    ['no files', { sound: false }, 422, {}],
  ];
  it.each(cases)('%s', async (_, files, status, fields) => {
    const before = [await stored(), onDisk().sort()];
    const answer = await bring({
      ...(files.transcript === undefined ? {} : { transcript: files.transcript }),
      ...(files.sound ? { sound: ['s.ogg', sound] } : {}),
    });
    expect(answer.status).toBe(status);
    expect(answer.body).toMatchObject(fields);
    expect([await stored(), onDisk().sort()]).toEqual(before);
  });
  it('a sound that is none', async () => {
    const before = [await stored(), onDisk().sort()];
    const answer = await bring({ transcript: ['a.vtt', VTT], sound: ['a.mp3', new TextEncoder().encode('not sound at all')] });
    expect([answer.status, answer.body.detail]).toEqual([422, '“a.mp3” is neither sound nor video that can be read.']);
    expect([await stored(), onDisk().sort()]).toEqual(before);
  });
});

describe('a recording', () => {
  it('is renamed and deleted, with its sound', async () => {
    const { body } = await bring({ transcript: ['gone.vtt', VTT], sound: ['gone.ogg', sound] });
    expect((await world.owner.put(`recordings/${body.id}`, { title: 'Other', version: 1 })).body.title).toBe('Other');
    const before = onDisk().length;
    expect((await world.owner.delete(`recordings/${body.id}`)).status).toBe(204);
    expect(onDisk().length).toBe(before - 1);
    expect((await world.owner.get(`recordings/${body.id}`)).status).toBe(404);
  });
  it('leaves a trail', async () => {
    const trail = (await world.owner.get(`clients/${clientId}/audit`)).body as { action: string }[];
    expect(new Set(trail.map((entry) => entry.action))).toEqual(new Set(['create', 'bring-in', 'add-to', 'rename', 'delete']));
  });
});
