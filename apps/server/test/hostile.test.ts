import { randomUUID } from 'node:crypto';
import { Agent, get, type IncomingMessage } from 'node:http';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { approveShorts, seedRanking } from './seed.js';
import { BRIEF, type Caller, query, World } from './world.js';

let world: World;
let clientId: string;
let ids: Record<string, string>;
beforeAll(async () => {
  world = await World.make();
  clientId = await world.client();
  const channelId = await world.channel(clientId);
  const seeded = await seedRanking(world, clientId);
  const [shortId] = await approveShorts(world, seeded, 1);
  const batch = (await world.owner.post('batches', { name: 'B', shortIds: [shortId] })).body;
  const post = (await world.owner.post('schedule/posts', { batchId: null, placements: [{ shortId, channelId, date: '2055-05-05', minute: 450, why: 'x' }] }))
    .body[0];
  const [session] = await query(`SELECT id FROM users WHERE email = $1`, [world.ownerEmail]);
  const [feed] = await query(`INSERT INTO feeds (client_id, url, title, rule) VALUES ($1, 'https://shows.example/feed.xml', 'F', 'list') RETURNING id`, [
    clientId,
  ]);
  ids = {
    feedId: String(feed!['id']),
    episodeId: randomUUID(),
    clientId,
    channelId,
    recordingId: seeded.recordingId,
    siftId: seeded.siftId,
    candidateId: seeded.candidates[0]!.id,
    shortId: shortId!,
    batchId: batch.id,
    postId: post.id,
    platformProfileId: await world.platform(),
    userId: String(session!['id']),
    blackoutId: randomUUID(),
    token: 'x'.repeat(43),
  };
});
afterAll(() => world.close());

interface Schema {
  readonly type?: string;
  readonly $ref?: string;
  readonly allOf?: readonly Schema[];
  readonly enum?: readonly string[];
  readonly format?: string;
  readonly properties?: Readonly<Record<string, Schema>>;
  readonly items?: Schema;
}
interface ApiDocument {
  readonly paths: Readonly<Record<string, Readonly<Record<string, Operation>>>>;
  readonly components: { readonly schemas: Readonly<Record<string, Schema>> };
}
interface Operation {
  readonly parameters?: readonly { readonly name: string; readonly in: string }[];
  readonly requestBody?: { readonly content: Readonly<Record<string, { readonly schema: Schema }>> };
}

const NASTY = [
  '',
  ' ',
  '\0',
  'a\0b',
  '\ud800',
  '𝕏'.repeat(50),
  'x'.repeat(70_000),
  '=1+1',
  '../../etc/passwd',
  "'; DROP TABLE users; --",
  '2055-02-30',
  '0000-00-00',
  'null',
  '١٢',
];
const nasty = fc.oneof(
  fc.constantFrom<unknown>(...NASTY),
  fc.string({ unit: 'binary', maxLength: 40 }),
  fc.constantFrom<unknown>(
    null,
    true,
    false,
    0,
    -1,
    1.5,
    1e308,
    -0,
    Number.MAX_SAFE_INTEGER,
    [],
    {},
    [[]],
    [null],
    { length: 3 },
    { __proto__: null, constructor: 1 },
  ),
  fc.jsonValue({ maxDepth: 3 }),
);

/** Values of a schema: mostly of the right type, at its edges, and now and then anything at all. */
function valuesOf(schema: Schema, document: ApiDocument, depth = 0): fc.Arbitrary<unknown> {
  const target = schema.$ref ?? schema.allOf?.[0]?.$ref;
  if (target !== undefined) return valuesOf(document.components.schemas[target.split('/').at(-1)!]!, document, depth + 1);
  const right = ((): fc.Arbitrary<unknown> => {
    if (schema.enum !== undefined) return fc.constantFrom(...schema.enum);
    if (schema.format === 'uuid') return fc.constantFrom(...Object.values(ids), randomUUID());
    if (schema.format === 'date') return fc.constantFrom('2055-05-05', '2055-02-28', '2055-12-31', '2055-02-30', '0001-01-01', '9999-12-31');
    if (schema.type === 'array') return fc.array(valuesOf(schema.items ?? {}, document, depth + 1), { maxLength: depth > 2 ? 2 : 4 });
    if (schema.type === 'object' || schema.properties !== undefined)
      return fc.record(Object.fromEntries(Object.entries(schema.properties ?? {}).map(([key, one]) => [key, valuesOf(one, document, depth + 1)])), {
        requiredKeys: [],
      });
    if (schema.type === 'integer' || schema.type === 'number') return fc.oneof(fc.integer({ min: -2, max: 5 }), fc.integer(), fc.double());
    if (schema.type === 'boolean') return fc.boolean();
    return fc.oneof(fc.string({ maxLength: 30 }), fc.constantFrom('Europe/Dublin', 'a@b.example', '#tag'));
  })();
  return fc.oneof({ weight: 5, arbitrary: right }, { weight: 1, arbitrary: nasty });
}

