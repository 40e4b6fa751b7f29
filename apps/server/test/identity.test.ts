import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Caller, PASSWORD, query, World } from './world.js';

let world: World;
beforeAll(async () => {
  world = await World.make();
});
afterAll(() => world.close());

describe('signing in', () => {
  it('gives a session in a cookie that scripts and other sites cannot use', async () => {
    const answer = await new Caller(world.base).signIn(world.ownerEmail);
    expect(answer.status).toBe(201);
    const cookie = answer.headers.get('set-cookie')!;
    for (const part of ['HttpOnly', 'SameSite=Strict', 'Path=/']) expect(cookie).toContain(part);
    expect(answer.text).not.toContain('argon2');
    const token = cookie.split(';')[0]!.split('=')[1]!;
    const rows = await query('SELECT token_hash FROM sessions');
    expect(rows.some((row) => String(row['token_hash']).includes(token))).toBe(false); // only its hash is stored
  });
  it('says the same of a wrong password and an unknown e-mail', async () => {
    const wrong = await new Caller(world.base).signIn(world.ownerEmail, 'not the password');
    const nobody = await new Caller(world.base).signIn('nobody@agency.example');
    expect([wrong.status, nobody.status]).toEqual([401, 401]);
    expect(wrong.body).toEqual(nobody.body);
    expect(wrong.headers.get('content-type')).toContain('application/problem+json');
  });
  it('slows guessing down', async () => {
    const statuses: number[] = [];
    for (let i = 0; i < 10; i += 1) statuses.push((await new Caller(world.base).signIn('guessed@agency.example', `guess ${i}`)).status);
    expect(statuses.slice(0, 8)).toEqual(Array(8).fill(401));
    expect(statuses.slice(8)).toEqual([429, 429]);
  });
  it('slows guessing at many accounts from one place, and a header that somebody forged changes nothing', async () => {
    await query('DELETE FROM sign_in_counts');
    const statuses: number[] = [];
    for (let i = 0; i < 36; i += 1) {
      const forged = { 'x-forwarded-for': `203.0.113.${i}` };
      statuses.push((await new Caller(world.base).call('POST', 'session', { email: `nobody-${i}@agency.example`, password: 'guess' }, forged)).status);
    }
    expect(statuses.filter((status) => status === 401)).toHaveLength(30);
    expect(statuses.slice(30)).toEqual(Array(6).fill(429));
    await query('DELETE FROM sign_in_counts');
  });
  it('counts at the same moment, too: a hundred guesses at once are still eight', async () => {
    const guesses = await Promise.all(Array.from({ length: 40 }, (_, i) => new Caller(world.base).signIn('at-once@agency.example', `guess ${i}`)));
    expect(guesses.filter((one) => one.status === 401).length).toBeLessThanOrEqual(8);
    await query('DELETE FROM sign_in_counts');
  });
  it('does not count what succeeds', async () => {
    for (let i = 0; i < 12; i += 1) expect((await new Caller(world.base).signIn(world.ownerEmail)).status).toBe(201);
  });
  it('stands in the trail, and so do failures and signing out', async () => {
    const producer = await world.producer([]);
    const { userId, email } = (await producer.get('session')).body;
    await new Caller(world.base).signIn(email, 'not the password');
    await producer.delete('session');
    const actions = (await world.owner.get('audit')).body
      .filter((one: { subjectId: string }) => one.subjectId === userId)
      .map((one: { action: string }) => one.action);
    expect(actions).toEqual(['sign-out', 'sign-in-failed', 'choose-password', 'create']);
    expect((await producer.get('audit')).status).toBe(401);
  });
  it('ends with signing out', async () => {
    const caller = new Caller(world.base);
    await caller.signIn(world.ownerEmail);
    expect((await caller.get('session')).status).toBe(200);
    expect((await caller.delete('session')).status).toBe(204);
    expect((await caller.get('session')).status).toBe(401);
  });
  it('names each field that is wrong', async () => {
    const answer = await new Caller(world.base).post('session', { email: 'x', password: '', admin: true });
    expect(answer.status).toBe(400);
    expect(answer.body.errors).toEqual(
      expect.arrayContaining([
        { field: 'email', detail: 'must be an e-mail address' },
        { field: 'password', detail: 'must not be empty' },
        { field: 'admin', detail: 'is not a field of this form' },
      ]),
    );
  });
});

describe('requests that change something', () => {
  const client = { name: 'X', zone: 'UTC', tags: [], standingBrief: {} };
  it('are refused without the session’s token', async () => {
    const caller = new Caller(world.base);
    await caller.signIn(world.ownerEmail);
    caller.csrf = '';
    expect((await caller.post('clients', client)).status).toBe(403);
    caller.csrf = 'x'.repeat(32);
    expect((await caller.post('clients', client)).status).toBe(403);
  });
  it('are refused from other sites, even signing in', async () => {
    const foreign: Record<string, string>[] = [{ origin: 'https://elsewhere.example' }, { 'sec-fetch-site': 'cross-site' }, { origin: 'null' }];
    for (const headers of foreign) {
      expect((await world.owner.call('POST', 'clients', client, headers)).status).toBe(403);
      expect((await new Caller(world.base).call('POST', 'session', { email: world.ownerEmail, password: PASSWORD }, headers)).status).toBe(403);
    }
  });
});

