import { mkdtemp, mkdir, rm, writeFile } from 'node:fs/promises';
import { createServer, type Server } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Parser from 'rss-parser';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { PodcastHost } from './podcast-host.js';

let folder: string;
let server: Server;
let base: string;
const host = (): PodcastHost => new PodcastHost(folder, 400);
let shown: PodcastHost;
const episode = (n: number, held = false): object => ({
  guid: `night-${n}`,
  number: String(n),
  season: 1,
  title: `Salt & rope <${n}>`,
  summary: 'Made up.',
  publishedAt: `2026-01-0${n}T06:00:00.000Z`,
  seconds: 61,
  sound: { file: `n${n}.ogg`, type: 'audio/ogg', bytes: 1_000 },
  transcript: { file: `n${n}.vtt`, type: 'text/vtt' },
  chapters: [{ startTime: 0, title: 'Hello' }],
  guests: [],
  held,
});
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'sift-reel-host-'));
  await mkdir(join(folder, 'low-water'));
  const show = { title: 'Low Water', about: '', hosts: ['Ada'], ttlMinutes: 60, pageSize: 2, episodes: [episode(4, true), episode(3), episode(2), episode(1)] };
  await writeFile(join(folder, 'low-water', 'show.json'), JSON.stringify(show));
  await writeFile(join(folder, 'low-water', 'n3.ogg'), Buffer.alloc(1_000, 'x'));
  await writeFile(join(folder, 'secret.txt'), 'secret');
  shown = host();
  server = createServer((request, response) => void shown.answer(request, response).catch(() => response.destroy()));
  await new Promise<void>((resolve) => {
    server.listen(0, '127.0.0.1', resolve);
  });
  base = `http://127.0.0.1:${(server.address() as { port: number }).port}/shows/low-water`;
});
afterAll(async () => {
  server.closeAllConnections();
  server.close();
  await rm(folder, { recursive: true, force: true });
});
const titles = async (page: string): Promise<(string | undefined)[]> => {
  const { items } = await new Parser().parseString(await (await fetch(`${base}/${page}`)).text());
  return items.map(({ title }) => title);
};

describe('the made-up podcast host', () => {
  it('has a feed in pages that another reader reads, and an episode more when it is told to', async () => {
    expect([await titles('feed.xml'), await titles('feed.xml?page=2')]).toEqual([['Salt & rope <3>', 'Salt & rope <2>'], ['Salt & rope <1>']]);
    expect((await fetch(`${base}/publish`, { method: 'PUT' })).status).toBe(204);
    expect(await titles('feed.xml')).toEqual(['Salt & rope <4>', 'Salt & rope <3>']);
  });
  it('says when nothing changed', async () => {
    const etag = (await fetch(`${base}/feed.xml`)).headers.get('etag')!;
    expect((await fetch(`${base}/feed.xml`, { headers: { 'if-none-match': etag } })).status).toBe(304);
  });
  it('gives its files in ranges, and nothing beside them', async () => {
    const part = await fetch(`${base}/files/n3.ogg`, { headers: { range: 'bytes=990-' } });
    expect([part.status, part.headers.get('content-range'), (await part.arrayBuffer()).byteLength]).toEqual([206, 'bytes 990-999/1000', 10]);
    for (const name of ['..%2F..%2Fsecret.txt', 'show.json', 'n9.ogg', '%2e%2e%2fsecret.txt'])
      expect((await fetch(`${base}/files/${name}`)).status, name).toBe(404);
    expect((await fetch(base.replace('low-water', '..%2Flow-water'))).status).toBe(404);
  });
  it('does as badly as it is told to', async () => {
    const tell = async (manner: string): Promise<number> => (await fetch(base.replace('low-water', `manner/${manner}`), { method: 'PUT' })).status;
    expect([await tell('sulking'), await tell('broken-off')]).toEqual([400, 204]);
    await expect(fetch(`${base}/files/n3.ogg`).then((response) => response.arrayBuffer())).rejects.toThrow();
    await tell('not-now');
    const refused = await fetch(`${base}/feed.xml`);
    expect([refused.status, refused.headers.get('retry-after')]).toEqual([503, '2']);
    await tell('gone');
    expect((await fetch(`${base}/feed.xml`)).status).toBe(410);
    await tell('well');
    expect((await fetch(`${base}/files/n3.ogg`)).status).toBe(200);
  });
});
