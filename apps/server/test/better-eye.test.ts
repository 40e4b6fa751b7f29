import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { settings } from '../../../scripts/lib/config.mjs';
import { serviceEnv, startService } from '../../../scripts/lib/services.mjs';
import { BRIEF, filesForm, query, talk, World } from './world.js';

let world: World;
let clientId: string;
let recordingId: string;
let siftId: string;
let worker: ReturnType<typeof startService>;

async function siftOnce(fields: object = {}): Promise<string> {
  const { id } = (await world.owner.post(`recordings/${recordingId}/sifts`, { ...BRIEF, ...fields })).body as { id: string };
  for (let i = 0; i < 1_200; i += 1) {
    const { body } = await world.owner.get(`sifts/${id}`);
    if (body.state === 'done') return id;
    if (body.state === 'failed') throw new Error(String(body.failure));
    await new Promise((resolve) => {
      setTimeout(resolve, 50);
    });
  }
  throw new Error('the sift does not end');
}
const ranking = async (id = siftId) => (await world.owner.get(`sifts/${id}/ranking`)).body;

beforeAll(async () => {
  world = await World.make();
  clientId = await world.client();
  worker = startService('worker', serviceEnv(settings('test'), process.env['SIFT_REEL_DATABASE_URL']!, { SIFT_REEL_LOG_LEVEL: 'silent' }), { quiet: true });
  await worker.ready;
  recordingId = (await world.owner.post(`clients/${clientId}/recordings`, filesForm({ transcript: ['talk.vtt', talk(6)] }))).body.id as string;
  siftId = await siftOnce();
});
afterAll(async () => {
  await worker.stop();
  await world.close();
});

describe('a ranking', () => {
  it('has other cuts, key phrases with their places, and the weights it was scored by', async () => {
    const { candidates, keyPhrases, weights } = await ranking();
    expect(candidates.some((one: { alternatives: unknown[] }) => one.alternatives.length > 0)).toBe(true);
    expect(keyPhrases.length).toBeGreaterThan(2);
    for (const phrase of keyPhrases) expect(phrase).toMatchObject({ count: phrase.firstWords.length, volume: null });
    expect(weights.reduce((sum: number, weight: number) => sum + weight, 0)).toBeCloseTo(1, 6);
  });
});

describe('a client’s weights', () => {
  it('are scaled, used by the next sift, and forgotten again', async () => {
    const { body } = await world.owner.put(`clients/${clientId}/signal-weights`, {
      weights: [0, 0, 3, 1, 0, 0],
      version: await world.version('clients', clientId),
    });
    expect(body.signalWeights).toEqual([0, 0, 0.75, 0.25, 0, 0]);
    const own = await ranking(await siftOnce());
    expect(own.weights).toEqual([0, 0, 0.75, 0.25, 0, 0]);
    expect((await ranking()).weights).not.toEqual(own.weights); // an older sift keeps its own
    expect(
      (await world.owner.put(`clients/${clientId}/signal-weights`, { weights: null, version: await world.version('clients', clientId) })).body.signalWeights,
    ).toBeNull();
  });
  it.each([[[1, 1, 1]], [[0, 0, 0, 0, 0, 0]], [[1, 1, 1, 1, 1, -1]], [['a', 1, 1, 1, 1, 1]]])('refuses %j and changes nothing', async (weights) => {
    const answer = await world.owner.put(`clients/${clientId}/signal-weights`, { weights, version: await world.version('clients', clientId) });
    expect([answer.status, answer.body.errors[0].field]).toEqual([400, 'weights']);
    expect((await query('SELECT signal_weights FROM clients WHERE id = $1', [clientId]))[0]).toEqual({ signal_weights: null });
  });
});

