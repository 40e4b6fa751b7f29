// How long the preview of a cut is silent where it leaps, in ms on the page's own clock: a video of 720p whose whole pictures stand ten
// seconds apart, the worst that common cameras write, played from what was made of it for browsers. Beside it: the same leap by looking
// for the place in one element, in that file and in the original. Asked: 50 ms.
import { execFile } from 'node:child_process';
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { chromium } from '@playwright/test';
import { BRIEF, CHROMIUM, signIn, withApp } from './lib/app.mjs';
import { row } from './measure.mjs';
import { talkOf } from './talk.mjs';

const run = promisify(execFile);
const CUTS = 6;
const folder = await mkdtemp(join(tmpdir(), 'sift-reel-preview-'));
try {
  const film = join(folder, 'film.mp4');
  const inputs = ['-f', 'lavfi', '-i', 'testsrc2=s=1280x720:r=25:d=300', '-f', 'lavfi', '-i', 'sine=f=300:r=48000:d=300'];
  await run('ffmpeg', [
    '-v',
    'error',
    '-nostdin',
    '-y',
    ...inputs,
    '-c:v',
    'libx264',
    '-preset',
    'ultrafast',
    '-g',
    '250',
    '-pix_fmt',
    'yuv420p',
    '-c:a',
    'aac',
    film,
  ]);
  await withApp('preview_bench', async (base) => {
    const browser = await chromium.launch(CHROMIUM);
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    const ask = await signIn(page, base);
    const read = (path) => ask('GET', path);
    const client = await ask('POST', 'clients', { name: 'Bench', zone: 'UTC', tags: [], standingBrief: BRIEF });
    const recording = await ask('POST', `clients/${client.id}/recordings`, undefined, {
      multipart: {
        transcript: { name: 'film.vtt', mimeType: 'text/vtt', buffer: Buffer.from(talkOf(5 / 60)) },
        sound: { name: 'film.mp4', mimeType: 'video/mp4', buffer: await readFile(film) },
      },
      timeout: 120_000,
    });
    const sift = await ask('POST', `recordings/${recording.id}/sifts`, BRIEF);
    while ((await ask('GET', `sifts/${sift.id}`)).state !== 'done') await new Promise((resolve) => setTimeout(resolve, 500));
    const { candidates } = await ask('GET', `sifts/${sift.id}/ranking`);
    await ask('PUT', `candidates/${candidates[0].id}/state`, { state: 'kept' });
    const [short] = await read(`shorts?recordingId=${recording.id}`);
    const removed = Array.from({ length: CUTS }, (_, i) => ({ firstWord: short.firstWord + 4 + 9 * i, endWord: short.firstWord + 7 + 9 * i }));
    const edit = { ...short.edit, removed };
    await ask('PUT', `shorts/${short.id}/edit`, { edit, version: short.version });
    const { cuts } = await read(`shorts/${short.id}/passage`);
    const preparation = async () => (await read(`recordings/${recording.id}`)).preparation;
    while ((await preparation()).state !== 'done') await new Promise((resolve) => setTimeout(resolve, 500));
    const proxy = `${base}/api/preparations/${(await preparation()).id}/proxy`;

    await page.goto(`${base}/shorts/${short.id}/cut`);
    await page.getByRole('button', { name: 'Play as cut' }).waitFor();
    await page.waitForTimeout(1_500);
    await page.evaluate(() => {
      const told = (window.told = []);
      const look = () => {
        for (const one of document.querySelectorAll('video')) if (!one.seeking && !one.paused) told.push([performance.now(), one.currentTime * 1_000]);
        requestAnimationFrame(look);
      };
      requestAnimationFrame(look);
    });
    await page.getByRole('button', { name: 'Play as cut' }).click();
    const last = cuts[CUTS].startMs + 300;
    await page.waitForFunction((ms) => (window.told.at(-1)?.[1] ?? 0) > ms, last, { timeout: 120_000 });
    const told = await page.evaluate(() => window.told);
    const lost = cuts.slice(0, CUTS).map((cut, i) => {
      const next = cuts[i + 1];
      const came = told.findIndex(([, at]) => at >= next.startMs - 5);
      const [left, there] = [told[came - 1], told[came]];
      return there[0] - left[0] - (there[1] - next.startMs) - (cut.endMs - left[1]);
    });
    const heard = told.filter(([, at]) => at < last && !cuts.some(({ startMs, endMs }) => at > startMs - 30 && at < endMs + 30)).length;
    await page.goto(`${base}/shorts/${short.id}`); // the two elements of the preview are gone
    await page.getByRole('button', { name: 'Play the short' }).waitFor();
    const search = (source) =>
      page.evaluate(
        async ([source, places]) => {
          const video = document.createElement('video');
          video.src = source;
          document.body.append(video);
          await new Promise((resolve) => (video.onloadeddata = resolve));
          const took = [];
          for (const [endMs, startMs] of places) {
            video.currentTime = endMs / 1_000 - 0.5;
            await new Promise((resolve) => (video.onseeked = resolve));
            await video.play();
            await new Promise((resolve) => setTimeout(resolve, 500));
            const from = performance.now();
            video.currentTime = startMs / 1_000;
            await new Promise((resolve) => (video.onseeked = resolve));
            took.push(performance.now() - from);
            video.pause();
          }
          return took;
        },
        [source, cuts.slice(0, CUTS).map((cut, i) => [cut.endMs, cuts[i + 1].startMs])],
      );
    const searched = await search(proxy);
    const searchedOriginal = await search(`${base}/api/recordings/${recording.id}/sound`);
    const sorted = (values) => [...values].sort((a, b) => a - b).map(Math.round);
    row('leaps', 'median ms', 'longest ms');
    for (const [name, values] of [
      ['the preview', sorted(lost)],
      ['one element that searches', sorted(searched)],
      ['one element that searches in the original', sorted(searchedOriginal)],
    ])
      row(name, values[values.length >> 1], values.at(-1));
    row('frames of what is cut out', heard);
    await browser.close();
  });
} finally {
  await rm(folder, { recursive: true, force: true });
}
