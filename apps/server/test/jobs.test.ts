import { setTimeout as wait } from 'node:timers/promises';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { JobsWorld, until } from './jobs-world.js';

let jobs: JobsWorld;
let clientId: string;
beforeAll(async () => {
  jobs = new JobsWorld(process.env['SIFT_REEL_DATABASE_URL']!);
  await jobs.setUp();
});
beforeEach(async () => {
  clientId = await jobs.client();
});
afterEach(() => jobs.stopWorkers());
afterAll(() => jobs.query('DROP TABLE beats, deeds; DELETE FROM jobs WHERE kind <> $$sift$$'));

const stateOf = async (id: string): Promise<string> => (await jobs.job(id)).state;
const ends = (id: string): Promise<void> => until('the job ends', async () => ['done', 'failed', 'cancelled'].includes(await stateOf(id)));
const beats = async (id: string): Promise<number> => Number((await jobs.query<{ n: string }>('SELECT count(*) AS n FROM beats WHERE job_id = $1', [id]))[0]!.n);
const works = (id: string): Promise<void> => until('the job is at work', async () => (await beats(id)) > 2);

describe('a job', () => {
  it('is done once, with what it did', async () => {
    const id = await jobs.enqueue('quick', clientId);
    await jobs.startWorker();
    await ends(id);
    expect(await jobs.job(id)).toMatchObject({ state: 'done', attempt: 1, fraction: 1, failure: null });
    expect(await jobs.query('SELECT attempt FROM deeds WHERE job_id = $1', [id])).toEqual([{ attempt: 1 }]);
  });
  it('that stumbles is tried again after a while', async () => {
    const id = await jobs.enqueue('faulty', clientId);
    await jobs.startWorker();
    await ends(id);
    expect(await jobs.job(id)).toMatchObject({ state: 'done', attempt: 2, faults: 1 });
  });
  it('that keeps stumbling is given up, with the reason', async () => {
    const id = await jobs.enqueue('broken', clientId);
    await jobs.startWorker();
    await ends(id);
    expect(await jobs.job(id)).toMatchObject({ state: 'failed', attempt: 2, failure: expect.stringContaining('a nail in the machine') });
  });
  it('that cannot be done is not tried again', async () => {
    const id = await jobs.enqueue('refused', clientId);
    await jobs.startWorker();
    await ends(id);
    expect(await jobs.job(id)).toMatchObject({ state: 'failed', attempt: 1, failure: 'The brief cannot be used.' });
  });
  it('that takes its worker down three times is set aside, and runs again when it is asked for', async () => {
    const id = await jobs.enqueue('poison', clientId);
    let downs = 0;
    for (; downs < 6 && (await stateOf(id)) !== 'failed'; downs += 1) {
      const worker = await jobs.startWorker();
      await Promise.race([worker.ended, until('it is set aside', async () => (await stateOf(id)) === 'failed')]);
    }
    expect(await jobs.job(id)).toMatchObject({ state: 'failed', crashes: 3, attempt: 3, failure: expect.stringContaining('took its worker down 3 times') });
    await jobs.query(`UPDATE jobs SET kind = 'quick', state = 'waiting', finished_at = NULL, crashes = 0, due_at = now() WHERE id = $1`, [id]);
    await jobs.startWorker();
    await ends(id);
    expect(await stateOf(id)).toBe('done');
  });
  it('ends at once when it is cancelled, and what it still does is not written', async () => {
    const [running, deaf] = [await jobs.enqueue('steady', clientId), await jobs.enqueue('deaf', clientId)];
    await jobs.startWorker();
    await Promise.all([works(running), works(deaf)]);
    await jobs.query(`UPDATE jobs SET state = 'cancelled', finished_at = now() WHERE id IN ($1, $2)`, [running, deaf]);
    const seen = await beats(running);
    await wait(600);
    expect(await beats(running)).toBeLessThanOrEqual(seen + 4); // it heard of it
    expect(await jobs.query('SELECT 1 FROM deeds WHERE job_id IN ($1, $2)', [running, deaf])).toEqual([]);
    expect(await stateOf(deaf)).toBe('cancelled');
  });
  it('that is asked for again while its cancelled run still stops waits for that to be over', async () => {
    const id = await jobs.enqueue('deaf', clientId);
    const worker = await jobs.startWorker();
    await works(id);
    await jobs.query(`UPDATE jobs SET state = 'cancelled', finished_at = now() WHERE id = $1`, [id]);
    await jobs.query(`UPDATE jobs SET state = 'waiting', finished_at = NULL, due_at = now() WHERE id = $1`, [id]);
    await jobs.startWorker();
    await wait(1_500);
    expect(await jobs.job(id)).toMatchObject({ state: 'waiting', attempt: 1 });
    worker.kill('SIGKILL');
    await until('the other worker takes it up', async () => (await jobs.job(id)).attempt === 2);
  });
  it('shares what it works on with nobody', async () => {
    const ids = await Promise.all(Array.from({ length: 6 }, () => jobs.enqueue('shared', clientId)));
    await Promise.all([jobs.startWorker(), jobs.startWorker()]);
    await Promise.all(ids.map(ends));
    const spans = await jobs.query<{ from: Date; to: Date }>(
      'SELECT min(at) AS from, max(at) AS to FROM beats WHERE job_id = ANY ($1) GROUP BY job_id ORDER BY min(at)',
      [ids],
    );
    for (let i = 1; i < spans.length; i += 1) expect(spans[i]!.from.getTime()).toBeGreaterThan(spans[i - 1]!.to.getTime());
  });
});

