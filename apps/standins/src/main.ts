import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import { MailBox } from './mail-box.js';
import { mailPage } from './mail-page.js';
import { MadeFiles } from './made-files.js';
import { PlatformHost } from './platforms/platform-host.js';
import { PodcastHost } from './podcast-host.js';
import { answerWriting, MANNERS, type WritingManner } from './writing-service.js';

// The outside world, simulated on loopback: mail, a writing service, a podcast host, five platforms, and the demo's recordings while they are made. Ports come from the environment; 0 takes any that is free.
const mailPort = Number(process.env['SIFT_REEL_MAIL_PORT'] ?? 4312);
const pagePort = Number(process.env['SIFT_REEL_STANDINS_PORT'] ?? 4313);
const LARGEST_BODY = 4_000_000;

const box = new MailBox();
await box.listen(mailPort);
const shows = new PodcastHost(process.env['SIFT_REEL_SHOWS_DIR'] ?? 'var/demo/shows');
const made = new MadeFiles(process.env['SIFT_REEL_MADE_DIR'] ?? 'var/demo');
let manner: WritingManner = 'well';
const publicUrl = process.env['SIFT_REEL_PUBLIC_URL'] ?? 'http://127.0.0.1:4310';
const platforms = new PlatformHost({
  dir: process.env['SIFT_REEL_PLATFORMS_DIR'] ?? 'var/live/platforms',
  lasting: process.env['SIFT_REEL_PLATFORMS_DIR'] !== undefined,
  clockFile: process.env['SIFT_REEL_CLOCK_FILE'] || null,
  client: { id: 'sift-reel', secret: process.env['SIFT_REEL_STANDINS_SECRET'] ?? 'made-up' },
  redirects: [`${publicUrl}/connected`],
  callback: { url: `${publicUrl}/api/platforms/tidewire/callbacks`, secret: process.env['SIFT_REEL_STANDINS_SECRET'] ?? 'made-up' },
});

const pages = createServer((request, response) => {
  if (request.url === '/mail.json') response.setHeader('Content-Type', 'application/json').end(JSON.stringify(box.list()));
  else if (request.url === '/' || request.url === '/mail') response.setHeader('Content-Type', 'text/html; charset=utf-8').end(mailPage(box.list()));
  else if (request.url?.startsWith('/shows/') === true) void shows.answer(request, response).catch(() => response.destroy());
  else if (/^\/(?:platforms|\.well-known)(?:\/|$)/.test(request.url ?? ''))
    void platforms.answer(request, response).then(
      (known) => known || response.writeHead(404).end(),
      () => response.destroy(),
    );
  else if (request.url?.startsWith('/made/') === true) void made.answer(request, response).catch(() => response.destroy());
  else if (request.method === 'POST' && request.url === '/writing') void writing(request, response);
  else if (request.method === 'PUT' && request.url?.startsWith('/writing/') === true) setManner(request.url.slice('/writing/'.length), response);
  else response.writeHead(404).end('nothing here');
});
pages.listen(pagePort, '127.0.0.1', () => process.send?.({ ready: true }));

async function writing(request: IncomingMessage, response: ServerResponse): Promise<void> {
  let body = '';
  for await (const chunk of request.setEncoding('utf8')) {
    body += chunk as string;
    if (body.length > LARGEST_BODY) {
      response.writeHead(413).end();
      return;
    }
  }
  const { status, body: said, afterMs } = answerWriting(jsonOf(body), manner);
  const late = setTimeout(() => response.writeHead(status, { 'Content-Type': 'application/json' }).end(said), afterMs);
  response.on('close', () => clearTimeout(late));
}

function jsonOf(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}

function setManner(wanted: string, response: ServerResponse): void {
  const known = MANNERS.find((one) => one === wanted);
  if (known === undefined) {
    response.writeHead(400).end(`one of ${MANNERS.join(', ')}`);
    return;
  }
  manner = known;
  response.writeHead(204).end();
}

const stop = (): void => {
  pages.closeAllConnections();
  pages.close();
  platforms.close();
  void box.close().then(() => process.exit(0));
};
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, stop);
if (process.send !== undefined) process.on('disconnect', stop);
