import { mkdirSync, readFileSync } from 'node:fs';
import { rename, writeFile } from 'node:fs/promises';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { join } from 'node:path';
import send from 'send';
import { FAULTS, isFault } from './faults.js';
import { Fernpost, FERNPOST } from './fernpost.js';
import { Hearthside, HEARTHSIDE } from './hearthside.js';
import { Loopline, LOOPLINE } from './loopline.js';
import { Northgate, NORTHGATE } from './northgate.js';
import { consentPage, platformList, postPage, publicPage } from './pages.js';
import type { Platform, PlatformState } from './platform.js';
import { RightRefused } from './rights.js';
import { SimClock } from './sim-clock.js';
import { Tidewire } from './tidewire.js';

const SETTLE_EVERY_MS = 250;
const KEEP_AFTER_MS = 300;
const LARGEST_FORM = 40_000;

export interface PlatformHostSettings {
  /** Where videos lie, and what the platforms remember. */
  readonly dir: string;
  /** Whether what they remember outlives the process. */
  readonly lasting: boolean;
  readonly clockFile: string | null;
  readonly client: { readonly id: string; readonly secret: string };
  /** Where a browser may be sent back to. */
  readonly redirects: readonly string[];
  /** Where Tidewire calls back. */
  readonly callback: { readonly url: string | null; readonly secret: string };
}

/** Five made-up platforms under one roof: how each gives rights, what it shows the public, its interface, and what goes wrong with it by command. */
export class PlatformHost {
  readonly platforms: ReadonlyMap<string, Platform>;
  private readonly timer: NodeJS.Timeout;
  private keeping: NodeJS.Timeout | null = null;

  constructor(private readonly settings: PlatformHostSettings) {
    const { client, dir, callback } = settings;
    const clock = new SimClock(settings.clockFile);
    const all: Platform[] = [
      new Loopline(LOOPLINE, clock, client, join(dir, 'loopline')),
      new Fernpost(FERNPOST, clock, client, join(dir, 'fernpost')),
      new Northgate(NORTHGATE, clock, client, join(dir, 'northgate')),
      new Tidewire(clock, client, join(dir, 'tidewire'), callback),
      new Hearthside(HEARTHSIDE, clock, client, join(dir, 'hearthside')),
    ];
    this.platforms = new Map(all.map((one) => [one.style.id, one]));
    mkdirSync(dir, { recursive: true });
    if (settings.lasting) this.restore();
    for (const one of all) one.changed = () => this.keepSoon();
    this.timer = setInterval(() => {
      for (const one of all) one.settle();
    }, SETTLE_EVERY_MS);
  }

  close(): void {
    clearInterval(this.timer);
    if (this.keeping !== null) clearTimeout(this.keeping);
  }

  /** Answers what is below `/platforms/`, and where rights are told of (RFC 8414, 3). @returns false for what is not its to answer */
  async answer(request: IncomingMessage, response: ServerResponse): Promise<boolean> {
    const { pathname, searchParams } = new URL(request.url ?? '/', 'http://host');
    const told = /^\/\.well-known\/oauth-authorization-server\/platforms\/([a-z]+)$/.exec(pathname)?.[1];
    if (told !== undefined) return this.tell(told, request, response);
    if (!pathname.startsWith('/platforms')) return false;
    const [, , id = '', kind = '', ...rest] = pathname.split('/');
    const base = `http://${request.headers.host ?? 'localhost'}/platforms`;
    if (id === '') return html(response, platformList([...this.platforms.values()], base));
    const platform = this.platforms.get(id);
    if (platform === undefined) return nothing(response);
    const own = `${base}/${id}`;
    switch (kind) {
      case '':
        return html(response, publicPage(platform, own));
      case 'p': {
        const shown = postPage(platform, rest[0] ?? '', own);
        return shown === null ? nothing(response) : html(response, shown);
      }
      case 'files':
        if (!/^[0-9a-f]{64}\.mp4$/.test(rest[0] ?? '')) return nothing(response);
        send(request, rest[0]!, { root: join(this.settings.dir, id) }).pipe(response);
        return true;
      case 'authorize':
        return this.authorize(platform, own, request, response, searchParams);
      case 'token':
      case 'revoke':
        return this.token(platform, kind, request, response);
      case 'state.json':
        platform.settle();
        return json(response, 200, { posts: [...platform.posts.values()], counted: platform.counted });
      case 'faults':
        return this.order(platform, request, response);
      case 'api':
        await platform.answer(request, response, `/${rest.join('/')}`, searchParams);
        return true;
      default:
        return nothing(response);
    }
  }

  private tell(id: string, request: IncomingMessage, response: ServerResponse): boolean {
    const platform = this.platforms.get(id);
    if (platform === undefined) return nothing(response);
    const issuer = `http://${request.headers.host ?? 'localhost'}/platforms/${id}`;
    return json(response, 200, {
      issuer,
      authorization_endpoint: `${issuer}/authorize`,
      token_endpoint: `${issuer}/token`,
      revocation_endpoint: `${issuer}/revoke`,
      response_types_supported: ['code'],
      grant_types_supported: ['authorization_code', 'refresh_token'],
      code_challenge_methods_supported: ['S256'],
      token_endpoint_auth_methods_supported: ['client_secret_basic'],
      scopes_supported: platform.style.rights.scopes,
      authorization_response_iss_parameter_supported: true,
    });
  }

