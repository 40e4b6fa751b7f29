import { join } from 'node:path';
import { AxeBuilder } from '@axe-core/playwright';
import { expect, type Page, test } from '@playwright/test';
import { AT_WORK_MS, BRIEF, decided, makeClient, ownerApi, PLATFORM, signIn, startWorker, url, type Worker } from './help.js';

let worker: Worker;
test.beforeAll(async () => {
  worker = startWorker();
  await worker.ready;
});
test.afterAll(() => worker.stop());

/** WCAG 2.0 to 2.2, A and AA, as axe reads them: contrast, names, roles, sizes of targets. */
const STANDARD = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];
const listOf = (clientId: string): string => `shorts?clientId=${clientId}`;
const NARROW = { width: 390, height: 844 };

async function expectReadable(page: Page, where: string, what: 'all of it' | 'contrast' = 'all of it'): Promise<void> {
  // A narrow chapter of the seam is small; the topic filter does the same (WCAG 2.5.8, "equivalent").
  const axe = new AxeBuilder({ page }).exclude('[data-testid="chapters"]');
  const { violations } = await (what === 'contrast' ? axe.withRules(['color-contrast']) : axe.withTags(STANDARD)).analyze();
  expect(
    violations.map(({ id, nodes }) => `${where}: ${id}: ${nodes.map(({ html }) => html.slice(0, 160)).join('\n  ')}`),
    where,
  ).toEqual([]);
}

/** Nothing wider than the screen, and no control beyond its edge that no scrolling reaches. */
async function expectNothingCutOff(page: Page, where: string): Promise<void> {
  expect(await page.evaluate(() => document.documentElement.scrollWidth), where).toBeLessThanOrEqual(NARROW.width);
  const cut = await page.evaluate(() => {
    const reachable = (element: Element): boolean => {
      for (let up = element.parentElement; up !== null; up = up.parentElement) if (/auto|scroll/.test(getComputedStyle(up).overflowX)) return true;
      return false;
    };
    return [...document.querySelectorAll('button, a, input, textarea, h1, h2')]
      .filter((element) => {
        const { left, right, width } = element.getBoundingClientRect();
        return width > 0 && (left < -1 || right > innerWidth + 1) && element.closest('.sr-only') === null && !reachable(element);
      })
      .map((element) => element.outerHTML.slice(0, 120));
  });
  expect(cut, where).toEqual([]);
}

/** To another screen, as a link goes there: loading all of the program anew at each of sixty screens takes minutes. */
const go = (page: Page, path: string): Promise<void> =>
  page.evaluate((to) => {
    window.history.pushState(null, '', to);
    window.dispatchEvent(new PopStateEvent('popstate', { state: null }));
  }, path);

/** A client with a sifted recording, two kept candidates, one of them approved. */
async function stock(page: Page): Promise<{ clientId: string; recordingId: string; sifts: string[]; shortId: string }> {
  const { clientId } = await makeClient('Everywhere');
  const api = await ownerApi();
  await signIn(page);
  const bringIn = async (file: string): Promise<string> => {
    await page.goto(url(`/recordings?client=${clientId}`));
    await page.getByTestId('files').setInputFiles(join(process.env['E2E_FIXTURES']!, file));
    await expect(page.getByText('brought in')).toBeVisible();
    return ((await api('GET', `recordings?clientId=${clientId}`)) as unknown as { id: string }[])[0]!.id;
  };
  const recordingId = await bringIn('up-the-flue-11.vtt');
  await page.getByTestId('files').setInputFiles(join(process.env['E2E_FIXTURES']!, 'up-the-flue-11.ogg'));
  const sifts: string[] = [];
  for (const brief of [BRIEF, { ...BRIEF, topics: ['newspaper'] }]) {
    const { id } = await api('POST', `recordings/${recordingId}/sifts`, brief);
    await expect.poll(async () => (await api('GET', `sifts/${id}`))['state'], { timeout: AT_WORK_MS }).toBe('done');
    sifts.push(id);
  }
  const ranking = (await api('GET', `sifts/${sifts[1]!}/ranking`)) as unknown as { candidates: { id: string }[] };
  for (const one of ranking.candidates.slice(0, 2)) await api('PUT', `candidates/${one.id}/state`, { state: 'kept' });
  const [short] = (await api('GET', listOf(clientId))) as unknown as { id: string; version: number }[];
  await api('PUT', `shorts/${short!.id}/approval`, { approved: true, version: short!.version });
  await api('POST', 'platform-profiles', { ...PLATFORM, name: 'Everywhere at length' });
  for (const kind of ['article', 'quote-cards']) await api('POST', `recordings/${recordingId}/documents`, { kind });
  return { clientId, recordingId, sifts, shortId: short!.id };
}

