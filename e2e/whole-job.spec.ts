import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { parse } from 'csv-parse/sync';
import ICAL from 'ical.js';
import { parseSync } from 'subtitle';
import { AT_WORK_MS, captions, choose, LOGS, makeClient, signIn, startWorker, url, type Worker } from './help.js';

let worker: Worker;
test.beforeAll(async () => {
  worker = startWorker();
  await worker.ready;
});
test.afterAll(() => worker.stop());

test('a producer’s whole job: from files to a plan to take away', async ({ page }) => {
  const { clientId, channelIds } = await makeClient('Emberline');
  await signIn(page);

  // Bring in a recording with its sound, and a second one with its transcript alone.
  await page.getByRole('link', { name: 'Recordings', exact: true }).click();
  await choose(page, 'Client', 'Emberline');
  const fixtures = process.env['E2E_FIXTURES']!;
  await page.getByTestId('files').setInputFiles([join(fixtures, 'up-the-flue-11.vtt'), join(fixtures, 'up-the-flue-11.ogg')]);
  await expect(page.getByText('brought in')).toBeVisible();
  await page.getByTestId('files').setInputFiles({ name: 'logs in march.vtt', mimeType: 'text/vtt', buffer: captions(LOGS.slice(0, 7), 40, ['Ann', 'Bo']) });
  await expect(page.getByRole('link', { name: 'logs in march' })).toBeVisible();
  await page.getByTestId('files').setInputFiles({ name: 'broken.vtt', mimeType: 'text/vtt', buffer: Buffer.from('WEBVTT\n\nnoon --> 00:01.000\nx\n') });
  await expect(page.getByText('Refused: broken.vtt:3: “noon” is no start time')).toBeVisible();

  // Brief and sift both.
  for (const title of ['logs in march', 'up the flue 11']) {
    await page.goto(url(`/recordings?client=${clientId}`)); // other tests bring in recordings of the same name
    await page.getByRole('link', { name: title }).click();
    await page.getByLabel('About', { exact: true }).fill('newspaper, wood');
    await page.getByRole('button', { name: 'Sift the recording' }).click();
    await expect(page.getByTestId('candidate').first()).toBeVisible({ timeout: AT_WORK_MS });
  }

  // Read the ranking: a reason with its words, and the sound plays exactly the candidate.
  await expect(page.getByTestId('score')).toBeVisible();
  await expect(page.getByTestId('signal-opening')).toContainText(/\d/);
  // The fixture's sound is a tone, so there is no voice to speak of; but it was listened to.
  await expect(page.getByText('There is no sound')).toBeHidden();
  await expect(page.getByText('did not listen to the sound')).toBeHidden();
  const spans = await page.evaluate(async () => {
    const element = document.querySelector<HTMLAudioElement>('[data-testid="player"]')!;
    const times: number[] = [];
    element.addEventListener('play', () => times.push(element.currentTime));
    element.addEventListener('pause', () => times.push(element.currentTime));
    (window as unknown as { times: number[] }).times = times;
    element.playbackRate = 8;
    return times;
  });
  expect(spans).toEqual([]);
  const [from, to] = (await page.locator('section[aria-label="Reasons"] .time').first().textContent())!
    .split(' – ')
    .map((clock) => clock.split(':').reduce((sum, part) => sum * 60 + Number(part), 0));
  await page.keyboard.press(' ');
  await expect.poll(() => page.evaluate(() => (window as unknown as { times: number[] }).times.length)).toBeGreaterThanOrEqual(2);
  const times = await page.evaluate(() => (window as unknown as { times: number[] }).times);
  expect(Math.abs(times[0]! - from!)).toBeLessThan(0.15);
  const endedAt = await page.evaluate(() => document.querySelector<HTMLAudioElement>('[data-testid="player"]')!.currentTime);
  expect(Math.abs(endedAt - to!)).toBeLessThan(0.15);

  // Move an end by a word, and take it back.
  const handle = page.getByTestId('handle-start');
  const before = await handle.getAttribute('aria-valuenow');
  await page.keyboard.press(']');
  await expect(page.getByText('Moved the ends of')).toBeVisible();
  expect(Number(await handle.getAttribute('aria-valuenow'))).toBe(Number(before) + 1);
  await page.keyboard.press('u');
  await expect(handle).toHaveAttribute('aria-valuenow', before!);

  // Keep three; drop one and take that back.
  await page.keyboard.press('k');
  await expect(page.getByText('1 kept, 0 dropped')).toBeVisible();
  await page.keyboard.press('x');
  await expect(page.getByText('1 kept, 1 dropped')).toBeVisible();
  await page.keyboard.press('u');
  await expect(page.getByText('1 kept, 0 dropped')).toBeVisible();
  await page.keyboard.press('k');
  await expect(page.getByText('2 kept, 0 dropped')).toBeVisible();
  await page.getByRole('link', { name: 'Recordings', exact: true }).click();
  await page.getByRole('link', { name: 'logs in march' }).click();
  await page.getByTestId('candidate').first().waitFor();
  await page.keyboard.press('k');
  await expect(page.getByText('1 kept, 0 dropped')).toBeVisible();

  // Word and approve.
  await page.getByRole('link', { name: 'Shorts', exact: true }).click();
  await choose(page, 'Client', 'Emberline'); // the owner sees what other tests keep, too
  await expect(page.getByText('3 shown, 0 approved')).toBeVisible();
  await page.getByLabel('Title').fill('The heron in the teapot');
  await expect(page.getByRole('status').filter({ hasText: 'Saved' })).toBeVisible();
  await page.getByRole('tab', { name: /Emberline 2/ }).click();
  await page.getByLabel('Title').fill('x'.repeat(120));
  await expect(page.getByText('120/100 over')).toBeVisible();
  await expect(page.getByRole('tab', { name: /Emberline 2/ })).toContainText('over the limit');
  await page.getByRole('button', { name: 'Back to the words for all' }).click();
  await expect(page.getByLabel('Title')).toHaveValue('The heron in the teapot');
  for (let i = 0; i < 3; i += 1) {
    await page.locator('ul[aria-label="Shorts"] li').nth(i).getByRole('link').click();
    await page.getByRole('button', { name: 'Approve the short' }).click();
    if (i === 0) {
      // Nobody spoke of a heron in a teapot; the producer knows better.
      await page.getByRole('alert').getByRole('checkbox', { name: '“The heron in the teapot” is right' }).check();
      await page.getByRole('button', { name: 'Approve the short' }).click();
    }
    await expect(page.getByRole('button', { name: 'Un-approve' })).toBeVisible();
  }

  // Batch.
  for (const box of await page.locator('ul[aria-label="Shorts"] input[type=checkbox]').all()) await box.check();
  await page.getByRole('button', { name: /^Batch 3 shorts/ }).click();
  await page.getByLabel('Name of the batch').fill('first cold week');
  await page.getByRole('dialog').getByRole('button', { name: 'Batch 3 shorts' }).click();

  // Lay out: a proposal first, nothing written; then accept it.
  await expect(page.getByTestId('tray-short')).toHaveCount(3);
  await page.keyboard.press('l');
  await page.getByRole('button', { name: 'Propose a plan' }).click();
  await expect(page.getByTestId('proposal')).toContainText('Weight 70 times score');
  await expect(page.getByTestId('post')).toHaveCount(0);
  // One place is locked and the rest asked for again; a change of a channel is tried, and makes none.
  await page
    .getByRole('button', { name: /^Keep “/ })
    .first()
    .click();
  await page.getByRole('button', { name: 'Ask again, keeping 1' }).click();
  await expect(page.getByTestId('worth')).toContainText(/^Worth [\d.]+ · (?:at least|the best there is)/);
  await page.getByRole('button', { name: 'What if' }).click();
  await page.getByRole('button', { name: 'Try it' }).click();
  await expect(page.getByTestId('what-if')).toBeVisible();
  await page.getByRole('button', { name: /^Place \d posts?$/ }).click();
  await expect(page.getByText(/^Placed \d posts?/)).toBeVisible();
  await choose(page, 'Weeks shown', '4 weeks');
  await expect(page.locator(`[data-cell^="${channelIds[1]!} "]`)).toHaveCount(28);
  const posts = page.getByTestId('post');
  // Three shorts, each on both channels.
  await expect(posts).toHaveCount(6);
  const placed = await posts.count();

  // Move one by keyboard: pick up, arrows, put down. The last post of the second channel has free days behind it.
  const last = page.locator(`[data-cell^="${channelIds[1]!} "] [data-testid="post"]`).last();
  const target = page.locator(`[data-cell^="${channelIds[1]!} "]`);
  const cellOf = async (): Promise<string> => (await last.locator('xpath=ancestor::td').getAttribute('data-cell'))!;
  const start = await cellOf();
  await last.focus();
  await page.keyboard.press('m');
  for (let i = 0; i < 3; i += 1) await page.keyboard.press('ArrowRight');
  await expect(page.getByText('P puts it here')).toBeVisible();
  await page.keyboard.press('p');
  await expect(page.getByText(/^Moved “/)).toBeVisible();
  const cells = await target.evaluateAll((all) => all.map((cell) => cell.getAttribute('data-cell')));
  expect(cells.indexOf(await cellOf()) - cells.indexOf(start)).toBe(3);

  // A refused drop explains itself and changes nothing.
  const moved = await cellOf();
  await last.focus();
  await page.keyboard.press('m');
  await expect(page.getByText(/it is here now/)).toBeAttached(); // as a screen reader hears it
  await page.keyboard.press('ArrowUp');
  await expect(page.getByTestId('board').getByRole('status')).toBeVisible();
  await page.keyboard.press('p');
  await expect(page.getByRole('alert')).toContainText('cannot go there');
  expect(await cellOf()).toBe(moved);

  // By mouse, too, and back with undo.
  const goalCell = page.locator(`[data-cell="${cells[cells.indexOf(moved) + 1]!}"]`);
  await goalCell.evaluate((cell) => cell.scrollIntoView({ inline: 'center', block: 'nearest' })); // at the edge the board would scroll on by itself
  await last.hover();
  await page.mouse.down();
  const goal = await goalCell.boundingBox();
  await page.mouse.move(goal!.x + 30, goal!.y + 30, { steps: 8 });
  await page.mouse.up();
  await expect.poll(cellOf).toBe(cells[cells.indexOf(moved) + 1]);
  await page.keyboard.press('u');
  await expect.poll(cellOf).toBe(moved);

  // All of it a week later, and back.
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Choose all that is planned here' }).click();
  await page.getByRole('button', { name: 'A week later' }).click();
  await expect(page.getByText(`Moved ${placed} posts`)).toBeVisible();
  await expect.poll(cellOf).toBe(cells[cells.indexOf(moved) + 7]);
  await page.keyboard.press('u');
  await expect.poll(cellOf).toBe(moved);
  await page.getByRole('button', { name: 'Choose none' }).click();

  // Take it away, and check what is in the files.
  const download = async (act: () => Promise<void>): Promise<{ name: string; text: string }> => {
    const waiting = page.waitForEvent('download');
    await act();
    const file = await waiting;
    return { name: file.suggestedFilename(), text: await readFile(await file.path(), 'utf8') };
  };
  const csv = await download(async () => {
    await page.getByRole('button', { name: 'More', exact: true }).click();
    await page.getByRole('menuitem', { name: 'Shown weeks as CSV' }).click();
  });
  expect(csv.name).toMatch(/^Posting plan - .*\.csv$/);
  const rows = parse(csv.text, { bom: true, columns: true, record_delimiter: '\r\n' }) as Record<string, string>[];
  expect(rows).toHaveLength(placed);
  expect(new Set(rows.map((row) => row['time zone']))).toEqual(new Set(['Europe/Dublin', 'America/Halifax']));
  expect(rows.some((row) => row['title'] === 'The heron in the teapot')).toBe(true);
  const ics = await download(async () => {
    await page.getByRole('button', { name: 'More', exact: true }).click();
    await page.getByRole('menuitem', { name: /calendar/ }).click();
  });
  const events = new ICAL.Component(ICAL.parse(ics.text)).getAllSubcomponents('vevent').map((one) => new ICAL.Event(one).startDate.toJSDate().toISOString());
  expect(events.sort()).toEqual(rows.map((row) => row['instant (UTC)']).sort());
  await page.getByRole('link', { name: 'Shorts', exact: true }).click();
  const srt = await download(() => page.getByRole('link', { name: 'SRT' }).click());
  const cues = parseSync(srt.text).map((node) => node.data as { start: number; text: string });
  expect(cues[0]!.start).toBeLessThan(300);
  await page.getByRole('link', { name: 'On the bench' }).click();
  const sheet = await download(async () => {
    await page.getByRole('button', { name: 'Cut sheet' }).click();
    await page.getByRole('menuitem', { name: /CSV/ }).click();
  });
  expect((parse(sheet.text, { bom: true, columns: true, record_delimiter: '\r\n' }) as unknown[]).length).toBeGreaterThanOrEqual(1);
  await expect(page.getByTestId('seam')).toBeVisible();
  expect(page.url()).toContain(url('/recordings/'));
});
