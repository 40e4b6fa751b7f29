import { createHash, createHmac } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import pg from 'pg';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { markOf } from '../dist/publishing/fixing.service.js';
import { PublishingWorld, type Service, SERVICES } from './publishing-world.js';
import { query, until } from './world.js';

const MINUTE = 60_000;
let here: PublishingWorld;
let clientId: string;
let shortIds: string[];
/** One that is on no schedule yet. */
let spare: string;
const channels = new Map<Service, string>();

beforeAll(async () => {
  here = await PublishingWorld.make();
  ({ clientId, shortIds } = await here.clientWithShorts(16));
  await here.makeFiles(shortIds);
  spare = shortIds.pop()!;
  for (const service of SERVICES) {
    const channelId = await here.channel(clientId, service);
    channels.set(service, channelId);
    const { status, text, body } = await here.connect(channelId, `acct-${service}`);
    expect(status, text).toBe(201);
    expect(body).toMatchObject({ clientId, channelId });
  }
}, 240_000);
afterAll(() => here?.close());

let next = 0;
/** A post of a short that has not been on the channel. */
const plan = async (service: Service, afterMs = MINUTE): Promise<string> => {
  const shortId = shortIds[next++ % shortIds.length]!;
  return here.plan(channels.get(service)!, shortId, Math.ceil((here.nowMs() + afterMs) / MINUTE) * MINUTE + (next % 7) * 1_000);
};
const copies = (service: Service, postId: string): number =>
  here.there(service).filter((post) => post.note === markOf(postId) || post.text.includes(markOf(postId))).length;