describe('a worker', () => {
  it('that is told to stop hands its work back and is gone within five seconds, even from work that hears nothing', async () => {
    const [deaf, steady] = [await jobs.enqueue('deaf', clientId), await jobs.enqueue('steady', clientId)];
    const worker = await jobs.startWorker();
    await Promise.all([works(deaf), works(steady)]);
    const told = Date.now();
    worker.kill('SIGTERM');
    await worker.ended;
    expect(Date.now() - told).toBeLessThan(5_500); // five seconds, and the process's own end
    expect(await jobs.job(steady)).toMatchObject({ state: 'waiting', crashes: 0 });
    await jobs.startWorker();
    await ends(steady);
    expect(await stateOf(steady)).toBe('done');
  });
  it('that loses its line stops, hands back without a black mark, and goes on', async () => {
    const id = await jobs.enqueue('steady', clientId);
    await jobs.startWorker();
    await works(id);
    await jobs.query(
      `SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = current_database() AND application_name = 'sift-reel worker line'`,
    );
    await ends(id);
    expect(await jobs.job(id)).toMatchObject({ state: 'done', attempt: 2, crashes: 0, faults: 0 });
  });
  it('leaves room for short work beside long, and takes turns between clients', async () => {
    const other = await jobs.client();
    const long = await Promise.all(Array.from({ length: 4 }, () => jobs.enqueue('steady', clientId, 'long')));
    const crowd = await Promise.all(Array.from({ length: 12 }, () => jobs.enqueue('steady', clientId)));
    const one = await jobs.enqueue('quick', other);
    await jobs.startWorker();
    await ends(one);
    const done = await jobs.query<{ id: string }>(`SELECT id FROM jobs WHERE id = ANY ($1) AND started_at IS NOT NULL`, [[...long, ...crowd]]);
    expect(done.length).toBeLessThan(8); // it did not wait for the sixteen before it
    await until('the long ones are at work, one at a time', async () => {
      const running = await jobs.query(`SELECT 1 FROM jobs WHERE id = ANY ($1) AND state = 'running'`, [long]);
      expect(running.length).toBeLessThanOrEqual(1);
      return (await jobs.query(`SELECT 1 FROM jobs WHERE id = ANY ($1) AND state = 'done'`, [long])).length === long.length;
    });
  });
});
