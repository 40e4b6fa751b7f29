// Brings one file in, in a process of its own, and says how much memory that took: `node fetch-child.mjs ours|plain URL PATH`.
import { createWriteStream, readFileSync } from 'node:fs';
import { get } from 'node:http';
import { pipeline } from 'node:stream/promises';
import { download } from '../../apps/server/dist/fetching/download.js';
import { SafeFetch } from '../../apps/server/dist/fetching/safe-fetch.js';

const [way, url, path] = process.argv.slice(2);
const inMb = () => Number(/VmRSS:\s+(\d+)/.exec(readFileSync('/proc/self/status', 'utf8'))[1]) / 1_000;
const signal = new AbortController().signal;

async function plain() {
  const response = await new Promise((resolve, reject) => get(url, resolve).on('error', reject));
  await pipeline(response, createWriteStream(path));
}

async function ours(from = url) {
  const asked = { url: from, path, validator: null, bytes: null, mostBytes: 64 * 1_024 ** 3, begins: () => Promise.resolve(), progress: () => undefined };
  await download(new SafeFetch([new URL(url).origin]), asked, signal);
}

await ours(`${new URL(url).origin}/1`); // what is made at the first byte is made now
const rest = inMb();
let peak = rest;
const watch = setInterval(() => (peak = Math.max(peak, inMb())), 20);
const began = performance.now();
await (way === 'ours' ? ours() : plain());
clearInterval(watch);
process.stdout.write(JSON.stringify({ rest, peak, seconds: (performance.now() - began) / 1_000 }));
