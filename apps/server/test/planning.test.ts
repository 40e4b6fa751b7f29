import { addDays, wallTimeAt } from '@sift-reel/core';
import { parse } from 'csv-parse/sync';
import ICAL from 'ical.js';
import pg from 'pg';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { approveShorts, seedRanking } from './seed.js';
import { query, World } from './world.js';

let world: World;
let clientId: string;
let channels: string[];
let shorts: string[];
let draft: string;
// Far enough ahead that no run of these tests ever reaches it, over the change of clocks of 28 March 2055 in Dublin.
const FROM = '2055-03-22';
const TO = '2055-04-04';

beforeAll(async () => {
  world = await World.make();
  clientId = await world.client();
  const platformProfileId = await world.platform();
  const first = await world.channel(clientId, { name: 'First', platformProfileId });
  const second = await world.channel(clientId, { name: 'Second', order: 2, postsPerWeek: 2, zone: 'Australia/Adelaide', platformProfileId });
  channels = [first, second];
  const a = await seedRanking(world, clientId);
  const b = await seedRanking(world, clientId, 5);
  shorts = [...(await approveShorts(world, a, 3)), ...(await approveShorts(world, b, 2))];
  await world.owner.put(`candidates/${b.candidates[4]!.id}/state`, { state: 'kept' });
  draft = (await world.shorts()).find((one: { candidateId: string }) => one.candidateId === b.candidates[4]!.id).id;
});
afterAll(() => world.close());

const propose = (fields: object = {}) =>
  world.owner.post('schedule/proposals', { shortIds: shorts, fromDate: FROM, toDate: TO, kept: [], whatIf: [], ...fields });
/** A placement as it is accepted, or kept. */
const wished = ({ shortId, channelId, date, minute, why }: Record<string, string>) => ({ shortId, channelId, date, minute, why });
const posts = async (): Promise<number> => Number((await query('SELECT count(*) AS n FROM posts WHERE client_id = $1', [clientId]))[0]!['n']);

describe('a batch', () => {
  it('takes approved shorts only', async () => {
    const made = await world.owner.post('batches', { name: 'Early', shortIds: shorts });
    expect(made.status).toBe(201);
    expect((await world.owner.get('batches')).body.find((one: { id: string }) => one.id === made.body.id).shortIds.sort()).toEqual([...shorts].sort());
    const refused = await world.owner.post('batches', { name: 'No', shortIds: [draft] });
    expect([refused.status, refused.body.detail]).toEqual([422, expect.stringContaining('is not approved')]);
    expect((await world.owner.get('batches')).body.some((one: { name: string }) => one.name === 'No')).toBe(false);
  });
});

