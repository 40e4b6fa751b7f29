import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { MadeFiles } from './made-files.js';

let dir: string;
let server: Server;
const NOW = Date.UTC(2026, 3, 1);
beforeAll(async () => {
  dir = await mkdtemp(join(tmpdir(), 'sift-reel-made-'));
  const files = new MadeFiles(dir);
  server = createServer((request, response) => void files.answer(request, response, NOW));
  await new Promise<void>((resolve) => {
    server.listen(0, '127.0.0.1', resolve);
  });
});
afterAll(async () => {
  server.close();
  await rm(dir, { recursive: true, force: true });
});
const ask = (name: string): Promise<Response> => fetch(`http://127.0.0.1:${(server.address() as AddressInfo).port}/made/${name}`);
const waits = async (name: string): Promise<[number, string | null]> => {
  const { status, headers } = await ask(name);
  return [status, headers.get('retry-after')];
};

it('says how long a file still takes, and has it then', async () => {
  expect(await waits('talk.ogg')).toEqual([503, '60']);
  await writeFile(join(dir, 'ready.json'), JSON.stringify({ 'talk.ogg': NOW + 90_500, 'late.mp4': NOW - 1 }));
  expect([await waits('talk.ogg'), await waits('late.mp4')]).toEqual([
    [503, '91'],
    [503, '5'],
  ]);
  await writeFile(join(dir, 'talk.ogg'), 'sound');
  const answer = await ask('talk.ogg');
  expect([answer.status, await answer.text()]).toEqual([200, 'sound']);
});

it.each(['ready.json', '..%2fready.json', '../ready.json', 'talk.ogg.made', ''])('has nothing else: %s', async (name) => {
  expect((await ask(name)).status).toBe(404);
});
