import { chromium } from '@playwright/test';
import { DEMO_SIGN_IN } from './demo/scenario.mjs';
const base = 'http://127.0.0.1:4310';
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu', '--autoplay-policy=no-user-gesture-required'] });
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
await page.goto(base);
await page.getByLabel('E-mail').fill(DEMO_SIGN_IN.email);
await page.getByLabel('Password').fill(DEMO_SIGN_IN.password);
await page.getByRole('button', { name: 'Sign in' }).click();
await page.getByText('Going out next').waitFor();
const list = await page.evaluate(async () => (await (await fetch('/api/recordings')).json()));
const picked = list.filter((x) => x.sound).map((x) => ['/api/recordings/' + x.id + '/sound', x.sound.picture !== null]);
console.log(picked);
for (const [src, pictured] of picked.slice(0, 1).concat(picked.filter((x) => x[1]))) {
const run = 
page.evaluate(async ([src, pictured]) => {
  const el = document.createElement(pictured ? 'video' : 'audio');
  el.preload = 'auto'; el.src = src; el.muted = false; document.body.append(el);
  await new Promise((r) => (el.onloadedmetadata = r));
  const log = [];
  for (const [from, to] of [[60, 61.4], [80, 80.6], [100, 130], [131, 90], [91, 93.2]]) {
    el.currentTime = from; await new Promise((r) => (el.onseeked = r));
    await el.play();
    await new Promise((r) => setTimeout(r, 700));
    const t0 = performance.now(); const c0 = el.currentTime;
    el.currentTime = to;
    await new Promise((r) => (el.onseeked = r));
    const t1 = performance.now();
    let c = el.currentTime;
    while (el.currentTime <= to + 0.001) await new Promise((r) => requestAnimationFrame(r));
    const t2 = performance.now();
    log.push([Math.round(t1 - t0), Math.round(t2 - t0 - (el.currentTime - to) * 1000)]);
    el.pause();
  }
  return log;
}, [src, pictured]);
const out = await Promise.race([run, new Promise((r) => setTimeout(() => r('too long'), 40000))]);
console.log(src, JSON.stringify(out));
}
await browser.close();
