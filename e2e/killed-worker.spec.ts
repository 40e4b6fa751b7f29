import { expect, test } from '@playwright/test';
import { AT_WORK_MS, choose, makeClient, ownerApi, signIn, startWorker, url } from './help.js';

/** An hour and more of talk in which every line differs, so that there is work to be interrupted. */
function longTalk(): string {
  const stamp = (s: number): string => new Date(s * 1_000).toISOString().slice(11, 23);
  const things = ['the kiln', 'a harbour wall', 'nine hens', 'the old ledger', 'her second tractor', 'a crate of quinces', 'the ferry', 'my uncle’s saw'];
  const deeds = [
    'cost us forty pounds',
    'fell over in the night',
    'was never where we left it',
    'made my brother laugh',
    'should be washed twice',
    'is the only thing I regret',
    'went to the wrong town',
  ];
  return `WEBVTT\n\n${Array.from({ length: 900 }, (_, i) => `${stamp(i * 5)} --> ${stamp(i * 5 + 4.5)}\n<v ${i % 3 === 0 ? 'Ann' : 'Bo'}>In year ${1_000 + i} ${things[i % 8]!} ${deeds[(i * 3) % 7]!}, and I ${i % 2 ? 'told' : 'asked'} nobody.\n`).join('\n')}`;
}

test('a worker that is killed in the middle of a sift loses nothing', async ({ page }) => {
  await makeClient('Harrowgate');
  await signIn(page);
  await page.getByRole('link', { name: 'Recordings', exact: true }).click();
  await choose(page, 'Client', 'Harrowgate');
  await page.getByTestId('files').setInputFiles({ name: 'long evening.vtt', mimeType: 'text/vtt', buffer: Buffer.from(longTalk()) });
  await page.getByRole('link', { name: 'long evening' }).click();
  await page.getByRole('button', { name: 'Sift the recording' }).click();
  await expect(page.getByRole('heading', { name: 'Waiting for a worker' })).toBeVisible();
  const siftId = page.url().split('/').at(-1)!;

  const doomed = startWorker(1);
  await doomed.ready;
  await expect(page.getByRole('heading', { name: 'Sifting' })).toBeVisible();
  await expect
    .poll(async () => Number(await page.getByRole('progressbar', { name: 'Sift' }).getAttribute('aria-valuenow')), { timeout: AT_WORK_MS })
    .toBeGreaterThan(10);
  process.kill(doomed.child.pid!, 'SIGKILL');
  await doomed.ended;
  const api = await ownerApi();
  expect((await api('GET', `sifts/${siftId}`))['state']).toBe('running');

  const next = startWorker(2);
  await next.ready;
  try {
    await expect(page.getByTestId('candidate').first()).toBeVisible({ timeout: AT_WORK_MS });
    const ranking = (await api('GET', `sifts/${siftId}/ranking`)) as unknown as { candidates: { rank: number }[]; sift: { state: string } };
    expect(ranking.sift.state).toBe('done');
    expect(ranking.candidates.map((one) => one.rank)).toEqual(ranking.candidates.map((_, i) => i + 1));
  } finally {
    await next.stop();
  }
  expect(page.url()).toContain(url('/recordings/'));
});
