import { lookup as systemLookup, type LookupAddress } from 'node:dns';
import { request as httpRequest, type IncomingHttpHeaders, type IncomingMessage } from 'node:http';
import { request as httpsRequest } from 'node:https';
import { isIP, type LookupFunction } from 'node:net';
import { createBrotliDecompress, createGunzip, createInflate } from 'node:zlib';
import { bareHost, isPublicAddress } from './addresses.js';
import { FetchError } from './fetch-errors.js';

const MOST_REDIRECTS = 5;
/** Nothing is heard for so long: the line is given up. */
const IDLE_MS = 20_000;
const LONGEST_RETRY_MS = 24 * 3_600_000;
const PERMANENT = new Set([301, 308]);
const REDIRECTS = new Set([301, 302, 303, 307, 308]);
/** Answers after which it may be asked again (RFC 9110, section 15): too early, too often, or a fault of theirs. */
const AGAIN = new Set([408, 421, 425, 429]);

export interface Answer {
  readonly status: number;
  readonly headers: IncomingHttpHeaders;
  readonly body: IncomingMessage;
  /** Where it came from in the end. */
  readonly url: string;
  /** Where it lives for good from now on, when every redirect on the way said so (RFC 9110, 15.4.2 and 15.4.9); else null. */
  readonly movedTo: string | null;
}

export interface Asking {
  readonly signal: AbortSignal;
  readonly headers?: Readonly<Record<string, string>>;
}

type Lookup = (hostname: string, done: (error: Error | null, addresses: LookupAddress[]) => void) => void;

/** Asks the system for every address of a name. */
const SYSTEM: Lookup = (hostname, done) => systemLookup(hostname, { all: true, verbatim: true }, done);

/**
 * Fetches what somebody named: http and https only, without name and password; redirects are followed here, each looked at like the
 * first. A name is resolved once for a connection, all its addresses are checked, and the connection is made to one of those: what the
 * name says a moment later counts for nothing. Addresses that are not of the public internet are refused, unless the configuration
 * names their origin. Nothing that a session carries goes along.
 */
export class SafeFetch {
  /** @param allowed origins that may be asked whatever their address, such as `http://127.0.0.1:4313` */
  constructor(
    private readonly allowed: readonly string[] = [],
    private readonly lookup: Lookup = SYSTEM,
    private readonly idleMs = IDLE_MS,
  ) {}

  /** @throws FetchError for all that is no answer of 200 to 299 or 304 */
  async ask(address: string, asking: Asking): Promise<Answer> {
    let url = readAddress(address);
    let movedTo: string | null = null;
    let forGood = true;
    for (let redirects = 0; ; redirects += 1) {
      const response = await this.once(url, asking);
      const status = response.statusCode ?? 0;
      if (!REDIRECTS.has(status)) {
        if ((status >= 200 && status < 300) || status === 304) return { status, headers: response.headers, body: response, url: url.href, movedTo };
        response.destroy();
        throw refusal(status, url.hostname, response.headers);
      }
      response.destroy();
      if (redirects === MOST_REDIRECTS) throw new FetchError(`${url.hostname} sends from one address to the next, more than ${MOST_REDIRECTS} times.`, false);
      const to = response.headers.location ?? '';
      if (!URL.canParse(to, url.href)) throw new FetchError(`${url.hostname} sends to an address that is none.`, false, null, status);
      url = readAddress(new URL(to, url).href);
      forGood &&= PERMANENT.has(status);
      movedTo = forGood ? url.href : null;
    }
  }

  /** All of an answer as bytes, unpacked. @throws FetchError when there are more than `most` */
  async read(address: string, most: number, asking: Asking): Promise<{ readonly answer: Answer; readonly bytes: Buffer }> {
    const answer = await this.ask(address, { ...asking, headers: { 'accept-encoding': 'gzip, deflate, br', ...asking.headers } });
    const { body, headers, url } = answer;
    const from = new URL(url).hostname;
    const unpacked = unpack(body, headers['content-encoding']);
    if (unpacked === null) {
      body.destroy();
      throw new FetchError(`${from} packs its answer in a way that is not known here.`, false);
    }
    const chunks: Buffer[] = [];
    let length = 0;
    try {
      for await (const chunk of unpacked as AsyncIterable<Buffer>) {
        length += chunk.length;
        if (length > most) throw new FetchError(`What ${from} sends is over ${Math.round(most / 1_000_000)} MB.`, false);
        chunks.push(chunk);
      }
    } catch (error) {
      throw inWords(error, from, asking.signal);
    } finally {
      body.destroy();
    }
    return { answer, bytes: Buffer.concat(chunks) };
  }

  private once(url: URL, { signal, headers = {} }: Asking): Promise<IncomingMessage> {
    const free = this.allowed.includes(url.origin);
    const host = bareHost(url.hostname);
    // A literal address is never looked up.
    if (!free && isIP(host) !== 0 && !isPublicAddress(host)) return Promise.reject(notPublic(url.hostname));
    const send = url.protocol === 'https:' ? httpsRequest : httpRequest;
    return new Promise((resolve, reject) => {
      const asked = send(url, {
        signal,
        agent: false, // a line of its own, made to the addresses that were looked at
        lookup: free ? undefined : this.checkedLookup(),
        headers: { 'user-agent': 'sift-reel', accept: '*/*', 'accept-encoding': 'identity', ...headers },
      });
      let answered: IncomingMessage | null = null;
      asked.setTimeout(this.idleMs, () => {
        const silent = new FetchError(`${url.hostname} does not answer.`, true);
        answered?.destroy(silent);
        asked.destroy(silent);
      });
      asked.on('response', (response) => resolve((answered = response)));
      asked.on('error', (error) => reject(inWords(error, url.hostname, signal)));
      asked.end();
    });
  }