describe('an interest list', () => {
  it('takes the place of the old one, is named by the next sift, and stands beside the key phrases', async () => {
    const phrase = (await ranking()).keyPhrases[0].text as string;
    const csv = `term,volume,competition,change\r\n${phrase},5400,0.4,0.2\r\nnobody says this,10,0,0\r\n`;
    expect((await world.owner.put(`clients/${clientId}/interest`, { csv: 'term,volume,competition,change\nold,1,0,0\n' })).status).toBe(200);
    const { body } = await world.owner.put(`clients/${clientId}/interest`, { csv });
    expect(body.map((term: { term: string }) => term.term)).toEqual([phrase, 'nobody says this']);
    expect((await ranking()).keyPhrases[0]).toMatchObject({ text: phrase, volume: 5400, competition: 0.4, change: 0.2 });
    const after = await ranking(await siftOnce());
    const sentences = after.candidates.map((one: { signals: { sentence: string }[] }) => one.signals[5]!.sentence);
    expect(sentences.some((sentence: string) => sentence.includes('looked for now'))).toBe(true);
  });
  it('is refused with its line, and the old one stays', async () => {
    const before = (await world.owner.get(`clients/${clientId}/interest`)).body;
    const answer = await world.owner.put(`clients/${clientId}/interest`, { csv: 'term,volume,competition,change\nok,1,0,0\nbad,many,0,0\n' });
    expect(answer.status).toBe(400);
    expect(answer.body.errors[0]).toMatchObject({ field: 'csv', detail: expect.stringContaining('line 3') });
    expect((await world.owner.get(`clients/${clientId}/interest`)).body).toEqual(before);
  });
});

describe('search', () => {
  it('finds by words and by meaning, with places in the transcript', async () => {
    const [first] = (await ranking()).candidates as { firstLine: string }[];
    const word = first!.firstLine.split(' ').sort((a, b) => b.length - a.length)[0]!;
    const { body } = await world.owner.get(`recordings/${recordingId}/search?q=${encodeURIComponent(word)}`);
    expect(body).toMatchObject({ query: word, byMeaning: true });
    expect(body.hits[0]).toMatchObject({ by: 'words', score: 1 });
    expect(body.hits[0].text.toLowerCase()).toContain(word.toLowerCase().replace(/\W/g, '').slice(0, 4));
    const meant = (await world.owner.get(`recordings/${recordingId}/search?q=insects`)).body;
    expect(meant.hits.some((hit: { by: string }) => hit.by === 'meaning')).toBe(true);
  });
  it('goes by words alone until the recording was sifted', async () => {
    const fresh = (await world.owner.post(`clients/${clientId}/recordings`, filesForm({ transcript: ['fresh.vtt', talk(2, 'Fresh ')] }))).body.id as string;
    expect((await world.owner.get(`recordings/${fresh}/search?q=fresh`)).body).toMatchObject({ byMeaning: false });
  });
  it.each(['', '%20', 'x'.repeat(201)])('refuses the query “%s”', async (q) => {
    expect((await world.owner.get(`recordings/${recordingId}/search?q=${q}`)).status).toBe(400);
  });
});

