import pg from 'pg';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { approveShorts, seedRanking } from './seed.js';
import { query, World } from './world.js';

let world: World;
let clientId: string;
let channelId: string;
/** Of two recordings; the second scores more. */
let weak: string;
let strong: string;
/** The weak one, on the heavy slot. */
let postId: string;
const [MONDAY, TUESDAY] = ['2055-05-03', '2055-05-04'];
const days = { fromDate: MONDAY, toDate: '2055-05-09' };

interface Row {
  readonly id: string;
  readonly shortId: string;
  readonly date: string;
  readonly minute: number;
  readonly why: string;
  readonly movable: boolean;
  readonly version: number;
}

beforeAll(async () => {
  world = await World.make();
  clientId = await world.client();
  const windows = [
    { weekday: 1, minute: 450, weight: 100 },
    { weekday: 2, minute: 450, weight: 50 },
  ];
  channelId = await world.channel(clientId, { windows });
  const shorts = [
    ...(await approveShorts(world, await seedRanking(world, clientId), 3)),
    ...(await approveShorts(world, await seedRanking(world, clientId), 3)),
  ];
  const known = (await world.shorts()).filter((one: { id: string }) => shorts.includes(one.id)) as { id: string; recordingId: string; score: number }[];
  const sorted = known.sort((a, b) => b.score - a.score);
  strong = sorted[0]!.id;
  weak = sorted.findLast((one) => one.recordingId !== sorted[0]!.recordingId)!.id;
  const placements = [{ shortId: weak, channelId, date: MONDAY, minute: 450, why: 'Put here by hand.' }];
  postId = (await world.owner.post('schedule/posts', { batchId: null, placements })).body[0].id;
});
afterAll(() => world.close());

const propose = async (fields: object = {}) =>
  (await world.owner.post('schedule/proposals', { shortIds: [strong], ...days, kept: [], whatIf: [], ...fields })).body;
const onRecord = async (): Promise<Row[]> =>
  (await world.owner.get('schedule')).body.posts
    .filter((post: { clientId: string }) => post.clientId === clientId)
    .sort((a: Row, b: Row) => a.date.localeCompare(b.date));
const theWeak = async (): Promise<Row> => (await onRecord()).find((post) => post.id === postId)!;
const mark = async (movable: boolean, version?: number) =>
  world.owner.put('posts/movable', { movable, posts: [{ postId, version: version ?? (await theWeak()).version }] });
const wished = ({ shortId, date, minute, why }: Row) => ({ shortId, channelId, date, minute, why });
const move = ({ postId: id, date, minute, version, why }: Row & { postId: string }) => ({ postId: id, channelId, date, minute, version, why });

