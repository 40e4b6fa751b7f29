import { createWriteStream } from 'node:fs';
import { stat, statfs, truncate } from 'node:fs/promises';
import type { IncomingHttpHeaders } from 'node:http';
import { dirname } from 'node:path';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { FetchError } from './fetch-errors.js';
import { type Answer, inWords, type SafeFetch } from './safe-fetch.js';

/** What says that a file is still the one of before (RFC 9110, section 8.8.3): a strong ETag, or a day of change that is old enough. */
export type Validator = string;

export interface Download {
  readonly url: string;
  /** Grows as the bytes come; whole when it is done. */
  readonly path: string;
  /** Of the bytes that are there already; null where they may be of anything. */
  readonly validator: Validator | null;
  /** How many it is said to have under that validator; null where nobody said. */
  readonly bytes: number | null;
  readonly mostBytes: number;
  /** The bytes from here on are of this, and there are so many of them (null: nobody says). Waited for before the first is written. */
  begins(validator: Validator | null, bytes: number | null): Promise<void>;
  /** How many are there. Called often. */
  progress(bytes: number, of: number | null): void;
}

/** Room that stays free on the disk. */
const SPARE_BYTES = 1_000_000_000;
/** Broken off so often without a single byte more: it is left for another time. */
const MOST_IN_VAIN = 3;
/** A day of change is a strong validator only when it lies a minute before the answer (RFC 9110, section 8.8.2.2). */
const OLD_ENOUGH_MS = 60_000;

/**
 * Brings a file in, and goes on where it was broken off, by the line or by the end of the program: the rest is asked for as a range, on
 * the condition that the file is the same (RFC 9110, sections 13.1.5 and 14). Another file, or a server without ranges, begins anew.
 * @throws FetchError; what is there stays for the next time
 */
export async function download(fetch: SafeFetch, asked: Download, signal: AbortSignal): Promise<{ readonly bytes: number; readonly type: string }> {
  let { validator } = asked;
  // Whole since before the program ended: nothing is left to be asked for.
  if (validator !== null && asked.bytes !== null && (await sizeOf(asked.path)) === asked.bytes) return { bytes: asked.bytes, type: '' };
  let inVain = 0;
  for (;;) {
    const have = validator === null ? 0 : await sizeOf(asked.path);
    try {
      const answer = await ask(fetch, asked.url, have, validator, signal);
      const { host } = new URL(answer.url);
      const from = startOf(answer, have);
      const bytes = totalOf(answer.headers, from);
      if (bytes !== null && bytes > asked.mostBytes) throw new FetchError(`The file is over ${Math.round(asked.mostBytes / 1_024 ** 3)} GB.`, false);
      if (bytes !== null) await requireRoom(asked.path, bytes - from);
      if (from === 0) {
        // Emptied first: bytes of one file are never there under the validator of another.
        await truncate(asked.path, 0).catch(() => undefined);
        validator = validatorOf(answer.headers);
        await asked.begins(validator, bytes);
      }
      await write(answer, asked, from, bytes, signal);
      const there = await sizeOf(asked.path);
      if (bytes === null || there === bytes) return { bytes: there, type: (answer.headers['content-type'] ?? '').split(';')[0]!.trim() };
      throw new FetchError(`${host} broke off in the middle.`, true);
    } catch (error) {
      signal.throwIfAborted();
      if (error instanceof RangeGoneError) {
        validator = null;
        continue;
      }
      if (!(error instanceof FetchError) || !error.again || error.status !== null) throw error;
      // Without a validator nothing of it can be gone on with.
      inVain = validator !== null && (await sizeOf(asked.path)) > have ? 0 : inVain + 1;
      if (inVain === MOST_IN_VAIN) throw error;
    }
  }
}

/** The range that was asked for is not there: the file is another, or shorter. */
class RangeGoneError extends Error {
  override readonly name = 'RangeGoneError';
}

async function ask(fetch: SafeFetch, url: string, have: number, validator: Validator | null, signal: AbortSignal): Promise<Answer> {
  const headers: Record<string, string> = have === 0 || validator === null ? {} : { range: `bytes=${have}-`, 'if-range': validator };
  try {
    const answer = await fetch.ask(url, { signal, headers });
    const packed = answer.headers['content-encoding'];
    if (packed !== undefined && packed !== 'identity') {
      answer.body.destroy();
      throw new FetchError(`${new URL(answer.url).hostname} packs the file, though it was asked not to.`, false);
    }
    return answer;
  } catch (error) {
    if (error instanceof FetchError && error.status === 416 && have > 0) throw new RangeGoneError();
    throw error;
  }
}

/** Where the bytes of an answer begin: where it was asked to, or at the start. */
function startOf({ status, headers, body }: Answer, have: number): number {
  if (status !== 206) return 0;
  const start = Number(/^bytes (\d+)-\d+\/(?:\d+|\*)$/.exec(headers['content-range'] ?? '')?.[1] ?? Number.NaN);
  if (start === have) return start;
  body.destroy();
  throw new RangeGoneError();
}

function totalOf(headers: IncomingHttpHeaders, from: number): number | null {
  const whole = /^bytes \d+-\d+\/(\d+)$/.exec(headers['content-range'] ?? '')?.[1];
  const rest = headers['content-length'];
  return whole !== undefined ? Number(whole) : rest !== undefined ? from + Number(rest) : null;
}

export function validatorOf(headers: IncomingHttpHeaders): Validator | null {
  const { etag, 'last-modified': changed, date } = headers;
  if (etag !== undefined && /^"[^"]*"$/.test(etag)) return etag;
  if (changed === undefined || date === undefined) return null;
  return Date.parse(date) - Date.parse(changed) >= OLD_ENOUGH_MS ? changed : null;
}

async function write({ body, url }: Answer, { path, mostBytes, progress }: Download, from: number, of: number | null, signal: AbortSignal): Promise<void> {
  const { hostname } = new URL(url);
  let bytes = from;
  const counting = new Transform({
    transform(chunk: Buffer, _, done) {
      bytes += chunk.length;
      if (bytes > mostBytes) return done(new FetchError(`The file is over ${Math.round(mostBytes / 1_024 ** 3)} GB.`, false));
      try {
        progress(bytes, of); // says when the run is over
      } catch (error) {
        return done(error as Error);
      }
      done(null, chunk);
    },
  });
  try {
    await pipeline(body, counting, createWriteStream(path, { flags: from === 0 ? 'w' : 'r+', start: from }), { signal });
  } catch (error) {
    if ((error as { code?: unknown }).code === 'ENOSPC') throw new FetchError('The disk is full. Make room, then fetch it again.', false);
    throw inWords(error, hostname, signal);
  }
}

async function requireRoom(path: string, bytes: number): Promise<void> {
  const { bavail, bsize } = await statfs(dirname(path));
  if (bavail * bsize - bytes < SPARE_BYTES) throw new FetchError('There is not enough room on the disk for this file.', false);
}

const sizeOf = async (path: string): Promise<number> =>
  stat(path).then(
    ({ size }) => size,
    () => 0,
  );
