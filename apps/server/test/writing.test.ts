import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { settings } from '../../../scripts/lib/config.mjs';
import { serviceEnv, startService } from '../../../scripts/lib/services.mjs';
import { HttpWriter } from '../dist/writing/http-writer.js';
import { readWrittenWords } from '../dist/writing/written-words.js';
import type { WriterRequest } from '../dist/writing/writer.js';
import { seedRanking } from './seed.js';
import { type Answer, changedWhileRead, query, World } from './world.js';

const { standinsPort } = settings('test');
const SERVICE = `http://127.0.0.1:${standinsPort}/writing`;
let world: World;
let clientId: string;
let shortId: string;
type Service = ReturnType<typeof startService>;
let standins: Service;
let worker: Service | null = null;

const env = () => serviceEnv(settings('test'), process.env['SIFT_REEL_DATABASE_URL']!, { SIFT_REEL_LOG_LEVEL: 'silent', SIFT_REEL_WRITING_URL: SERVICE });
const start = (part: 'worker' | 'standins'): Service => startService(part, env(), { quiet: true });
/** One worker for all, unless a test takes it away. */
const needWorker = (): Service => (worker ??= start('worker'));
async function noWorker(): Promise<void> {
  await worker?.stop();
  worker = null;
}
const answerAs = (manner: string) => fetch(`${SERVICE}/${manner}`, { method: 'PUT' });
const ask = (): Promise<Answer> => world.owner.post(`shorts/${shortId}/writings`);
const read = async (id: string): Promise<Answer['body']> => (await world.read(`shorts/${shortId}/writings`)).body.find((one: { id: string }) => one.id === id);
async function answerOf(id: string, done = (one: Answer['body']): boolean => ['done', 'failed', 'cancelled'].includes(one.state)): Promise<Answer['body']> {
  for (let i = 0; i < 1_200; i += 1) {
    const one = await read(id);
    if (done(one)) return one;
    await new Promise((resolve) => {
      setTimeout(resolve, 50);
    });
  }
  throw new Error('no answer comes');
}
const allow = async (allowed: boolean) =>
  world.owner.put(`clients/${clientId}/writing-service`, { allowed, version: await world.version('clients', clientId) });
const rulesOf = (findings: { rule: string; text: string }[]) => findings.map(({ rule, text }) => `${rule} ${text}`);

beforeAll(async () => {
  process.env['SIFT_REEL_WRITING_URL'] = SERVICE;
  world = await World.make();
  clientId = await world.client();
  await world.channel(clientId);
  const seeded = await seedRanking(world, clientId);
  await world.owner.put(`candidates/${seeded.candidates[0]!.id}/state`, { state: 'kept' });
  shortId = (await world.shorts(seeded.recordingId))[0].id;
  standins = start('standins');
  await standins.ready;
});
afterEach(() => answerAs('well'));
afterAll(async () => {
  await noWorker();
  await standins.stop();
  delete process.env['SIFT_REEL_WRITING_URL'];
  await world.close();
});