  /** What the connection is made by: all addresses of a name, or none when one of them is not public. */
  private checkedLookup(): LookupFunction {
    return (hostname, options, done) => {
      this.lookup(hostname, (error, addresses) => {
        if (error !== null) return done(error, '');
        if (addresses.length === 0 || addresses.some(({ address }) => !isPublicAddress(address))) return done(notPublic(hostname), '');
        if (options.all === true) return done(null, addresses);
        const { address, family } = addresses[0]!;
        done(null, address, family);
      });
    };
  }
}

/** @throws FetchError for what is no address that may be asked */
export function readAddress(text: string): URL {
  const url = URL.canParse(text) ? new URL(text) : null;
  if (url === null || (url.protocol !== 'http:' && url.protocol !== 'https:') || url.hostname === '')
    throw new FetchError('This is not an address that begins with http:// or https://.', false);
  if (url.username !== '' || url.password !== '') throw new FetchError('Addresses with a name and a password in them are not taken.', false);
  return url;
}

/** What an address may be refused for before anything is asked, or null. */
export function whyNot(text: string, allowed: readonly string[]): string | null {
  try {
    const url = readAddress(text);
    const host = bareHost(url.hostname);
    const inside = (isIP(host) !== 0 && !isPublicAddress(host)) || /(?:^|\.)localhost\.?$/.test(host);
    return inside && !allowed.includes(url.origin) ? notPublic(url.hostname).message : null;
  } catch (error) {
    return (error as Error).message;
  }
}

const notPublic = (host: string): FetchError => new FetchError(`${host} is not an address of the public internet.`, false);

function refusal(status: number, hostname: string, headers: IncomingHttpHeaders): FetchError {
  const again = AGAIN.has(status) || status >= 500;
  const afterMs = again ? retryAfterMs(headers['retry-after'], Date.now()) : null;
  if (status === 404 || status === 410) return new FetchError(`${hostname} has nothing at this address (${status}).`, false, null, status);
  if (status === 401 || status === 403) return new FetchError(`${hostname} does not let everybody have this (${status}).`, false, null, status);
  const detail = afterMs === null ? `${hostname} refused (${status}).` : `${hostname} asks to come again later (${status}).`;
  return new FetchError(detail, again, afterMs, status);
}

/** Retry-After in seconds or as a day and time (RFC 9110, section 10.2.3); at most a day. @returns ms, or null */
export function retryAfterMs(value: string | undefined, nowMs: number): number | null {
  if (value === undefined) return null;
  const text = value.trim();
  const ms = /^\d{1,9}$/.test(text) ? Number(text) * 1_000 : /gmt$/i.test(text) ? Date.parse(text) - nowMs : Number.NaN;
  return Number.isNaN(ms) ? null : Math.min(Math.max(0, ms), LONGEST_RETRY_MS);
}

/** A fault of the line in the producer's words. What is over is told as it is. */
export function inWords(error: unknown, host: string, signal: AbortSignal): unknown {
  if (signal.aborted) return signal.reason;
  if (error instanceof FetchError) return error;
  const { code = '', syscall = '' } = error as { code?: string; syscall?: string };
  if (code === 'ENOTFOUND' || code === 'EAI_AGAIN') return new FetchError(`No host is called ${host}.`, code === 'EAI_AGAIN');
  if (/^(?:ERR_TLS|CERT_|DEPTH_ZERO|SELF_SIGNED|UNABLE_TO|ERR_SSL|EPROTO)/.test(code)) return new FetchError(`${host} cannot show who it is (${code}).`, false);
  if (code === 'ECONNREFUSED' || code === 'EHOSTUNREACH' || code === 'ENETUNREACH' || code === 'ETIMEDOUT')
    return new FetchError(`${host} cannot be reached.`, true);
  if (code === 'ECONNRESET' || code === 'EPIPE' || code === 'ERR_STREAM_PREMATURE_CLOSE' || code.startsWith('HPE_') || code.startsWith('Z_'))
    return new FetchError(`${host} broke off in the middle.`, true);
  // Whatever else a line can come to: these are never the disk's.
  if (syscall === 'connect' || syscall === 'getaddrinfo') return new FetchError(`${host} cannot be reached (${code}).`, true);
  return error;
}

function unpack(body: IncomingMessage, encoding = 'identity'): NodeJS.ReadableStream | null {
  const passOn = (to: NodeJS.ReadWriteStream): NodeJS.ReadableStream => {
    body.on('error', (error) => (to as unknown as { destroy: (error: Error) => void }).destroy(error));
    return body.pipe(to);
  };
  switch (encoding.trim().toLowerCase()) {
    case 'identity':
    case '':
      return body;
    case 'gzip':
    case 'x-gzip':
      return passOn(createGunzip());
    case 'deflate':
      return passOn(createInflate());
    case 'br':
      return passOn(createBrotliDecompress());
    default:
      return null;
  }
}
