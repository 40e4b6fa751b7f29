import { mkdir, rm } from 'node:fs/promises';
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { readTalk, toCaptions } from '@sift-reel/fitting';
import { makeFirstOwner } from './demo/load.mjs';
import { ROOT, settings } from './scripts/lib/config.mjs';
import { startPostgres } from './scripts/lib/postgres.mjs';
import { run } from './scripts/lib/run.mjs';
import { serviceEnv, startService } from './scripts/lib/services.mjs';
const OWNER = { email: 'bench@agency.example', name: 'Bench', password: 'a long enough password' };
const BRIEF = { partStartMs: 0, partEndMs: null, minMs: 20_000, maxMs: 60_000, roughCount: 12, topics: [], kinds: [], avoid: [] };
const test = settings('test'); const postgres = await startPostgres(test); const stops = [postgres.stop];
try {
  const psql = (sql) => run('psql', [postgres.url, '-qtAc', sql]);
  await psql('DROP DATABASE IF EXISTS look_bench WITH (FORCE)'); await psql('CREATE DATABASE look_bench');
  const url = postgres.url.replace(/\/[^/]*$/, '/look_bench');
  await rm(test.mediaDir, { recursive: true, force: true }); await mkdir(test.mediaDir, { recursive: true });
  const env = serviceEnv(test, url, { SIFT_REEL_LOG_LEVEL: 'silent' });
  await run(process.execPath, [join(ROOT, 'apps/server/dist/database/migrate.main.js')], { cwd: ROOT, env });
  await makeFirstOwner(url, OWNER);
  for (const part of ['api', 'worker']) { const s = startService(part, env, { quiet: true }); stops.push(s.stop); await s.ready; }
  const base = `http://${test.host}:${test.port}`;
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu'] });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(base); await page.getByLabel('E-mail').fill(OWNER.email); await page.getByLabel('Password').fill(OWNER.password); await page.getByRole('button', { name: 'Sign in' }).click();
  await page.getByRole('heading', { name: 'Desk', exact: true }).waitFor();
  const { csrfToken } = await (await page.request.get(`${base}/api/session`)).json(); const headers = { 'x-csrf-token': csrfToken };
  const client = await (await page.request.post(`${base}/api/clients`, { headers, data: { name: 'Tidewater Talks', zone: 'UTC', tags: [], standingBrief: BRIEF } })).json();
  const flat = join(ROOT, 'bench/editors/flat/talks'); const lang = join(ROOT, 'bench/editors/languages');
  const files = [...process.argv.slice(2).filter((x) => /^\d/.test(x)).map((n) => join(flat, readdirSync(flat).find((f) => f.startsWith(n)))), ...process.argv.slice(2).filter((x) => !/^\d/.test(x)).map((n) => join(lang, readdirSync(lang).find((f) => f.startsWith(n))))];
  for (const file of files) {
    const name = file.split('/').at(-1).replace('.txt', '');
    const vtt = toCaptions(readTalk(readFileSync(file, 'utf8'), 3), { punctuation: 'written', cues: 'lines', speakers: 'named' });
    const rec = await (await page.request.post(`${base}/api/clients/${client.id}/recordings`, { headers, multipart: { title: name, transcript: { name: `${name}.vtt`, mimeType: 'text/vtt', buffer: Buffer.from(vtt) } } })).json();
    const sift = await (await page.request.post(`${base}/api/recordings/${rec.id}/sifts`, { headers, data: file.includes('languages') ? { ...BRIEF, minMs: 15000, maxMs: 40000 } : BRIEF })).json();
    for (;;) { const s = await (await page.request.get(`${base}/api/sifts/${sift.id}`)).json(); if (s.state === 'done') break; if (s.state === 'failed') throw new Error(s.failure); await new Promise((r) => setTimeout(r, 300)); }
    await page.goto(`${base}/recordings/${rec.id}`); await page.getByTestId('seam').waitFor(); await page.waitForTimeout(600);
    await page.screenshot({ path: `/tmp/shots/look-${name}.png` });
    const rank = await (await page.request.get(`${base}/api/sifts/${sift.id}/ranking`)).json();
    console.log(`\n## ${name}: ${rank.candidates.length} candidates, strong ${rank.strongCount}; ${rank.makeUp?.sentence} ${JSON.stringify(rank.makeUp?.shares)} ${rank.language}`);
    for (const c of rank.candidates) console.log(`${c.rank}. ${c.score} ${((c.endMs - c.startMs) / 1000).toFixed(0)}s ${c.kind} | ${c.firstLine.slice(0, 100)} … ${c.lastLine.slice(-70)}`);
  }
  await browser.close();
} finally { for (const s of stops.reverse()) await s(); }
