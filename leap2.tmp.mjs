import { chromium } from '@playwright/test';
import { DEMO_SIGN_IN } from './demo/scenario.mjs';
const base = 'http://127.0.0.1:4310';
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu'] });
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
page.on('pageerror', (e) => console.log('error', String(e).slice(0, 500)));
await page.goto(base);
await page.getByLabel('E-mail').fill(DEMO_SIGN_IN.email);
await page.getByLabel('Password').fill(DEMO_SIGN_IN.password);
await page.getByRole('button', { name: 'Sign in' }).click();
await page.getByText('Going out next').waitFor();
const short = await page.evaluate(async () => {
  const get = async (p) => (await fetch('/api/' + p)).json();
  const { csrfToken } = await get('session');
  const send = async (method, p, body) => { const r = await fetch('/api/' + p, { method, headers: { 'content-type': 'application/json', 'x-csrf-token': csrfToken }, body: JSON.stringify(body) }); return r.status === 204 ? null : r.json(); };
  const rec = (await get('recordings')).find((x) => x.sound?.picture);
  let shorts = await get('shorts?recordingId=' + rec.id);
  if (shorts.length === 0) {
    const s = await send('POST', `recordings/${rec.id}/sifts`, { partStartMs: 0, partEndMs: 290000, minMs: 20000, maxMs: 60000, roughCount: 6, topics: [], kinds: [], avoid: [] });
    for (;;) { const one = (await get(`recordings/${rec.id}/sifts`)).find((x) => x.id === s.id); if (one.state === 'done') break; await new Promise((r) => setTimeout(r, 500)); }
    const { candidates } = await get(`sifts/${s.id}/ranking`);
    await send('PUT', `candidates/${candidates[0].id}/state`, { state: 'kept' });
    shorts = await get('shorts?recordingId=' + rec.id);
  }
  const one = shorts[0];
  const removed = [3, 12, 20, 28].map((k) => ({ firstWord: one.firstWord + k, endWord: one.firstWord + k + 4 }));
  return send('PUT', `shorts/${one.id}/edit`, { edit: { removed, pauses: [], corrected: [], before: [], after: [] }, version: one.version });
});
const cuts = await page.evaluate(async (id) => (await (await fetch(`/api/shorts/${id}/passage`)).json()).cuts, short.id);
await page.goto(`${base}/shorts/${short.id}/cut`);
await page.getByRole('button', { name: 'Play as cut' }).waitFor();
await page.waitForTimeout(1500);
await page.evaluate(() => {
  const told = (window.told = []);
  const look = () => { for (const v of document.querySelectorAll('video,audio')) if (!v.seeking && !v.paused) told.push([performance.now(), v.currentTime * 1000]); requestAnimationFrame(look); };
  requestAnimationFrame(look);
});
await page.getByRole('button', { name: 'Play as cut' }).click();
await page.waitForTimeout(2200);
await page.screenshot({ path: '/tmp/l1.png' });
const total = cuts.slice(0, 4).reduce((a, c) => a + c.endMs - c.startMs, 0);
await page.waitForTimeout(Math.max(0, total - 1500));
const told = await page.evaluate(() => window.told);
const lost = cuts.slice(0, 4).map((cut, i) => {
  const next = cuts[i + 1];
  const came = told.findIndex(([, at]) => at >= next.startMs - 5);
  const left = told.findLastIndex(([, at], k) => k < came && at <= cut.endMs + 60);
  if (came < 0 || left < 0) return null;
  const [a, b] = [told[left], told[came]];
  return Math.round(b[0] - a[0] - (b[1] - next.startMs) - (cut.endMs - a[1]));
});
console.log('lost at leaps, ms', lost, 'over', told.filter(([, at]) => !cuts.some((c) => at > c.startMs - 30 && at < c.endMs + 30)).length, 'frames', told.length);
await browser.close();
