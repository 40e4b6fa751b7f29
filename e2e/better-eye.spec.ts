import { readFile } from 'node:fs/promises';
import { expect, type Page, test } from '@playwright/test';
import { AT_WORK_MS, BRIEF, choose, chooseNth, makeClient, ownerApi, signIn, startWorker, url, type Worker } from './help.js';

let worker: Worker;
test.beforeAll(async () => {
  worker = startWorker();
  await worker.ready;
});
test.afterAll(() => worker.stop());

/** The demo's lines as captions, six seconds each. */
async function captions(name: string): Promise<string> {
  const text = await readFile(new URL(`../demo/recordings/${name}.txt`, import.meta.url), 'utf8');
  const lines = text
    .split('\n')
    .map((line) => /^([A-Z]\w+): (.+)$/.exec(line))
    .filter((match) => match !== null);
  const clock = (s: number): string => new Date(1_000 * s).toISOString().slice(11, 23);
  let at = 0;
  const cues = lines.map((match) => {
    const from = at;
    at += Math.max(2, match[2]!.split(' ').length * 0.4);
    return `${clock(from)} --> ${clock(at - 0.1)}\n<v ${match[1]!}>${match[2]!}\n`;
  });
  return `WEBVTT\n\n${cues.join('\n')}`;
}

/** Brings in a talk through the screen, sifts it through the API, and opens the bench. */
async function openBench(page: Page, title: string): Promise<{ clientId: string; recordingId: string }> {
  const { clientId } = await makeClient(title);
  await signIn(page);
  await page.goto(url(`/recordings?client=${clientId}`));
  await page
    .getByTestId('files')
    .setInputFiles({ name: `${title}.vtt`, mimeType: 'text/vtt', buffer: Buffer.from(await captions('the-last-and-the-welt-07')) });
  const api = await ownerApi();
  await expect(async () => {
    const list = (await api('GET', `recordings?clientId=${clientId}`)) as unknown as { id: string; transcript: object | null }[];
    expect(list[0]?.transcript).toBeTruthy();
  }).toPass();
  const [recording] = (await api('GET', `recordings?clientId=${clientId}`)) as unknown as { id: string }[];
  const sift = await api('POST', `recordings/${recording!.id}/sifts`, BRIEF);
  await expect(async () => expect((await api('GET', `sifts/${sift.id}`))['state']).toBe('done')).toPass({ timeout: AT_WORK_MS });
  await page.goto(url(`/recordings/${recording!.id}`));
  await expect(page.getByTestId('candidate').first()).toBeVisible();
  return { clientId, recordingId: recording!.id };
}

const titles = (page: Page): Promise<string[]> =>
  page.getByTestId('candidate').evaluateAll((rows) => rows.slice(0, 6).map((row) => row.getAttribute('aria-label') ?? ''));

test('a producer weighs the signals, takes another cut, and finds what the ranking does not show', async ({ page }) => {
  test.setTimeout(240_000);
  const { clientId } = await openBench(page, 'Weighed');

  // Weights: ranked again at once, without a request; kept for the client; undone.
  const before = await titles(page);
  await page.getByRole('button', { name: 'What counts' }).click();
  const asked: string[] = [];
  page.on('request', (request) => {
    if (request.url().includes('/api/')) asked.push(request.url());
  });
  for (const [signal, value] of [
    ['Opening', '0'],
    ['Stands alone', '0'],
    ['Charge', '0'],
    ['Substance', '60'],
  ] as const)
    await page.locator('#signal-weights').getByLabel(signal).fill(value);
  await expect(page.getByText('ranked by your weights')).toBeVisible();
  await expect(async () => expect(await titles(page)).not.toEqual(before)).toPass();
  expect(asked).toEqual([]);
  await page.getByRole('button', { name: 'Save for client' }).click();
  await expect(page.getByText('Saved the weights for this client')).toBeVisible();
  const api = await ownerApi();
  const weightsOf = async (): Promise<unknown> =>
    ((await api('GET', 'clients')) as unknown as { id: string; signalWeights: unknown }[]).find((one) => one.id === clientId)!.signalWeights;
  expect(await weightsOf()).toHaveLength(6);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(async () => expect(await weightsOf()).toBeNull()).toPass();
  await page.getByRole('button', { name: 'Back to the sift’s' }).click();
  await expect(async () => expect(await titles(page)).toEqual(before)).toPass();
  await page.getByRole('button', { name: 'What counts' }).click();

  // Another cut takes the place of the candidate's ends.
  await page.getByTestId('candidate').first().click();
  const cut = page.getByTestId('alternatives').getByRole('button', { name: 'Take' });
  for (let i = 1; i < 6 && (await cut.count()) === 0; i += 1) await page.getByTestId('candidate').nth(i).click();
  await cut.first().click();
  await expect(page.getByText('You moved its ends.')).toBeVisible();
  await page.getByRole('button', { name: 'Back to where it was found' }).click();
  await expect(page.getByText('You moved its ends.')).toBeHidden();

  // A highlight reel of the best parts, to take away.
  await page.getByRole('button', { name: 'Highlight reel' }).click();
  await expect(page.getByRole('dialog').getByText(/in \d+ parts/)).toBeVisible();
  expect(await page.getByTestId('reel-part').count()).toBeGreaterThan(3);
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Download as CSV' }).click();
  expect((await saved).suggestedFilename()).toContain('highlight reel.csv');
  await page.getByRole('dialog').getByRole('button', { name: 'Close', exact: true }).click();

  // A topic filters the ranking, and it comes back whole.
  const whole = await titles(page);
  await chooseNth(page, 'Topic', 1);
  await expect(async () => expect((await titles(page)).length).toBeLessThan(whole.length)).toPass();
  await chooseNth(page, 'Topic', 0);
  await expect(async () => expect(await titles(page)).toEqual(whole)).toPass();

  // So does a phrase.
  await page.getByRole('tab', { name: 'Phrases' }).click();
  await page.locator('tbody button:enabled').first().click();
  await expect(page.getByRole('button', { name: /^only with/ })).toBeVisible();
  await page.getByRole('button', { name: /^only with/ }).click();

  // A hit becomes a candidate of its own, and goes again.
  await page.getByRole('tab', { name: 'Find' }).click();
  await page.getByLabel('Find in the transcript').fill('leather');
  await expect(page.getByTestId('hit').first()).toContainText(/leather/i);
  await page.getByTestId('hit').first().getByRole('button', { name: 'Make a candidate' }).click();
  await expect(page.getByText(/your own,/)).toBeVisible();
  await expect(page.getByText('Made a candidate around those words')).toBeVisible();
  await page.getByRole('button', { name: 'Take this candidate away' }).click();
  await expect(page.getByText(/your own,/)).toBeHidden();
});

