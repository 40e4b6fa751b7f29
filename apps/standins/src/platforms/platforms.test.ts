import { createHash } from 'node:crypto';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { hashOf, seeded } from './faults.js';
import { PlatformHost } from './platform-host.js';
import { audience } from './posts.js';
import { Rights } from './rights.js';
import { SimClock } from './sim-clock.js';

const CLIENT = { id: 'sift-reel', secret: 'a secret' };
const REDIRECT = 'http://agency.example/connected';
// RFC 7636, appendix B.
const [VERIFIER, CHALLENGE] = ['dBjftJeZ4CVP-mB92K27uhbUJU1p1r_wW1gFWFOEjXk', 'E9Melhoa2OwvFrEMTJguCHaoeK1t8URWbuGJSstw-cM'];

let folder: string;
let host: PlatformHost;
let server: Server;
let base: string;

beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'sift-reel-platforms-'));
  const callback = { url: null, secret: 'another' };
  host = new PlatformHost({ dir: folder, lasting: true, clockFile: null, client: CLIENT, redirects: [REDIRECT], callback });
  server = createServer((request, response) => void host.answer(request, response).catch(() => response.destroy()));
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  base = `http://127.0.0.1:${(server.address() as AddressInfo).port}/platforms`;
});
afterAll(async () => {
  host.close();
  server.close();
  server.closeAllConnections();
  await rm(folder, { recursive: true, force: true });
});

const token = async (platform: string, form: Record<string, string>): Promise<{ status: number; body: Record<string, string> }> => {
  const basic = Buffer.from(`${CLIENT.id}:${encodeURIComponent(CLIENT.secret)}`).toString('base64');
  const answer = await fetch(`${base}/${platform}/token`, { method: 'POST', headers: { authorization: `Basic ${basic}` }, body: new URLSearchParams(form) });
  return { status: answer.status, body: (await answer.json()) as Record<string, string> };
};
/** A right, as a browser and a server come by it. */
async function right(platform: string, account: string): Promise<Record<string, string>> {
  const scope = host.platforms.get(platform)!.style.rights.scopes.join(' ');
  const asked = {
    client_id: CLIENT.id,
    redirect_uri: REDIRECT,
    response_type: 'code',
    scope,
    code_challenge: CHALLENGE,
    code_challenge_method: 'S256',
    state: 'xyz',
  };
  const answer = await fetch(`${base}/${platform}/authorize`, {
    method: 'POST',
    body: new URLSearchParams({ ...asked, account, answer: 'allow' }),
    redirect: 'manual',
  });
  const back = new URL(answer.headers.get('location')!);
  expect(back.searchParams.get('state')).toBe('xyz');
  return (await token(platform, { grant_type: 'authorization_code', code: back.searchParams.get('code')!, redirect_uri: REDIRECT, code_verifier: VERIFIER }))
    .body;
}

describe('rights', () => {
  const rights = (): Rights => new Rights(new SimClock(null), { scopes: ['a'], accessLifeS: 60, rotates: true }, CLIENT);
  const exchange = (one: Rights, fields: Record<string, string>): object =>
    one.token(new URLSearchParams({ grant_type: 'authorization_code', redirect_uri: REDIRECT, code_verifier: VERIFIER, ...fields }), CLIENT);
  it('are given for the verifier of the challenge (RFC 7636, appendix B), once', () => {
    const one = rights();
    const code = one.allow('me', ['a'], CHALLENGE, REDIRECT);
    expect(exchange(one, { code })).toMatchObject({ token_type: 'Bearer', expires_in: 60, scope: 'a' });
    expect(() => exchange(one, { code })).toThrow('invalid_grant');
  });
  it('are not given for another verifier, to another address, or to another client', () => {
    const one = rights();
    const code = (): string => one.allow('me', ['a'], CHALLENGE, REDIRECT);
    expect(() => exchange(one, { code: code(), code_verifier: `${VERIFIER}x` })).toThrow('invalid_grant');
    expect(() => exchange(one, { code: code(), redirect_uri: 'http://elsewhere.example/' })).toThrow('invalid_grant');
    expect(() => one.token(new URLSearchParams({ grant_type: 'refresh_token' }), { ...CLIENT, secret: 'wrong' })).toThrow('invalid_client');
    expect(() => one.token(new URLSearchParams({ grant_type: 'password' }), CLIENT)).toThrow('unsupported_grant_type');
  });
  it('that rotate keep the one before until what replaced it was used: its answer may have been lost', () => {
    const one = rights();
    const first = exchange(one, { code: one.allow('me', ['a'], CHALLENGE, REDIRECT) }) as Record<string, string>;
    const renew = (refresh: string): Record<string, string> =>
      one.token(new URLSearchParams({ grant_type: 'refresh_token', refresh_token: refresh }), CLIENT) as Record<string, string>;
    renew(first['refresh_token']!); // the answer is lost
    const again = renew(first['refresh_token']!);
    expect(one.of(`Bearer ${again['access_token']}`)).toEqual({ account: 'me', scopes: ['a'] });
    expect(() => renew(first['refresh_token']!)).toThrow('invalid_grant');
    one.revoke('me');
    expect(one.of(`Bearer ${again['access_token']}`)).toBeNull();
  });
  it('send nobody to an address that is not known', async () => {
    const asked = new URLSearchParams({
      client_id: CLIENT.id,
      redirect_uri: 'http://evil.example/',
      response_type: 'code',
      code_challenge: CHALLENGE,
      code_challenge_method: 'S256',
    });
    const answer = await fetch(`${base}/loopline/authorize?${asked}`, { redirect: 'manual' });
    expect([answer.status, answer.headers.get('location')]).toEqual([400, null]);
  });
  it('are told of where RFC 8414, 3.1 says', async () => {
    const root = base.replace('/platforms', '');
    const told = (await (await fetch(`${root}/.well-known/oauth-authorization-server/platforms/fernpost`)).json()) as Record<string, unknown>;
    expect(told).toMatchObject({
      issuer: `${base}/fernpost`,
      code_challenge_methods_supported: ['S256'],
      authorization_response_iss_parameter_supported: true,
    });
  });
});

