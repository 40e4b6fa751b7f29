import { rm } from 'node:fs/promises';
import { setTimeout as wait } from 'node:timers/promises';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { startPostgres } from '../../../scripts/lib/postgres.mjs';
import { migrate } from '../dist/database/migrate.js';
import { JobsWorld, type TestWorker, until } from './jobs-world.js';
import { ownCluster } from './own-cluster.js';
import { seeded } from '../../standins/dist/platforms/faults.js';

// A cluster of its own, since it is stopped in the middle.
const own = ownCluster('crash');
let postgres: Awaited<ReturnType<typeof startPostgres>>;
let jobs: JobsWorld;
beforeAll(async () => {
  await rm(own.dir, { recursive: true, force: true });
  postgres = await startPostgres(own);
  await migrate(postgres.url);
  jobs = new JobsWorld(postgres.url);
  await jobs.setUp();
});
afterAll(async () => {
  await jobs.stopWorkers();
  await postgres.stop();
});

it('a hundred jobs of three kinds end exactly once each, whoever is killed, and the database with them', { timeout: 300_000 }, async () => {
  const chance = seeded(20_261_128);
  const clients = [await jobs.client(), await jobs.client(), await jobs.client()];
  const kinds = ['quick', 'steady', 'faulty'];
  const ids: string[] = [];
  for (let i = 0; i < 100; i += 1) ids.push(await jobs.enqueue(kinds[i % 3]!, clients[Math.floor(i / 3) % 3]!));
  const workers: TestWorker[] = await Promise.all([jobs.startWorker(), jobs.startWorker()]);
  const open = async (): Promise<number> => (await jobs.query(`SELECT 1 FROM jobs WHERE state IN ('waiting', 'running')`)).length;
  // By what is done, not by the clock: a quick machine is killed as often as a slow one.
  for (let kills = 0; kills < 8; kills += 1) {
    await until('some more jobs end', async () => ids.length - (await open()) >= 10 * (kills + 1), 120_000);
    await wait(chance() * 150);
    if (kills === 3) {
      await postgres.stop();
      await wait(700);
      postgres = await startPostgres(own);
    }
    const which = Math.floor(chance() * workers.length);
    workers[which]!.kill('SIGKILL');
    await workers[which]!.ended;
    workers[which] = await jobs.startWorker();
  }
  await until('all jobs end', async () => (await open()) === 0, 120_000);
  const ended = await jobs.query<{ kind: string; state: string; failure: string | null; faults: number; deeds: number; crashes: number }>(
    'SELECT kind, state, failure, faults, crashes, (SELECT count(*)::int FROM deeds WHERE job_id = jobs.id) AS deeds FROM jobs WHERE id = ANY ($1)',
    [ids],
  );
  expect(ended).toHaveLength(100);
  for (const job of ended) {
    if (job.state === 'failed')
      expect(job).toMatchObject({ failure: expect.stringContaining('took its worker down') as unknown, deeds: 0, crashes: 3 }); // was there at three kills
    else expect(job).toMatchObject({ state: 'done', deeds: 1, failure: null });
    expect(job.faults).toBeLessThanOrEqual(job.kind === 'faulty' ? 1 : 0); // neither a kill nor a database that is away is a fault of the work
  }
  expect(ended.filter((job) => job.state === 'done').length).toBeGreaterThan(95);
  expect(ended.some((job) => job.crashes > 0)).toBe(true); // the kills hit something
  // No two runs of a job were at work at the same time: each run's trace ends before the next one's begins.
  const overlaps = await jobs.query(
    `SELECT a.job_id FROM (SELECT job_id, attempt, max(at) AS to FROM beats GROUP BY 1, 2) a
     JOIN (SELECT job_id, attempt, min(at) AS from FROM beats GROUP BY 1, 2) b ON b.job_id = a.job_id AND b.attempt > a.attempt AND b.from <= a.to`,
  );
  expect(overlaps).toEqual([]);
});