describe('a candidate of one’s own', () => {
  it('gets a score, six reasons and its rank, and leaves the ranks whole when it goes', async () => {
    const before = await ranking();
    const made = (await world.owner.post(`sifts/${siftId}/candidates`, { firstWord: 3, endWord: 41 })).body;
    expect(made).toMatchObject({ origin: 'own', firstWord: 3, endWord: 41, foundFirstWord: 3, state: 'open' });
    expect(made.signals).toHaveLength(6);
    const during = await ranking();
    expect(during.candidates.map((one: { rank: number }) => one.rank)).toEqual(during.candidates.map((_: unknown, i: number) => i + 1));
    const scores = during.candidates.map((one: { score: number }) => one.score);
    expect(scores).toEqual([...scores].sort((a: number, b: number) => b - a));
    expect((await world.owner.post(`sifts/${siftId}/candidates`, { firstWord: 3, endWord: 41 })).body.id).toBe(made.id); // twice is once
    expect((await world.owner.delete(`candidates/${made.id}`)).status).toBe(204);
    expect((await ranking()).candidates).toEqual(before.candidates);
    expect((await ranking()).strongCount).toBe(before.strongCount);
  });
  it('around a hit is the best passage that holds it, and the ranking’s own where that is it', async () => {
    const { candidates } = await ranking();
    const best = candidates.find((one: { origin: string; rank: number }) => one.origin === 'sift' && one.rank === 1);
    const inside = { firstWord: best.firstWord + 12, endWord: best.firstWord + 13, around: true };
    const around = await world.owner.post(`sifts/${siftId}/candidates`, inside);
    expect(around.status).toBe(201);
    expect(around.body.firstWord).toBeLessThanOrEqual(inside.firstWord);
    expect(around.body.endWord).toBeGreaterThanOrEqual(inside.endWord);
    expect(around.body.endMs - around.body.startMs).toBeGreaterThanOrEqual(BRIEF.minMs);
    expect(around.body.endMs - around.body.startMs).toBeLessThanOrEqual(BRIEF.maxMs);
    const again = await world.owner.post(`sifts/${siftId}/candidates`, inside);
    expect(again.body.id).toBe(around.body.id);
    expect((await ranking()).candidates.length - candidates.length).toBe(around.body.id === best.id ? 0 : 1);
    if (around.body.origin === 'own') await world.owner.delete(`candidates/${around.body.id}`);
    const refused = await world.owner.post(`sifts/${siftId}/candidates`, { ...inside, around: 'yes' });
    expect(refused.body.errors).toEqual([{ field: 'around', detail: 'must be yes or no' }]);
  });
  it('can be kept like any other, and is not taken away while it is', async () => {
    const made = (await world.owner.post(`sifts/${siftId}/candidates`, { firstWord: 60, endWord: 100 })).body;
    expect((await world.owner.put(`candidates/${made.id}/state`, { state: 'kept' })).status).toBe(200);
    expect((await world.owner.delete(`candidates/${made.id}`)).status).toBe(409);
    const { candidates } = await ranking();
    const found = candidates.find((one: { origin: string }) => one.origin === 'sift');
    expect((await world.owner.delete(`candidates/${found.id}`)).status).toBe(409);
  });
  it('is scored by the weights of its sift, whatever the client’s are by now', async () => {
    const make = async () => (await world.owner.post(`sifts/${siftId}/candidates`, { firstWord: 110, endWord: 150 })).body;
    const before = await make();
    await world.owner.delete(`candidates/${before.id}`);
    await world.owner.put(`clients/${clientId}/signal-weights`, { weights: [0, 0, 0, 0, 1, 0], version: await world.version('clients', clientId) });
    const after = await make();
    await world.owner.put(`clients/${clientId}/signal-weights`, { weights: null, version: await world.version('clients', clientId) });
    expect(after.score).toBe(before.score);
    expect(after.signals[4].value).not.toBe(Math.round(after.score)); // by Delivery alone it would have another score
  });
  it('is refused past the end of the transcript', async () => {
    expect((await world.owner.post(`sifts/${siftId}/candidates`, { firstWord: 0, endWord: 1_000_000 })).status).toBe(409);
  });
});

describe('what a client cares about', () => {
  it('is found by what it means, by the sift and for a candidate of one’s own', async () => {
    const { body: client } = await world.owner.post('clients', { name: 'Of cats', zone: 'Europe/Dublin', tags: ['cats'], standingBrief: BRIEF });
    const lines = [
      'We drove to the coast and it rained for the whole of the week.',
      'The tomatoes and the beans grew along the back fence that year.',
      'My kitten chases mice around the kitchen floor.',
      'The bus was late again and nobody at the stop was surprised by it.',
      'I painted the shed in the end because the wood had gone grey.',
    ];
    const clock = (s: number): string => `00:00:${String(s).padStart(2, '0')}.000`;
    const vtt = `WEBVTT\n\n${lines.map((text, i) => `${clock(6 * i)} --> ${clock(6 * i + 5)}\n<v Ann>${text}\n`).join('\n')}`;
    const { body: recording } = await world.owner.post(`clients/${client.id}/recordings`, filesForm({ transcript: ['cats.vtt', vtt] }));
    const { body: started } = await world.owner.post(`recordings/${recording.id}/sifts`, { ...BRIEF, minMs: 4_000, maxMs: 8_000 });
    let sift = started;
    for (let i = 0; i < 600 && sift.state !== 'done'; i += 1) {
      await new Promise((resolve) => {
        setTimeout(resolve, 50);
      });
      sift = (await world.owner.get(`sifts/${started.id}`)).body;
    }
    const currency = (one: { signals: { signal: string; sentence: string; value: number }[] }) => one.signals.find(({ signal }) => signal === 'currency')!;
    const { candidates } = await ranking(started.id);
    const about = candidates.find((one: { firstLine: string }) => one.firstLine.includes('kitten'));
    expect(currency(about).sentence).toBe('Near the client’s “cats” in meaning: “My kitten chases mice around the kitchen floor”');
    for (const other of candidates) if (other !== about) expect(currency(other).value).toBeLessThan(currency(about).value);
    const { body: own } = await world.owner.post(`sifts/${started.id}/candidates`, { firstWord: about.firstWord, endWord: about.endWord - 1 });
    expect(currency(own).sentence).toContain('Near the client’s “cats” in meaning');
  });
});