describe('laying out', () => {
  it('proposes with reasons and writes nothing', async () => {
    const { body } = await propose();
    expect(body.placements.length).toBeGreaterThan(4);
    expect(body.placements.length + body.unplaced.length).toBe(shorts.length * channels.length);
    for (const one of body.placements) expect(one.why).toMatch(/^Weight \d+ times score [\d.]+ adds [\d.]+; .*\.$/);
    expect(body.unplaced.length).toBeGreaterThan(0);
    for (const one of body.unplaced) expect(one.detail).toMatch(/\.$/);
    expect(await posts()).toBe(0);
  });
  it('keeps a wall time over the change of clocks', async () => {
    const { body } = await propose({ fromDate: '2055-03-26' });
    const first = body.placements.filter((one: { channelId: string }) => one.channelId === channels[0]);
    expect([...new Set(first.map((one: { at: string }) => one.at.slice(11, 16)))]).toEqual(['07:30', '06:30']); // in UTC, before and after
    for (const one of first) expect(wallTimeAt('Europe/Dublin', Date.parse(one.at))).toEqual({ date: one.date, minute: 450 });
  });
  it('says what it is worth, and no more than the best can be', async () => {
    const { body } = await propose();
    const worths = body.placements.map((one: { worth: number }) => one.worth);
    expect(body.value).toBeCloseTo(
      worths.reduce((sum: number, one: number) => sum + one, 0),
      6,
    );
    expect(body.bound).toBeGreaterThanOrEqual(body.value - 1e-6);
    expect(body.value / body.bound).toBeGreaterThan(0.9);
  });
  it('is asked again around places that are kept, unless those break a rule', async () => {
    const before = (await propose()).body;
    const kept = { ...wished(before.placements[0]), date: '2055-03-31' };
    const { body } = await propose({ kept: [kept] });
    const place = ({ shortId, channelId }: { shortId: string; channelId: string }): string => `${shortId} ${channelId}`;
    expect(body.placements.map(place)).not.toContain(place(kept as never));
    const all = [kept, ...body.placements.map(wished)].map((one) => ({ ...one }));
    expect(new Set(all.map((one) => `${one.channelId} ${one.date}`)).size).toBe(all.length); // a post a day on each
    const refused = await propose({ kept: [{ ...kept, date: '2001-01-01' }] });
    expect([refused.status, refused.body.detail]).toEqual([409, expect.stringContaining('cannot stay on')]);
    expect(await posts()).toBe(0);
  });
  it('shows what a change of a channel would gain, and makes none', async () => {
    const before = (await propose()).body;
    const change = { channelId: channels[1]!, postsPerDay: null, postsPerWeek: 6, windows: [], blackouts: [] };
    const more = (await propose({ whatIf: [change] })).body;
    expect(more.value).toBeGreaterThan(before.value);
    const closed = (await propose({ whatIf: [{ ...change, postsPerWeek: null, blackouts: [{ fromDate: FROM, toDate: TO }] }] })).body;
    expect(closed.placements.some((one: { channelId: string }) => one.channelId === channels[1])).toBe(false);
    expect((await propose()).body).toEqual(before);
    const strange = await propose({ whatIf: [{ ...change, channelId: shorts[0] }] });
    expect(strange.status).toBe(404);
  });
  it('takes two posts that may only stand together', async () => {
    // Alone, the second would follow one of its own recording; the other parts them, whichever is named first.
    const own = (await world.shorts()).filter((one: { id: string }) => shorts.includes(one.id)) as { id: string; recordingId: string }[];
    const [a, b] = [own[0]!, own.find((one) => one.recordingId === own[0]!.recordingId && one.id !== own[0]!.id)!];
    const other = own.find((one) => one.recordingId !== a.recordingId)!;
    const on = (shortId: string, date: string): object => ({ shortId, channelId: channels[0], date, minute: 450, why: 'x' });
    const placements = [on(a.id, '2055-04-05'), on(b.id, '2055-04-07'), on(other.id, '2055-04-06')];
    const made = await world.owner.post('schedule/posts', { batchId: null, placements });
    expect(made.status).toBe(201);
    const alone = await world.owner.delete(`posts/${made.body[2].id}`);
    expect(alone.status).toBe(204);
    for (const post of made.body.slice(0, 2)) expect((await world.owner.delete(`posts/${post.id}`)).status).toBe(204);
  });
  it('is accepted whole, or not at all', async () => {
    const { body } = await propose();
    const broken = body.placements.map(wished).map((one: object, i: number) => (i === body.placements.length - 1 ? { ...one, date: '2001-01-01' } : one));
    const refused = await world.owner.post('schedule/posts', { batchId: null, placements: broken });
    expect(refused.status).toBe(409);
    expect(await posts()).toBe(0);
    const accepted = await world.owner.post('schedule/posts', { batchId: null, placements: body.placements.map(wished) });
    expect(accepted.status).toBe(201);
    expect(await posts()).toBe(body.placements.length);
  });
  it('never puts two of one recording in a row, and a second channel later than the first', async () => {
    const { body } = await world.owner.get('schedule');
    const mine = body.posts
      .filter((post: { clientId: string }) => post.clientId === clientId)
      .sort((a: { at: string }, b: { at: string }) => a.at.localeCompare(b.at));
    for (const channelId of channels) {
      const row = mine.filter((post: { channelId: string }) => post.channelId === channelId);
      expect(row.length).toBeGreaterThan(1);
      row.forEach((post: { recordingId: string }, i: number) => {
        if (i > 0) expect(post.recordingId).not.toBe(row[i - 1].recordingId);
      });
    }
    for (const post of mine.filter((one: { channelId: string }) => one.channelId === channels[1])) {
      const earlier = mine.find((one: { channelId: string; shortId: string }) => one.channelId === channels[0] && one.shortId === post.shortId);
      expect(Date.parse(post.at) - Date.parse(earlier.at)).toBeGreaterThanOrEqual(20 * 3_600_000);
    }
  });
});

