import { readFile, stat } from 'node:fs/promises';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { join } from 'node:path';
import send from 'send';

/** A file's name is never more than that. */
const NAME = /^[\w-]{1,80}\.(?:ogg|mp4|vtt)$/;
/** Where nobody knows how long a file still takes, in s. */
const [SOON_S, UNKNOWN_S] = [5, 60];

/**
 * Files below `/made/` that are still being made while somebody asks for them, such as the demo's recordings: not now, and how long it
 * will take (503 with Retry-After, RFC 9110), until they are there.
 */
export class MadeFiles {
  /** @param dir with the files, and `ready.json`, which says for those that are not there at what moment they will be, in ms since 1970 */
  constructor(private readonly dir: string) {}

  async answer(request: IncomingMessage, response: ServerResponse, nowMs = Date.now()): Promise<void> {
    const name = (request.url ?? '').slice('/made/'.length);
    if (!NAME.test(name)) return void response.writeHead(404).end('nothing here');
    if ((await stat(join(this.dir, name)).catch(() => null)) !== null) return void send(request, `/${name}`, { root: this.dir }).pipe(response);
    const ready = await readFile(join(this.dir, 'ready.json'), 'utf8').then(
      (text) => (JSON.parse(text) as Record<string, number>)[name],
      () => undefined,
    );
    const leftS = ready === undefined ? UNKNOWN_S : Math.max(SOON_S, Math.ceil((ready - nowMs) / 1_000));
    response.writeHead(503, { 'Retry-After': String(leftS) }).end('it is being made');
  }
}
