// Memory of the API while a large file comes in, in pieces: its peak above rest, for 1 GB and for as many as asked (10 by default:
// `node bench/uploads.mjs 10`). Asked: flat, at most 60 MB above rest.
import { readFileSync } from 'node:fs';
import { withApp, OWNER } from './lib/app.mjs';
import { row } from './measure.mjs';

const GB = 1_000 ** 3;
const PIECE = Buffer.alloc(16 * 1_024 * 1_024, 7);
const most = Number(process.argv[2] ?? 10);

await withApp('uploads_bench', async (base, { api }) => {
  const inMb = () => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${api.child.pid}/status`, 'utf8'))[1]) / 1_000;
  const session = await fetch(`${base}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin: base },
    body: JSON.stringify({ email: OWNER.email, password: OWNER.password }),
  });
  const cookie = session.headers.get('set-cookie').split(';')[0];
  const { csrfToken } = await session.json();
  const headers = { cookie, 'x-csrf-token': csrfToken, 'tus-resumable': '1.0.0' };
  const send = async (bytes) => {
    const begun = await fetch(`${base}/api/uploads`, { method: 'POST', headers: { ...headers, 'upload-length': String(bytes) } });
    const place = new URL(begun.headers.get('location'), base);
    let peak = inMb();
    const watch = setInterval(() => (peak = Math.max(peak, inMb())), 20);
    const from = performance.now();
    for (let at = 0; at < bytes; at += PIECE.length) {
      const body = PIECE.subarray(0, Math.min(PIECE.length, bytes - at));
      const sent = await fetch(place, {
        method: 'PATCH',
        headers: { ...headers, 'upload-offset': String(at), 'content-type': 'application/offset+octet-stream' },
        body,
      });
      if (sent.status !== 204) throw new Error(`a piece was not taken: ${sent.status} ${await sent.text()}`);
    }
    clearInterval(watch);
    await fetch(place, { method: 'DELETE', headers });
    return { peak, seconds: (performance.now() - from) / 1_000 };
  };
  await send(PIECE.length); // what is made at the first piece is made now
  const rest = inMb();
  row('upload', 'at rest', 'peak', 'above rest', 'seconds');
  for (const size of [1, most]) {
    const { peak, seconds } = await send(size * GB);
    row(`${size} GB`, `${rest.toFixed(0)} MB`, `${peak.toFixed(0)} MB`, `${(peak - rest).toFixed(0)} MB`, seconds.toFixed(0));
  }
});
