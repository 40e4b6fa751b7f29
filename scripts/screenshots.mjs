// Takes the pictures of docs/screenshots from a running Sift Reel with the demo: node scripts/screenshots.mjs [address]
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { DEMO_SIGN_IN } from '../demo/scenario.mjs';
import { ROOT, say } from './lib/config.mjs';

const base = process.argv[2] ?? 'http://127.0.0.1:4310';
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--disable-component-update', '--disable-sync'],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
const take = async (name) => {
  // A player shows something once it has a picture (2: have current data).
  const isReady = () => [...document.querySelectorAll('video')].every((one) => one.getClientRects().length === 0 || one.readyState >= 2);
  await page.waitForFunction(isReady, null, { timeout: 10_000 });
  await page.waitForTimeout(600);
  await page.screenshot({ path: join(ROOT, 'docs/screenshots', `${name}.png`) });
  say(name);
};
const open = async (path, sign) => {
  await page.goto(`${base}${path}`);
  await sign().first().waitFor();
};
const bench = async (title) => {
  await open('/recordings', () => page.getByText('Drop recordings here'));
  await page.getByRole('link', { name: title }).click();
  await page.getByTestId('candidate').first().waitFor();
};

/** Sifts of the first recording by what they are for: the demo's own and two others, which are made when they are not there yet. */
const sifts = () =>
  page.evaluate(async () => {
    const ask = async (path) => (await fetch(`/api/${path}`)).json();
    const recording = (await ask('recordings')).find((one) => one.title.includes('no. 12'));
    const { csrfToken } = await ask('session');
    const list = () => ask(`recordings/${recording.id}/sifts`);
    const demo = (await list()).at(-1);
    const made = async (fields) => {
      const is = (one) => Object.entries(fields).every(([name, value]) => JSON.stringify(one.brief[name]) === JSON.stringify(value));
      if (!(await list()).some(is))
        await fetch(`/api/recordings/${recording.id}/sifts`, {
          method: 'POST',
          headers: { 'content-type': 'application/json', 'x-csrf-token': csrfToken },
          body: JSON.stringify({ ...demo.brief, ...fields }),
        });
      for (;;) {
        const one = (await list()).find(is);
        if (one.state === 'done') return one.id;
        await new Promise((resolve) => setTimeout(resolve, 500));
      }
    };
    return {
      recording: recording.id,
      demo: demo.id,
      costs: await made({ topics: ['parts with figures about cost'] }),
    };
  });

await page.goto(base);
await page.getByLabel('E-mail').waitFor();
await page.getByLabel('E-mail').fill(DEMO_SIGN_IN.email);
await page.getByLabel('Password').fill(DEMO_SIGN_IN.password);
await page.getByRole('button', { name: 'Sign in' }).click();
await page.getByRole('heading', { name: 'Desk', exact: true }).waitFor();
await open('/', () => page.getByText('Going out next'));
await take('desk');
await open('/recordings', () => page.getByText('Drop recordings here'));
await take('recordings');
await page.getByRole('link', { name: /What Goes Down/ }).click();
await page.getByRole('button', { name: 'Sift the recording' }).waitFor();
await take('brief');
const made = await sifts();
const siftOf = (id) => open(`/recordings/${made.recording}/sifts/${id}`, () => page.getByTestId('candidate'));
await siftOf(made.demo);
await page.keyboard.press('ArrowDown');
await take('bench');
await page.getByRole('button', { name: 'What counts' }).click();
await page.getByRole('tab', { name: 'Phrases' }).click();
await take('weights');
await page.getByRole('button', { name: 'What counts' }).click();
await page.keyboard.press('f');
await page.getByLabel('Find in the transcript').fill('how much it cost us');
await page.getByTestId('hit').first().waitFor();
await take('find');
await siftOf(made.demo);
await page.getByRole('button', { name: 'Highlight reel' }).click();
await page.getByTestId('reel-part').first().waitFor();
await take('reel');
await open(`/recordings/${made.recording}/documents/quote-cards`, () => page.getByRole('img', { name: /“/ }));
await page.waitForLoadState('networkidle');
await take('quote-cards');
await open(`/recordings/${made.recording}/documents/article`, () => page.getByRole('textbox', { name: 'Article' }));
await page
  .locator('.document-text blockquote [data-first-word]')
  .first()
  .click({ position: { x: 200, y: 8 } });
await page.getByRole('button', { name: /Hear it/ }).waitFor();
await take('document');
await open(`/recordings/${made.recording}/compare/${made.demo}/${made.costs}`, () => page.getByTestId('compared'));
await take('compare');
await open('/shorts', () => page.getByLabel('Title'));
await page.locator('ul[aria-label="Shorts"] li', { hasText: /draft/ }).first().getByRole('link').click(); // its words can be chosen
await page.getByRole('list', { name: 'Proposals' }).waitFor();
// One file that is there, one at work.
for (const shape of ['square', 'vertical']) {
  await page.getByRole('button', { name: 'Make the file' }).click();
  await page.getByRole('menuitem', { name: shape }).click();
  if (shape === 'square') await page.getByRole('button', { name: 'Watch square' }).waitFor({ timeout: 300_000 });
  else await page.getByText('making the file').waitFor({ timeout: 300_000 });
}
await take('shorts');
// Some words struck out, for the picture; brought back afterwards.
const shortUrl = page.url();
await page.keyboard.press('c');
await page.getByRole('listbox', { name: 'Words' }).waitFor();
const first = Number(await page.locator('.border-l-2 + [data-word]').first().getAttribute('data-word'));
const wordAt = (word) => page.locator(`[data-word="${word}"]`);
await wordAt(first + 9).click();
await wordAt(first + 12).click({ modifiers: ['Shift'] });
await page.keyboard.press('x');
await page.getByText('cut out').waitFor();
await page.getByRole('button', { name: 'Play as cut' }).click();
await page.getByTestId('caption').waitFor();
await page.waitForTimeout(5_500);
await take('cut');
await page.keyboard.press('Control+z');
await page.getByText('cut out').waitFor({ state: 'hidden' });
await page.goto(shortUrl);
await page.getByLabel('Title').waitFor();
// What was not said: typed, not saved into the demo for good.
const title = await page.getByLabel('Title').inputValue();
await page.getByLabel('Title').fill('Professor Kestrelwick swept 4,711 flues');
await page.getByText('“4,711” was not said.').waitFor();
await take('words');
await page.getByLabel('Title').fill(title);
await page.getByText('Saved', { exact: true }).waitFor();
await open('/schedule?as=board', () => page.getByTestId('board'));
await take('schedule');
await page.keyboard.press('l');
await page.getByRole('button', { name: 'Propose a plan' }).click();
await page.getByTestId('proposal').waitFor();
await page.getByTitle('Show it on the board').first().click();
await page.getByTestId('wished').first().waitFor();
await take('proposal');
await open('/clients', () => page.getByText('Ardcree Chimneys'));
await page.getByText('Ardcree Chimneys').click();
await page.getByRole('heading', { name: 'Standing brief' }).waitFor();
await take('client');
await page.getByRole('button', { name: 'Change the voice' }).click();
await page.getByLabel('Say this, not that').waitFor();
await take('voice');
await page.keyboard.press('Escape');
await page.evaluate(() => window.localStorage.setItem('sift-reel-theme', 'night'));
await bench(/The Last and the Welt/);
await take('bench-night');
await page.evaluate(() => window.localStorage.setItem('sift-reel-theme', 'day'));
await page.setViewportSize({ width: 390, height: 844 });
await siftOf(made.demo);
await take('narrow');
await browser.close();
