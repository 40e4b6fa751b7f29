// An app of its own for a benchmark: the test's database server, a database and media folder made anew, API and worker as processes.
import { mkdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { makeFirstOwner } from '../../demo/load.mjs';
import { buildServer, buildWeb } from '../../scripts/lib/build.mjs';
import { ROOT, settings } from '../../scripts/lib/config.mjs';
import { startPostgres } from '../../scripts/lib/postgres.mjs';
import { run } from '../../scripts/lib/run.mjs';
import { serviceEnv, startService } from '../../scripts/lib/services.mjs';

export const OWNER = { email: 'bench@agency.example', name: 'Bench', password: 'a long enough password' };
export const BRIEF = { partStartMs: 0, partEndMs: null, minMs: 30_000, maxMs: 60_000, roughCount: 12, topics: [], kinds: [], avoid: [] };
export const CHROMIUM = {
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--disable-component-update', '--disable-sync'],
};

/** Runs `measure(base, services)` over a database of this name; `services.api.child.pid` is the API's process. */
export async function withApp(name, measure) {
  await buildServer();
  await buildWeb();
  const test = settings('test');
  const postgres = await startPostgres(test);
  const stops = [postgres.stop];
  try {
    const psql = (sql) => run('psql', [postgres.url, '-qtAc', sql]);
    await psql(`DROP DATABASE IF EXISTS ${name} WITH (FORCE)`);
    await psql(`CREATE DATABASE ${name}`);
    const url = postgres.url.replace(/\/[^/]*$/, `/${name}`);
    await rm(test.mediaDir, { recursive: true, force: true });
    await mkdir(test.mediaDir, { recursive: true });
    const env = serviceEnv(test, url, { SIFT_REEL_LOG_LEVEL: 'silent' });
    await run(process.execPath, [join(ROOT, 'apps/server/dist/database/migrate.main.js')], { cwd: ROOT, env });
    await makeFirstOwner(url, OWNER);
    const services = {};
    for (const part of ['api', 'worker']) {
      const service = startService(part, env, { quiet: true });
      stops.push(service.stop);
      await service.ready;
      services[part] = service;
    }
    await measure(`http://${test.host}:${test.port}`, services);
  } finally {
    for (const stop of stops.reverse()) await stop();
  }
}

/** Signs the owner in on a page. @returns how to ask the API as the page does */
export async function signIn(page, base) {
  await page.goto(base);
  await page.getByLabel('E-mail').fill(OWNER.email);
  await page.getByLabel('Password').fill(OWNER.password);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.getByRole('heading', { name: 'Desk', exact: true }).waitFor();
  const session = await (await page.request.get(`${base}/api/session`)).json();
  const headers = { 'x-csrf-token': session.csrfToken };
  return async (method, path, data, more = {}) => {
    const response = await page.request.fetch(`${base}/api/${path}`, { method, headers, ...(data === undefined ? {} : { data }), ...more });
    if (!response.ok()) throw new Error(`${method} ${path}: ${response.status()} ${await response.text()}`);
    return response.status() === 204 ? null : response.json();
  };
}