describe('users', () => {
  it('are the owner’s to manage', async () => {
    const clientId = await world.client();
    const producer = await world.producer([clientId]);
    expect((await producer.get('users')).status).toBe(403);
    expect((await producer.post('users', { email: 'z@z.example', name: 'Z', role: 'owner', clientIds: [] })).status).toBe(403);
    expect((await producer.post('platform-profiles', {})).status).toBe(400);
  });
  it('that are switched off are out at once', async () => {
    const producer = await world.producer([await world.client()]);
    const session = (await producer.get('session')).body;
    const answer = await world.owner.put(`users/${session.userId}`, { name: 'Gone', role: 'producer', clientIds: [], active: false, version: 1 });
    expect(answer.body).toMatchObject({ active: false, clientIds: [] });
    expect((await producer.get('session')).status).toBe(401);
  });
  it('cannot take the owner’s rights from themselves', async () => {
    const session = (await world.owner.get('session')).body;
    expect((await world.owner.put(`users/${session.userId}`, { name: 'O', role: 'producer', clientIds: [], active: true, version: 1 })).status).toBe(409);
  });
  it('keep their e-mail to themselves', async () => {
    expect((await world.owner.post('users', { email: world.ownerEmail, name: 'Twin', role: 'producer', clientIds: [] })).status).toBe(409);
  });
});

describe('a password', () => {
  it('is one’s own to change; everywhere else one is signed out, here one goes on', async () => {
    const producer = await world.producer([]);
    const { email } = (await producer.get('session')).body;
    const elsewhere = new Caller(world.base);
    await elsewhere.signIn(email);
    const wrong = await producer.put('session/password', { current: 'not it', next: 'a quite new password' });
    expect([wrong.status, wrong.body.errors[0].field]).toEqual([400, 'current']);
    expect((await producer.put('session/password', { current: PASSWORD, next: 'short' })).body.errors[0].field).toBe('next');
    const changed = await producer.put('session/password', { current: PASSWORD, next: 'a quite new password' });
    producer.csrf = changed.body.csrfToken;
    expect(changed.status).toBe(200);
    expect((await producer.get('session')).status).toBe(200);
    expect((await elsewhere.get('session')).status).toBe(401);
    expect((await new Caller(world.base).signIn(email)).status).toBe(401);
    expect((await new Caller(world.base).signIn(email, 'a quite new password')).status).toBe(201);
  });
  it('is chosen by a one-time link that only its hash is kept of; of two at once, one is let in', async () => {
    const email = `new-${Date.now()}@agency.example`;
    const { link, user } = (await world.owner.post('users', { email, name: 'New', role: 'producer', clientIds: [] })).body;
    const token = link.split('/').at(-1);
    expect(user).toMatchObject({ invited: true });
    expect((await query('SELECT token_hash FROM invitations')).some((row) => String(row['token_hash']).includes(token))).toBe(false);
    expect((await new Caller(world.base).signIn(email)).status).toBe(401); // nobody knows a password yet
    expect((await new Caller(world.base).get(`invitations/${token}`)).body).toEqual({ name: 'New', email });
    const twice = await Promise.all([new Caller(world.base).takeUp(link), new Caller(world.base).takeUp(link)]);
    expect(twice.map((one) => one.status).sort()).toEqual([201, 410]);
    expect((await new Caller(world.base).get(`invitations/${token}`)).status).toBe(410);
  });
  it('that was forgotten: a new link makes the old one void', async () => {
    const { link, user } = (await world.owner.post('users', { email: `lost-${Date.now()}@agency.example`, name: 'Lost', role: 'producer', clientIds: [] }))
      .body;
    const next = (await world.owner.post(`users/${user.id}/invitation`)).body.link;
    expect((await new Caller(world.base).takeUp(link)).status).toBe(410);
    expect((await new Caller(world.base).takeUp(next)).status).toBe(201);
  });
});

describe('a user', () => {
  it('is removed, and what they made stays', async () => {
    const clientId = await world.client();
    const producer = await world.producer([clientId]);
    const { userId } = (await producer.get('session')).body;
    await producer.post(`clients/${clientId}/blackouts`, { channelId: null, fromDate: '2055-01-01', toDate: '2055-01-01', reason: 'made by them' });
    expect((await producer.delete(`users/${userId}`)).status).toBe(403);
    expect((await world.owner.delete(`users/${userId}`)).status).toBe(204);
    expect((await producer.get('session')).status).toBe(401);
    expect((await world.owner.get('blackouts')).body.some((one: { reason: string }) => one.reason === 'made by them')).toBe(true);
    const me = (await world.owner.get('session')).body.userId;
    expect((await world.owner.delete(`users/${me}`)).status).toBe(409);
  });
});

describe('health', () => {
  it('tells of database and queue without a session', async () => {
    const answer = await new Caller(world.base).get('health');
    expect([answer.status, answer.body]).toEqual([200, { database: true, queue: true, events: true }]);
  });
});