const DOCUMENTED = [200, 201, 204, 400, 401, 403, 404, 409, 410, 413, 415, 422, 429];

describe('whatever is thrown at a route', () => {
  // Some two thousand calls: a busy machine takes its time, which is not what is asked.
  it('is answered as the document says, never with a fault', { timeout: 900_000 }, async () => {
    const document = (await world.owner.get('docs.json')).body as ApiDocument;
    const routes = Object.entries(document.paths).flatMap(([path, methods]) =>
      Object.entries(methods).map(([method, operation]) => ({ path: path.replace('/api/', ''), method: method.toUpperCase(), operation })),
    );
    expect(routes.length).toBeGreaterThan(60);
    // Not these: they would end the session that asks, or take away what the others ask about.
    const spared = /^(?:DELETE session|PUT session\/password|DELETE (?:clients|recordings|users|candidates)\/)/;
    for (const { path, method, operation } of routes) {
      if (spared.test(`${method} ${path}`)) continue;
      const schema = operation.requestBody?.content['application/json']?.schema;
      const body = schema === undefined ? fc.constant<unknown>(undefined) : valuesOf(schema, document);
      const queries = (operation.parameters ?? []).filter((one) => one.in === 'query').map((one) => one.name);
      const asked = fc.record({ body, query: fc.record(Object.fromEntries(queries.map((name) => [name, nasty])), { requiredKeys: [] }), ownIds: fc.boolean() });
      for (const { body: sent, query: by, ownIds } of fc.sample(asked, { numRuns: 30, seed: 20_261_128 })) {
        const target = path.replace(/\{(\w+)\}/g, (_, name: string) => (ownIds ? (ids[name] ?? randomUUID()) : randomUUID()));
        const search = new URLSearchParams(
          Object.entries(by).map(([name, value]): [string, string] => [name, typeof value === 'string' ? value : JSON.stringify(value)]),
        );
        const answer = await world.owner.call(method, `${target}?${search.toString()}`, sent);
        const told = `${method} ${target} ${JSON.stringify(sent)?.slice(0, 300) ?? ''} → ${answer.status} ${answer.text.slice(0, 200)}`;
        expect(DOCUMENTED, told).toContain(answer.status);
        if (answer.status >= 400 && method !== 'GET') expect(answer.body, told).toMatchObject({ status: answer.status, detail: expect.any(String) });
      }
    }
    expect((await world.owner.get('session')).status).toBe(200);
  });
  afterAll(() => query('DELETE FROM sign_in_counts'));
});

