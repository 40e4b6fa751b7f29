import { OPEN_VOICE, PLAIN_CARD } from '@sift-reel/core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { BRIEF, type Caller, PLATFORM, World } from './world.js';

let world: World;
let clientId: string;
let producer: Caller;
beforeAll(async () => {
  world = await World.make();
  clientId = await world.client();
  producer = await world.producer([clientId]);
});
afterAll(() => world.close());

const CLIENT = { name: 'Quarry Lane', zone: 'Europe/Dublin', tags: ['slate'], standingBrief: BRIEF };
const windows = [
  { weekday: 1, minute: 450, weight: 70 },
  { weekday: 3, minute: 1_080, weight: 50 },
];
const channel = async (fields: object = {}): Promise<object> => ({
  name: 'Loop',
  platformProfileId: await world.platform(),
  zone: 'Europe/Dublin',
  order: 1,
  postsPerDay: 1,
  postsPerWeek: 3,
  windows,
  ...fields,
});

describe('clients', () => {
  it('are made by the owner, changed by whoever works for them', async () => {
    const made = await world.owner.post('clients', CLIENT);
    expect([made.status, made.body]).toEqual([
      201,
      {
        ...CLIENT,
        id: made.body.id,
        signalWeights: null,
        voice: OPEN_VOICE,
        cardStyle: PLAIN_CARD,
        writingService: false,
        filesKeptDays: null,
        comeAgainDays: null,
        lateMinutes: 120,
        recordingCount: 0,
        channelCount: 0,
        version: 1,
      },
    ]);
    expect((await producer.post('clients', { ...CLIENT, name: 'Mine' })).status).toBe(403);
    const changed = await producer.put(`clients/${clientId}`, {
      ...CLIENT,
      name: `Renamed ${clientId}`,
      standingBrief: { ...BRIEF, topics: ['slate'] },
      version: 1,
    });
    expect(changed.body.standingBrief.topics).toEqual(['slate']);
  });
  it('have names of their own', async () => {
    await world.owner.post('clients', { ...CLIENT, name: `Twice ${clientId}` });
    const again = await world.owner.post('clients', { ...CLIENT, name: `Twice ${clientId}` });
    expect([again.status, again.body.detail]).toEqual([409, 'A client of this name exists already, perhaps among the archived ones.']);
  });
  it.each([
    [{ name: '' }, 'name'],
    [{ zone: 'Europe/Atlantis' }, 'zone'],
    [{ tags: ['x'.repeat(41)] }, 'tags'],
    [{ standingBrief: { ...BRIEF, minMs: 1 } }, 'standingBrief.minMs'],
    [{ standingBrief: { ...BRIEF, partStartMs: 5, partEndMs: 4 } }, 'standingBrief.partEndMs'],
  ])('are refused with the field: %j', async (fields, field) => {
    const answer = await world.owner.post('clients', { ...CLIENT, name: 'Bad', ...fields });
    expect(answer.status).toBe(400);
    expect(answer.body.errors.map((error: { field: string }) => error.field)).toContain(field);
  });
});

