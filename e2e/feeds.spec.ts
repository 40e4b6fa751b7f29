import { expect, test } from '@playwright/test';
import { AT_WORK_MS, makeClient, signIn, startWorker, url, type Worker } from './help.js';

let worker: Worker;
test.beforeAll(async () => {
  worker = startWorker();
  await worker.ready;
});
test.afterAll(() => worker.stop());

test('a feed is followed; what comes out in it is taken in, while it comes, and sifted; a chapter of it is a brief', async ({ page }) => {
  const host = `${process.env['E2E_MAIL_URL']!}/shows`;
  const tell = async (what: string): Promise<void> => expect((await fetch(`${host}/${what}`, { method: 'PUT' })).status).toBe(204);
  const { clientId } = await makeClient('Listened to');
  await signIn(page);
  await page.goto(url(`/clients/${clientId}`));
  const feeds = page.getByRole('region', { name: 'Feeds' });
  await expect(feeds.getByText('No feeds yet.')).toBeVisible();
  await feeds.getByLabel('Address of the feed (RSS)').fill('http://10.0.0.1/feed.xml');
  await feeds.getByRole('button', { name: 'Follow the feed' }).click();
  await expect(feeds.getByText('10.0.0.1 is not an address of the public internet.')).toBeVisible();
  await feeds.getByLabel('Address of the feed (RSS)').fill(`${host}/what-goes-down/feed.xml`);
  await feeds.getByRole('button', { name: 'Follow the feed' }).click();
  await expect(feeds.getByText('2 episodes, 0 new')).toBeVisible();
  await feeds.getByRole('button', { name: 'What Goes Down', exact: true }).click();
  await expect(page.getByRole('dialog').getByText('Wipes that say flushable')).toBeVisible();
  await page.keyboard.press('Escape');

  await tell('what-goes-down/publish');
  await feeds.getByRole('button', { name: 'Read What Goes Down now' }).click();
  await expect(feeds.getByText('3 episodes, 1 new')).toBeVisible();

  await page.goto(url('/recordings'));
  const fresh = page.getByRole('region', { name: 'New in the feeds' });
  await expect(fresh.getByText('Under the bowling club')).toBeVisible();
  await tell('manner/slowly');
  await fresh.getByRole('button', { name: 'Take in and sift Under the bowling club' }).click();
  await expect(page.getByRole('progressbar', { name: 'Fetching Under the bowling club' })).toBeVisible();
  await tell('manner/well');
  await expect(fresh).toBeHidden();
  const row = page.getByRole('row').filter({ hasText: 'Under the bowling club' });
  await expect(row.getByText('What Goes Down · season 3, no. 34')).toBeVisible();
  await expect(row.getByText(/candidates?, \d+ strong/)).toBeVisible({ timeout: AT_WORK_MS });
  await expect(row.getByText('Priya, Colm, Des')).toBeVisible();

  await row.getByRole('link', { name: 'Under the bowling club' }).click();
  await expect(page.getByTestId('candidate').first()).toBeVisible();
  await page.getByRole('button', { name: /brief/i }).first().click();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('button', { name: 'A chapter, as the feed gives them' }).click();
  await page.getByRole('option', { name: /The story/ }).click();
  await expect(dialog.getByLabel('Part that counts, from')).not.toHaveValue('00:00');
});

test('a link is fetched by hand; what cannot be had says why', async ({ page }) => {
  const files = `${process.env['E2E_MAIL_URL']!}/shows/what-goes-down/files`;
  const { clientId } = await makeClient('Linked');
  await signIn(page);
  await page.goto(url(`/recordings?client=${clientId}`));
  const fetchLink = async (address: string, transcript: string): Promise<void> => {
    await page.getByRole('button', { name: 'From a link' }).click();
    await page.getByLabel('Address of the sound or video').fill(address);
    await page.getByLabel('Address of its transcript').fill(transcript);
    await page.getByRole('button', { name: 'Fetch the recording' }).click();
  };
  await fetchLink(`${files}/what-goes-down-32.ogg`, `${files}/what-goes-down-32.vtt`);
  await expect(
    page
      .getByRole('row')
      .filter({ hasText: 'what goes down 32' })
      .getByText(/\d+ words/),
  ).toBeVisible();
  await fetchLink(`${files}/nowhere.ogg`, '');
  const failed = page.getByRole('row').filter({ hasText: 'nowhere' });
  await expect(failed.getByText('127.0.0.1 has nothing at this address (404).')).toBeVisible();
  await expect(failed.getByRole('button', { name: 'Fetch it again' })).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(failed).toBeHidden();
});