describe('a platform', () => {
  it('takes everything in one request, shows it to the public, and answers the same key the same', async () => {
    const { access_token } = await right('fernpost', 'fp-ardcree');
    const file = Buffer.from('not really a video');
    const send = async (): Promise<Record<string, string>> => {
      const form = new FormData();
      for (const [name, value] of Object.entries({ ref: 'r-1', headline: 'A <b>bold</b> one', caption: 'text', tags: 'one,two' })) form.set(name, value);
      form.set('video', new Blob([file]), 'a.mp4');
      const headers = { authorization: `Bearer ${access_token}`, 'idempotency-key': 'k-1' };
      return (await (await fetch(`${base}/fernpost/api/notes`, { method: 'POST', body: form, headers })).json()) as Record<string, string>;
    };
    const [first, second] = [await send(), await send()];
    expect(second).toEqual(first);
    const page = await (await fetch(`${base}/fernpost/`)).text();
    expect(page).toContain('A &#60;b&#62;bold&#60;/b&#62; one');
    const { sha256 } = [...host.platforms.get('fernpost')!.posts.values()].find((post) => post.id === first['id'])!;
    expect(sha256).toBe(createHash('sha256').update(file).digest('hex'));
    expect(Buffer.from(await (await fetch(`${base}/fernpost/files/${sha256}.mp4`)).arrayBuffer()).equals(file)).toBe(true);
  });
  it('says in its own words what is wrong, and how long to wait when it is too much', async () => {
    const { access_token } = await right('northgate', 'ng-last');
    const ask = (): Promise<Response> => fetch(`${base}/northgate/api/page`, { headers: { authorization: `Bearer ${access_token}` } });
    let answer = await ask();
    for (let i = 0; i < 70 && answer.status === 200; i += 1) answer = await ask();
    expect(answer.status).toBe(429);
    expect(Date.parse(answer.headers.get('retry-after')!)).toBeGreaterThan(Date.parse(answer.headers.get('date')!));
    expect(host.platforms.get('northgate')!.counted.tooMany).toBe(1);
    const other = await fetch(`${base}/northgate/api/page`, { headers: { authorization: 'Bearer none' } });
    expect([other.status, other.headers.get('www-authenticate')]).toEqual([401, expect.stringContaining('error="invalid_token"')]);
  });
  it('takes orders of what is to go wrong, and refuses those it does not know', async () => {
    const order = (body: object): Promise<Response> => fetch(`${base}/loopline/faults`, { method: 'PUT', body: JSON.stringify(body) });
    expect((await order({ order: ['sulk'] })).status).toBe(400);
    expect((await order({ seed: 3, share: 0, order: [] })).status).toBe(204);
  });
  it('remembers over a restart', async () => {
    await host.keep();
    const kept = JSON.parse(await readFile(join(folder, 'platforms.json'), 'utf8')) as Record<string, { posts: unknown[] }>;
    expect(kept['fernpost']!.posts).toHaveLength(1);
    const again = new PlatformHost({ dir: folder, lasting: true, clockFile: null, client: CLIENT, redirects: [], callback: { url: null, secret: '' } });
    again.close();
    expect(again.platforms.get('fernpost')!.posts.size).toBe(1);
  });
});

describe('who looks', () => {
  it('only grows, is the same for the same post, and is nobody before it is out', () => {
    for (let n = 0; n < 50; n += 1) {
      const post = { id: `p${n}`, publicMs: 1_000_000, state: 'public' as const };
      let before = -1;
      for (let hour = 0; hour < 400; hour += 7) {
        const { views, reactions } = audience(post, post.publicMs + hour * 3_600_000);
        expect(views).toBeGreaterThanOrEqual(before);
        expect(reactions).toBeLessThanOrEqual(views);
        before = views;
      }
      expect(audience({ ...post, state: 'scheduled' }, 9e12).views).toBe(0);
    }
    expect(audience({ id: 'p1', publicMs: 0, state: 'public' }, 9e8)).toEqual(audience({ id: 'p1', publicMs: 0, state: 'public' }, 9e8));
  });
  it('chance comes from a seed alone; the hash is FNV-1a (draft-eastlake-fnv: "" and "foobar")', () => {
    const [a, b] = [seeded(7), seeded(7)];
    expect([a(), a(), a()]).toEqual([b(), b(), b()]);
    expect([hashOf(''), hashOf('foobar')]).toEqual([0x811c9dc5, 0xbf9cf968]);
  });
  it('simulated time is told by a file', async () => {
    const file = join(folder, 'clock.json');
    await writeFile(file, JSON.stringify({ startMs: 1_000, sinceMs: Date.now() - 10_000, speed: 60 }));
    expect(new SimClock(file).nowMs()).toBeGreaterThanOrEqual(601_000);
    expect(new SimClock(file).realMs(60_000)).toBe(1_000);
  });
});