test('two sifts are compared with the reason, and an interest list is refused with its line, then taken', async ({ page }) => {
  test.setTimeout(240_000);
  const { clientId, recordingId } = await openBench(page, 'Compared');
  const api = await ownerApi();
  const sift = await api('POST', `recordings/${recordingId}/sifts`, { ...BRIEF, topics: ['glue', 'parts with figures about cost'] });
  await expect(async () => expect((await api('GET', `sifts/${sift.id}`))['state']).toBe('done')).toPass({ timeout: AT_WORK_MS });
  await page.reload();
  await page.getByRole('button', { name: '2 sifts' }).click();
  await page.getByRole('menuitem', { name: 'Compare two of them' }).click();
  await expect(page.getByText(/passages in both/)).toBeVisible();
  await expect(page.getByText('the second asks about glue, parts with figures about cost', { exact: false })).toBeVisible();
  await expect(
    page
      .getByTestId('compared')
      .filter({ hasText: /Currency \+[\d.]+ points/ })
      .first(),
  ).toBeVisible();
  await page.getByRole('link', { name: 'Back to the bench' }).click();
  await expect(page.getByTestId('candidate').first()).toBeVisible();

  await page.goto(url(`/clients/${clientId}`));
  const file = page.getByTestId('interest-file');
  const list = page.getByRole('region', { name: 'Interest list' });
  await file.setInputFiles({ name: 'bad.csv', mimeType: 'text/csv', buffer: Buffer.from('term,volume,competition,change\nglue,many,0.2,0\n') });
  await expect(list.getByRole('alert')).toContainText('line 2, volume');
  await file.setInputFiles({
    name: 'good.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('term,volume,competition,change\nglue,5400,0.2,0.1\nheel,900,0.5,-0.2\n'),
  });
  await expect(list.getByText('2 terms')).toBeVisible();
  await list.getByRole('button', { name: 'Empty it' }).click();
  await expect(list.getByText('2 terms')).toBeHidden();
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(list.getByText('2 terms')).toBeVisible();
  await page.goto(url(`/recordings/${recordingId}`));
  await page.getByRole('tab', { name: 'Phrases' }).click();
  await expect(page.getByRole('row', { name: /glue/ }).first()).toContainText('5,400');
});

test('long cuts are asked for in the brief, and say where chapters begin and end', async ({ page }) => {
  test.setTimeout(240_000);
  await openBench(page, 'Longer');
  await expect(page.getByText('There is no sound, so nothing can be listened to')).toBeVisible();
  await page.getByRole('button', { name: 'Change brief' }).click();
  await choose(page, 'Length of a candidate', 'long cut, 3–15 min');
  const before = page.url();
  await page.getByRole('button', { name: 'Sift the recording' }).click();
  await page.waitForURL((address) => address.href !== before && address.pathname.includes('/sifts/'));
  await expect(page.getByText('long cut, 3–15 min').first()).toBeVisible({ timeout: AT_WORK_MS });
  await expect(page.getByTestId('candidate').first()).toBeVisible({ timeout: AT_WORK_MS });
  const lengthsNow = (): Promise<number[][]> =>
    page.getByTestId('candidate').evaluateAll((rows) => rows.map((row) => / · (\d+):(\d\d)/.exec(row.textContent)?.slice(1).map(Number) ?? [0, 0]));
  // The address changes before the screen does.
  await expect.poll(async () => Math.min(...(await lengthsNow()).map(([minutes]) => minutes!)), { timeout: AT_WORK_MS }).toBeGreaterThanOrEqual(3);
  const lengths = await lengthsNow();
  expect(lengths.length).toBeGreaterThan(2);
  for (const [minutes] of lengths) {
    expect(minutes).toBeGreaterThanOrEqual(3);
    expect(minutes).toBeLessThanOrEqual(15);
  }
  const reasons = page.locator('section[aria-label="Reasons"]');
  let said = 0;
  for (let i = 0; i < lengths.length; i += 1) {
    await page.getByTestId('candidate').nth(i).click();
    if (/from the start of a chapter|to the end of a chapter/.test((await reasons.textContent()) ?? '')) said += 1;
  }
  expect(said).toBeGreaterThan(0);
});
