import { join } from 'node:path';
import { expect, type Locator, test } from '@playwright/test';
import { AT_WORK_MS, BRIEF, choose, makeClient, ownerApi, PLATFORM, select, signIn, startWorker, url, type Worker } from './help.js';

let worker: Worker;
test.beforeAll(async () => {
  worker = startWorker();
  await worker.ready;
});
test.afterAll(() => worker.stop());

test('the owner sets up a client, its channel, a day without posts and a producer', async ({ page }) => {
  await (
    await ownerApi()
  )('POST', 'platform-profiles', { ...PLATFORM, name: 'Pennant' });
  await signIn(page);
  await page.getByRole('link', { name: 'Clients', exact: true }).click();
  await page.getByRole('button', { name: 'Add a client' }).first().click();
  await page.getByLabel('Name').fill('Thornwick Looms');
  await page.getByLabel('Time zone').fill('Australia/Adelaide');
  await page.getByLabel('Tags').fill('weaving, #wool');
  await page.getByRole('button', { name: 'Add the client' }).click();
  await expect(page.getByRole('heading', { name: 'Thornwick Looms' })).toBeVisible();

  await page.getByRole('button', { name: 'Add a channel' }).click();
  await page.getByLabel('Name').fill('Looms on Pennant');
  await choose(page, 'Platform profile', 'Pennant');
  await page.getByRole('button', { name: 'Mon +' }).click();
  await page.getByRole('button', { name: 'Thu +' }).click();
  await page.getByRole('button', { name: 'Add the channel' }).click();
  await expect(page.getByText('1. Looms on Pennant')).toBeVisible();
  await expect(page.getByText('07:30')).toHaveCount(2);
  await page.getByRole('button', { name: 'Change', exact: true }).click();
  await expect(select(page, 'Platform profile')).toContainText('Pennant');
  await page.getByLabel('Posts a week, at most').fill('2');
  await page.getByRole('button', { name: 'Save the channel' }).click();
  await expect(page.getByText('2 a week, 1 a day')).toBeVisible();

  // A day is chosen on the calendar; no last day before the first can be.
  const [from, to] = [select(page, 'From'), select(page, 'To')];
  await from.click();
  await page.getByRole('button', { name: 'Go to the Next Month' }).click();
  await page.getByRole('gridcell').getByRole('button', { disabled: false }).nth(9).click();
  await to.focus();
  const dayOf = async (field: Locator): Promise<string> => (await field.textContent())!;
  await to.click();
  await page.getByRole('gridcell').getByRole('button', { disabled: false }).nth(2).click();
  expect(await dayOf(to)).not.toBe(await dayOf(from));
  const last = await dayOf(to);
  await to.focus();
  for (let i = 0; i < 9; i += 1) await page.keyboard.press('ArrowDown');
  expect(await dayOf(to)).toBe(await dayOf(from)); // the arrows go back no further than the first day
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('ArrowUp');
  expect(await dayOf(to)).toBe(last);
  await page.getByLabel('Reason').fill('shearing');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await page.getByRole('button', { name: 'Delete shearing' }).click();
  await expect(page.getByText('Deleted “shearing”')).toBeVisible();
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(page.getByRole('button', { name: 'Delete shearing' })).toBeVisible();

  await page.getByLabel('About', { exact: true }).fill('warp, weft');
  await page.getByRole('button', { name: 'Save the standing brief' }).click();
  await expect(page.getByText('Saved the standing brief')).toBeVisible();
  const fontOf = (one: Locator): Promise<string> => one.evaluate((element) => getComputedStyle(element).fontFamily);
  expect(await fontOf(page.getByText('Saved the standing brief'))).toBe(await fontOf(page.locator('body'))); // the one that is shipped

  await page.getByRole('button', { name: 'Olive Owner' }).click();
  await page.getByRole('menuitem', { name: 'Users and assignments' }).click();
  await page.getByRole('button', { name: 'Invite a user' }).click();
  await page.getByLabel('Name').fill('Wren');
  await page.getByLabel('E-mail').fill('wren@agency.example');
  await page.getByRole('dialog').getByLabel('Thornwick Looms').check();
  await page.getByRole('button', { name: 'Invite the user' }).click();
  await expect(page.getByRole('dialog', { name: 'Wren is invited' })).toContainText('on its way to wren@agency.example');
  await page.getByRole('dialog').getByRole('button', { name: 'Close', exact: true }).last().click();
  await expect(page.getByRole('row', { name: /Wren/ })).toContainText('Thornwick Looms');

  await page.getByRole('button', { name: 'Olive Owner' }).click();
  await page.getByRole('menuitem', { name: 'Night proof' }).click();
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'night');
});

