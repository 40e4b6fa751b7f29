import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { approveShorts, seedRanking, type Seeded } from './seed.js';
import { type Answer, BRIEF, filesForm, query, talk, World } from './world.js';

let world: World;
let clientId: string;
let channelId: string;
let seeded: Seeded;
let shorts: string[];
beforeAll(async () => {
  world = await World.make();
});
beforeEach(async () => {
  clientId = await world.client();
  channelId = await world.channel(clientId, { postsPerDay: 3, postsPerWeek: 21, platformProfileId: await world.platform({ minGapMinutes: 0 }) });
  seeded = await seedRanking(world, clientId);
  shorts = await approveShorts(world, seeded, 1);
});
afterAll(() => world.close());

const statuses = (answers: readonly Answer[]): number[] => answers.map((answer) => answer.status).sort();
const count = (list: readonly number[], status: number): number => list.filter((one) => one === status).length;
const place = (shortId: string, date: string, minute = 450, batchId: string | null = null) =>
  world.owner.post('schedule/posts', { batchId, placements: [{ shortId, channelId, date, minute, why: 'x' }] });
const candidateOf = async (shortId: string): Promise<string> => (await world.read(`shorts/${shortId}`)).body.candidateId as string;

describe('many at the same moment', () => {
  it('move one post: one of those who saw it moves it, the others are told what it is now', async () => {
    const post = (await place(shorts[0]!, '2055-05-05')).body[0];
    const answers = await Promise.all(
      Array.from({ length: 12 }, (_, i) =>
        world.owner.put(`posts/${post.id}/place`, { channelId, date: `2055-05-${10 + i}`, minute: 450, version: post.version }),
      ),
    );
    expect(statuses(answers)).toEqual([200, ...Array<number>(11).fill(409)]);
    const refused = answers.find((answer) => answer.status === 409)!.body;
    expect(refused).toMatchObject({ code: 'stale', current: { id: post.id, version: post.version + 1 } });
    expect((await query('SELECT count(*)::int AS n FROM posts WHERE short_id = $1', [shorts[0]]))[0]).toEqual({ n: 1 });
  });
  it('make candidates of their own: each gets a rank of its own, behind those that are there', async () => {
    const before = (await query('SELECT max(rank)::int AS most FROM candidates WHERE sift_id = $1', [seeded.siftId]))[0]!['most'] as number;
    const answers = await Promise.all(
      Array.from({ length: 8 }, (_, i) => world.owner.post(`sifts/${seeded.siftId}/candidates`, { firstWord: i, endWord: i + 20 })),
    );
    expect(statuses(answers)).toEqual(Array<number>(8).fill(201));
    const ranks = (await query('SELECT rank::int AS rank FROM candidates WHERE sift_id = $1 AND rank > $2 ORDER BY rank', [seeded.siftId, before])).map(
      (row) => row['rank'],
    );
    expect(ranks).toEqual(Array.from({ length: 8 }, (_, i) => before + 1 + i));
  });
  it('write while others only look: whoever looks does not wait for the writers', async () => {
    const rename = (i: number) => world.owner.put(`recordings/${seeded.recordingId}`, { title: `T${i}`, version: 1 });
    const writing = Promise.all(Array.from({ length: 60 }, (_, i) => rename(i)));
    const looking = await Promise.all(Array.from({ length: 30 }, () => world.owner.get('session')));
    expect(new Set(statuses(looking))).toEqual(new Set([200]));
    expect(statuses(await writing)).toEqual([200, ...Array<number>(59).fill(409)]);
  });
  it('save the first words for a channel: one is first, and nobody meets a fault', async () => {
    await world.writeShort('PUT', shorts[0]!, 'approval', { approved: false });
    const { copy, version } = (await world.read(`shorts/${shorts[0]!}`)).body;
    const answers = await Promise.all(
      Array.from({ length: 20 }, (_, i) => world.owner.put(`shorts/${shorts[0]!}/copy/${channelId}`, { ...copy, title: `Mine ${i}`, version })),
    );
    expect(statuses(answers)).toEqual([200, ...Array<number>(19).fill(409)]);
  });
  it('make batches, keep one candidate, start sifts, and none of it is a fault', async () => {
    const other = seeded.candidates[1]!.id;
    const { body: recording } = await world.owner.post(`clients/${clientId}/recordings`, filesForm({ transcript: ['a.vtt', talk(2)] }));
    const answers = await Promise.all([
      ...Array.from({ length: 40 }, (_, i) => world.owner.post('batches', { name: `B${i}`, shortIds: shorts })),
      ...Array.from({ length: 12 }, () => world.owner.put(`candidates/${other}/state`, { state: 'kept' })),
      ...Array.from({ length: 6 }, () => world.owner.post(`recordings/${recording.id}/sifts`, BRIEF)),
    ]);
    expect(new Set(statuses(answers))).toEqual(new Set([200, 201]));
    expect((await query('SELECT count(*)::int AS n FROM shorts WHERE candidate_id = $1', [other]))[0]).toEqual({ n: 1 });
  });
  it('place shorts at one slot of a channel: one gets it', async () => {
    const more = (await approveShorts(world, seeded, 4)).slice(0, 4);
    const answers = await Promise.all(more.map((shortId) => place(shortId, '2055-06-01')));
    expect(count(statuses(answers), 201)).toBe(1);
    expect(count(statuses(answers), 409)).toBe(3);
  });
  it('work on other channels meanwhile: the schedule is not locked as a whole', async () => {
    const held = await holdLock(`channel:${channelId}`);
    try {
      const otherClient = await world.client();
      const otherChannel = await world.channel(otherClient);
      const [shortId] = await approveShorts(world, await seedRanking(world, otherClient), 1);
      const placement = { shortId, channelId: otherChannel, date: '2055-05-05', minute: 450, why: 'x' };
      expect((await world.owner.post('schedule/posts', { batchId: null, placements: [placement] })).status).toBe(201);
    } finally {
      await held();
    }
  });
});