describe('what is not a value is a field error, with its field', () => {
  const NAMES = { name: 'Field errors', zone: 'UTC', tags: [], standingBrief: BRIEF };
  it.each<[string, object, string]>([
    ['a zero character', { ...NAMES, name: 'a\0b' }, 'name'],
    ['half of a character', { ...NAMES, tags: ['\ud800'] }, 'tags'],
    ['spaces alone', { ...NAMES, name: '   ' }, 'name'],
    ['a topic of spaces', { ...NAMES, standingBrief: { ...BRIEF, topics: ['  '] } }, 'standingBrief.topics'],
    ['no standing brief', { name: 'Field errors', zone: 'UTC', tags: [] }, 'standingBrief'],
    ['a standing brief that is a list', { ...NAMES, standingBrief: [BRIEF] }, 'standingBrief'],
    ['a part shorter than the shortest candidate', { ...NAMES, standingBrief: { ...BRIEF, partStartMs: 0, partEndMs: 5_000 } }, 'standingBrief.partEndMs'],
  ])('%s', async (_, form, field) => {
    const answer = await world.owner.post('clients', form);
    expect([answer.status, answer.body.errors.map((one: { field: string }) => one.field)]).toEqual([400, expect.arrayContaining([field])]);
  });
  it.each(['2055-02-30', '0000-01-01', '0001-01-01', '9999-12-31', '2055-13-01'])('the day %s', async (date) => {
    const placement = { shortId: ids['shortId'], channelId: ids['channelId'], date, minute: 450, why: '' };
    const answer = await world.owner.post('schedule/posts', { batchId: null, placements: [placement] });
    expect([answer.status, answer.body.errors[0].field]).toEqual([400, 'placements.0.date']);
  });
  it.each([[[1e308, 1e308, 0, 0, 0, 0]], [[1, 2, 3]], [[-1, 0, 0, 0, 0, 2]], [['1', 0, 0, 0, 0, 0]]])('weights %j', async (weights) => {
    const answer = await world.owner.put(`clients/${clientId}/signal-weights`, { weights, version: await world.version('clients', clientId) });
    expect([answer.status, answer.body.errors[0].field]).toEqual([400, 'weights']);
  });
  it('a body nested five thousand deep', async () => {
    const response = await fetch(`${world.base}/api/clients`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', cookie: world.owner.cookie, 'x-csrf-token': world.owner.csrf },
      body: `{"name":"x","zone":"UTC","tags":[],"standingBrief":{"topics":${'['.repeat(5_000)}${']'.repeat(5_000)}}}`,
    });
    expect(response.status).toBe(400);
  });
  it.each(['', 'x', 'http://', 'http://[::1', 'null'])('the origin %j', async (origin) => {
    expect((await world.owner.call('POST', 'clients', NAMES, { origin })).status).toBe(403);
  });
  it('ids of clients that are not there, in a new user; an id twice counts once', async () => {
    const user = { email: `u-${randomUUID()}@agency.example`, name: 'U', role: 'producer' };
    const refused = await world.owner.post('users', { ...user, clientIds: [randomUUID()] });
    expect([refused.status, refused.body.errors[0].field]).toEqual([400, 'clientIds']);
    expect((await world.owner.post('users', { ...user, clientIds: [clientId, clientId] })).body.user.clientIds).toEqual([clientId]);
  });
  it('things of a client that is not there', async () => {
    const nowhere = randomUUID();
    const channel = { name: 'C', platformProfileId: ids['platformProfileId'], zone: 'UTC', order: 1, postsPerDay: 1, postsPerWeek: 1, windows: [] };
    expect((await world.owner.post(`clients/${nowhere}/channels`, channel)).status).toBe(404);
    expect(
      (await world.owner.post(`clients/${nowhere}/blackouts`, { channelId: null, fromDate: '2055-01-01', toDate: '2055-01-01', reason: 'x' })).status,
    ).toBe(404);
    expect((await world.owner.put(`clients/${nowhere}`, { ...NAMES, version: 1 })).status).toBe(404);
  });
  it('a name that differs from another’s by case and spaces only', async () => {
    const name = `Ardmore ${randomUUID().slice(0, 8)}`;
    expect((await world.owner.post('clients', { ...NAMES, name })).status).toBe(201);
    expect((await world.owner.post('clients', { ...NAMES, name: ` ${name.toUpperCase()} ` })).status).toBe(409);
  });
});

describe('a client that the agency does not work for any more', () => {
  it('is out of sight with all that it owns, and comes back as it was', async () => {
    const own = await world.client();
    const seeded = await seedRanking(world, own);
    const producer: Caller = await world.producer([own]);
    expect((await producer.delete(`clients/${own}`)).status).toBe(403);
    expect((await world.owner.delete(`clients/${own}`)).status).toBe(204);
    for (const who of [world.owner, producer]) {
      expect((await who.get(`recordings/${seeded.recordingId}`)).status).toBe(404);
      expect((await who.get('clients')).body.some((one: { id: string }) => one.id === own)).toBe(false);
    }
    expect((await world.owner.get('archived-clients')).body.map((one: { id: string }) => one.id)).toContain(own);
    expect((await world.owner.post(`archived-clients/${own}/restore`)).body.id).toBe(own);
    expect((await producer.get(`recordings/${seeded.recordingId}`)).status).toBe(200);
  });
});

describe('a line that is kept open', () => {
  // Node's own five seconds cut it under a caller who speaks on it just then; that limit would be told in the answer.
  it('is not said to end after some seconds', async () => {
    const agent = new Agent({ keepAlive: true });
    const answer = await new Promise<IncomingMessage>((resolve, reject) => {
      get(`${world.base}/api/health`, { agent }, resolve).on('error', reject);
    });
    answer.resume();
    expect([answer.headers.connection, answer.headers['keep-alive']]).toEqual(['keep-alive', undefined]);
    agent.destroy();
  });
});