test('recordings wait for their other half, show what was repaired, and go only when asked twice', async ({ page }) => {
  const fixtures = process.env['E2E_FIXTURES']!;
  await makeClient('Marlpit');
  await signIn(page);
  await page.getByRole('link', { name: 'Recordings', exact: true }).click();
  await choose(page, 'Client', 'Marlpit');
  await page.getByTestId('files').setInputFiles(join(fixtures, 'up-the-flue-11.ogg'));
  const row = page.getByRole('row', { name: /up the flue 11.*Marlpit/ });
  await expect(row).toContainText('waits for a transcript');
  const chooser = page.waitForEvent('filechooser');
  await row.getByRole('button', { name: 'Add transcript' }).click();
  await (await chooser).setFiles(join(fixtures, 'up-the-flue-11.vtt'));
  await expect(row).toContainText('Brief and sift');

  await page.getByTestId('files').setInputFiles({
    name: 'untidy.vtt',
    mimeType: 'text/vtt',
    buffer: Buffer.from('WEBVTT\n\n00:05.000 --> 00:04.000\nBackwards we went.\n\n00:02.000 --> 00:03.000\nLate it was.\n'),
  });
  const untidy = page.getByRole('row', { name: /untidy/ });
  await untidy.getByRole('button', { name: '2 repaired' }).click();
  await expect(page.getByRole('dialog', { name: /What was repaired in untidy\.vtt/ })).toContainText('ends before it starts');
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  await untidy.getByRole('button', { name: 'Delete untidy' }).click();
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(untidy).toBeVisible();
  await untidy.getByRole('button', { name: 'Delete untidy' }).click();
  await page.getByRole('button', { name: 'Delete the recording' }).click();
  await expect(untidy).toHaveCount(0);

  await page.getByTestId('files').setInputFiles({
    name: 'minutes.txt',
    mimeType: 'text/plain',
    buffer: Buffer.from('The kettle hour\n\nAnn Lee 00:03\nHello there, and welcome.\n\nAnne Lee 00:08\nIt works.\n'),
  });
  const understood = page.getByTestId('understood');
  await expect(understood).toContainText('00:03Ann LeeHello there, and welcome.');
  await expect(understood).toContainText('“The kettle hour” stands before the first time and was left out');
  await understood.getByRole('button', { name: 'It is right, bring it in' }).click();
  const minutes = page.getByRole('row', { name: /minutes/ });
  await minutes.getByRole('button', { name: 'Ann Lee, Anne Lee' }).click();
  const voices = page.getByRole('dialog', { name: 'Who speaks in “minutes”' });
  await voices.getByLabel('Voice 2').fill('Ann Lee');
  await expect(voices).toContainText('Becomes one with voice 1.');
  await voices.getByRole('button', { name: 'Name the voices' }).click();
  await expect(minutes.getByRole('button', { name: 'Ann Lee', exact: true })).toBeVisible();
  await page.getByTestId('files').setInputFiles({ name: 'notes.pdf', mimeType: 'application/pdf', buffer: Buffer.from('x') });
  await expect(page.getByRole('alert')).toContainText('Left aside: notes.pdf');
});

test('the bench by hand: dragging an end, lighting a signal, filters, and going back to an earlier sift', async ({ page }) => {
  const { clientId } = await makeClient('Copseway');
  const api = await ownerApi();
  await signIn(page);
  await page.getByRole('link', { name: 'Recordings', exact: true }).click();
  await choose(page, 'Client', 'Copseway');
  await page.getByTestId('files').setInputFiles(join(process.env['E2E_FIXTURES']!, 'up-the-flue-11.vtt'));
  await expect(page.getByText('brought in')).toBeVisible();
  const recordings = (await api('GET', `recordings?clientId=${clientId}`)) as unknown as { id: string }[];
  const recordingId = recordings[0]!.id;
  for (const brief of [
    { ...BRIEF, topics: ['newspaper'] },
    { ...BRIEF, minMs: 15_000, maxMs: 30_000 },
  ]) {
    const sift = await api('POST', `recordings/${recordingId}/sifts`, brief);
    await expect.poll(async () => (await api('GET', `sifts/${sift.id}`))['state'], { timeout: AT_WORK_MS }).toBe('done');
  }
  await page.goto(url(`/recordings/${recordingId}`));
  await expect(page.getByTestId('candidate').first()).toBeVisible();
  await expect(page.getByText('15–30 s')).toBeVisible();

  // Drag the end handle three words to the right: the words in between are tinted, and the move can be taken back.
  const handle = page.getByTestId('handle-end');
  const before = Number(await handle.getAttribute('aria-valuenow'));
  const goal = page.locator(`[data-word="${before + 3}"]`);
  const [from, to] = [await handle.boundingBox(), await goal.boundingBox()];
  await page.mouse.move(from!.x + from!.width / 2, from!.y + from!.height / 2);
  await page.mouse.down();
  await page.mouse.move(to!.x + to!.width / 2, to!.y + to!.height / 2, { steps: 6 });
  await page.mouse.up();
  await expect(handle).toHaveAttribute('aria-valuenow', String(before + 3));
  await expect(page.getByText('You moved its ends')).toBeVisible();
  await page.getByRole('button', { name: 'Back to where it was found' }).click();
  await expect(handle).toHaveAttribute('aria-valuenow', String(before));

  // The handle moves with the arrow keys, too.
  await handle.focus();
  await page.keyboard.press('ArrowLeft');
  await expect(handle).toHaveAttribute('aria-valuenow', String(before - 1));

  // With a signal lit, only its words stay underlined.
  const underlined = (): Promise<number> =>
    page.locator('[data-word]').evaluateAll((all) => all.filter((one) => (one as HTMLElement).style.boxShadow !== '').length);
  const all = await underlined();
  await page.getByTestId('signal-delivery').hover();
  await expect.poll(underlined).toBeLessThan(all);

  // Filters and order.
  const shown = page.getByTestId('candidate');
  await choose(page, 'Order', /time/);
  const starts = (): Promise<string[]> => shown.locator('.time:nth-of-type(2)').allTextContents();
  await expect
    .poll(async () => {
      const times = await starts();
      return times.join() === [...times].sort().join();
    })
    .toBe(true);
  await page.getByLabel('Words in the candidate').fill('zzzz nothing');
  await expect(page.getByText('No candidate fits these filters.')).toBeVisible();
  await page.getByLabel('Words in the candidate').fill('');
  await expect(shown.first()).toBeVisible(); // how many are drawn is the list's own business: it draws what is seen

  // Back to the first sift, whose ranking is still there.
  await page.getByRole('button', { name: '2 sifts' }).click();
  await page.getByRole('menuitem', { name: /about newspaper/ }).click();
  await expect(page.getByText('20–60 s')).toBeVisible();
  await expect(page.getByTestId('candidate').first()).toBeVisible();
});