describe('a post that may move', () => {
  it('is moved by nothing before it is marked', async () => {
    const { placements, moves } = await propose();
    expect([placements[0].date, moves]).toEqual([TUESDAY, []]);
  });
  it('is marked and unmarked as it was seen, once by two at once, and on record', async () => {
    const { version } = await theWeak();
    const both = await Promise.all([mark(true, version), mark(true, version)]);
    expect(both.map((answer) => answer.status).sort()).toEqual([200, 409]);
    expect((await mark(false, version)).body.code).toBe('stale');
    expect((await theWeak()).movable).toBe(true);
    expect((await mark(false)).status).toBe(200);
    expect((await mark(true)).status).toBe(200);
    const twice = await world.owner.put('posts/movable', { movable: true, posts: [1, 2].map(() => ({ postId, version })) });
    expect(twice.status).toBe(422);
    const done = await query(`SELECT action FROM audit_entries WHERE subject_id = $1 AND action LIKE 'let-%' ORDER BY id`, [postId]);
    expect(done.map((row) => row['action'])).toEqual(['let-move', 'let-stay', 'let-move']);
  });
  it('is proposed a place that makes room for a better one; nothing is written', async () => {
    const { placements, moves, value, bound } = await propose();
    expect(placements.map((one: Row) => [one.shortId, one.date])).toEqual([[strong, MONDAY]]);
    const { version } = await theWeak();
    expect(moves).toMatchObject([{ postId, version, shortId: weak, channelId, date: TUESDAY, minute: 450, fromDate: MONDAY, fromMinute: 450 }]);
    expect(value).toBeCloseTo(placements[0].worth + moves[0].worth - moves[0].worthBefore, 6);
    expect(bound).toBeGreaterThanOrEqual(value);
    expect((await theWeak()).date).toBe(MONDAY);
  });
  it('goes where it was to go when it is asked again around a place that it made room for', async () => {
    const { placements, moves } = await propose();
    const alone = await world.owner.post('schedule/proposals', { shortIds: [strong], ...days, kept: placements.map(wished), whatIf: [] });
    expect([alone.status, alone.body.detail]).toEqual([409, expect.stringContaining('cannot stay on')]);
    const again = await propose({ kept: placements.map(wished), keptMoves: moves.map(move).map(({ why: _, ...rest }: { why: string }) => rest) });
    expect([again.placements, again.moves]).toEqual([[], []]);
  });
  it('moves with the plan that is accepted, whole or not at all, however it breaks and however many accept it', async () => {
    const { placements, moves } = await propose();
    const asked = { batchId: null, placements: placements.map(wished), moves: moves.map(move) };
    // Without the move there is no room; with a move to the past nothing is written; nor as it was not seen.
    for (const broken of [
      { ...asked, moves: [] },
      { ...asked, moves: [{ ...asked.moves[0], date: '2001-01-01' }] },
      { ...asked, moves: [{ ...asked.moves[0], version: 99 }] },
    ])
      expect((await world.owner.post('schedule/posts', broken)).status).toBe(409);
    expect(await onRecord()).toMatchObject([{ id: postId, date: MONDAY }]);
    await whileTheTrailIsHeld(async (brokenOff) => {
      const accepting = world.owner.post('schedule/posts', asked);
      await brokenOff();
      expect((await accepting).status).toBeGreaterThanOrEqual(500);
    });
    expect(await onRecord()).toMatchObject([{ id: postId, date: MONDAY }]);
    const both = await Promise.all([1, 2, 3].map(() => world.owner.post('schedule/posts', asked)));
    expect(both.map((answer) => answer.status).sort()).toEqual([201, 409, 409]);
    const now = await onRecord();
    expect(now.map(({ shortId, date }) => [shortId, date])).toEqual([
      [strong, MONDAY],
      [weak, TUESDAY],
    ]);
    expect(now[1]).toMatchObject({ id: postId, why: moves[0].why, movable: true });
  });
  it('goes back to where it was, with the reason that it had', async () => {
    const [first, second] = await onRecord();
    expect((await world.owner.delete(`posts/${first!.id}`)).status).toBe(204);
    const moves = [{ postId, channelId, date: MONDAY, minute: 450, version: second!.version, why: 'Put here by hand.' }];
    expect((await world.owner.post('schedule/posts', { batchId: null, placements: [], moves })).status).toBe(201);
    expect(await onRecord()).toMatchObject([{ id: postId, date: MONDAY, why: 'Put here by hand.' }]);
  });
  it('is nobody’s to mark but its client’s people’s', async () => {
    const stranger = await world.producer([await world.client()]);
    const { version } = await theWeak();
    expect((await stranger.put('posts/movable', { movable: false, posts: [{ postId, version }] })).status).toBe(404);
    const own = await world.producer([clientId]);
    expect((await own.put('posts/movable', { movable: false, posts: [{ postId, version }] })).status).toBe(200);
  });
  it('is not marked once it is posted', async () => {
    await query(`UPDATE posts SET state = 'posted', version = version + 1 WHERE id = $1`, [postId]);
    const { status, body } = await mark(true);
    expect([status, body.detail]).toEqual([409, expect.stringContaining('is not planned any more')]);
  });
});

/** Holds what a write notes down of itself, and breaks its line to the database there. */
async function whileTheTrailIsHeld(act: (breakOff: () => Promise<void>) => Promise<void>): Promise<void> {
  const other = new pg.Client({ connectionString: process.env['SIFT_REEL_DATABASE_URL']! });
  await other.connect();
  try {
    await other.query('BEGIN');
    await other.query('LOCK TABLE audit_entries IN EXCLUSIVE MODE');
    await act(async () => {
      const waits = `SELECT pid FROM pg_stat_activity WHERE datname = current_database() AND wait_event_type = 'Lock' AND query LIKE '%INTO "audit_entries"%'`;
      await vi.waitFor(async () => expect(await query(waits)).toHaveLength(1), { timeout: 10_000, interval: 20 });
      await query(`SELECT pg_terminate_backend(pid) FROM (${waits}) AS waiting`);
    });
    await other.query('ROLLBACK');
  } finally {
    await other.end();
  }
}
