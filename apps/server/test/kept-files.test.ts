import { access, mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import pg from 'pg';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { KeptFiles } from '../dist/rendering/kept-files.service.js';
import { approveShorts, seedRanking } from './seed.js';
import { query, World } from './world.js';

const DAY_MS = 86_400_000;
const START = Date.parse('2055-03-01T12:00:00Z');
const day = (n: number): Date => new Date(START + n * DAY_MS);
let world: World;
let clientId: string;
let channelId: string;
let shortId: string;
let files: KeptFiles;
let n = 0;
beforeAll(async () => {
  world = await World.make();
  clientId = await world.client();
  channelId = await world.channel(clientId);
  const seeded = await seedRanking(world, clientId);
  shortId = (await approveShorts(world, seeded, 1))[0]!;
  files = world.app.get(KeptFiles, { strict: false });
});
afterAll(() => world.close());

async function keptFor(days: number | null): Promise<void> {
  const version = (await world.owner.get('clients')).body.find((one: { id: string }) => one.id === clientId).version as number;
  expect((await world.owner.put(`clients/${clientId}/files-kept`, { days, version })).status).toBe(200);
}
/** A finished file of the short, made on a day. */
async function made(on: number): Promise<{ id: string; path: string }> {
  const name = `kept-${(n += 1)}.mp4`;
  const folder = join(process.env['SIFT_REEL_MEDIA_DIR']!, 'renders');
  await mkdir(folder, { recursive: true });
  await writeFile(join(folder, name), 'made');
  const [row] = await query(
    `INSERT INTO renders (client_id, short_id, key, shape, plan, file, bytes, kept_from) VALUES ($1, $2, $3, 'wide', '{"cuts":[]}', $3, 4, $4) RETURNING id`,
    [clientId, shortId, name, day(on)],
  );
  return { id: String(row!['id']), path: join(folder, name) };
}
const isThere = (path: string): Promise<boolean> =>
  access(path).then(
    () => true,
    () => false,
  );
const going = async (): Promise<[string, string][]> =>
  (await world.owner.get('files-going')).body.map(({ id, goesAt }: { id: string; goesAt: string }) => [id, goesAt]);

describe('finished files', () => {
  it('are kept for good where nobody says otherwise', async () => {
    const { path } = await made(0);
    expect(await files.look(day(3_000))).toBe(0);
    expect([await going(), await isThere(path)]).toEqual([[], true]);
    await query('DELETE FROM renders WHERE short_id = $1', [shortId]);
  });

  it('are told of a week before they go, and then go', async () => {
    await keptFor(30);
    const { id, path } = await made(0);
    await files.look(day(22));
    expect(await going()).toEqual([]);
    await files.look(day(23));
    expect(await going()).toEqual([[id, day(30).toISOString()]]);
    expect([await files.look(day(29)), await isThere(path)]).toEqual([0, true]);
    expect([await files.look(day(30)), await isThere(path), await going()]).toEqual([1, false, []]);
    const trail = (await world.owner.get(`clients/${clientId}/audit`)).body as { action: string; who: string }[];
    expect(trail[0]).toMatchObject({ action: 'let-go', who: 'Sift Reel' });
  });

  it('do not go untold when the time is made shorter, and are not told of any more when it is made longer', async () => {
    await keptFor(365);
    const { id, path } = await made(0);
    await files.look(day(100));
    expect(await going()).toEqual([]);
    await keptFor(30);
    await files.look(day(100));
    expect(await going()).toEqual([[id, day(107).toISOString()]]);
    expect(await files.look(day(106))).toBe(0);
    await keptFor(365);
    expect([await files.look(day(110)), await going(), await isThere(path)]).toEqual([0, [], true]);
    await query('DELETE FROM renders WHERE short_id = $1', [shortId]);
  });

  it('stay while their short is still to go out, and are told of once it has', async () => {
    await keptFor(30);
    const { id, path } = await made(0);
    const placements = [{ shortId, channelId, date: '2055-05-05', minute: 450, why: '' }];
    const [post] = (await world.owner.post('schedule/posts', { batchId: null, placements })).body;
    await files.look(day(23));
    expect([await files.look(day(40)), await going(), await isThere(path)]).toEqual([0, [], true]);
    await query(`UPDATE posts SET state = 'posted' WHERE id = $1`, [post.id]);
    expect([await files.look(day(41)), await isThere(path), await going()]).toEqual([0, true, [[id, day(48).toISOString()]]]);
    expect([await files.look(day(48)), await isThere(path)]).toEqual([1, false]);
  });

  it('are kept longer by whoever asks, from that day on', async () => {
    await keptFor(30);
    const { id } = await made(0);
    await files.look(day(25));
    expect((await going()).map(([one]) => one)).toEqual([id]);
    expect((await world.owner.put(`renders/${id}/keeping`)).status).toBe(204);
    expect(await going()).toEqual([]);
    expect(await query(`SELECT kept_from > now() - interval '1 minute' AS now, announced_at FROM renders WHERE id = $1`, [id])).toEqual([
      { now: true, announced_at: null },
    ]);
    await query('DELETE FROM renders WHERE short_id = $1', [shortId]);
    expect((await world.owner.put(`renders/${id}/keeping`)).status).toBe(404);
  });

  it('that somebody keeps longer in the moment they would go stay', async () => {
    await keptFor(30);
    const { id, path } = await made(0);
    await files.look(day(23));
    const keeping = new pg.Client({ connectionString: process.env['SIFT_REEL_DATABASE_URL'] });
    await keeping.connect();
    try {
      // Somebody's wish that is being written holds the row: it is passed over, and looked at again next time.
      await keeping.query('BEGIN');
      await keeping.query('UPDATE renders SET kept_from = $2, announced_at = NULL WHERE id = $1', [id, day(30)]);
      const looked = files.look(day(30));
      await keeping.query('COMMIT');
      expect([await looked, await isThere(path)]).toEqual([0, true]);
    } finally {
      await keeping.end();
    }
    expect([await files.look(day(31)), await isThere(path)]).toEqual([0, true]);
    await query('DELETE FROM renders WHERE short_id = $1', [shortId]);
  });

  it('of an archived client stay, since nobody is told of them; when it comes back they are', async () => {
    await keptFor(30);
    const { id, path } = await made(0);
    await files.look(day(23));
    expect((await world.owner.delete(`clients/${clientId}`)).status).toBe(204);
    expect([await files.look(day(40)), await going(), await isThere(path)]).toEqual([0, [], true]);
    expect((await world.owner.post(`archived-clients/${clientId}/restore`)).status).toBe(200);
    await files.look(day(50));
    expect(await going()).toEqual([[id, day(57).toISOString()]]);
    await query('DELETE FROM renders WHERE short_id = $1', [shortId]);
  });

  it('go once, whoever looks at the same moment', async () => {
    await keptFor(30);
    for (let i = 0; i < 5; i += 1) await made(0);
    await files.look(day(23));
    const gone = await Promise.all(Array.from({ length: 4 }, () => files.look(day(30))));
    expect(gone.reduce((sum, one) => sum + one)).toBe(5);
    expect(await query('SELECT 1 FROM renders WHERE short_id = $1', [shortId])).toEqual([]);
  });

  it.each([0, 6, 3_651, 1.5])('are never kept for %s days', async (days) => {
    expect((await world.owner.put(`clients/${clientId}/files-kept`, { days, version: 1 })).status).toBe(400);
  });
});
