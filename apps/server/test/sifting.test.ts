import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { settings } from '../../../scripts/lib/config.mjs';
import { serviceEnv, startService } from '../../../scripts/lib/services.mjs';
import { BRIEF, filesForm, query, talk, World } from './world.js';

let world: World;
let clientId: string;
const workers: ReturnType<typeof startService>[] = [];

function worker(): ReturnType<typeof startService> {
  const one = startService(
    'worker',
    serviceEnv(settings('test'), process.env['SIFT_REEL_DATABASE_URL']!, { SIFT_REEL_LOG_LEVEL: 'silent', SIFT_REEL_VECTOR_THREADS: '1' }),
    { quiet: true },
  );
  workers.push(one);
  return one;
}
beforeAll(async () => {
  world = await World.make();
  clientId = await world.client();
});
afterEach(async () => {
  for (const one of workers.splice(0)) await one.stop();
});
afterAll(() => world.close());

async function recording(minutes: number, salt = ''): Promise<string> {
  return (await world.owner.post(`clients/${clientId}/recordings`, filesForm({ transcript: ['talk.vtt', talk(minutes, salt)] }))).body.id as string;
}
async function until(
  siftId: string,
  done: (sift: { state: string; fraction: number; stage: string }) => boolean,
): Promise<{ state: string; failure: string | null; fraction: number }> {
  for (let i = 0; i < 1_200; i += 1) {
    const { body } = await world.owner.get(`sifts/${siftId}`);
    if (done(body)) return body;
    await new Promise((resolve) => {
      setTimeout(resolve, 50);
    });
  }
  throw new Error('the sift does not come to it');
}
const over = (sift: { state: string }): boolean => ['done', 'failed', 'cancelled'].includes(sift.state);
const ranking = async (siftId: string): Promise<unknown> => {
  const { candidates, chapters, ridge, strongCount } = (await world.owner.get(`sifts/${siftId}/ranking`)).body;
  return { chapters, ridge, strongCount, candidates: candidates.map(({ id: _, ...one }: { id: string }) => one) };
};

describe('a brief', () => {
  it.each([
    [{ minMs: 1_000 }, 'minMs'],
    [{ maxMs: 9_000 }, 'maxMs'],
    [{ kinds: ['gossip'] }, 'kinds'],
    [{ roughCount: 0 }, 'roughCount'],
    [{ partStartMs: 50_000, partEndMs: 40_000 }, 'partEndMs'],
    [{ topics: [''] }, 'topics'],
    [{ topics: 'wood' }, 'topics'],
  ])('is refused with its field: %j', async (fields, field) => {
    const answer = await world.owner.post(`recordings/${await recording(1)}/sifts`, { ...BRIEF, ...fields });
    expect(answer.status).toBe(400);
    expect(answer.body.errors.map((one: { field: string }) => one.field)).toContain(field);
  });
  it('is refused where the recording is shorter than its part', async () => {
    const answer = await world.owner.post(`recordings/${await recording(1)}/sifts`, { ...BRIEF, partStartMs: 3_600_000 });
    expect([answer.status, answer.body.errors[0].field]).toEqual([422, 'partStartMs']);
  });
});

