import { mkdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import pg from 'pg';
import { hashPassword } from '../apps/server/dist/identity/passwords.js';
import { freshDatabase } from '../apps/server/test/database.js';
import { makeShows } from '../demo/shows.mjs';
import { speakRecording } from '../demo/speak.mjs';
import { settings } from '../scripts/lib/config.mjs';
import { portIsFree, startPostgres } from '../scripts/lib/postgres.mjs';
import { serviceEnv, startService } from '../scripts/lib/services.mjs';
import { setClock } from './help.js';

export const OWNER = { email: 'owner@agency.example', password: 'a long enough password' };

/** The whole of Sift Reel on the test's database and port, with a recording's sound and transcript made for it. */
export default async function setup(): Promise<() => Promise<void>> {
  const test = settings('test');
  const fixtures = join(test.dir, 'fixtures');
  await rm(test.mediaDir, { recursive: true, force: true });
  await rm(join(test.dir, 'platforms'), { recursive: true, force: true });
  await mkdir(fixtures, { recursive: true });
  if (!(await portIsFree(test.port))) throw new Error(`the port ${test.port} is in use; set SIFT_REEL_TEST_PORT to another`);
  await speakRecording(new URL('../demo/recordings/up-the-flue-11.txt', import.meta.url).pathname, fixtures);
  await makeShows(test.demoDir);
  const postgres = await startPostgres(test);
  const url = await freshDatabase(postgres.url, 'browser_tests');
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  await client.query(`INSERT INTO users (email, name, role, password_hash) VALUES ($1, 'Olive Owner', 'owner', $2)`, [
    OWNER.email,
    await hashPassword(OWNER.password),
  ]);
  await client.end();
  // A Thursday on which the morning's windows are over in Dublin and the day has not begun in Halifax: plans reach into the next week.
  process.env['SIFT_REEL_CLOCK_FILE'] = join(test.dir, 'clock.json');
  setClock(Date.parse('2026-11-26T07:45Z'));
  const env = serviceEnv(test, url, { SIFT_REEL_LOG_LEVEL: 'silent' });
  const standins = startService('standins', env, { quiet: true });
  await standins.ready;
  const api = startService('api', env, { quiet: true });
  await api.ready;
  Object.assign(process.env, {
    E2E_URL: `http://${test.host}:${test.port}`,
    E2E_DATABASE_URL: url,
    E2E_MAIL_URL: `http://${test.host}:${test.standinsPort}`,
    E2E_FIXTURES: fixtures,
  });
  return async () => {
    await api.stop();
    await standins.stop();
    await postgres.stop();
  };
}
