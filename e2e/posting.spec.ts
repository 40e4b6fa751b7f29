import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { AT_WORK_MS, BRIEF, ownerApi, PLATFORM, setClock, signIn, startWorker, url, type Worker } from './help.js';

let worker: Worker;
/** What is put back afterwards: others count the posts of the schedule, from the day it was. */
let begun: { readonly startMs: number; readonly clientId: string } | null = null;
const MINUTE = 60_000;
test.beforeAll(async () => {
  worker = startWorker();
  await worker.ready;
});
test.afterAll(async () => {
  await worker.stop();
  if (begun === null) return;
  setClock(begun.startMs);
  await (
    await ownerApi()
  )('DELETE', `clients/${begun.clientId}`);
});

test('an account is connected, a plan laid out, and its posts go out by themselves; without the right they wait, and with it again they go', async ({
  page,
}) => {
  test.setTimeout(420_000);
  page.setDefaultTimeout(60_000);
  const startMs = Date.parse((await (await ownerApi())('GET', 'schedule'))['now'] as string);
  const standins = process.env['E2E_MAIL_URL']!;
  const api = await ownerApi();
  // A client on a platform that can be posted to, and four approved shorts of a talk with sound.
  const client = await api('POST', 'clients', { name: 'Lantern Post', zone: 'UTC', tags: ['firewood'], standingBrief: BRIEF });
  begun = { startMs, clientId: client.id };
  const profile = await api('POST', 'platform-profiles', {
    ...PLATFORM,
    name: 'Fernpost for all',
    service: 'fernpost',
    shapes: ['square'],
    titleLimit: 60,
    hashtagLimit: 8,
  });
  const windows = [1, 2, 3, 4, 5, 6, 7].flatMap((weekday) => [{ weekday, minute: 600, weight: 70 }]);
  const channel = await api('POST', `clients/${client.id}/channels`, {
    name: 'Lantern on Fernpost',
    platformProfileId: profile.id,
    zone: 'UTC',
    order: 1,
    postsPerDay: 1,
    postsPerWeek: 7,
    windows,
  });
  const fixtures = process.env['E2E_FIXTURES']!;
  await signIn(page);
  await page.goto(url(`/recordings?client=${client.id}`));
  const [sound, words] = await Promise.all(['ogg', 'vtt'].map((ending) => readFile(join(fixtures, `up-the-flue-11.${ending}`))));
  const read = <T>(path: string): Promise<T> => api('GET', path) as unknown as Promise<T>;
  // Two talks, so that a plan can go from one to the other.
  for (const name of ['posted talk', 'other talk']) {
    await page.getByTestId('files').setInputFiles([
      { name: `${name}.ogg`, mimeType: 'audio/ogg', buffer: sound! },
      { name: `${name}.vtt`, mimeType: 'text/vtt', buffer: words! },
    ]);
    await expect(page.getByRole('link', { name })).toBeVisible();
    const brought = (await read<{ id: string; title: string }[]>(`recordings?clientId=${client.id}`)).find((one) => one.title === name)!;
    const sift = await api('POST', `recordings/${brought.id}/sifts`, { ...BRIEF, minMs: 10_000, maxMs: 16_000 });
    await expect.poll(async () => (await read<{ state: string }>(`sifts/${sift.id}`)).state, { timeout: AT_WORK_MS }).toBe('done');
    const { candidates } = await read<{ candidates: { id: string }[] }>(`sifts/${sift.id}/ranking`);
    for (const candidate of candidates.slice(0, 2)) await api('PUT', `candidates/${candidate.id}/state`, { state: 'kept' });
  }
  const kept = await read<{ id: string; version: number; copy: { title: string; hashtags: string[] } }[]>(`shorts?clientId=${client.id}`);
  for (const { id, version, copy } of kept) {
    const worded = await api('PUT', `shorts/${id}/copy`, { ...copy, title: copy.title.slice(0, 50), hashtags: copy.hashtags.slice(0, 5), version });
    await api('PUT', `shorts/${id}/approval`, { approved: true, version: worded['version'] });
  }

  // The account, at the platform's own page.
  await page.goto(url(`/clients/${client.id}`));
  await page.getByRole('button', { name: 'Connect an account' }).click();
  await page.getByRole('radio', { name: 'Hearth notes' }).check();
  await page.getByRole('button', { name: 'Allow it' }).click();
  await expect(page.getByText('Hearth notes is connected')).toBeVisible();
  expect(page.url()).toBe(url(`/clients/${client.id}`)); // nothing that opens a door stays in the address

  // A plan: two places locked, the rest asked for again, all of it taken.
  await page.goto(url(`/schedule?client=${client.id}&as=board-2`));
  await expect(page.getByTestId('tray-short')).toHaveCount(4);
  await page.keyboard.press('l');
  await page.getByRole('button', { name: 'Propose a plan' }).click();
  const keep = page.getByRole('button', { name: /^Keep “/ });
  await keep.first().click();
  await keep.nth(1).click();
  await page.getByRole('button', { name: 'Ask again, keeping 2' }).click();
  await expect(page.getByTestId('worth')).toContainText(/^Worth [\d.]+/);
  await page.getByRole('button', { name: /^Place \d posts?$/ }).click();
  await expect(page.getByText(/^Placed \d posts?/)).toBeVisible();
  const placed = ((await api('GET', 'schedule'))['posts'] as { id: string; channelId: string; at: string }[])
    .filter((post) => post.channelId === channel.id)
    .sort((a, b) => Date.parse(a.at) - Date.parse(b.at));
  expect(placed.length).toBeGreaterThanOrEqual(2);
  const cards = page.getByTestId('post').filter({ hasText: 'posted' });

  // Time passes: its file is made ahead of the first one's minute, and it goes out.
  setClock(Date.parse(placed[0]!.at) - 10 * MINUTE);
  await expect
    .poll(async () => (await api('GET', `posts/${placed[0]!.id}/sending`))['fixedAt'] === null && (await ready(placed[0]!.id)), { timeout: AT_WORK_MS })
    .toBe(true);
  setClock(Date.parse(placed[0]!.at) - 5_000);
  await expect(cards).toHaveCount(1, { timeout: AT_WORK_MS });
  await page.getByTestId('post').filter({ hasText: 'posted' }).click();
  const there = await page.getByRole('link', { name: 'See it there' }).getAttribute('href');
  await page.goto(there!);
  await expect(page.locator('article video')).toBeVisible();
  await expect(page.getByText('Hearth notes')).toBeVisible();
  await page.goto(`${standins}/platforms/fernpost/`);
  await expect(page.locator('article')).toHaveCount(1);

  // The right is taken back there: the next one waits, and the desk says why.
  const taken = await fetch(`${standins}/platforms/fernpost/faults`, { method: 'PUT', body: JSON.stringify({ revoke: 'fp-hearth' }) });
  expect(taken.status).toBe(204);
  setClock(Date.parse(placed[1]!.at) - 10 * MINUTE);
  await expect.poll(async () => ready(placed[1]!.id), { timeout: AT_WORK_MS }).toBe(true);
  setClock(Date.parse(placed[1]!.at) - 5_000);
  await page.goto(url());
  await expect(page.getByRole('heading', { name: /Rights to post that are gone/ })).toBeVisible({ timeout: AT_WORK_MS });
  await expect(page.getByText('Lantern Post: 1 post waits for it')).toBeVisible();
  await page.getByRole('link', { name: /Hearth notes/ }).click();
  await expect(page.getByTestId('channel-posting')).toContainText('the right to post is gone');

  // Given again, it goes, and once.
  await page.getByRole('button', { name: 'Connect again' }).click();
  await page.getByRole('radio', { name: 'Hearth notes' }).check();
  await page.getByRole('button', { name: 'Allow it' }).click();
  await expect(page.getByText('Hearth notes is connected')).toBeVisible();
  await page.goto(url(`/schedule?client=${client.id}&as=board-2&week=${placed[0]!.at.slice(0, 10)}`));
  await expect(cards).toHaveCount(2, { timeout: AT_WORK_MS });
  await page.goto(`${standins}/platforms/fernpost/`);
  await expect(page.locator('article')).toHaveCount(2);

  /** Whether the file that a post goes out with is made. */
  async function ready(postId: string): Promise<boolean> {
    const { posts } = await read<{ posts: { id: string; shortId: string }[] }>('schedule');
    const { shortId } = posts.find((post) => post.id === postId)!;
    const renders = await read<{ state: string }[]>(`shorts/${shortId}/renders`);
    return renders.some(({ state }) => state === 'done');
  }
});
