import { expect, test } from '@playwright/test';
import { readFile } from 'node:fs/promises';
import mammoth from 'mammoth';
import { AT_WORK_MS, captions, choose, decided, LOGS, makeClient, signIn, startWorker, url, type Worker } from './help.js';

let worker: Worker;
test.beforeAll(async () => {
  worker = startWorker();
  await worker.ready;
});
test.afterAll(() => worker.stop());

const answerAs = (manner: string): Promise<Response> => fetch(`${process.env['E2E_MAIL_URL']!}/writing/${manner}`, { method: 'PUT' });

test('words: a batch by keyboard alone, a voice that is kept to, an invented figure that is caught, an article, and an XLIFF', async ({ page }) => {
  const { clientId } = await makeClient('Tarline');
  await signIn(page);
  await page.goto(url(`/recordings?client=${clientId}`));
  await choose(page, 'Client', 'Tarline');
  await page.getByTestId('files').setInputFiles({ name: 'logs and tar.vtt', mimeType: 'text/vtt', buffer: captions(LOGS, 60, ['Ann']) });
  await page.getByRole('link', { name: 'logs and tar' }).click();
  await page.getByRole('button', { name: 'Sift the recording' }).click();
  await expect(page.getByTestId('candidate').first()).toBeVisible({ timeout: AT_WORK_MS });

  // The client's voice, and the writing service allowed, faster than the list of clients is read again.
  await page.goto(url(`/clients/${clientId}`));
  await expect(page.getByRole('button', { name: 'Change the voice' })).toBeVisible();
  await page.route('**/api/clients', () => undefined);
  await page.getByRole('button', { name: 'Change the voice' }).click();
  await page.getByLabel('Say this, not that').fill('firewood, not logs');
  await page.getByLabel('Hashtags always').fill('TarLine');
  await page.getByLabel('Under every text').fill('tarline.example');
  await page.getByRole('button', { name: 'Save the voice' }).click();
  await expect(page.getByRole('definition').filter({ hasText: 'firewood, not logs' })).toBeVisible();
  await page.getByRole('checkbox', { name: /writing service may be asked/ }).click();
  await expect(page.getByText('Allowed the writing service for “Tarline”')).toBeVisible();
  // Both are taken back, the later first, and done again.
  for (const [key, said] of [
    ['u', 'Undone: Allowed'],
    ['u', 'Undone: Saved the voice'],
    ['r', 'Done again: Saved the voice'],
    ['r', 'Done again: Allowed'],
  ]) {
    await page.keyboard.press(key!);
    await expect(page.getByText(said!)).toBeVisible();
  }
  await page.unrouteAll({ behavior: 'ignoreErrors' });

  // Keep three; their words are proposed in the voice.
  await page.goto(url(`/recordings?client=${clientId}`));
  await page.getByRole('link', { name: 'logs and tar' }).click();
  await expect(page.getByTestId('candidate').first()).toBeVisible();
  await expect(page.getByRole('option', { selected: true }).first()).toBeVisible();
  for (let i = 0; i < 3; i += 1) await decided(page, () => page.keyboard.press('k'));
  await page.goto(url(`/shorts?client=${clientId}`));
  await expect(page.getByRole('list', { name: 'Shorts' }).getByRole('link')).toHaveCount(3);
  await expect(page.getByLabel('Hashtags')).toHaveValue(/^TarLine/);

  // Two of them by the keyboard, faster than the screen follows: the second title, and on to the next; back to look, and a word behind
  // the title of the third.
  const taken: string[] = [];
  page.on('request', (request) => {
    if (request.method() === 'PUT' && /\/copy$/.test(request.url())) taken.push((request.postDataJSON() as { title: string }).title);
  });
  const proposals = page.getByRole('list', { name: 'Proposals' }).getByRole('button');
  await expect(proposals.nth(1)).toBeVisible();
  const second = (await proposals.nth(1).locator('span').first().textContent())!;
  for (const key of ['2', 'n', '2', 'n', 'ArrowUp', 'ArrowDown', 'e', ' ', 's', 'o', 'o', 'n', 'Escape', 'ArrowUp']) await page.keyboard.press(key);
  await expect(page.getByText('3 shown, 2 approved')).toBeVisible();
  await expect(page.getByLabel('Title')).toBeDisabled();
  expect(taken[0]).toBe(second);
  await expect(page.getByLabel('Title')).toHaveValue(taken[1]!);
  // What is approved can be read: its letters have a colour of their own.
  await expect.poll(() => page.getByLabel('Title').evaluate((field) => getComputedStyle(field).color)).not.toMatch(/transparent|, 0\)$|\/ 0\)$/);
  await page.keyboard.press('ArrowDown');
  await expect(page.getByLabel('Title')).toHaveValue(/ soon$/);
  expect(taken).toHaveLength(3);

  // The third by the writing service, which makes up a figure.
  await answerAs('invented-figure');
  await expect(page.getByRole('button', { name: /Ask for words/ })).toBeVisible();
  await page.keyboard.press('w');
  await expect(page.getByRole('list', { name: 'What came back' }).getByText('“4711” was not said.')).toBeVisible();
  await page.keyboard.press('6');
  await expect(page.getByLabel('Title')).toHaveValue(/^4711 reasons/);
  await page.keyboard.press('a');
  await expect(page.getByText('Not said in the passage')).toBeVisible();
  await expect(page.getByText('3 shown, 2 approved')).toBeVisible();
  // Its own words are better, after all.
  await page.keyboard.press('u');
  await expect(page.getByLabel('Title')).not.toHaveValue(/4711/);
  await page.getByLabel('Title').fill('Why I buy logs in March');
  await expect(page.getByText('The client says “firewood”.')).toBeVisible();
  await page.keyboard.press('Alt+m');
  await expect(page.getByLabel('Title')).toHaveValue('Why I buy firewood in March');
  await answerAs('well');

  // An article of the same recording: traced, written on, saved by itself, downloaded, and back to what it was.
  await page.goto(url(`/recordings?client=${clientId}`));
  await page.getByRole('link', { name: 'logs and tar' }).click();
  await page.getByRole('link', { name: 'Documents' }).click();
  await page.getByRole('link', { name: /^Article/ }).click();
  await page.getByRole('button', { name: 'Make it' }).click();
  const article = page.getByRole('textbox', { name: 'Article' });
  const sentence = article.locator('blockquote [data-first-word]').first();
  const said = (await sentence.textContent())!;
  await sentence.click({ position: { x: 20, y: 8 } });
  await expect(page.getByText(/Put the caret into a sentence/)).toBeHidden();
  const first = said
    .replace(/[“”]/g, '')
    .split(' ')
    .at(-1)!
    .replace(/[^a-z]+$/i, '');
  await expect(page.getByRole('region', { name: 'What was said' }).locator('.bg-tint').first()).toContainText(first);
  // What is saved meanwhile does not move the caret.
  const saved = page.getByRole('status').filter({ hasText: /^Saved/ });
  await page.keyboard.press('Home');
  await page.keyboard.type('First ');
  await expect(saved).toBeVisible();
  await page.keyboard.type('then ');
  await expect(article).toContainText('First then ');
  await page.keyboard.press('ControlOrMeta+End');
  await page.keyboard.type(' And this is mine.');
  await expect(page.getByRole('status').filter({ hasText: 'Saving' })).toBeVisible();
  await expect(saved).toBeVisible();
  await page.reload();
  await expect(article).toContainText('And this is mine.');
  expect(await article.locator('[data-first-word]').last().textContent()).not.toContain('mine');
  await page.getByRole('button', { name: 'Take away' }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: /docx/ }).click();
  const file = await download;
  expect(file.suggestedFilename()).toBe('logs and tar - article.docx');
  expect((await mammoth.extractRawText({ path: await file.path() })).value).toContain('And this is mine.');
  await page.getByRole('button', { name: 'Who wrote what' }).click();
  await page.getByRole('button', { name: 'Take this' }).click();
  await expect(article).not.toContainText('mine');

  // The words of the first short out as XLIFF, and back with a mistake that is seen; read, they are there for a channel.
  await page.goto(url(`/shorts?client=${clientId}`));
  await expect(page.getByLabel('Title')).toBeVisible();
  await page.keyboard.press('g');
  const languages = page.getByRole('dialog');
  await choose(page, 'Language', 'Spanish');
  const out = page.waitForEvent('download');
  await languages.getByRole('link', { name: 'Out as XLIFF' }).click();
  const sent = await readFile(await (await out).path(), 'utf8');
  const answer = sent.replace(/(<source[^>]*>)([^]*?)<\/source>/g, (_, open: string, text: string) => `${open}${text}</source><target>${text}</target>`);
  const back = (text: string) =>
    languages.getByLabel('XLIFF file').setInputFiles({ name: 'es.xlf', mimeType: 'application/xliff+xml', buffer: Buffer.from(text) });
  await back(answer.replace('</file>', ''));
  await expect(languages.getByRole('alert')).toContainText(/line \d+/);
  await back(answer.replace(/<target>/, '<target>4711 '));
  await expect(languages.getByText(/Says (?:.*, )?4711 where the source says/)).toBeVisible();
  await languages.getByRole('textbox', { name: 'Title in Spanish' }).fill('Leña mojada');
  await page.keyboard.press('Tab');
  await expect(languages.getByText(/4711 where the source says/)).toBeHidden();
  await languages.getByRole('checkbox', { name: /I have read all of it/ }).click();
  await expect(languages.getByText('Read by')).toBeVisible();
});
