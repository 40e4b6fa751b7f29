import { expect, type Page, test } from '@playwright/test';
import { makeClient, ownerApi, signIn, url } from './help.js';

const MANY = 600;

/** Answers a list route with its first row so many times over, each with its own id and title. */
async function swell(page: Page, path: string, titled: (row: Record<string, unknown>, n: number) => object): Promise<void> {
  await page.route(
    (address) => address.pathname === path,
    async (route) => {
      const answer = await route.fetch();
      const [first] = (await answer.json()) as Record<string, unknown>[];
      await route.fulfill({ response: answer, json: Array.from({ length: MANY }, (_, n) => ({ ...first, id: crypto.randomUUID(), ...titled(first!, n) })) });
    },
  );
}

test('a list of hundreds draws what is seen, and all of it can be reached', async ({ page }) => {
  const { clientId } = await makeClient('Manifold');
  await signIn(page);
  await page.goto(url(`/recordings?client=${clientId}`));
  const vtt = `WEBVTT\n\n${Array.from({ length: 30 }, (_, i) => `00:${String(i).padStart(2, '0')}.000 --> 00:${String(i).padStart(2, '0')}.900\nThe kettle sang number ${i}.\n`).join('\n')}`;
  await page.getByTestId('files').setInputFiles({ name: 'kettle.vtt', mimeType: 'text/vtt', buffer: Buffer.from(vtt) });
  await expect(page.getByText('brought in')).toBeVisible();
  expect(((await (await ownerApi())('GET', `recordings?clientId=${clientId}`)) as unknown as unknown[]).length).toBe(1);

  await swell(page, '/api/recordings', (_, n) => ({ title: `Evening ${n}` }));
  await page.goto(url(`/recordings`));
  const rows = page.locator('tbody tr[data-index]');
  await expect(page.getByRole('link', { name: 'Evening 0', exact: true })).toBeVisible();
  await expect(page.getByText(`${MANY} on the table`)).toBeVisible();
  expect(await rows.count()).toBeLessThan(60);
  expect(await rows.count()).toBeGreaterThan(5);
  const scroller = page.locator('div.overflow-auto', { has: page.locator('table') });
  await expect(async () => {
    await scroller.evaluate((element) => element.scrollTo(0, element.scrollHeight));
    await expect(page.getByRole('link', { name: `Evening ${MANY - 1}`, exact: true })).toBeInViewport({ timeout: 500 });
  }).toPass();
  expect(await rows.count()).toBeLessThan(60);
  await scroller.evaluate((element) => element.scrollTo(0, 0));
  await expect(page.getByRole('link', { name: 'Evening 0', exact: true })).toBeVisible();
});
