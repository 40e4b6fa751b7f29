// Twelve shorts of 40 seconds from an hour of 1080p, from the upload to the ZIP, through the API as a browser would: how long each step
// takes, and the whole beside bare ffmpeg cutting and encoding the same twelve stretches one after the other. Asked: to be known.
import { mkdtemp, open, readdir, readFile, rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { BRIEF, OWNER, withApp } from './lib/app.mjs';
import { ffmpeg, madeFilm } from './lib/made-film.mjs';
import { row } from './measure.mjs';

const [SHORTS, SHORT_MS, HOUR_S, PIECE] = [12, 40_000, 3_600, 16 * 1_024 ** 2];
const TALKS = new URL('../../shared/editors/talks/', import.meta.url);
const stamp = (s) => new Date(s * 1_000).toISOString().slice(11, 23);

/** An hour of others' talks, each line as long as its words take. */
async function transcript() {
  const cues = [];
  let at = 0;
  for (const name of (await readdir(TALKS)).sort()) {
    for (const line of (await readFile(new URL(name, TALKS), 'utf8')).split('\n')) {
      if (line.trim() === '' || line.startsWith('#')) continue;
      const seconds = line.split(/\s+/).length / 2.6;
      if (at + seconds > HOUR_S) return `WEBVTT\n\n${cues.join('\n\n')}\n`;
      cues.push(`${stamp(at)} --> ${stamp(at + seconds)}\n${line}`);
      at += seconds;
    }
  }
  return `WEBVTT\n\n${cues.join('\n\n')}\n`;
}

const folder = await mkdtemp(join(tmpdir(), 'sift-reel-twelve-'));
try {
  const film = join(folder, 'hour.mp4');
  await madeFilm(film, { times: HOUR_S / 60 });
  const { size } = await stat(film);

  // First, while nothing else is done: with the program, words that are spread over their cues are listened for at the same time.
  const bare = performance.now();
  for (let i = 0; i < SHORTS; i += 1)
    await ffmpeg(
      ...['-ss', String((i * HOUR_S) / SHORTS), '-t', String(SHORT_MS / 1_000), '-i', film, '-vf', 'scale=1080:-2,pad=1080:1920:0:(oh-ih)/2'],
      ...['-c:v', 'libx264', '-profile:v', 'high', '-preset', 'veryfast', '-crf', '21', '-c:a', 'aac', join(folder, 'bare.mp4')],
    );
  const bareS = (performance.now() - bare) / 1_000;

  await withApp('twelve_bench', async (base) => {
    const answer = await fetch(`${base}/api/session`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', origin: base },
      body: JSON.stringify({ email: OWNER.email, password: OWNER.password }),
    });
    const headers = { cookie: answer.headers.get('set-cookie').split(';')[0], 'x-csrf-token': (await answer.json()).csrfToken };
    const call = async (method, path, body) => {
      const form = body instanceof FormData;
      const response = await fetch(`${base}/api/${path}`, {
        method,
        headers: { ...headers, ...(body === undefined || form ? {} : { 'content-type': 'application/json' }) },
        ...(body === undefined ? {} : { body: form ? body : JSON.stringify(body) }),
      });
      if (!response.ok) throw new Error(`${method} ${path}: ${response.status} ${await response.text()}`);
      return response.status === 204 ? null : response.json();
    };
    const until = async (look, holds) => {
      for (;;) {
        const found = await look();
        if (found.state === 'failed') throw new Error(found.failure);
        if (holds(found)) return found;
        await new Promise((resolve) => setTimeout(resolve, 250));
      }
    };
    const steps = [];
    const begun = performance.now();
    let last = begun;
    const step = (name) => {
      steps.push([name, (performance.now() - last) / 1_000]);
      last = performance.now();
    };

    const { id: clientId } = await call('POST', 'clients', { name: 'Bench', zone: 'UTC', tags: ['bench'], standingBrief: BRIEF });
    const upload = await fetch(`${base}/api/uploads`, {
      method: 'POST',
      headers: {
        ...headers,
        'tus-resumable': '1.0.0',
        'upload-length': String(size),
        'upload-metadata': `filename ${Buffer.from('hour.mp4').toString('base64')}`,
      },
    });
    const place = new URL(upload.headers.get('location'), base);
    const file = await open(film);
    for (let at = 0; at < size; at += PIECE) {
      const { bytesRead, buffer } = await file.read(Buffer.alloc(PIECE), 0, PIECE, at);
      const sent = await fetch(place, {
        method: 'PATCH',
        headers: { ...headers, 'tus-resumable': '1.0.0', 'upload-offset': String(at), 'content-type': 'application/offset+octet-stream' },
        body: buffer.subarray(0, bytesRead),
      });
      if (sent.status !== 204) throw new Error(`a piece was not taken: ${sent.status}`);
    }
    await file.close();
    const form = new FormData();
    form.set('title', 'An hour');
    form.set('transcript', new Blob([await transcript()]), 'hour.vtt');
    form.set('uploaded', place.pathname.split('/').at(-1));
    const recording = await call('POST', `clients/${clientId}/recordings`, form);
    step('upload');
    const sift = await call('POST', `recordings/${recording.id}/sifts`, { ...BRIEF, minMs: SHORT_MS - 5_000, maxMs: SHORT_MS + 5_000 });
    await until(
      () => call('GET', `sifts/${sift.id}`),
      ({ state }) => state === 'done',
    );
    step('sift, with listening');
    const { candidates } = await call('GET', `sifts/${sift.id}/ranking`);
    for (const { id } of candidates.slice(0, SHORTS)) await call('PUT', `candidates/${id}/state`, { state: 'kept' });
    const ofRecording = `shorts?recordingId=${recording.id}`;
    const shorts = await call('GET', ofRecording);
    step('keep');
    const rendersOf = (id) => `shorts/${id}/renders`;
    for (const { id } of shorts) await call('POST', rendersOf(id), { shape: 'vertical' });
    for (const { id } of shorts)
      await until(
        async () => (await call('GET', rendersOf(id)))[0],
        ({ state }) => state === 'done',
      );
    step('files');
    const zip = await fetch(`${base}/api/renders/files.zip?shape=vertical&shortIds=${shorts.map(({ id }) => id).join(',')}`, { headers });
    let bytes = 0;
    for await (const piece of zip.body) bytes += piece.length;
    step('ZIP');
    const whole = (performance.now() - begun) / 1_000;

    row('an hour of 1080p', `${(size / 1e9).toFixed(2)} GB`);
    for (const [name, seconds] of steps) row(name, `${seconds.toFixed(1)} s`);
    row(
      'twelve files in the ZIP',
      `${shorts.length} of ${(shorts.reduce((sum, one) => sum + one.playedMs, 0) / shorts.length / 1_000).toFixed(1)} s`,
      `${(bytes / 1e6).toFixed(0)} MB`,
    );
    row('upload to ZIP', `${whole.toFixed(1)} s`, `bare ffmpeg ${bareS.toFixed(1)} s`, `${(whole / bareS).toFixed(2)} of it`);
  });
} finally {
  await rm(folder, { recursive: true, force: true });
}