describe('a post', () => {
  const first = async () =>
    (await world.owner.get('schedule')).body.posts
      .filter((post: { channelId: string }) => post.channelId === channels[0])
      .sort((a: { at: string }, b: { at: string }) => a.at.localeCompare(b.at));
  it('moves where it may, and is refused with the reason where it may not', async () => {
    const row = await first();
    const taken = await world.writePost(row[0].id, 'place', { channelId: channels[0], date: row[1].date, minute: row[1].minute });
    expect([taken.status, taken.body.detail]).toEqual([409, expect.stringMatching(/already has 1 of 1 posts/)]);
    const past = await world.writePost(row[0].id, 'place', { channelId: channels[0], date: '2020-01-01', minute: 450 });
    expect(past.body.detail).toMatch(/is over/);
    const free = await world.writePost(row[0].id, 'place', { channelId: channels[0], date: row[0].date, minute: 600 });
    expect([free.status, free.body.minute]).toEqual([200, 600]);
  });
  it('keeps its short approved and its candidate kept', async () => {
    const [post] = await first();
    expect((await world.writeShort('PUT', post.shortId, 'approval', { approved: false })).status).toBe(409);
    const short = (await world.read(`shorts/${post.shortId}`)).body;
    expect((await world.owner.put(`candidates/${short.candidateId}/state`, { state: 'dropped' })).status).toBe(409);
    expect((await world.owner.delete(`recordings/${short.recordingId}`)).status).toBe(409);
  });
  it('is marked as posted, stays then, and is taken off otherwise', async () => {
    const row = await first();
    const last = row.at(-1);
    expect((await world.writePost(last.id, 'state', { state: 'posted' })).body.state).toBe('posted');
    expect((await world.owner.delete(`posts/${last.id}`)).status).toBe(409);
    expect((await world.writePost(last.id, 'state', { state: 'planned' })).body.state).toBe('planned');
    const onSecond = (await world.owner.get('schedule')).body.posts.find((post: { channelId: string }) => post.channelId === channels[1]);
    if (onSecond !== undefined) expect((await world.owner.delete(`posts/${onSecond.id}`)).status).toBe(204);
  });
  it('cannot stand on a blackout day', async () => {
    const date = addDays(TO, 3);
    await world.owner.post(`clients/${clientId}/blackouts`, { channelId: null, fromDate: date, toDate: date, reason: 'stocktaking' });
    const [post] = await first();
    const refused = await world.writePost(post.id, 'place', { channelId: channels[0], date, minute: 450 });
    expect(refused.body.detail).toContain('stocktaking');
  });
});