test('every main screen reads well: by axe by day and by night, and uncut on a narrow screen', async ({ page, browser }) => {
  test.setTimeout(300_000);
  await page.goto(url());
  await page.getByLabel('E-mail').waitFor();
  await expectReadable(page, 'sign-in');
  const { clientId, recordingId, sifts, shortId } = await stock(page);
  const screens: [string, string, () => Promise<void>][] = [
    ['desk', '/', () => page.getByText('Going out next').waitFor()],
    ['recordings', '/recordings', () => page.getByRole('link', { name: 'up the flue 11' }).first().waitFor()],
    ['bench', `/recordings/${recordingId}/sifts/${sifts[1]!}`, () => page.getByTestId('signal-opening').waitFor()],
    ['comparison', `/recordings/${recordingId}/compare/${sifts[0]!}/${sifts[1]!}`, () => page.getByTestId('compared').first().waitFor()],
    ['short', `/shorts/${shortId}`, () => page.getByLabel('Title').waitFor()],
    ['cut', `/shorts/${shortId}/cut`, () => page.getByRole('listbox', { name: 'Words' }).waitFor()],
    ['document', `/recordings/${recordingId}/documents/article`, () => page.getByRole('textbox', { name: 'Article' }).waitFor()],
    ['quote cards', `/recordings/${recordingId}/documents/quote-cards`, () => page.getByRole('img', { name: /“/ }).first().waitFor()],
    ['schedule', '/schedule?as=board', () => page.getByTestId('board').waitFor()],
    ['schedule at a glance', '/schedule?as=glance', () => page.getByTestId('month').waitFor()],
    ['schedule by day', '/schedule?as=list', () => page.getByTestId('day-list').waitFor()],
    ['clients', '/clients', () => page.getByText('Everywhere').first().waitFor()],
    ['client', `/clients/${clientId}`, () => page.getByRole('heading', { name: 'Standing brief' }).waitFor()],
    ['platforms', '/platforms', () => page.getByText('Everywhere at length').waitFor()],
    ['users', '/users', () => page.getByRole('heading', { name: 'Users and assignments' }).waitFor()],
  ];
  // What the night changes is colour.
  for (const theme of ['day', 'night'] as const) {
    await page.evaluate((name) => window.localStorage.setItem('sift-reel-theme', name), theme);
    await page.reload();
    for (const [name, path, seen] of screens) {
      await go(page, path);
      await seen();
      await expectReadable(page, `${name} by ${theme}`, theme === 'day' ? 'all of it' : 'contrast');
    }
  }
  // What opens over a screen, too.
  await page.goto(url('/schedule'));
  await page.getByTestId('board').waitFor();
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys on this screen' })).toContainText('Undo the last change');
  await expectReadable(page, 'keys');
  await page.setViewportSize(NARROW);
  const list = screens.filter(([name]) => name !== 'short');
  // Spanish says the same at greater length.
  for (const language of ['en', 'es'] as const) {
    await page.evaluate((tag) => window.localStorage.setItem('sift-reel-language', tag), language);
    await page.reload();
    for (const [name, path] of [...list, ['short', `/shorts/${shortId}`], ['shorts', '/shorts']]) {
      await go(page, path!);
      await page.locator('h1').first().waitFor();
      await page.waitForTimeout(300); // a frame in which it asks, and nothing says yet that it waits
      await expect(page.locator('.animate-pulse')).toHaveCount(0);
      await expectNothingCutOff(page, `${name!} in ${language}`);
    }
  }
  const stranger = await (await browser.newContext({ viewport: NARROW })).newPage();
  await stranger.goto(url());
  await stranger.getByRole('button', { name: 'Sign in' }).waitFor();
  await expectNothingCutOff(stranger, 'sign-in');
  await stranger.context().close();
});

test('on a narrow screen one reads a ranking, plays, keeps and drops, and approves a short', async ({ browser }) => {
  const { clientId } = await makeClient('Pocket');
  const api = await ownerApi();
  const page = await (await browser.newContext({ viewport: NARROW })).newPage();
  await signIn(page);
  await page.goto(url(`/recordings?client=${clientId}`));
  const fixtures = process.env['E2E_FIXTURES']!;
  await page.getByTestId('files').setInputFiles([join(fixtures, 'up-the-flue-11.vtt'), join(fixtures, 'up-the-flue-11.ogg')]);
  await expect(page.getByText('brought in')).toBeVisible();
  await page.getByRole('link', { name: 'up the flue 11' }).click();
  await page.getByRole('button', { name: 'Sift the recording' }).click();
  await expect(page.getByTestId('candidate').first()).toBeVisible({ timeout: AT_WORK_MS });

  const turn = (name: string): Promise<void> => page.getByRole('group', { name: 'Part of the bench' }).getByRole('button', { name }).click();
  const bar = page.getByRole('group', { name: /^Candidate \d+$/ });
  await page.getByTestId('candidate').nth(1).click();
  await expect(bar).toHaveAccessibleName('Candidate 2');
  await bar.getByRole('button', { name: 'Play' }).click();
  await expect.poll(() => page.evaluate(() => document.querySelector<HTMLAudioElement>('[data-testid="player"]')!.currentTime)).toBeGreaterThan(0);
  await bar.getByRole('button', { name: 'Pause' }).click();
  await turn('Reasons');
  await expect(page.getByTestId('signal-opening')).toBeVisible();
  await turn('Transcript');
  await expect(page.getByTestId('handle-start')).toBeInViewport();
  await turn('Ranking');
  await decided(page, () => bar.getByRole('button', { name: 'Keep' }).click());
  await expect(page.getByText('1 kept, 0 dropped')).toBeVisible();
  await decided(page, () => bar.getByRole('button', { name: 'Drop' }).click());
  await expect(page.getByText('1 kept, 1 dropped')).toBeVisible();

  await page.getByRole('link', { name: 'Shorts', exact: true }).click();
  await page.goto(url(`/shorts?client=${clientId}`));
  await page.locator('ul[aria-label="Shorts"] a').first().click();
  await expect(page.getByLabel('Title')).not.toHaveValue('');
  await page.getByRole('button', { name: 'Approve the short' }).click();
  await expect(page.getByRole('button', { name: 'Un-approve' })).toBeVisible();
  await page.getByRole('link', { name: 'All shorts' }).click();
  await expect(page.locator('ul[aria-label="Shorts"] li').first()).toContainText('approved');
  expect(((await api('GET', listOf(clientId))) as unknown as { approved: boolean }[])[0]!.approved).toBe(true);
  await page.context().close();
});
