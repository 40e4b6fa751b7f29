// How soon ten hours of video play, from the beginning and from nine hours in, in Chromium, over the API's ranges: the file as it
// came in, and the one that preparing it makes first, while it is still being heard. Asked: within a second.
import { mkdtemp, open, rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout } from 'node:timers/promises';
import { chromium } from '@playwright/test';
import { BRIEF, CHROMIUM, signIn, withApp } from './lib/app.mjs';
import { madeFilm } from './lib/made-film.mjs';
import { row } from './measure.mjs';

const [HOURS, PIECE] = [10, 16 * 1_024 ** 2];

/** From three places. */
async function measure(page, what, src) {
  for (const [name, fromS] of [
    ['from the beginning', 0],
    ['from nine hours in', 9 * 3_600 + 17],
    ['from five hours in', 5 * 3_600 + 3],
  ]) {
    const ms = await page.evaluate(
      ([src, at]) =>
        new Promise((resolve, reject) => {
          const video = document.createElement('video');
          const from = performance.now();
          video.muted = true;
          video.crossOrigin = 'anonymous';
          video.src = src;
          video.onloadedmetadata = () => {
            video.currentTime = at;
            void video.play();
          };
          video.ontimeupdate = () => {
            if (video.currentTime <= at || video.readyState < 3) return;
            resolve(performance.now() - from);
            // Else it holds one of the six lines that a browser has to a host.
            video.removeAttribute('src');
            video.load();
          };
          video.onerror = () => reject(new Error(video.error.message));
          document.body.append(video);
        }),
      [src, fromS],
    );
    row(`${what}, ${name}`, `${ms.toFixed(0)} ms`);
  }
}

const folder = await mkdtemp(join(tmpdir(), 'sift-reel-start-'));
try {
  const film = join(folder, 'ten-hours.mp4');
  await madeFilm(film, { size: '640x360', times: HOURS * 60 });
  const { size } = await stat(film);
  await withApp('start_bench', async (base) => {
    const browser = await chromium.launch(CHROMIUM);
    try {
      const page = await browser.newPage();
      const ask = await signIn(page, base);
      const { id: clientId } = await ask('POST', 'clients', { name: 'Bench', zone: 'UTC', tags: ['bench'], standingBrief: BRIEF });
      const cookie = (await page.context().cookies()).map(({ name, value }) => `${name}=${value}`).join('; ');
      const { csrfToken } = await (await page.request.get(`${base}/api/session`)).json();
      const headers = { cookie, 'x-csrf-token': csrfToken, 'tus-resumable': '1.0.0' };
      const metadata = `filename ${Buffer.from('ten-hours.mp4').toString('base64')}`;
      const begun = await fetch(`${base}/api/uploads`, { method: 'POST', headers: { ...headers, 'upload-length': String(size), 'upload-metadata': metadata } });
      const place = new URL(begun.headers.get('location'), base);
      const file = await open(film);
      for (let at = 0; at < size; at += PIECE) {
        const { bytesRead, buffer } = await file.read(Buffer.alloc(PIECE), 0, PIECE, at);
        const offset = { 'upload-offset': String(at), 'content-type': 'application/offset+octet-stream' };
        const sent = await fetch(place, { method: 'PATCH', headers: { ...headers, ...offset }, body: buffer.subarray(0, bytesRead) });
        if (sent.status !== 204) throw new Error(`a piece was not taken: ${sent.status}`);
      }
      await file.close();
      const form = new FormData();
      form.set('title', 'Ten hours');
      form.set('uploaded', place.pathname.split('/').at(-1));
      const made = await fetch(`${base}/api/clients/${clientId}/recordings`, { method: 'POST', headers, body: form });
      if (!made.ok) throw new Error(await made.text());
      const { id } = await made.json();
      row(`ten hours, ${(size / 1e6).toFixed(0)} MB`, 'plays after');
      const cameIn = `/api/recordings/${id}/sound`;
      await measure(page, 'as it came in', cameIn);
      const from = performance.now();
      let preparation;
      do {
        await setTimeout(500);
        ({ preparation } = await ask('GET', `recordings/${id}`));
      } while (!preparation.proxied);
      row('wrapped anew after (beside the plays above)', `${((performance.now() - from) / 1_000).toFixed(0)} s`);
      await measure(page, 'as it is prepared', `/api/preparations/${preparation.id}/proxy`);
    } finally {
      await browser.close();
    }
  });
} finally {
  await rm(folder, { recursive: true, force: true });
}