describe('the writing service', () => {
  it('is asked for nobody who has not allowed it', async () => {
    expect((await world.owner.get('writing-service')).body).toEqual({ configured: true });
    const refused = await ask();
    expect([refused.status, refused.body.detail]).toEqual([409, expect.stringContaining('does not allow the writing service')]);
    expect(await query('SELECT 1 FROM writings WHERE client_id = $1', [clientId])).toEqual([]);
    expect((await allow(true)).body.writingService).toBe(true);
  });
  it('gets the passage as data, with its voice and limits, and what was sent and what came is kept', async () => {
    needWorker();
    const { body } = await ask();
    const done = await answerOf(body.id);
    expect(done.state).toBe('done');
    expect(done.titles.length).toBeGreaterThan(0);
    for (const { findings } of done.titles) expect(rulesOf(findings)).toEqual([]);
    const sent = JSON.parse(done.sent) as WriterRequest;
    expect(Object.keys(sent).sort()).toEqual(['context', 'language', 'limits', 'passage', 'version', 'voice', 'wanted']);
    expect(sent.passage.sentences.length).toBeGreaterThan(1);
    expect(sent.limits).toEqual({ title: 100, description: 300, hashtags: 5, coverLine: 36 });
    expect(JSON.parse(done.came as string)).toMatchObject({ titles: done.titles.map(({ text }: { text: string }) => text) });
    expect((await world.owner.get(`clients/${clientId}/audit`)).body[0]).toMatchObject({ action: 'ask-for-words' });
  });
  it.each([
    ['invented-figure', 'figure 4711'],
    ['invented-name', 'name Kestrelwick'],
  ])('that says what was not said (%s) is caught, and its words need a tick', async (manner, finding) => {
    await answerAs(manner);
    needWorker();
    const done = await answerOf((await ask()).body.id);
    expect(rulesOf(done.titles[0].findings)).toContain(finding);
    const { copy } = (await world.read(`shorts/${shortId}`)).body;
    await world.writeShort('PUT', shortId, 'copy', { ...copy, title: done.titles[0].text });
    const refused = await world.writeShort('PUT', shortId, 'approval', { approved: true });
    expect([refused.status, refused.body.code]).toEqual([422, 'unsaid']);
    expect(rulesOf(refused.body.unsaid)).toContain(finding);
    await world.writeShort('PUT', shortId, 'copy', copy);
  });
  it('that answers in another language, or at too great length, is found out', async () => {
    needWorker();
    await answerAs('other-language');
    const other = await answerOf((await ask()).body.id);
    expect(other).toMatchObject({ state: 'done', otherLanguage: 'German' });
    await answerAs('too-long');
    const long = await answerOf((await ask()).body.id);
    expect(long.titles[0].findings).toEqual(expect.arrayContaining([expect.objectContaining({ rule: 'length' })]));
  });
  it.each([
    ['nothing', 'The writing service had nothing to say.'],
    ['nonsense', 'The writing service answered with something that is not JSON.'],
    ['error', 'The writing service refused (503).'],
  ])('that has no words (%s) is said to, and nothing half-made stays', async (manner, failure) => {
    await answerAs(manner);
    needWorker();
    const failed = await answerOf((await ask()).body.id);
    expect(failed).toMatchObject({ state: 'failed', failure, titles: [], came: null });
  });
  it('is not asked any more once the client has said no, though the question was put before', async () => {
    await noWorker();
    const { body } = await ask();
    await allow(false);
    needWorker();
    expect(await answerOf(body.id)).toMatchObject({ state: 'failed', failure: 'The client does not allow the writing service any more.', came: null });
    await allow(true);
  });
  it('is asked again after its worker was killed in the middle, and answers once', async () => {
    await answerAs('slowly');
    const first = needWorker();
    const { body } = await ask();
    await answerOf(body.id, ({ state }) => state === 'running');
    first.child.kill('SIGKILL');
    await first.ended;
    worker = null;
    needWorker();
    const done = await answerOf(body.id);
    expect(done.state).toBe('done');
    expect(await query('SELECT count(*)::int AS n FROM writings WHERE id = $1 AND answer IS NOT NULL', [body.id])).toEqual([{ n: 1 }]);
  });
  it('is asked once where two ask at the same moment, and again when that is answered', async () => {
    await answerAs('slowly');
    needWorker();
    const both = await Promise.all([ask(), ask()]);
    expect(both.map(({ status }) => status).sort()).toEqual([201, 409]);
    const { body } = both.find(({ status }) => status === 201)!;
    expect((await ask()).body.detail).toContain('being asked already');
    await answerOf(body.id);
    await answerAs('well');
    expect((await answerOf((await ask()).body.id)).state).toBe('done');
  });
  it('is not waited for when the question is taken back', async () => {
    await answerAs('slowly');
    needWorker();
    const { body } = await ask();
    await answerOf(body.id, ({ state }) => state === 'running');
    expect((await world.owner.delete(`writings/${body.id}`)).status).toBe(204);
    expect(await read(body.id)).toMatchObject({ state: 'cancelled', came: null });
    expect((await world.owner.delete(`writings/${body.id}`)).status).toBe(409);
  });
  it('is shown as it stands at one moment, though it is answered while it is read', async () => {
    await noWorker();
    const { body } = await ask();
    const answered = [
      `UPDATE jobs SET state = 'done', stage = 'done', finished_at = now() WHERE subject_id = $1`,
      `UPDATE writings SET answer = '{}', words = '{"titles":["A title"]}', findings = '{"rest":[],"titles":[[]]}' WHERE id = $1`,
    ];
    expect(await changedWhileRead('jobs', () => read(body.id), answered, [body.id])).toMatchObject({ state: 'waiting', titles: [] });
    expect(await read(body.id)).toMatchObject({ state: 'done', titles: [{ text: 'A title' }] });
  });
  it('is nobody else’s business', async () => {
    const stranger = await world.producer([await world.client()]);
    const writings = `shorts/${shortId}/writings`;
    expect((await stranger.get(writings)).status).toBe(404);
    expect((await stranger.post(writings)).status).toBe(404);
    const { body } = await ask();
    expect((await stranger.delete(`writings/${body.id}`)).status).toBe(404);
    expect((await stranger.put(`clients/${clientId}/writing-service`, { allowed: false, version: 1 })).status).toBe(404);
  });
});