describe('a post whose time comes', () => {
  it.each(SERVICES)('goes out on %s, once, with its words and its file', async (service) => {
    const postId = await plan(service, service === 'hearthside' ? 12 * MINUTE : 2 * MINUTE);
    const [before] = await query('SELECT at FROM posts WHERE id = $1', [postId]);
    await here.becomes(postId, 'posted');
    expect(copies(service, postId)).toBe(1);
    const [sending] = await query('SELECT * FROM sendings WHERE post_id = $1', [postId]);
    const post = here.there(service).find((one) => one.note === markOf(postId) || one.text.includes(markOf(postId)))!;
    expect(post).toMatchObject({ title: (sending!['copy'] as { title: string }).title, bytes: 20_000, state: 'public' });
    // Not before its minute, by the platform's own clock.
    expect(post.publicMs).toBeGreaterThanOrEqual((before!['at'] as Date).getTime());
    const view = (await here.world.owner.get(`posts/${postId}/sending`)).body;
    expect(view).toMatchObject({ account: expect.stringContaining(`acct-${service}`), inDoubt: false, askPerson: false });
    const page = await fetch(view.address);
    expect(page.status).toBe(200);
    expect(await page.text()).toContain(post.title.replace(/[&<>"']/g, (one) => `&#${one.charCodeAt(0)};`));
    expect(view.events.map((one: { event: string }) => one.event)).toEqual(expect.arrayContaining(['fixed', 'begun']));
  });

  it('is not sent while a post of nobody’s account is left to be posted by hand', async () => {
    const byHand = await here.channel(clientId, 'fernpost');
    const postId = await here.plan(byHand, shortIds[0]!, here.nowMs() + MINUTE);
    await here.forward(3 * MINUTE);
    await new Promise((resolve) => setTimeout(resolve, 2_500));
    expect(await here.post(postId)).toMatchObject({ state: 'planned' });
  });
});

describe('what goes wrong on the way', () => {
  it.each([
    ['fernpost', 'lost'],
    ['fernpost', 'after'],
    ['fernpost', 'broken'],
    ['loopline', 'lost'],
    ['loopline', 'after'],
    ['loopline', 'before'],
    ['northgate', 'lost'],
    ['northgate', 'broken'],
    ['tidewire', 'lost'],
    ['tidewire', 'after'],
    ['hearthside', 'lost'],
    ['hearthside', 'before'],
  ] as const)('on %s, an answer that is “%s”, twice: it is there once all the same', async (service, fault) => {
    const postId = await plan(service, service === 'hearthside' ? 12 * MINUTE : 2 * MINUTE);
    here.order(service, fault, fault);
    await here.becomes(postId, 'posted');
    expect(copies(service, postId)).toBe(1);
    expect(await here.events(postId)).toContain('no-answer');
  });

  it('an effect that comes late, when the call was given up: it is looked for, not made again', async () => {
    const postId = await plan('loopline', 2 * MINUTE);
    here.order('loopline', 'late');
    await until(
      () => here.events(postId),
      (events) => events.includes('begun'),
    );
    const worker = here.worker;
    worker.child.kill('SIGKILL'); // while the call is out
    await worker.ended;
    here.worker = here.startWorker();
    await here.worker.ready;
    await here.becomes(postId, 'posted');
    expect(copies('loopline', postId)).toBe(1);
    expect(await here.events(postId)).toEqual(expect.arrayContaining(['found']));
  });

  it('a platform that has looked it over and will not have it', async () => {
    const platform = here.host.platforms.get('tidewire')!;
    platform.refuseEvery = 1;
    const postId = await plan('tidewire');
    await here.becomes(postId, 'refused');
    platform.refuseEvery = 0;
    expect((await here.post(postId)).failure).toBe('It looks like an advertisement without its label.');
    // Two send it again in one moment, and one who has not seen it refused: it is sent once more.
    const { version } = await here.post(postId);
    const again = [version, version, version - 1].map((seen) => here.world.owner.post(`posts/${postId}/sending`, { version: seen }));
    expect((await Promise.all(again)).map((one) => one.status).sort()).toEqual([201, 409, 409]);
    await here.becomes(postId, 'posted');
    expect(
      here
        .there('tidewire')
        .filter((one) => [markOf(postId), markOf(postId, 1)].includes(one.note))
        .map((one) => one.state),
    ).toEqual(['refused', 'public']);
  });

  it('a day’s limit: it waits, and is missed when that is too long; on a person’s word it goes out all the same', async () => {
    const platform = here.host.platforms.get('fernpost')!;
    platform.allowADay(0);
    const postId = await plan('fernpost');
    await here.waitsFor(postId, 'limit');
    await here.forward(3 * 60 * MINUTE);
    await here.becomes(postId, 'missed');
    expect((await here.post(postId)).failure).toMatch(/120 minutes late: the platform took no more/);
    platform.allowADay(50);
    await here.forward(48 * 60 * MINUTE); // the account is held as long as the platform said
    const again = await here.world.owner.post(`posts/${postId}/sending`, { version: (await here.post(postId)).version });
    expect(again.status, again.text).toBe(201);
    await here.becomes(postId, 'posted');
    expect(copies('fernpost', postId)).toBe(1);
  });

  it('a look that failed for good is asked for again when its post is due', async () => {
    const postId = await plan('fernpost', 4 * 60 * MINUTE);
    await query(
      `INSERT INTO jobs (kind, subject_id, client_id, lock_key, state, stage, faults, failure, finished_at)
       VALUES ('post', $1, $2, $3, 'failed', 'failed', 20, 'It stopped on a fault of the program: a test', now())`,
      [postId, clientId, `post:${postId}`],
    );
    await here.forward(4 * 60 * MINUTE - MINUTE);
    await here.becomes(postId, 'posted');
    expect(copies('fernpost', postId)).toBe(1);
  });

  it('an upload that breaks off goes on where it was, and comes whole', async () => {
    await here.makeFiles([spare], 9_000_000);
    const platform = here.host.platforms.get('loopline')!;
    platform.faults.bySeed(11, 0.35, ['broken', 'lost', 'before']);
    const postId = await here.plan(channels.get('loopline')!, spare, here.nowMs() + 2 * MINUTE);
    await here.becomes(postId, 'posted');
    platform.faults.bySeed(1, 0);
    expect(copies('loopline', postId)).toBe(1);
    const [row] = await query('SELECT file FROM sendings WHERE post_id = $1', [postId]);
    const bytes = await readFile(join(process.env['SIFT_REEL_MEDIA_DIR']!, 'renders', String(row!['file'])));
    expect(here.there('loopline').find((one) => one.note === markOf(postId))!.sha256).toBe(createHash('sha256').update(bytes).digest('hex'));
    expect((await here.events(postId)).filter((one) => one === 'no-answer').length).toBeGreaterThan(0);
  });

  it('a platform that says it has it already: not this one, so it is refused; this one, so it is out', async () => {
    const platform = here.host.platforms.get('fernpost')!;
    const [one, other] = [await here.channel(clientId, 'fernpost'), await here.channel(clientId, 'fernpost')];
    for (const channelId of [one, other]) expect((await here.connect(channelId, 'acct-twin')).status).toBe(201);
    platform.turnTwinsAway(true);
    const first = await here.plan(one, shortIds[4]!, here.nowMs() + MINUTE);
    await here.becomes(first, 'posted');
    const second = await here.plan(other, shortIds[4]!, here.nowMs() + MINUTE);
    await here.becomes(second, 'refused');
    expect((await here.post(second)).failure).toMatch(/^This was posted already, as /);
    platform.turnTwinsAway(false);
  });

  it('a clock that is ten minutes off', async () => {
    const platform = here.host.platforms.get('hearthside')!;
    for (const offByMs of [10 * MINUTE, -10 * MINUTE]) {
      platform.offByMs = offByMs;
      const postId = await plan('hearthside', 14 * MINUTE);
      const [row] = await query('SELECT at FROM posts WHERE id = $1', [postId]);
      await here.becomes(postId, 'posted');
      const post = here.there('hearthside').find((one) => one.text.includes(markOf(postId)))!;
      // Seen at its minute by everybody else's clock: a date tells whole seconds, and a second here is a minute there.
      expect(Math.abs(post.publicMs - offByMs - (row!['at'] as Date).getTime())).toBeLessThan(2 * MINUTE);
    }
    platform.offByMs = 0;
  });
});

describe('the right to post', () => {
  it('taken back: its posts wait and it is shown; given again, they go', async () => {
    const channelId = channels.get('loopline')!;
    here.host.platforms.get('loopline')!.rights.revoke('acct-loopline');
    const postId = await plan('loopline');
    await here.waitsFor(postId, 'right');
    const posting = (await here.world.owner.get('posting')).body;
    const account = posting.accounts.find((one: { service: string; clientId: string }) => one.service === 'loopline' && one.clientId === clientId);
    expect(account).toMatchObject({ state: 'revoked', trouble: 'The right to post was taken back there.' });
    expect((await here.connect(channelId, 'acct-loopline')).status).toBe(201);
    await here.becomes(postId, 'posted');
    expect(copies('loopline', postId)).toBe(1);
  });

  it('is renewed before it ends, by one of two at once', async () => {
    await here.forward(3 * 60 * MINUTE); // longer than any token of Tidewire lasts
    const posts = [await plan('tidewire'), await plan('tidewire'), await plan('tidewire')];
    for (const postId of posts) await here.becomes(postId, 'posted');
    expect(posts.map((postId) => copies('tidewire', postId))).toEqual([1, 1, 1]);
  });

  it('is not given without a yes, not twice for one errand, and not to somebody else', async () => {
    const channelId = await here.channel(clientId, 'fernpost');
    const refused = await here.world.owner.post('accounts', await here.allow(channelId, 'x', here.world.owner, { answer: 'refuse' }));
    expect([refused.status, refused.body.detail]).toEqual([422, 'It was not allowed there.']);
    const back = await here.allow(channelId, 'acct-once');
    const other = await here.world.producer([clientId]);
    expect((await other.post('accounts', back)).status).toBe(404);
    expect((await here.world.owner.post('accounts', back)).status).toBe(404); // that used it up
    const again = await here.allow(channelId, 'acct-once');
    expect((await here.world.owner.post('accounts', { ...again, iss: 'https://elsewhere.example' })).status).toBeGreaterThanOrEqual(400);
    const third = await here.allow(channelId, 'acct-once');
    const both = await Promise.all([here.world.owner.post('accounts', third), here.world.owner.post('accounts', third)]);
    expect(both.map((one) => one.status).sort()).toEqual([201, 404]);
  });

  it('that lacks something is told with what it lacks, and nothing is posted with it', async () => {
    const channelId = await here.channel(clientId, 'fernpost');
    expect((await here.connect(channelId, 'acct-less', { scope: 'notes.read' })).status).toBe(201);
    const { accounts } = (await here.world.owner.get('posting')).body;
    expect(accounts.find((one: { name: string }) => one.name === 'acct-less')).toMatchObject({
      state: 'lacking',
      trouble: 'It was connected without notes.write.',
    });
    const postId = await here.plan(channelId, shortIds[2]!, here.nowMs() + MINUTE);
    await here.waitsFor(postId, 'right');
    expect((await here.connect(channelId, 'acct-less')).status).toBe(201);
    await here.becomes(postId, 'posted');
  });

  it('is given back when the account is disconnected; where a sending broke off, a person says what came of it', async () => {
    for (const isUp of [true, false]) {
      const channelId = await here.channel(clientId, 'loopline');
      expect((await here.connect(channelId, `acct-gone-${isUp}`)).status).toBe(201);
      const postId = await here.plan(channelId, shortIds[3]!, here.nowMs() + MINUTE);
      here.order('loopline', 'lost');
      await until(
        () => here.events(postId),
        (events) => events.includes('no-answer'),
      );
      const platform = here.host.platforms.get('loopline')!;
      const { accounts } = (await here.world.owner.get('posting')).body;
      const { id } = accounts.find((one: { name: string }) => one.name === `acct-gone-${isUp}`);
      expect((await here.world.owner.delete(`accounts/${id}`)).status).toBe(204);
      expect(platform.rights.state().grants.filter((one) => one.account === `acct-gone-${isUp}`)).toEqual([]);
      await until(
        async () => (await here.world.owner.get(`posts/${postId}/sending`)).body,
        (view) => view.askPerson,
      );
      expect((await here.world.owner.delete(`posts/${postId}`)).status).toBe(409); // what may be there does not go
      const { version } = await here.post(postId);
      // Two at once: one says it.
      const said = await Promise.all([1, 2].map(() => here.world.owner.put(`posts/${postId}/outcome`, { isUp, version })));
      expect(said.map((one) => one.status).sort()).toEqual([200, 409]);
      expect(await here.post(postId)).toMatchObject({ state: isUp ? 'posted' : 'missed' });
    }
  });

  it('is one client’s: the same account goes to no other', async () => {
    const other = await here.world.client();
    const channelId = await here.channel(other, 'fernpost');
    const { status, body } = await here.connect(channelId, 'acct-fernpost');
    expect(status).toBe(409);
    expect(body.detail).not.toContain('Client');
  });

  it('is sealed where it is kept, and told to nobody', async () => {
    const rows = await query('SELECT * FROM accounts');
    const grants = here.host.platforms.get('northgate')!.rights.state();
    const secrets = [...grants.access.map(([token]) => token), ...grants.grants.map((one) => one.refresh)];
    const told = JSON.stringify(rows.map((row) => Object.fromEntries(Object.entries(row).map(([name, value]) => [name, String(value)]))));
    const shown = (await here.world.owner.get('posting')).text;
    for (const secret of secrets) {
      expect(told).not.toContain(secret);
      expect(shown).not.toContain(secret);
    }
    expect(shown).not.toMatch(/token|verifier/i);
  });
});

describe('stopping', () => {
  it('of a channel, of a client, of everything: nothing goes out until it is let go on', async () => {
    const channelId = channels.get('northgate')!;
    for (const scope of [
      { clientId, channelId },
      { clientId, channelId: null },
      { clientId: null, channelId: null },
    ]) {
      expect((await here.world.owner.put('posting/stops', { ...scope, stopped: true })).status).toBe(200);
      const postId = await plan('northgate');
      await here.waitsFor(postId, 'stop');
      expect(copies('northgate', postId)).toBe(0);
      expect((await here.world.owner.put('posting/stops', { ...scope, stopped: false })).status).toBe(200);
      await here.becomes(postId, 'posted');
      expect(copies('northgate', postId)).toBe(1);
    }
  });

  it('reaches what was handed over ahead of its time', async () => {
    const channelId = channels.get('hearthside')!;
    const postId = await plan('hearthside', 11 * MINUTE);
    await here.becomes(postId, 'processing');
    await here.world.owner.put('posting/stops', { clientId, channelId, stopped: true });
    await here.waitsFor(postId, 'stop');
    expect(copies('hearthside', postId)).toBe(0);
    await here.world.owner.put('posting/stops', { clientId, channelId, stopped: false });
    await here.becomes(postId, 'posted');
    expect(copies('hearthside', postId)).toBe(1);
  });

  it('waits for a call that is being announced just then, and holds when it has answered', async () => {
    const client = new pg.Client({ connectionString: process.env['SIFT_REEL_DATABASE_URL'] });
    await client.connect();
    try {
      await client.query('BEGIN');
      await client.query(`SELECT pg_advisory_xact_lock_shared(hashtextextended('posting-stops', 0))`); // as whoever announces a call
      let answered = false;
      const scope = { clientId, channelId: channels.get('fernpost')! };
      const stopping = here.world.owner.put('posting/stops', { ...scope, stopped: true }).then((answer) => {
        answered = true;
        return answer.status;
      });
      const waits = `SELECT 1 FROM pg_locks WHERE NOT granted AND locktype = 'advisory' AND database = (SELECT oid FROM pg_database WHERE datname = current_database())`;
      await until(
        () => query(waits),
        (rows) => rows.length > 0,
      );
      expect(answered).toBe(false);
      await client.query('COMMIT');
      expect(await stopping).toBe(200);
      await here.world.owner.put('posting/stops', { ...scope, stopped: false });
    } finally {
      await client.end();
    }
  });

  it('everything is the owner’s to stop', async () => {
    const producer = await here.world.producer([clientId]);
    expect((await producer.put('posting/stops', { clientId: null, channelId: null, stopped: true })).status).toBe(403);
    const stranger = await here.world.producer([await here.world.client()]);
    expect((await stranger.put('posting/stops', { clientId, channelId: null, stopped: true })).status).toBe(404);
    expect((await producer.put('posting/stops', { clientId, channelId: null, stopped: true })).status).toBe(200);
    expect((await producer.put('posting/stops', { clientId, channelId: null, stopped: false })).body.stops).toEqual([]);
  });
});

describe('what is not ready', () => {
  it('waits for its file, which is made meanwhile', async () => {
    await query('DELETE FROM renders WHERE short_id = $1', [spare]);
    const postId = await here.plan(channels.get('fernpost')!, spare, here.nowMs() + MINUTE);
    await here.waitsFor(postId, 'file');
    await here.makeFiles([spare]);
    await here.becomes(postId, 'posted');
    expect(copies('fernpost', postId)).toBe(1);
  });

  it('stays whoever’s it was where its time was over before its channel had an account', async () => {
    const channelId = await here.channel(clientId, 'fernpost');
    const before = await here.plan(channelId, shortIds[0]!, here.nowMs() - 20 * MINUTE);
    expect((await here.connect(channelId, 'acct-late')).status).toBe(201);
    const after = await here.plan(channelId, shortIds[1]!, here.nowMs() + MINUTE);
    await here.becomes(after, 'posted');
    expect(await here.post(before)).toMatchObject({ state: 'planned' });
    expect(copies('fernpost', before)).toBe(0);
  });

  it('cannot move while it is on its way', async () => {
    const postId = await plan('loopline', 2 * MINUTE);
    here.order('loopline', 'lost');
    await until(
      () => here.events(postId),
      (events) => events.includes('no-answer'),
    );
    const { version } = await here.post(postId);
    const [row] = await query('SELECT channel_id, date, minute FROM posts WHERE id = $1', [postId]);
    const moved = await here.world.owner.put(`posts/${postId}/place`, { channelId: row!['channel_id'], date: '2026-04-20', minute: 450, version });
    expect([moved.status, moved.body.detail]).toEqual([409, 'It is on its way already, so it cannot move.']);
    expect((await here.world.owner.delete(`posts/${postId}`)).status).toBe(409);
    await here.becomes(postId, 'posted');
  });
});

describe('what is out', () => {
  it('is worded anew and taken down there, and both are on record', async () => {
    const postId = await plan('northgate');
    await here.becomes(postId, 'posted');
    const { version } = await here.post(postId);
    const words = { title: 'Mended', description: 'With the right name.', version };
    expect((await here.world.owner.put(`posts/${postId}/words`, words)).status).toBe(200);
    expect(here.there('northgate').find((one) => one.note === markOf(postId))).toMatchObject({ title: 'Mended' });
    const down = await Promise.all([1, 2].map(() => here.world.owner.delete(`posts/${postId}/publication?version=${version}`)));
    expect(down.map((one) => one.status)).toContain(200);
    expect(down.find((one) => one.status === 200)!.body.takenDownAt).not.toBeNull();
    expect(copies('northgate', postId)).toBe(0);
    expect((await here.events(postId)).slice(-2)).toEqual(['corrected', 'taken-down']);
    expect((await here.world.owner.delete(`posts/${postId}/publication?version=${version}`)).status).toBe(409);
  });

  it('a call back counts only with its signature, and may come again', async () => {
    const body = JSON.stringify({ take: 'sr-none' });
    const call = (headers: Record<string, string>, sent = body) =>
      fetch(`${here.world.base}/api/platforms/tidewire/callbacks`, { method: 'POST', body: sent, headers: { 'content-type': 'application/json', ...headers } });
    expect((await call({})).status).toBe(403);
    expect((await call({ 'take-signature': `sha256=${'0'.repeat(64)}` })).status).toBe(403);
    expect((await call({ 'take-signature': `sha256=${'\u00e9'.repeat(64)}` })).status).toBe(403); // as many letters, more bytes
    for (const odd of ['[]', 'null', '{"take":[]}', '"take"']) expect([400, 403]).toContain((await call({}, odd)).status);
    expect((await call({}, `{"take":"${'a'.repeat(1_100_000)}"}`)).status).toBe(413);
    const signed = { 'take-signature': `sha256=${createHmac('sha256', 'made-up').update(body).digest('hex')}` };
    expect([(await call(signed)).status, (await call(signed)).status]).toEqual([204, 204]);
  });

  it('a file is handed over at its address alone', async () => {
    const [row] = await query(`SELECT post_id, file FROM sendings WHERE service = 'northgate' LIMIT 1`);
    const { HandedFiles } = await import('../dist/publishing/handed-files.service.js');
    const { readConfig } = await import('../dist/config/config.js');
    const config = readConfig();
    const address = new HandedFiles(config).addressOf(String(row!['post_id'])).replace(config.publicUrl, here.world.base);
    const bytes = Buffer.from(await (await fetch(address)).arrayBuffer());
    expect(bytes.equals(await readFile(join(process.env['SIFT_REEL_MEDIA_DIR']!, 'renders', String(row!['file']))))).toBe(true);
    expect((await fetch(address.replace(/\.\d{10}\./, '.9999999999.'))).status).toBe(404);
  });
});
