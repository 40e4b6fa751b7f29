// The bench screen with 10 hours (100,000 words) and up to 500 candidates loaded: first paint and key to picture, each as
// a ratio to the same with half an hour, in one run of the browser against the real server.
import { mkdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { makeFirstOwner } from '../demo/load.mjs';
import { buildServer, buildWeb } from '../scripts/lib/build.mjs';
import { ROOT, settings } from '../scripts/lib/config.mjs';
import { startPostgres } from '../scripts/lib/postgres.mjs';
import { run } from '../scripts/lib/run.mjs';
import { serviceEnv, startService } from '../scripts/lib/services.mjs';
import { ratio, row } from './measure.mjs';
import { talkOf } from './talk.mjs';

const OWNER = { email: 'bench@agency.example', name: 'Bench', password: 'a long enough password' };
const BRIEF = { partStartMs: 0, partEndMs: null, minMs: 30_000, maxMs: 60_000, roughCount: 12, topics: [], kinds: [], avoid: [] };
await buildServer();
await buildWeb();
const test = settings('test');
const postgres = await startPostgres(test);
const stops = [postgres.stop];
try {
  const name = 'screen_bench';
  const psql = (sql) => run('psql', [postgres.url, '-qtAc', sql]);
  await psql(`DROP DATABASE IF EXISTS ${name} WITH (FORCE)`);
  await psql(`CREATE DATABASE ${name}`);
  const url = postgres.url.replace(/\/[^/]*$/, `/${name}`);
  await rm(test.mediaDir, { recursive: true, force: true });
  await mkdir(test.mediaDir, { recursive: true });
  const env = serviceEnv(test, url, { SIFT_REEL_LOG_LEVEL: 'silent' });
  await run(process.execPath, [join(ROOT, 'apps/server/dist/database/migrate.main.js')], { cwd: ROOT, env });
  await makeFirstOwner(url, OWNER);
  for (const part of ['api', 'worker']) {
    const service = startService(part, env, { quiet: true });
    stops.push(service.stop);
    await service.ready;
  }
  await measure(`http://${test.host}:${test.port}`);
} finally {
  for (const stop of stops.reverse()) await stop();
}

async function measure(base) {
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--disable-component-update', '--disable-sync'],
  });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(base);
  await page.getByLabel('E-mail').fill(OWNER.email);
  await page.getByLabel('Password').fill(OWNER.password);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.getByRole('heading', { name: 'Desk', exact: true }).waitFor();
  const session = await (await page.request.get(`${base}/api/session`)).json();
  const headers = { 'x-csrf-token': session.csrfToken };
  const client = await (
    await page.request.post(`${base}/api/clients`, { headers, data: { name: 'Bench', zone: 'UTC', tags: [], standingBrief: BRIEF } })
  ).json();
  const results = [];
  for (const hours of [0.5, 10]) {
    const recording = await (
      await page.request.post(`${base}/api/clients/${client.id}/recordings`, {
        headers,
        multipart: { transcript: { name: `h${hours}.vtt`, mimeType: 'text/vtt', buffer: Buffer.from(talkOf(hours)) } },
        timeout: 120_000,
      })
    ).json();
    const sift = await (await page.request.post(`${base}/api/recordings/${recording.id}/sifts`, { headers, data: BRIEF })).json();
    for (;;) {
      const { state } = await (await page.request.get(`${base}/api/sifts/${sift.id}`)).json();
      if (state === 'done') break;
      if (state === 'failed') throw new Error('the sift failed');
      await new Promise((resolve) => setTimeout(resolve, 500));
    }
    results.push({ hours, words: recording.transcript.wordCount, ...(await paint(page, `${base}/recordings/${recording.id}`)) });
  }
  const [half, ten] = results;
  row('hours', 'words', 'first paint ms', 'key to picture ms');
  for (const one of results) row(one.hours, one.words, Math.round(one.paintMs), one.keyMs.toFixed(1));
  row('first paint, 10 h / 0.5 h', ratio(ten.paintMs, half.paintMs));
  row('key to picture, 10 h / 0.5 h', ratio(ten.keyMs, half.keyMs));
  await browser.close();
}

/** From the click to the ranking and the words on the screen; then from a key to the next drawn frame, median of 40. */
async function paint(page, url) {
  const paints = [];
  for (let i = 0; i < 3; i += 1) {
    await page.goto('about:blank');
    const from = performance.now();
    await page.goto(url);
    await page.locator('[data-word]').first().waitFor();
    await page.getByTestId('candidate').first().waitFor();
    paints.push(performance.now() - from);
  }
  await page.waitForTimeout(500);
  const keyMs = await page.evaluate(async () => {
    const times = [];
    for (let i = 0; i < 40; i += 1) {
      const from = performance.now();
      window.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowDown', bubbles: true, cancelable: true }));
      await new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve)));
      times.push(performance.now() - from);
      await new Promise((resolve) => setTimeout(resolve, 30));
    }
    return times.sort((a, b) => a - b)[20];
  });
  return { paintMs: Math.min(...paints), keyMs };
}