describe('channels', () => {
  it('come with their windows and their platform’s rules', async () => {
    const made = await producer.post(`clients/${clientId}/channels`, await channel());
    expect(made.status).toBe(201);
    expect(made.body).toMatchObject({ name: 'Loop', zone: 'Europe/Dublin', windows, platform: { maxDurationMs: PLATFORM.maxDurationMs } });
    const changed = await producer.put(
      `channels/${made.body.id}`,
      await channel({ name: 'Loop two', windows: windows.slice(1), zone: 'America/Halifax', version: 1 }),
    );
    expect(changed.body).toMatchObject({ name: 'Loop two', zone: 'America/Halifax', windows: windows.slice(1) });
    expect((await producer.delete(`channels/${made.body.id}`)).status).toBe(204);
    expect((await producer.get('channels')).body).toEqual([]);
  });
  it('are refused whole: a bad window leaves no channel', async () => {
    const twice = await producer.post(`clients/${clientId}/channels`, await channel({ name: 'Doubled', windows: [windows[0], windows[0]] }));
    expect([twice.status, twice.body.detail]).toEqual([409, 'Two posting windows stand at the same time.']);
    const eighth = await producer.post(`clients/${clientId}/channels`, await channel({ name: 'Eighth', windows: [{ weekday: 8, minute: 0, weight: 1 }] }));
    expect([eighth.status, eighth.body.errors]).toEqual([400, [{ field: 'windows.0.weekday', detail: 'must be from 1 to 7' }]]);
    expect((await producer.post(`clients/${clientId}/channels`, await channel({ platformProfileId: clientId }))).status).toBe(404);
    expect((await producer.get('channels')).body).toEqual([]);
  });
  it('of one client differ in name', async () => {
    await producer.post(`clients/${clientId}/channels`, await channel({ name: 'Same' }));
    expect((await producer.post(`clients/${clientId}/channels`, await channel({ name: 'Same' }))).status).toBe(409);
  });
});

describe('days without posts', () => {
  it('are for all channels, or for one of the same client', async () => {
    const other = await world.channel(await world.client());
    const day = { fromDate: '2055-12-24', toDate: '2055-12-26', reason: 'closed' };
    const made = await producer.post(`clients/${clientId}/blackouts`, { ...day, channelId: null });
    expect(made.body).toMatchObject({ ...day, clientId, channelId: null });
    expect((await producer.post(`clients/${clientId}/blackouts`, { ...day, channelId: other })).status).toBe(404);
    expect((await producer.post(`clients/${clientId}/blackouts`, { ...day, channelId: null, toDate: '2055-12-23' })).body.errors).toEqual([
      { field: 'toDate', detail: 'must not be before the first day' },
    ]);
    expect((await producer.get('blackouts')).body).toHaveLength(1);
    expect((await producer.delete(`blackouts/${made.body.id}`)).status).toBe(204);
    expect((await producer.get('blackouts')).body).toEqual([]);
  });
});

describe('platform profiles', () => {
  it('are the owner’s to keep, everybody’s to see', async () => {
    const id = await world.platform();
    const { id: _, version, ...fields } = (await producer.get('platform-profiles')).body.find((one: { id: string }) => one.id === id);
    expect((await producer.put(`platform-profiles/${id}`, { ...fields, version })).status).toBe(403);
    expect((await world.owner.put(`platform-profiles/${id}`, { ...fields, hashtagLimit: 2, version })).body.hashtagLimit).toBe(2);
    expect((await world.owner.post('platform-profiles', fields)).status).toBe(409);
    const loud = await world.owner.put(`platform-profiles/${id}`, { ...fields, loudness: -4, truePeak: 1, version: 2 });
    expect(loud.body.errors).toEqual([
      { field: 'loudness', detail: 'must be from -36 to -8' },
      { field: 'truePeak', detail: 'must be from -8 to 0' },
    ]);
    expect((await world.owner.put(`platform-profiles/${id}`, { ...fields, maxDurationMs: 1_000, minDurationMs: 5_000, version: 2 })).body.errors[0].field).toBe(
      'maxDurationMs',
    );
  });
});

describe('requests that make no sense', () => {
  it.each([
    ['GET', 'recordings/not-an-id', 400],
    ['GET', 'nowhere', 404],
    ['PUT', 'channels/not-an-id', 400],
    ['GET', 'recordings?clientId=x', 400],
  ])('%s %s: %d, as a problem document', async (method, path, status) => {
    const answer = await world.owner.call(method, path, method === 'PUT' ? {} : undefined);
    expect([answer.status, answer.body.status, answer.headers.get('content-type')]).toEqual([
      status,
      status,
      expect.stringContaining('application/problem+json'),
    ]);
  });
  it('broken JSON is the sender’s fault, not ours', async () => {
    const response = await fetch(`${world.base}/api/session`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: '{"email":' });
    expect(response.status).toBe(400);
  });
});