describe('what a writing service sends', () => {
  it.each([
    ['not json', 'not JSON'],
    ['[]', 'not an object'],
    ['{"titles": 7}', 'titles'],
    [`{"titles": ["${'x'.repeat(1001)}"]}`, 'titles'],
    ['{"titles": ["a"], "hashtags": [1]}', 'hashtags'],
    ['{"titles": [], "description": "  "}', 'nothing to say'],
    ['null', 'not an object'],
    ['{"titles": {"0": "a"}}', 'titles'],
    ['{"titles": [["a"]]}', 'titles'],
    ['{"titles": ["a\\u0000b"]}', 'titles'],
    ['{"titles": ["a\\ud800b"]}', 'titles'],
    [`{"titles": ["a"], "coverLine": "${'x'.repeat(81)}"}`, 'coverLine'],
    [`{"titles": ["a"], "description": "${'x'.repeat(200_000)}"}`, 'description'],
    ['{"titles": ["a"], "description": {"toString": 1}}', 'description'],
    ['{"titles": ["a","b","c","d","e","f"]}', 'titles'],
  ])('is refused with its field: %s', (raw, words) => expect(() => readWrittenWords(raw)).toThrow(words));
  it('may leave out what it has not, and write tags with their sign', () =>
    expect(readWrittenWords('{"titles":["A title"],"hashtags":["#bees"],"more":1}')).toEqual({
      titles: ['A title'],
      description: '',
      hashtags: ['bees'],
      keywords: [],
      coverLine: '',
    }));
  it('is asked for over the configured address alone, with its key, and not for ever', async () => {
    const { createServer } = await import('node:http');
    const seen: (string | undefined)[] = [];
    const server = createServer((request, response) => {
      seen.push(request.headers.authorization);
      if (request.url === '/elsewhere') response.end('{"titles":["no"]}');
      else if (request.url === '/redirects') response.writeHead(307, { location: '/elsewhere' }).end();
      else if (request.url === '/large') response.end(`{"titles":["${'x'.repeat(300_000)}"]}`);
      else if (request.url !== '/never') response.end('{"titles":["yes"]}');
    });
    await new Promise<void>((resolve) => {
      server.listen(0, '127.0.0.1', resolve);
    });
    const base = `http://127.0.0.1:${(server.address() as { port: number }).port}`;
    const request = {} as WriterRequest;
    const write = (path: string, ms = 60_000) => new HttpWriter(`${base}${path}`, 'a secret', ms).write(request, new AbortController().signal);
    expect((await write('/')).words.titles).toEqual(['yes']);
    expect(seen).toEqual(['Bearer a secret']);
    await expect(write('/redirects')).rejects.toMatchObject({ message: 'The writing service cannot be reached.', again: true });
    await expect(write('/large')).rejects.toMatchObject({ message: expect.stringContaining('256 KB') as string, again: false });
    await expect(write('/never', 200)).rejects.toMatchObject({ message: 'The writing service did not answer within 0.2 seconds.', again: true });
    server.closeAllConnections();
    server.close();
    await expect(write('/')).rejects.toMatchObject({ message: 'The writing service cannot be reached.', again: true });
  });
});