  private async authorize(platform: Platform, issuer: string, request: IncomingMessage, response: ServerResponse, query: URLSearchParams): Promise<boolean> {
    const asked = request.method === 'POST' ? await form(request) : query;
    const redirect = asked.get('redirect_uri') ?? '';
    // An address that is not known is never sent to (RFC 6749, 4.1.2.1).
    if (asked.get('client_id') !== this.settings.client.id || !this.settings.redirects.includes(redirect))
      return html(response, consentPage(platform, asked, 'Nobody of this name and address is known here.'), 400);
    const challenge = asked.get('code_challenge') ?? '';
    if (asked.get('response_type') !== 'code' || asked.get('code_challenge_method') !== 'S256' || challenge === '')
      return html(response, consentPage(platform, asked, 'A code with a challenge (S256) is needed.'), 400);
    if (request.method !== 'POST') return html(response, consentPage(platform, asked, null));
    const back = new URL(redirect);
    back.searchParams.set('state', asked.get('state') ?? '');
    back.searchParams.set('iss', issuer);
    const account = asked.get('account') ?? '';
    if (asked.get('answer') !== 'allow' || !/^[\w-]{1,40}$/.test(account)) back.searchParams.set('error', 'access_denied');
    else back.searchParams.set('code', platform.rights.allow(account, (asked.get('scope') ?? '').split(' ').filter(Boolean), challenge, redirect));
    response.writeHead(303, { Location: back.href }).end();
    return true;
  }

  private async token(platform: Platform, kind: 'token' | 'revoke', request: IncomingMessage, response: ServerResponse): Promise<boolean> {
    const asked = await form(request);
    response.setHeader('Cache-Control', 'no-store');
    try {
      if (kind === 'token') {
        const given = platform.rights.token(asked, basicOf(request.headers.authorization));
        this.keepSoon();
        return json(response, 200, given);
      }
      platform.rights.revokeToken(asked.get('token') ?? '');
      this.keepSoon();
      response.writeHead(200).end();
      return true;
    } catch (error) {
      if (error instanceof RightRefused) return json(response, error.status, { error: error.code });
      throw error;
    }
  }

  /** What goes wrong, by command: see docs/guide. */
  private async order(platform: Platform, request: IncomingMessage, response: ServerResponse): Promise<boolean> {
    const asked = objectOf(await text(request));
    if (asked === null) return json(response, 400, { error: 'a JSON object is asked for' });
    const { seed, share, kinds, order, clockOffMs, refuseEvery, twins, revoke } = asked;
    const known = (list: unknown): list is (typeof FAULTS)[number][] => Array.isArray(list) && list.every(isFault);
    if (kinds !== undefined && !known(kinds)) return json(response, 400, { error: `kinds are of ${FAULTS.join(', ')}` });
    if (order !== undefined && !known(order)) return json(response, 400, { error: `order is of ${FAULTS.join(', ')}` });
    if (typeof share === 'number') platform.faults.bySeed(Number(seed ?? 1), share, known(kinds) ? kinds : FAULTS);
    if (known(order)) platform.faults.order(order);
    if (typeof clockOffMs === 'number') platform.offByMs = clockOffMs;
    if (typeof refuseEvery === 'number') platform.refuseEvery = refuseEvery;
    if (typeof twins === 'boolean') platform.turnTwinsAway(twins);
    if (typeof asked['postsADay'] === 'number') platform.allowADay(asked['postsADay']);
    if (typeof revoke === 'string') platform.rights.revoke(revoke);
    this.keepSoon();
    response.writeHead(204).end();
    return true;
  }

  private restore(): void {
    let text: string;
    try {
      text = readFileSync(join(this.settings.dir, 'platforms.json'), 'utf8');
    } catch {
      return; // the first start
    }
    for (const [id, state] of Object.entries(JSON.parse(text) as Record<string, PlatformState>)) this.platforms.get(id)?.restore(state);
  }

  private keepSoon(): void {
    if (!this.settings.lasting || this.keeping !== null) return;
    this.keeping = setTimeout(() => {
      this.keeping = null;
      void this.keep();
    }, KEEP_AFTER_MS);
  }

  /** Written beside and then put in its place, so that a process killed in the middle leaves the one before. */
  async keep(): Promise<void> {
    const file = join(this.settings.dir, 'platforms.json');
    const all = Object.fromEntries([...this.platforms].map(([id, one]) => [id, one.state()]));
    await writeFile(`${file}.new`, JSON.stringify(all));
    await rename(`${file}.new`, file);
  }
}

function basicOf(header: string | undefined): { id: string; secret: string } | null {
  const [, encoded] = /^Basic (.+)$/i.exec(header ?? '') ?? [];
  const [id, secret] = Buffer.from(encoded ?? '', 'base64')
    .toString('utf8')
    .split(':');
  // Both are form-encoded first (RFC 6749, 2.3.1).
  return id === undefined || secret === undefined ? null : { id: decodeURIComponent(id), secret: decodeURIComponent(secret) };
}

async function text(request: IncomingMessage): Promise<string> {
  let read = '';
  for await (const chunk of request.setEncoding('utf8')) {
    read += chunk as string;
    if (read.length > LARGEST_FORM) throw new Error('too much');
  }
  return read;
}

function objectOf(read: string): Record<string, unknown> | null {
  try {
    const value: unknown = JSON.parse(read === '' ? '{}' : read);
    return typeof value === 'object' && value !== null && !Array.isArray(value) ? (value as Record<string, unknown>) : null;
  } catch {
    return null;
  }
}

const form = async (request: IncomingMessage): Promise<URLSearchParams> => new URLSearchParams(await text(request));

function html(response: ServerResponse, page: string, status = 200): true {
  response.writeHead(status, { 'Content-Type': 'text/html; charset=utf-8' }).end(page);
  return true;
}

function json(response: ServerResponse, status: number, body: object): true {
  response.writeHead(status, { 'Content-Type': 'application/json' }).end(JSON.stringify(body));
  return true;
}

function nothing(response: ServerResponse): true {
  response.writeHead(404).end('nothing here');
  return true;
}
