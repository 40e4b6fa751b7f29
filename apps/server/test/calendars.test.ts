import ICAL from 'ical.js';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { approveShorts, seedRanking } from './seed.js';
import { Caller, query, World } from './world.js';

let world: World;
let clientId: string;
let channelId: string;
let shorts: string[];
/** Somebody without a session, as a calendar program is. */
let stranger: Caller;
const soon = (days: number): string => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);

beforeAll(async () => {
  world = await World.make();
  stranger = new Caller(world.base);
  clientId = await world.client();
  channelId = await world.channel(clientId, { zone: 'UTC' });
  shorts = await approveShorts(world, await seedRanking(world, clientId), 1);
  // Of another recording, and with a title of its own.
  const other = await seedRanking(world, clientId, 5);
  shorts.push(...(await approveShorts(world, { ...other, candidates: other.candidates.slice(2) }, 1)));
  const placements = [{ shortId: shorts[0], channelId, date: soon(3), minute: 450, why: 'x' }];
  expect((await world.owner.post('schedule/posts', { batchId: null, placements })).status).toBe(201);
});
afterAll(() => world.close());

const made = async (name = 'Their phone') => (await world.owner.post(`clients/${clientId}/calendars`, { name })).body as { id: string; address: string };
/** An address as a calendar program asks for it; ours is of another port than the configured one. */
const pathOf = (address: string): string => new URL(address).pathname.replace('/api/', '');

describe('a calendar address of a client', () => {
  it('gives its posts without a session, and says when to ask again', async () => {
    const { address } = await made();
    expect(address).toMatch(/^http:\/\/127\.0\.0\.1:\d+\/api\/calendar\/[\w-]{43}\.ics$/);
    const answer = await stranger.get(pathOf(address));
    expect([answer.status, answer.headers.get('content-type'), answer.headers.get('cache-control')]).toEqual([
      200,
      'text/calendar; charset=utf-8',
      'private, no-cache',
    ]);
    const calendar = new ICAL.Component(ICAL.parse(answer.text));
    // RFC 7986, sections 5.1 and 5.7.
    expect(calendar.getFirstPropertyValue('name')).toMatch(/^Client /);
    expect(String(calendar.getFirstPropertyValue('refresh-interval'))).toBe('PT30M');
    const events = calendar.getAllSubcomponents('vevent').map((one) => new ICAL.Event(one));
    expect(events.map((event) => event.startDate.toJSDate().toISOString())).toEqual([`${soon(3)}T07:30:00.000Z`]);
  });
  it('says that nothing changed, until something did (RFC 9110, section 13.1.2)', async () => {
    const { address } = await made();
    const first = await stranger.get(pathOf(address));
    const again = (etag: string): Promise<Response> => fetch(`${world.base}/api/${pathOf(address)}`, { headers: { 'if-none-match': etag } });
    expect((await again(first.headers.get('etag')!)).status).toBe(304);
    const [post] = (await world.owner.get('schedule')).body.posts.filter((one: { channelId: string }) => one.channelId === channelId);
    expect((await world.writePost(post.id, 'place', { channelId, date: soon(4), minute: 450 })).status).toBe(200);
    const changed = await again(first.headers.get('etag')!);
    expect([changed.status, await changed.text()]).toEqual([200, expect.stringContaining(`DTSTART:${soon(4).replaceAll('-', '')}T073000Z`)]);
  });
  it('is told once, kept as a hash, and seen to be read', async () => {
    const { id, address } = await made('The office');
    const listed = (await world.owner.get(`clients/${clientId}/calendars`)).body.find((one: { id: string }) => one.id === id);
    expect(listed).toEqual({ id, clientId, name: 'The office', readAt: null, createdAt: expect.any(String) });
    const token = /calendar\/(.+)\.ics/.exec(address)![1]!;
    expect(JSON.stringify(await query('SELECT * FROM calendars WHERE id = $1', [id]))).not.toContain(token);
    await stranger.get(pathOf(address));
    const after = (await world.owner.get(`clients/${clientId}/calendars`)).body.find((one: { id: string }) => one.id === id);
    expect(Date.parse(after.readAt)).toBeGreaterThan(Date.parse(listed.createdAt) - 1);
  });
  it('is withdrawn at once, and answers then as one that never was', async () => {
    const [kept, gone] = [await made(), await made()];
    expect((await world.owner.delete(`calendars/${gone.id}`)).status).toBe(204);
    const [answer, never] = [await stranger.get(pathOf(gone.address)), await stranger.get(`calendar/${'x'.repeat(43)}.ics`)];
    expect([answer.status, never.status, answer.body.detail]).toEqual([404, 404, never.body.detail]);
    expect((await stranger.get(pathOf(kept.address))).status).toBe(200);
    expect((await world.owner.delete(`calendars/${gone.id}`)).status).toBe(404);
  });
  it('gives nothing while its client is archived', async () => {
    const other = await world.client();
    const { body } = await world.owner.post(`clients/${other}/calendars`, { name: 'x' });
    await world.owner.delete(`clients/${other}`);
    expect((await stranger.get(pathOf(body.address))).status).toBe(404);
    await world.owner.post(`archived-clients/${other}/restoring`);
  });
  it('is refused without a name, and past twenty, however many ask at once', async () => {
    const other = await world.client();
    const refused = await world.owner.post(`clients/${other}/calendars`, { name: '  ' });
    expect([refused.status, refused.body.errors[0].field]).toEqual([400, 'name']);
    const answers = await Promise.all(Array.from({ length: 26 }, () => world.owner.post(`clients/${other}/calendars`, { name: 'x' })));
    expect(answers.map(({ status }) => status).sort()).toEqual([...Array<number>(20).fill(201), ...Array<number>(6).fill(409)]);
  });
});