/** Holds a lock of the program as a transaction of its own would. @returns how to let it go */
async function holdLock(name: string): Promise<() => Promise<void>> {
  const { default: pg } = await import('pg');
  const client = new pg.Client({ connectionString: process.env['SIFT_REEL_DATABASE_URL'] });
  await client.connect();
  await client.query('BEGIN');
  await client.query('SELECT pg_advisory_xact_lock(hashtextextended($1, 0))', [name]);
  return async () => {
    await client.query('ROLLBACK');
    await client.end();
  };
}

describe('an approval belongs to what was approved', () => {
  const approved = async (shortId: string): Promise<boolean> => (await world.read(`shorts/${shortId}`)).body.approved as boolean;
  it('and is gone when the candidate was re-opened, moved and kept again', async () => {
    const id = await candidateOf(shorts[0]!);
    const { firstWord, endWord } = (await world.read(`shorts/${shorts[0]!}`)).body;
    await world.owner.put(`candidates/${id}/state`, { state: 'open' });
    await world.owner.put(`candidates/${id}/span`, { firstWord: firstWord + 1, endWord });
    await world.owner.put(`candidates/${id}/state`, { state: 'kept' });
    expect(await approved(shorts[0]!)).toBe(false);
  });
  it('and stays when nothing of it changed', async () => {
    const id = await candidateOf(shorts[0]!);
    await world.owner.put(`candidates/${id}/state`, { state: 'open' });
    await world.owner.put(`candidates/${id}/state`, { state: 'kept' });
    expect(await approved(shorts[0]!)).toBe(true);
  });
  it('and is refused to words that were not seen', async () => {
    await world.writeShort('PUT', shorts[0]!, 'approval', { approved: false });
    const seen = await world.version(`shorts/${shorts[0]!}`);
    const { copy } = (await world.read(`shorts/${shorts[0]!}`)).body;
    await world.owner.put(`shorts/${shorts[0]!}/copy`, { ...copy, title: 'Changed meanwhile', version: seen });
    const answer = await world.owner.put(`shorts/${shorts[0]!}/approval`, { approved: true, version: seen });
    expect([answer.status, answer.body.current.copy.title]).toEqual([409, 'Changed meanwhile']);
  });
  it('whatever writes: the database takes it away with any change, and gives no post to what is not approved', async () => {
    await query(`UPDATE copies SET title = 'By hand' WHERE short_id = $1`, [shorts[0]]);
    expect(await approved(shorts[0]!)).toBe(false);
    await expect(
      query(`INSERT INTO posts (client_id, channel_id, short_id, date, minute, at, why) VALUES ($1, $2, $3, '2055-01-01', 0, now(), 'x')`, [
        clientId,
        channelId,
        shorts[0],
      ]),
    ).rejects.toThrow(/not approved/);
  });
  it('however it races with placing: never a post of a short that is not approved', async () => {
    for (let round = 0; round < 6; round += 1) {
      const version = await world.version(`shorts/${shorts[0]!}`);
      await Promise.all([world.owner.put(`shorts/${shorts[0]!}/approval`, { approved: false, version }), place(shorts[0]!, `2055-07-${10 + round}`)]);
      const [row] = await query(
        'SELECT approved_version IS NOT NULL AS approved, (SELECT count(*)::int FROM posts WHERE short_id = shorts.id) AS posts FROM shorts WHERE id = $1',
        [shorts[0]],
      );
      expect(row!['posts'] === 0 || row!['approved'] === true).toBe(true);
      await query('DELETE FROM posts WHERE short_id = $1', [shorts[0]]);
      await world.writeShort('PUT', shorts[0]!, 'approval', { approved: true });
    }
  });
  it('however dropping or deleting races with placing: a post keeps its short, and says so', async () => {
    const id = await candidateOf(shorts[0]!);
    const [placed, dropped, removed] = await Promise.all([
      place(shorts[0]!, '2055-08-01'),
      world.owner.put(`candidates/${id}/state`, { state: 'dropped' }),
      world.owner.delete(`recordings/${seeded.recordingId}`),
    ]);
    expect([200, 201, 204, 404, 409]).toEqual(expect.arrayContaining([placed.status, dropped.status, removed.status]));
    const [row] = await query(
      `SELECT (SELECT count(*)::int FROM posts WHERE client_id = $1) AS posts, (SELECT count(*)::int FROM shorts JOIN candidates c ON c.id = candidate_id WHERE shorts.client_id = $1 AND c.state = 'kept') AS kept`,
      [clientId],
    );
    if (placed.status === 201) expect(row).toEqual({ posts: 1, kept: 1 });
    else expect(row!['posts']).toBe(0);
  });
});

