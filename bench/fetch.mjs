// A large file brought in from an address: memory above rest, and time beside a plain stream onto the same disk, on one line and on one
// that is broken off eight times. `node bench/fetch.mjs 10` takes 10 GB (4 by default). Asked: flat, at most 60 MB above rest.
import { execFile } from 'node:child_process';
import { mkdtemp, rm, stat } from 'node:fs/promises';
import { createServer } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { fileURLToPath } from 'node:url';
import { promisify } from 'node:util';
import { row } from './measure.mjs';

const GB = 1_000 ** 3;
const PIECE = Buffer.alloc(1_024 * 1_024, 7);
const gb = Number(process.argv[2] ?? 4);
const CHILD = fileURLToPath(new URL('lib/fetch-child.mjs', import.meta.url));
let breakAfter = Infinity;
let asks = 0;

function* bytes(length) {
  for (let left = length; left > 0; left -= PIECE.length) yield PIECE.subarray(0, Math.min(left, PIECE.length));
}
const server = createServer((request, response) => {
  asks += 1;
  const size = Number(request.url.slice(1));
  const from = Number(/^bytes=(\d+)-$/.exec(request.headers.range ?? '')?.[1] ?? 0);
  response.writeHead(from === 0 ? 200 : 206, {
    etag: `"${size}"`,
    'content-length': size - from,
    ...(from === 0 ? {} : { 'content-range': `bytes ${from}-${size - 1}/${size}` }),
  });
  const stream = Readable.from(bytes(Math.min(size - from, breakAfter)));
  stream.pipe(response, { end: size - from <= breakAfter });
  stream.on('end', () => size - from > breakAfter && setTimeout(() => response.destroy(), 50));
});
await new Promise((resolve) => server.listen(0, '127.0.0.1', resolve));
const origin = `http://127.0.0.1:${server.address().port}`;
const folder = await mkdtemp(join(tmpdir(), 'sift-reel-fetch-bench-'));
try {
  row('fetched', 'at rest', 'above rest', 'asked for', 'of the time of a plain stream');
  let plainSeconds = 0;
  for (const [name, way, parts] of [
    ['a plain stream', 'plain', 1],
    ['ours', 'ours', 1],
    ['ours, broken off eight times', 'ours', 9],
  ]) {
    breakAfter = parts === 1 ? Infinity : Math.ceil((gb * GB) / parts);
    asks = -1; // the first is the child's own
    const path = join(folder, 'file');
    const { stdout } = await promisify(execFile)(process.execPath, [CHILD, way, `${origin}/${gb * GB}`, path]);
    if ((await stat(path)).size !== gb * GB) throw new Error('the file is not as long as it should be');
    await rm(path);
    const { rest, peak, seconds } = JSON.parse(stdout);
    plainSeconds ||= seconds;
    row(`${gb} GB, ${name}`, `${rest.toFixed(0)} MB`, `${(peak - rest).toFixed(0)} MB`, asks, (seconds / plainSeconds).toFixed(2));
  }
} finally {
  server.close();
  await rm(folder, { recursive: true, force: true });
}