describe('posts that move together', () => {
  type Row = { id: string; channelId: string; shortId: string; date: string; minute: number; version: number };
  const onFirst = async (): Promise<Row[]> =>
    (await world.owner.get('schedule')).body.posts
      .filter((post: Row) => post.channelId === channels[0])
      .sort((a: Row, b: Row) => `${a.date} ${a.minute}`.localeCompare(`${b.date} ${b.minute}`));
  const moved = ({ id, channelId, minute, version }: Row, date: string): object => ({ postId: id, channelId, date, minute, version });
  beforeAll(async () => {
    const { posts: all } = (await world.owner.get('schedule')).body as { posts: Row[] };
    for (const post of all.filter(({ channelId }) => channelId === channels[1])) expect((await world.owner.delete(`posts/${post.id}`)).status).toBe(204);
  });
  const places = async (): Promise<string[]> => (await onFirst()).map((post) => `${post.id} ${post.date} ${post.minute}`);
  it('change places, which each alone could not', async () => {
    const [a, , c] = await onFirst();
    const alone = await world.owner.put('posts/places', { moves: [moved(a!, c!.date)] });
    expect([alone.status, alone.body.detail]).toEqual([409, expect.stringMatching(/already has 1 of 1 posts/)]);
    const both = await world.owner.put('posts/places', { moves: [moved({ ...a!, minute: c!.minute }, c!.date), moved({ ...c!, minute: a!.minute }, a!.date)] });
    expect([both.status, both.body.map((post: Row) => [post.date, post.version])]).toEqual([
      200,
      [
        [c!.date, a!.version + 1],
        [a!.date, c!.version + 1],
      ],
    ]);
  });
  it('go whole or not at all, and each only once', async () => {
    const before = await places();
    const row = await onFirst();
    const broken = await world.owner.put('posts/places', { moves: [moved(row.at(-1)!, addDays(row.at(-1)!.date, 42)), moved(row.at(-2)!, '2001-01-01')] });
    expect([broken.status, broken.body.detail]).toEqual([409, expect.stringMatching(/^“.*” cannot move: /)]);
    const twice = await world.owner.put('posts/places', { moves: [moved(row[0]!, addDays(row[0]!.date, 42)), moved(row[0]!, addDays(row[0]!.date, 49))] });
    expect(twice.status).toBe(422);
    const stale = await world.owner.put('posts/places', {
      moves: row.map((post, i) => moved({ ...post, version: post.version - (i === 2 ? 1 : 0) }, addDays(post.date, 42))),
    });
    expect([stale.status, stale.body.code]).toEqual([409, 'stale']);
    expect(await places()).toEqual(before);
  });
  it('stay where they were when the line to the database breaks between the first and the second', async () => {
    const before = await places();
    const row = (await onFirst()).slice(-2);
    const other = new pg.Client({ connectionString: process.env['SIFT_REEL_DATABASE_URL']! });
    await other.connect();
    try {
      await other.query('BEGIN');
      await other.query('LOCK TABLE audit_entries IN EXCLUSIVE MODE'); // what is written down of the first move waits here
      const moving = world.owner.put('posts/places', { moves: row.map((post) => moved(post, addDays(post.date, 49))) });
      const waits = `SELECT pid FROM pg_stat_activity WHERE datname = current_database() AND wait_event_type = 'Lock' AND query LIKE '%INTO "audit_entries"%'`;
      await vi.waitFor(async () => expect(await query(waits)).toHaveLength(1), { timeout: 10_000, interval: 20 });
      await query(`SELECT pg_terminate_backend(pid) FROM (${waits}) AS waiting`);
      expect((await moving).status).toBeGreaterThanOrEqual(500);
      await other.query('ROLLBACK');
    } finally {
      await other.end();
    }
    expect(await places()).toEqual(before);
    const again = await world.owner.put('posts/places', { moves: row.map((post) => moved(post, addDays(post.date, 49))) });
    expect(again.status).toBe(200);
    const back = await world.owner.put('posts/places', { moves: row.map((post) => moved({ ...post, version: post.version + 1 }, post.date)) });
    expect(back.status).toBe(200);
  });
  it('are moved once when many move them at the same moment', async () => {
    const row = (await onFirst()).slice(-2);
    const later = [42, 49, 56, 63, 70, 77];
    const answers = await Promise.all(
      later.map((by, i) =>
        world.owner.put('posts/places', { moves: (i % 2 === 0 ? row : [...row].reverse()).map((post) => moved(post, addDays(post.date, by))) }),
      ),
    );
    expect(answers.map((answer) => answer.status).sort()).toEqual([200, 409, 409, 409, 409, 409]);
    const by = later[answers.findIndex((answer) => answer.status === 200)]!;
    const now = await onFirst();
    for (const post of row) expect(now.find((one) => one.id === post.id)).toMatchObject({ date: addDays(post.date, by), version: post.version + 1 });
    const back = await world.owner.put('posts/places', { moves: row.map((post) => moved({ ...post, version: post.version + 1 }, post.date)) });
    expect(back.status).toBe(200);
  });
});

describe('the plan to take away', () => {
  it('is CSV that a reference parser reads', async () => {
    const answer = await world.owner.get(`schedule/plan.csv?from=${FROM}&to=${TO}&clientId=${clientId}`);
    const rows = parse(answer.text, { bom: true, columns: true, record_delimiter: '\r\n' }) as Record<string, string>[];
    expect(rows.length).toBe(await posts());
    expect(rows[0]).toMatchObject({ channel: 'First', 'time zone': 'Europe/Dublin', state: 'planned' });
    expect(answer.headers.get('content-disposition')).toContain('Posting plan - ');
  });
  it('is a calendar (RFC 5545) that ical.js reads, at the same instants', async () => {
    const answer = await world.owner.get(`schedule/plan.ics?from=${FROM}&to=${TO}&clientId=${clientId}`);
    for (const line of answer.text.split('\r\n')) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75); // section 3.1: lines are folded
    const events = new ICAL.Component(ICAL.parse(answer.text)).getAllSubcomponents('vevent').map((one) => new ICAL.Event(one));
    const stored = await query('SELECT id, at FROM posts WHERE client_id = $1', [clientId]);
    expect(new Map(events.map((event) => [event.uid, event.startDate.toJSDate().toISOString()]))).toEqual(
      new Map(stored.map((row) => [`${String(row['id'])}@sift-reel.invalid`, (row['at'] as Date).toISOString()])),
    );
  });
  it('refuses days that are none', async () => expect((await world.owner.get('schedule/plan.csv?from=2055-02-30&to=2055-03-01')).status).toBe(400));
});