describe('a plan that was made elsewhere', () => {
  const read = (csv: string, only: string | null = clientId) => world.owner.post('schedule/readings', { csv, clientId: only });
  const titleOf = async (shortId: string): Promise<string> => (await world.read(`shorts/${shortId}`)).body.copy.title;
  it('is matched by names, and shown with what does not fit', async () => {
    const [taken, free] = [await titleOf(shorts[0]!), await titleOf(shorts[1]!)];
    const [post] = (await world.owner.get('schedule')).body.posts.filter((one: { channelId: string }) => one.channelId === channelId);
    const quoted = (text: string): string => `"${text.replaceAll('"', '""')}"`;
    const csv = [
      'Channel,Date,Time,Title',
      `first,${soon(9)},7:30,${quoted(free.toUpperCase())}`,
      `First,${post.date},07:30,${quoted(taken)}`,
      `First,${soon(10)},07:30,${quoted(taken)}`,
      `First,${soon(10)},07:30,No such thing`,
      `Third,${soon(10)},07:30,${quoted(free)}`,
      `First,2055-02-31,07:30,${quoted(free)}`,
    ].join('\r\n');
    const before = await query('SELECT count(*)::int AS n FROM posts', []);
    const { status, body } = await read(csv);
    expect(status).toBe(200);
    expect(body.placements).toEqual([{ shortId: shorts[1], channelId, line: 2, date: soon(9), minute: 450, why: 'Read from a file, line 2.' }]);
    expect(body.standing).toBe(1);
    expect(body.refused.map((one: { line: number; field: string; detail: string }) => [one.line, one.field, one.detail])).toEqual([
      [4, 'date', 'The short is already on First.'],
      [5, 'title', 'no short of this client has the title “No such thing”'],
      [6, 'channel', 'there is no channel “Third”'],
      [7, 'date', 'expected a day, YYYY-MM-DD, found “2055-02-31”'],
    ]);
    expect(await query('SELECT count(*)::int AS n FROM posts', [])).toEqual(before);
    const { line: _, ...placement } = body.placements[0];
    expect((await world.owner.post('schedule/posts', { batchId: null, placements: [placement] })).status).toBe(201);
  });
  it('that was taken away from here stands already, all of it', async () => {
    const csv = (await world.owner.get(`schedule/plan.csv?from=${soon(0)}&to=${soon(30)}&clientId=${clientId}`)).text;
    expect((await read(csv)).body).toEqual({ placements: [], refused: [], standing: 2 });
  });
  it('is refused with the line and the column where it is none', async () => {
    const { status, body } = await read('channel,date,title\n');
    expect([status, body.errors]).toEqual([400, [{ field: 'csv', detail: expect.stringMatching(/^line 1, time: the column is missing/) }]]);
  });
  it('means a channel of one client, and says so where two have the name', async () => {
    const other = await world.client();
    await world.channel(other);
    const title = (await titleOf(shorts[0]!)).replaceAll('"', '""');
    const { body } = await read(`channel,date,time,title\nFirst,${soon(9)},07:30,"${title}"`, null);
    expect(body.refused[0]).toMatchObject({
      line: 2,
      field: 'channel',
      detail: expect.stringMatching(/^there are \d+ channels “First”; the column client tells them apart$/),
    });
  });
});
