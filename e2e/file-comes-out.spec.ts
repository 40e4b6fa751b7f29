import { execFile } from 'node:child_process';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { expect, test } from '@playwright/test';
import { AT_WORK_MS, BRIEF, makeClient, ownerApi, signIn, startWorker, url, type Worker } from './help.js';

const run = promisify(execFile);
let worker: Worker;
let folder: string;
test.beforeAll(async () => {
  worker = startWorker();
  folder = await mkdtemp(join(tmpdir(), 'sift-reel-film-'));
  await worker.ready;
});
test.afterAll(async () => {
  await worker.stop();
  await rm(folder, { recursive: true, force: true });
});

test('a video is dropped, sifted, seen while it plays, kept, cut by its words, played as cut, made into a file and taken away', async ({ page }) => {
  test.setTimeout(300_000);
  const fixtures = process.env['E2E_FIXTURES']!;
  const film = join(folder, 'filmed talk.mp4');
  // A green picture, with two minutes of the talk that is spoken for all tests.
  const picture = ['-f', 'lavfi', '-i', 'color=0x00aa00:s=320x180:r=25', '-i', join(fixtures, 'up-the-flue-11.ogg'), '-t', '120', '-shortest'];
  await run('ffmpeg', ['-v', 'error', '-nostdin', '-y', ...picture, '-c:v', 'libx264', '-preset', 'ultrafast', '-pix_fmt', 'yuv420p', '-c:a', 'aac', film]);
  const cues = (await readFile(join(fixtures, 'up-the-flue-11.vtt'), 'utf8')).split('\n\n');
  await writeFile(join(folder, 'filmed talk.vtt'), cues.filter((cue) => !/^0[1-9]:|^00:0[2-9]:|^00:[1-9]/m.test(cue)).join('\n\n'));
  const { clientId } = await makeClient('Filmed');
  const api = await ownerApi();
  const read = (path: string) => api('GET', path);
  // Which volume each element's sound passes, as the page connects them.
  await page.addInitScript(() => {
    const gates = new Map<HTMLMediaElement, AudioParam>();
    (window as unknown as { gates: unknown }).gates = gates;
    const connect = AudioNode.prototype.connect as (this: AudioNode, to: AudioNode) => AudioNode;
    AudioNode.prototype.connect = function (this: AudioNode, to: AudioNode) {
      if (this instanceof MediaElementAudioSourceNode && to instanceof GainNode) gates.set(this.mediaElement, to.gain);
      return connect.call(this, to);
    } as typeof AudioNode.prototype.connect;
  });
  await signIn(page);
  await page.goto(url(`/recordings?client=${clientId}`));
  // The line breaks while it is sent: it goes on by itself.
  let broken = 0;
  await page.route('**/api/uploads/*', (route) => {
    if (route.request().method() !== 'PATCH' || broken > 1) return route.continue();
    broken += 1;
    return route.abort('connectionreset');
  });
  await page.getByTestId('files').setInputFiles([film, join(folder, 'filmed talk.vtt')]);
  await expect(page.getByText('brought in')).toBeVisible();
  expect(broken).toBe(2);
  // Short cuts: an encoder takes its time.
  const [brought] = (await api('GET', `recordings?clientId=${clientId}`)) as unknown as { id: string }[];
  await api('POST', `recordings/${brought!.id}/sifts`, { ...BRIEF, minMs: 10_000, maxMs: 16_000 });
  // Its whole pictures stand ten seconds apart: browsers are given another file, and glimpses.
  const preparation = async (): Promise<{ state: string; proxied: boolean }> =>
    ((await api('GET', `recordings/${brought!.id}`)) as unknown as { preparation: { state: string; proxied: boolean } }).preparation;
  await expect.poll(preparation, { timeout: AT_WORK_MS }).toMatchObject({ state: 'done', proxied: true });
  await page.getByRole('link', { name: 'filmed talk' }).click();
  await expect(page.getByTestId('candidate').first()).toBeVisible({ timeout: AT_WORK_MS });

  await page.getByTestId('seam').hover({ position: { x: 300, y: 30 } });
  await expect(page.getByTestId('glimpse')).toBeVisible();
  await expect(page.getByTestId('wave')).toBeVisible();
  // One clock: the picture is where the candidate begins, and goes on from there.
  const seen = page.locator('video');
  await expect(seen).toBeVisible();
  const [first] = (await api('GET', `recordings?clientId=${clientId}`)) as unknown as { id: string; latestSift: { id: string } }[];
  const { candidates } = (await api('GET', `sifts/${first!.latestSift.id}/ranking`)) as unknown as { candidates: { startMs: number; endMs: number }[] };
  const at = (): Promise<number> => seen.evaluate((video: HTMLVideoElement) => video.currentTime * 1_000);
  await expect.poll(async () => Math.abs((await at()) - candidates[0]!.startMs)).toBeLessThan(100);
  await page.getByRole('button', { name: 'Picture of the recording' }).click();
  await expect.poll(at).toBeGreaterThan(candidates[0]!.startMs + 300);
  await page.getByRole('button', { name: 'Picture of the recording' }).click();
  // It shows at once; the short is there when it is answered.
  const answered = page.waitForResponse((response) => response.url().endsWith('/state') && response.request().method() === 'PUT');
  await page.getByRole('button', { name: /^Keep/ }).first().click();
  await expect(page.getByText('1 kept, 0 dropped')).toBeVisible();
  expect((await answered).status()).toBe(200);

  // Cut by its words: some struck out, all that is proposed taken.
  await page.goto(url(`/shorts?client=${clientId}`));
  await page.locator('ul[aria-label="Shorts"] a').first().click();
  await page.keyboard.press('c');
  const [short] = (await read(`shorts?clientId=${clientId}`)) as unknown as { id: string; firstWord: number; playedMs: number }[];
  await page.locator(`[data-word="${short!.firstWord + 8}"]`).click();
  await page.locator(`[data-word="${short!.firstWord + 12}"]`).click({ modifiers: ['Shift'] });
  await page.keyboard.press('x');
  await expect(page.locator('del')).toHaveCount(5);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(page.locator('del')).toHaveCount(0);
  await page.keyboard.press('Control+Shift+z');
  await expect(page.locator('del')).toHaveCount(5);
  const takeAll = page.getByRole('button', { name: /^(?:Take|Nothing to take)/ }).first();
  await expect(takeAll).toBeVisible();
  if (await takeAll.isEnabled()) await takeAll.click();
  await expect(page.getByText('Nothing more to tighten')).toBeVisible();
  await expect(page.getByText('saving …')).toBeHidden();

  // Played as cut, on the page's own clock: nothing that is cut out is heard, however late a frame is drawn.
  const { cuts } = (await read(`shorts/${short!.id}/passage`)) as unknown as { cuts: { startMs: number; endMs: number }[] };
  expect(cuts.length).toBeGreaterThan(1);
  await page.evaluate(() => {
    const told: [number, number, number][] = [];
    const { gates } = window as unknown as { gates: Map<HTMLMediaElement, AudioParam> };
    (window as unknown as { told: unknown }).told = told;
    const look = (): void => {
      // Of the two elements, the one that plays.
      for (const video of document.querySelectorAll('video'))
        if (!video.seeking && !video.paused) told.push([performance.now(), video.currentTime * 1_000, gates.get(video)?.value ?? 1]);
      requestAnimationFrame(look);
    };
    requestAnimationFrame(look);
  });
  await page.getByRole('button', { name: 'Play as cut' }).click();
  await expect(page.getByTestId('caption')).toBeVisible();
  const told = (): Promise<[number, number, number][]> => page.evaluate(() => (window as unknown as { told: [number, number, number][] }).told);
  // The page is held up, as slow machines hold it up, over the end of the first span.
  await page.evaluate((endMs) => {
    const hold = (): void => {
      const at = Math.max(...[...document.querySelectorAll('video')].map((video) => (video.paused ? 0 : video.currentTime * 1_000)));
      if (at < endMs - 200) return void setTimeout(hold, 20);
      const until = performance.now() + 500;
      while (performance.now() < until);
    };
    hold();
  }, cuts[0]!.endMs);
  await expect.poll(async () => (await told()).at(-1)?.[1] ?? 0).toBeGreaterThan(cuts[1]!.startMs + 300);
  await page.getByRole('button', { name: 'Stop' }).click();
  const heard = (await told()).filter(([, , volume]) => volume > 0.02);
  expect(heard.length).toBeGreaterThan(10);
  for (const [, at] of heard)
    expect(
      cuts.some(({ startMs, endMs }) => at > startMs - 60 && at < endMs + 50),
      `heard at ${at}`,
    ).toBe(true);
  const leap = heard.findIndex(([, at]) => at >= cuts[1]!.startMs - 60);
  const [left, came] = [heard[leap - 1]!, heard[leap]!];
  test
    .info()
    .annotations.push({ type: 'leap', description: `${Math.round(came[0] - left[0] - (came[1] - cuts[1]!.startMs) - (cuts[0]!.endMs - left[1]))} ms` });

  await page.getByRole('link', { name: 'Title and text' }).click();
  await page.getByRole('button', { name: 'Make the file' }).click();
  await page.getByRole('menuitem', { name: 'square' }).click();
  await expect(page.getByRole('progressbar', { name: 'Making square' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Watch square' })).toBeVisible({ timeout: AT_WORK_MS });
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'Download square' }).click()]);
  expect(download.suggestedFilename()).toMatch(/^filmed talk - .+ - square\.mp4$/);
  const made = join(folder, 'made.mp4');
  await download.saveAs(made);

  const { stdout } = await run('ffprobe', ['-v', 'error', '-show_entries', 'stream=codec_name,width,height,nb_frames:format=duration', '-of', 'json', made]);
  const { streams, format } = JSON.parse(stdout) as {
    streams: { codec_name: string; width?: number; height?: number; nb_frames: string }[];
    format: { duration: string };
  };
  const [film0] = streams.filter((one) => one.codec_name === 'h264');
  const lengthMs = cuts.reduce((sum, { startMs, endMs }) => sum + endMs - startMs, 0);
  expect(lengthMs).toBeLessThan(short!.playedMs);
  expect([film0!.width, film0!.height, Number(film0!.nb_frames)]).toEqual([1080, 1080, Math.round(lengthMs / 40)]);
  expect(Math.abs(Number(format.duration) * 1_000 - lengthMs)).toBeLessThan(60);
  // A frame looked at: green in the middle, the client's ground above it.
  const { stdout: frame } = await run(
    'ffmpeg',
    ['-v', 'error', '-nostdin', '-ss', '3', '-i', made, '-frames:v', '1', '-vf', 'scale=36:36:flags=area,format=rgb24', '-f', 'rawvideo', '-'],
    {
      encoding: 'buffer',
    },
  );
  const pixel = (x: number, y: number): number[] => [...frame.subarray(3 * (36 * y + x), 3 * (36 * y + x) + 3)];
  const [middle, above] = [pixel(18, 14), pixel(18, 3)];
  expect(middle[1]! - Math.max(middle[0]!, middle[2]!)).toBeGreaterThan(100);
  expect(Math.max(...above)).toBeLessThan(60);

  // Watched where it is.
  await page.getByRole('button', { name: 'Watch square' }).click();
  const watched = page.getByRole('dialog').locator('video');
  await expect.poll(() => watched.evaluate((video: HTMLVideoElement) => video.currentTime)).toBeGreaterThan(0.3);
});