describe('the schedule', () => {
  it('keeps wall times when a channel’s zone changes: instants follow', async () => {
    const post = (await place(shorts[0]!, '2055-05-05')).body[0];
    const channel = (await world.owner.get('channels')).body.find((one: { id: string }) => one.id === channelId);
    const { id: _, clientId: __, platform, ...form } = channel;
    await world.owner.put(`channels/${channelId}`, { ...form, platformProfileId: platform.id, zone: 'Australia/Adelaide' });
    const moved = (await world.owner.get('schedule')).body.posts.find((one: { id: string }) => one.id === post.id);
    expect([moved.date, moved.minute]).toEqual(['2055-05-05', 450]);
    expect(moved.at).toBe('2055-05-04T22:00:00.000Z'); // 07:30 in Adelaide, nine and a half hours ahead in May
  });
  it('has batches of what can go out: a dropped member neither shows nor stands in the way', async () => {
    const [a, b] = await approveShorts(world, seeded, 2);
    const batch = (await world.owner.post('batches', { name: 'Mixed', shortIds: [a, b] })).body;
    await world.owner.put(`candidates/${await candidateOf(a!)}/state`, { state: 'dropped' });
    const now = (await world.owner.get('batches')).body.find((one: { id: string }) => one.id === batch.id);
    expect(now.shortIds).toEqual([b]);
    const c = (await approveShorts(world, seeded, 3))[2]!;
    const grown = await world.owner.put(`batches/${batch.id}`, { name: 'Mixed', shortIds: [b, c], version: now.version });
    expect([grown.status, grown.body.shortIds.sort()]).toEqual([200, [b, c].sort()]);
  });
  it('refuses a move that leaves two of one recording in a row', async () => {
    const other = await seedRanking(world, clientId, 5);
    const [a, , c] = await approveShorts(world, seeded, 3);
    const [b] = await approveShorts(world, other, 1);
    await place(a!, '2055-09-01');
    const middle = (await place(b!, '2055-09-02')).body[0];
    await place(c!, '2055-09-03');
    const refused = await world.writePost(middle.id, 'place', { channelId, date: '2055-09-10', minute: 450 });
    expect([refused.status, refused.body.detail]).toEqual([409, expect.stringContaining('would follow each other')]);
  });
  it('takes a mark of posted back to what it was: a refused post is refused again', async () => {
    const post = (await place(shorts[0]!, '2055-05-05')).body[0];
    await query(`UPDATE posts SET state = 'refused', failure = 'The line broke.' WHERE id = $1`, [post.id]);
    expect((await world.writePost(post.id, 'state', { state: 'posted' })).body.failure).toBeNull();
    expect((await world.writePost(post.id, 'state', { state: 'refused' })).body).toMatchObject({ state: 'refused', failure: 'The line broke.' });
    await query(`UPDATE posts SET state = 'planned', failure = NULL WHERE id = $1`, [post.id]);
    expect((await world.writePost(post.id, 'state', { state: 'refused' })).status).toBe(422);
  });
  it('takes no batch of somebody else’s', async () => {
    const rival = await world.client();
    const [theirs] = await approveShorts(world, await seedRanking(world, rival), 1);
    const batch = (await world.owner.post('batches', { name: 'Theirs', shortIds: [theirs] })).body;
    const producer = await world.producer([clientId]);
    const placement = { shortId: shorts[0], channelId, date: '2055-05-05', minute: 450, why: 'x' };
    expect((await producer.post('schedule/posts', { batchId: batch.id, placements: [placement] })).status).toBe(404);
    const own = `shorts/${shorts[0]!}`;
    const { version } = (await producer.get(own)).body;
    const rivalChannel = await world.channel(rival);
    expect((await producer.delete(`shorts/${shorts[0]!}/copy/${rivalChannel}?version=${version}`)).status).toBe(409); // approved
    await world.writeShort('PUT', shorts[0]!, 'approval', { approved: false });
    expect((await producer.delete(`shorts/${shorts[0]!}/copy/${rivalChannel}?version=${await world.version(`shorts/${shorts[0]!}`)}`)).status).toBe(404);
  });
});