describe('an evergreen short', () => {
  const DAYS = 30;
  const onFirst = async (shortId: string) =>
    (await world.owner.get('schedule')).body.posts.filter((post: Record<string, string>) => post['shortId'] === shortId && post['channelId'] === channels[0]);
  const placedOn = (shortId: string, date: string) =>
    world.owner.post('schedule/posts', { batchId: null, placements: [{ shortId, channelId: channels[0], date, minute: 450, why: 'x' }] });
  it('comes again after as many days as its client says, not before, and only once however many ask', async () => {
    const [last] = (await world.owner.get('schedule')).body.posts
      .filter((post: { channelId: string }) => post.channelId === channels[0])
      .sort((a: { at: string }, b: { at: string }) => b.at.localeCompare(a.at));
    const { shortId, date } = last;
    const again = addDays(date, DAYS);
    expect((await placedOn(shortId, again)).body.detail).toContain('is already on First.');
    const client = (await world.owner.get('clients')).body.find((one: { id: string }) => one.id === clientId);
    expect((await world.owner.put(`clients/${clientId}/come-again`, { days: 7, version: client.version })).status).toBe(400);
    expect((await world.owner.put(`clients/${clientId}/come-again`, { days: DAYS, version: client.version })).body.comeAgainDays).toBe(DAYS);
    const before = (await world.read(`shorts/${shortId}`)).body;
    const { body } = await world.owner.put(`shorts/${shortId}/evergreen`, { evergreen: true });
    expect(body).toMatchObject({ evergreen: true, comesAgainDays: DAYS, approved: true, version: before.version });
    expect((await placedOn(shortId, addDays(date, DAYS - 1))).body.detail).toContain('it may come again after 30 days');
    // Nothing of its own recording beside it: another recording's between them.
    const parting = (await world.shorts()).find(
      (one: { id: string; recordingId: string }) => shorts.includes(one.id) && one.recordingId !== before.recordingId,
    )!;
    await world.owner.put(`shorts/${parting.id}/evergreen`, { evergreen: true });
    expect((await placedOn(parting.id, addDays(date, 40))).status).toBe(201);
    const answers = await Promise.all(Array.from({ length: 8 }, (_, i) => placedOn(shortId, addDays(date, 41 + i))));
    expect(answers.map((answer) => answer.status).sort()).toEqual([201, ...Array<number>(7).fill(409)]);
    expect(await onFirst(shortId)).toHaveLength(2);
  });
  it('is laid out again where it may come, and not where not', async () => {
    const shortId = (await query('SELECT short_id FROM posts WHERE client_id = $1 GROUP BY short_id HAVING count(*) > 1', [clientId]))[0]![
      'short_id'
    ] as string;
    const [latest] = (await onFirst(shortId)).sort((a: { at: string }, b: { at: string }) => b.at.localeCompare(a.at));
    const ask = async (after: number) =>
      (await propose({ shortIds: [shortId], fromDate: addDays(latest.date, after), toDate: addDays(latest.date, after + 13) })).body;
    const soon = (await ask(10)).unplaced.find((one: { channelId: string }) => one.channelId === channels[0]);
    expect(soon).toMatchObject({ code: 'already-there', detail: expect.stringContaining('comes again after 30 days') });
    const late = (await ask(31)).unplaced.find((one: { channelId: string }) => one.channelId === channels[0]);
    expect(late?.detail ?? '').not.toContain('comes again after');
  });
  it('goes once again when it is none any more; what stands stays', async () => {
    const shortId = (await query('SELECT short_id FROM posts WHERE client_id = $1 GROUP BY short_id HAVING count(*) > 1', [clientId]))[0]![
      'short_id'
    ] as string;
    expect((await world.owner.put(`shorts/${shortId}/evergreen`, { evergreen: false })).body.comesAgainDays).toBeNull();
    expect((await placedOn(shortId, '2055-12-01')).body.detail).toContain('is already on First.');
    expect((await onFirst(shortId)).length).toBeGreaterThan(1);
  });
});