describe('a sift', () => {
  it('runs in the background, tells its progress, and keeps its whole ranking with evidence', async () => {
    const heard: { subjectId: string; state: string; fraction: number; attempt: number }[] = [];
    const stop = new AbortController();
    const events = await fetch(`${world.base}/api/progress`, {
      headers: { cookie: world.owner.cookie },
      signal: stop.signal,
    });
    const listening = (async () => {
      const reader = events.body!.pipeThrough(new TextDecoderStream()).getReader();
      for (let chunk = await reader.read(); !chunk.done; chunk = await reader.read())
        for (const line of chunk.value.split('\n'))
          if (line.startsWith('data: ')) {
            const message = JSON.parse(line.slice(6)) as { type: string; job: (typeof heard)[number] };
            if (message.type === 'job') heard.push(message.job);
          }
    })().catch(() => undefined);
    await worker().ready;
    const id = await recording(6);
    const { body: sift } = await world.owner.post(`recordings/${id}/sifts`, { ...BRIEF, topics: ['newspaper'] });
    expect(['waiting', 'running']).toContain(sift.state); // a worker takes it up at once
    expect((await until(sift.id, over)).state).toBe('done');
    await expect.poll(() => heard.some((event) => event.subjectId === sift.id && event.state === 'done')).toBe(true); // after the row, in its turn
    stop.abort();
    await listening;
    const progress = heard.filter((event) => event.subjectId === sift.id && event.state === 'running').map(({ attempt, fraction }) => attempt + fraction);
    expect(progress.length).toBeGreaterThan(2);
    expect(progress).toEqual([...progress].sort((a, b) => a - b)); // a run never goes back; another begins anew
    const { body } = await world.owner.get(`sifts/${sift.id}/ranking`);
    expect(body.candidates.length).toBeGreaterThan(3);
    expect(body.candidates[0].signals.map((signal: { signal: string }) => signal.signal)).toEqual([
      'opening',
      'standsAlone',
      'substance',
      'charge',
      'delivery',
      'currency',
    ]);
    expect(body.candidates.some((one: { signals: { evidence: number[] }[] }) => one.signals.some((signal) => signal.evidence.length >= 2))).toBe(true);
    expect((await world.owner.get(`recordings/${id}/sifts`)).body).toHaveLength(1);
  });

  it('says what the recording is made of, and of talk in another language what cannot be known', async () => {
    worker();
    const made = (await world.owner.post(`recordings/${await recording(3)}/sifts`, BRIEF)).body.id as string;
    const file = readFileSync(join(import.meta.dirname, '../../../bench/editors/languages/de-heizungskeller.txt'), 'utf8');
    const german = file.split('\n').filter((line) => line !== '');
    const stamp = (s: number): string => `00:${String(Math.floor(s / 60)).padStart(2, '0')}:${String(s % 60).padStart(2, '0')}.000`;
    const vtt = `WEBVTT\n\n${german.map((line, i) => `${stamp(i * 7)} --> ${stamp(i * 7 + 6)}\n${line.replace(/^(\w+): /, '<v $1>')}\n`).join('\n')}`;
    const { body } = await world.owner.post(`clients/${clientId}/recordings`, filesForm({ transcript: ['keller.vtt', vtt] }));
    const foreign = (await world.owner.post(`recordings/${body.id}/sifts`, { ...BRIEF, minMs: 15_000, maxMs: 40_000 })).body.id as string;
    for (const id of [made, foreign]) expect((await until(id, over)).state).toBe('done');
    const english = (await world.owner.get(`sifts/${made}/ranking`)).body;
    expect(english.language).toBeNull();
    const subjects = await query('SELECT id, subject FROM sifts WHERE id = ANY ($1)', [[made, foreign]]);
    const subjectOf = (id: string): unknown => subjects.find((row) => row['id'] === id)!['subject'];
    expect(subjectOf(made)).toMatchObject({ compounds: expect.any(Array) as unknown, singles: expect.any(Array) as unknown });
    expect(subjectOf(foreign)).toBeNull();
    expect(english.makeUp.shares.reduce((sum: number, share: number) => sum + share, 0)).toBeCloseTo(1, 2);
    expect(english.makeUp.steps).toHaveLength(english.ridge.length);
    expect(english.makeUp.sentence).toMatch(/: (?:few|some|most) passages stand by themselves\.$/);
    const other = (await world.owner.get(`sifts/${foreign}/ranking`)).body;
    expect([other.language, other.makeUp, other.limits.includes('other-language')]).toEqual(['German', null, true]);
    expect(other.candidates.length).toBeGreaterThan(2);
    expect(other.candidates[0].signals[0].sentence).toBe('Cannot be known: the talk is in German');
    const known = (one: { signals: { signal: string; known: boolean }[] }): string[] => one.signals.flatMap((s) => (s.known ? [s.signal] : []));
    for (const one of other.candidates) expect(known(one)).toEqual(['standsAlone', 'substance', 'delivery', 'currency']);
    expect(known(english.candidates[0])).toHaveLength(6);
    const found = (await world.owner.get(`recordings/${body.id}/search?q=Pumpe`)).body; // the model of English was never asked
    expect([found.byMeaning, found.hits.length > 0]).toEqual([false, true]);
    const { firstWord, endWord } = other.candidates[1];
    const own = await world.owner.post(`sifts/${foreign}/candidates`, { firstWord: firstWord + 1, endWord });
    expect(own.status).toBe(201);
    const listed = (await world.owner.get(`sifts/${foreign}/ranking`)).body.candidates.find((one: { origin: string }) => one.origin === 'own');
    expect(listed.signals[0].sentence).toBe('Cannot be known: the talk is in German');
  }, 120_000);
  it('finishes with the same result when its worker is killed in the middle', async () => {
    const minutes = 60;
    const whole = await recording(minutes, 'a ');
    const { body: first } = await world.owner.post(`recordings/${whole}/sifts`, BRIEF);
    const doomed = worker();
    await doomed.ready;
    await until(first.id, (sift) => sift.state === 'running' && sift.stage === 'vectors' && sift.fraction > 0.1 && sift.fraction < 0.75);
    process.kill(doomed.child.pid!, 'SIGKILL');
    await doomed.ended;
    const left = (await world.owner.get(`sifts/${first.id}`)).body;
    expect(left.state).toBe('running');
    expect(Number((await query('SELECT count(*) AS n FROM candidates WHERE sift_id = $1', [first.id]))[0]!['n'])).toBe(0);
    await worker().ready;
    expect((await until(first.id, over)).state).toBe('done');
    // The witness: the same talk in one go, on other rows.
    const again = await recording(minutes, 'a ');
    const { body: second } = await world.owner.post(`recordings/${again}/sifts`, BRIEF);
    await until(second.id, over);
    expect(await ranking(first.id)).toEqual(await ranking(second.id));
  });

  it('is cancelled while it waits and while it runs, and can be run again', async () => {
    const waiting = (await world.owner.post(`recordings/${await recording(3, 'b ')}/sifts`, BRIEF)).body;
    expect((await world.owner.post(`sifts/${waiting.id}/cancel`)).body.state).toBe('cancelled');
    const id = await recording(40, 'c ');
    const { body: sift } = await world.owner.post(`recordings/${id}/sifts`, BRIEF);
    await worker().ready;
    await until(sift.id, (one) => one.state === 'running' && one.fraction > 0.02);
    await world.owner.post(`sifts/${sift.id}/cancel`);
    expect((await until(sift.id, over)).state).toBe('cancelled');
    expect((await world.owner.post(`sifts/${sift.id}/cancel`)).status).toBe(409);
    expect((await world.owner.post(`sifts/${sift.id}/retry`)).status).toBe(200);
    expect((await until(sift.id, over)).state).toBe('done');
    expect((await world.owner.post(`sifts/${sift.id}/retry`)).status).toBe(409);
  });

  it('that fails says why, and can be retried', async () => {
    const id = await recording(2, 'd ');
    const { body: sift } = await world.owner.post(`recordings/${id}/sifts`, BRIEF);
    const [row] = await query('SELECT packed FROM transcripts WHERE recording_id = $1', [id]);
    await query('UPDATE transcripts SET packed = $2 WHERE recording_id = $1', [id, Buffer.from('rotten')]);
    await worker().ready;
    const failed = await until(sift.id, over);
    expect(failed.state).toBe('failed');
    expect(failed.failure).toContain('fault of the program');
    await query('UPDATE transcripts SET packed = $2 WHERE recording_id = $1', [id, row!['packed']]);
    await world.owner.post(`sifts/${sift.id}/retry`);
    expect((await until(sift.id, over)).state).toBe('done');
  });

  it('stays when another is made, so that one can go back', async () => {
    await worker().ready;
    const id = await recording(4, 'e ');
    const { body: first } = await world.owner.post(`recordings/${id}/sifts`, BRIEF);
    await until(first.id, over);
    const before = await ranking(first.id);
    const { body: second } = await world.owner.post(`recordings/${id}/sifts`, { ...BRIEF, minMs: 20_000, maxMs: 40_000 });
    await until(second.id, over);
    expect(await ranking(first.id)).toEqual(before);
    expect((await world.owner.get(`recordings/${id}/sifts`)).body.map((sift: { id: string }) => sift.id)).toEqual([second.id, first.id]);
    expect((await world.owner.post(`recordings/${id}/files`, filesForm({ transcript: ['new.vtt', talk(1)] }))).status).toBe(409);
  });
});
