import { createHash } from 'node:crypto';
import { readFile, stat } from 'node:fs/promises';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { join } from 'node:path';
import send from 'send';
import { feedPage, type Show, showPage, type ShowEpisode } from './podcast-feed.js';

/**
 * How the host answers, by command: well; its files at a walking pace; its files broken off after a piece, however often they are asked
 * for; not now (503, with a time to wait); its feed moved for good; its feed no more.
 */
export const HOST_MANNERS = ['well', 'slowly', 'broken-off', 'not-now', 'moved', 'gone'] as const;
export type HostManner = (typeof HOST_MANNERS)[number];

const RETRY_AFTER_S = 2;
/** Sent at a time by a slow host, and how often. */
const [SLOW_BYTES, SLOW_EVERY_MS] = [16_384, 100];
/** Shows live in folders; a name is never more than that. */
const SLUG = /^[a-z0-9-]{1,60}$/;

/** A made-up podcast host: shows with a feed in pages, files in ranges, transcripts and chapters. It keeps nothing. */
export class PodcastHost {
  manner: HostManner = 'well';
  private readonly published = new Map<string, number>();

  /** @param dir a folder for each show, with `show.json` and the files it names */
  constructor(
    private readonly dir: string,
    private readonly brokenOffAfter = 200_000,
  ) {}

  /** Answers what is below `/shows/`. @returns false for what is not its to answer */
  async answer(request: IncomingMessage, response: ServerResponse): Promise<boolean> {
    const { pathname, searchParams } = new URL(request.url ?? '/', 'http://host');
    const [, root, slug = '', kind = '', file = ''] = pathname.split('/').map(decodeURIComponent);
    if (root !== 'shows') return false;
    if (request.method === 'PUT' && slug === 'manner') return this.setManner(kind, response);
    const show = SLUG.test(slug) ? await this.show(slug) : null;
    if (show === null) return nothing(response);
    const base = `http://${request.headers.host ?? 'localhost'}/shows/${slug}`;
    if (request.method === 'PUT' && kind === 'publish') {
      this.published.set(slug, (this.published.get(slug) ?? 0) + 1);
      response.writeHead(204).end();
      return true;
    }
    if (request.method !== 'GET' && request.method !== 'HEAD') return nothing(response);
    const episodes = this.out(slug, show);
    if (kind === '') response.setHeader('Content-Type', 'text/html; charset=utf-8').end(showPage(show, episodes));
    else if (this.manner === 'not-now') response.writeHead(503, { 'Retry-After': String(RETRY_AFTER_S) }).end('not now');
    else if (kind === 'feed.xml' || kind === 'feed-here.xml') this.feed(show, episodes, base, kind, Number(searchParams.get('page') ?? 1), request, response);
    else if (kind === 'chapters') chapters(episodes, file, response);
    else if (kind === 'files') await this.file(slug, show, file, request, response);
    else return nothing(response);
    return true;
  }

  private async show(slug: string): Promise<Show | null> {
    return readFile(join(this.dir, slug, 'show.json'), 'utf8').then(
      (text) => JSON.parse(text) as Show,
      () => null,
    );
  }

  /** What is out by now: held ones come one by one, the last of the list first. */
  private out(slug: string, { episodes }: Show): readonly ShowEpisode[] {
    const held = episodes.filter((one) => one.held);
    const released = new Set(held.slice(held.length - (this.published.get(slug) ?? 0)).map((one) => one.guid));
    return episodes.filter((one) => !one.held || (this.published.has(slug) && released.has(one.guid)));
  }

  private feed(
    show: Show,
    episodes: readonly ShowEpisode[],
    base: string,
    kind: string,
    page: number,
    request: IncomingMessage,
    response: ServerResponse,
  ): void {
    if (this.manner === 'gone') {
      response.writeHead(410).end('no more');
      return;
    }
    if (this.manner === 'moved' && kind === 'feed.xml') {
      response.writeHead(301, { Location: `${base}/feed-here.xml` }).end();
      return;
    }
    const xml = feedPage(show, episodes, base, Math.max(1, Math.floor(page) || 1));
    const etag = `"${createHash('sha256').update(xml).digest('hex').slice(0, 20)}"`;
    if (request.headers['if-none-match'] === etag) {
      response.writeHead(304, { ETag: etag }).end();
      return;
    }
    response.writeHead(200, { 'Content-Type': 'application/rss+xml; charset=utf-8', ETag: etag }).end(xml);
  }

  private async file(slug: string, show: Show, name: string, request: IncomingMessage, response: ServerResponse): Promise<void> {
    const known = show.episodes.some((one) => one.sound.file === name || one.transcript?.file === name);
    const path = join(this.dir, slug, name);
    const found = known ? await stat(path).catch(() => null) : null;
    if (found === null) {
      nothing(response);
      return;
    }
    // A strong validator, so that the rest of a file can be asked for.
    response.setHeader('ETag', `"${found.size.toString(36)}-${Math.round(found.mtimeMs).toString(36)}"`);
    const sound = show.episodes.some((one) => one.sound.file === name);
    if (this.manner === 'slowly' && sound) slowDown(response);
    if (this.manner === 'broken-off' && sound) breakOff(response, this.brokenOffAfter);
    send(request, name, { root: join(this.dir, slug), cacheControl: false }).pipe(response);
  }

  private setManner(wanted: string, response: ServerResponse): boolean {
    const known = HOST_MANNERS.find((one) => one === wanted);
    if (known === undefined) response.writeHead(400).end(`one of ${HOST_MANNERS.join(', ')}`);
    else {
      this.manner = known;
      response.writeHead(204).end();
    }
    return true;
  }
}

function nothing(response: ServerResponse): true {
  response.writeHead(404).end('nothing here');
  return true;
}

function chapters(episodes: readonly ShowEpisode[], file: string, response: ServerResponse): void {
  const episode = episodes.find((one) => `${one.guid}.json` === file);
  if (episode === undefined) nothing(response);
  else response.setHeader('Content-Type', 'application/json+chapters').end(JSON.stringify({ version: '1.2.0', chapters: episode.chapters }));
}

/** What is written goes out piece by piece. */
function slowDown(response: ServerResponse): void {
  const write = response.write.bind(response) as (chunk: Buffer) => boolean;
  const end = response.end.bind(response) as () => ServerResponse;
  const waiting: Buffer[] = [];
  let over = false;
  const timer = setInterval(() => {
    const piece = waiting[0];
    if (piece !== undefined) {
      write(piece.subarray(0, SLOW_BYTES));
      if (piece.length > SLOW_BYTES) waiting[0] = piece.subarray(SLOW_BYTES);
      else waiting.shift();
    } else if (over) {
      clearInterval(timer);
      end();
    }
    if (waiting.length < 4) response.emit('drain');
  }, SLOW_EVERY_MS);
  response.on('close', () => clearInterval(timer));
  response.write = ((chunk: Buffer) => {
    waiting.push(Buffer.from(chunk));
    return waiting.length < 4;
  }) as typeof response.write;
  response.end = (() => {
    over = true;
    return response;
  }) as typeof response.end;
}

/** The line goes after so many bytes. */
function breakOff(response: ServerResponse, after: number): void {
  const write = response.write.bind(response) as (chunk: Buffer) => boolean;
  let sent = 0;
  response.write = ((chunk: Buffer) => {
    const piece = Buffer.from(chunk).subarray(0, after - sent);
    sent += piece.length;
    const more = write(piece);
    if (sent >= after) setTimeout(() => response.destroy(), 20);
    return more && sent < after;
  }) as typeof response.write;
}
