// The bench screen with 10 hours (100,000 words) and up to 500 candidates loaded: first paint and key to picture, each as
// a ratio to the same with half an hour, in one run of the browser against the real server.
import { chromium } from '@playwright/test';
import { BRIEF, CHROMIUM, signIn, withApp } from './lib/app.mjs';
import { ratio, row } from './measure.mjs';
import { talkOf } from './talk.mjs';

await withApp('screen_bench', measure);

async function measure(base) {
  const browser = await chromium.launch(CHROMIUM);
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const ask = await signIn(page, base);
  const client = await ask('POST', 'clients', { name: 'Bench', zone: 'UTC', tags: [], standingBrief: BRIEF });
  const results = [];
  for (const hours of [0.5, 10]) {
    const recording = await ask('POST', `clients/${client.id}/recordings`, undefined, {
      multipart: { transcript: { name: `h${hours}.vtt`, mimeType: 'text/vtt', buffer: Buffer.from(talkOf(hours)) } },
      timeout: 120_000,
    });
    const sift = await ask('POST', `recordings/${recording.id}/sifts`, BRIEF);
    for (;;) {
      const { state } = await ask('GET', `sifts/${sift.id}`);
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
