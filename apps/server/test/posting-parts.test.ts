import { randomBytes, randomUUID } from 'node:crypto';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { readConfig } from '../dist/config/config.js';
import { spokenPath } from '../dist/config/logger.js';
import { Database } from '../dist/database/database.service.js';
import { Pace } from '../dist/publishing/pace.service.js';
import { PLATFORMS } from '../dist/publishing/platforms/all.js';
import { retryAfterMs } from '../dist/publishing/retry-after.js';
import { Sealing, SealBrokenError } from '../dist/publishing/sealing.js';
import { query, World } from './world.js';

const key = (name: string): { name: string; bytes: Buffer } => ({ name, bytes: randomBytes(32) });

describe('what is sealed', () => {
  const [old, today] = [key('old'), key('today')];
  const before = new Sealing({ sealingKeys: [old] });
  const now = new Sealing({ sealingKeys: [today, old] });
  it('opens with its key and in its place, whatever it is', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 300 }), fc.string(), (text, place) => {
        expect(now.open(now.seal(text, place), place)).toBe(text);
      }),
    );
    expect(now.open(before.seal('a token', 'access:1'), 'access:1')).toBe('a token');
    expect([now.isFresh(before.seal('x', 'p')), now.isFresh(now.seal('x', 'p'))]).toEqual([false, true]);
  });
  it('opens nowhere else, with no other key, and not when a bit of it has changed', () => {
    const sealed = now.seal('a token', 'access:1');
    expect(() => now.open(sealed, 'access:2')).toThrow(SealBrokenError);
    expect(() => before.open(sealed, 'access:1')).toThrow(/“today”, which is not configured/);
    for (let bit = (1 + 'today'.length) * 8; bit < sealed.length * 8; bit += 5) {
      const changed = Buffer.from(sealed);
      changed[bit >> 3]! ^= 1 << (bit & 7);
      expect(() => now.open(changed, 'access:1')).toThrow(SealBrokenError);
    }
    expect(() => new Sealing({ sealingKeys: [] }).seal('x', 'p')).toThrow(/SIFT_REEL_SEALING_KEYS/);
  });
  it('is another each time', () => {
    expect(now.seal('a', 'p').equals(now.seal('a', 'p'))).toBe(false);
  });
});

describe('how long an answer asks to wait (RFC 9110, 10.2.3)', () => {
  const after = (retry: string, date = 'Fri, 31 Dec 1999 23:57:59 GMT'): number | null => retryAfterMs(new Headers({ 'retry-after': retry, date }), 0);
  it('in seconds, or until a moment by its own clock', () => {
    expect(after('120')).toBe(120_000);
    expect(after('Fri, 31 Dec 1999 23:59:59 GMT')).toBe(120_000); // the RFC's own example
    expect(after('Fri, 31 Dec 1999 23:00:00 GMT')).toBe(0);
  });
  it('not at all where that cannot be read, and never for weeks', () => {
    for (const text of ['', 'soon', '-5', '1.5', '2000-01-01']) expect(after(text)).toBeNull();
    expect(after('999999999')).toBe(48 * 3_600_000);
  });
});

describe('configuration', () => {
  const env = { SIFT_REEL_DATABASE_URL: 'postgres://x' };
  const platform = { url: 'http://127.0.0.1:1/', clientId: 'a', clientSecret: 'b', callbackSecret: 'c' };
  it('names the field that is wrong, and shows no secret', () => {
    expect(readConfig({ ...env, SIFT_REEL_PLATFORMS: JSON.stringify({ loopline: platform }) }).platforms['loopline']!.url).toBe('http://127.0.0.1:1');
    for (const [text, said] of [
      ['[1]', /must be JSON/],
      ['{"a":', /must be JSON/],
      [JSON.stringify({ loopline: { ...platform, clientSecret: '' } }), /loopline\.clientSecret/],
      [JSON.stringify({ loopline: { ...platform, url: 'ftp://x' } }), /loopline\.url/],
    ] as const)
      expect(() => readConfig({ ...env, SIFT_REEL_PLATFORMS: text })).toThrow(said);
    const good = `first:${randomBytes(32).toString('base64')}`;
    expect(readConfig({ ...env, SIFT_REEL_SEALING_KEYS: good }).sealingKeys.map(({ name }) => name)).toEqual(['first']);
    const short = 'first:c2hvcnQ=';
    expect(() => readConfig({ ...env, SIFT_REEL_SEALING_KEYS: short })).toThrow(/key 1 must be/);
    expect(() => readConfig({ ...env, SIFT_REEL_SEALING_KEYS: `${good},${good}` })).toThrow(/two keys/);
  });
  it('what opens an address is left out of what is written down', () => {
    expect(spokenPath('/api/handed/abc.1.def/video.mp4')).toBe('/api/handed/[left out]');
  });
});

describe('an account’s pace', () => {
  let world: World;
  let pace: Pace;
  let clientId: string;
  beforeAll(async () => {
    world = await World.make();
    pace = new Pace(world.app.get(Database));
    clientId = await world.client();
  });
  afterAll(() => world.close());
  const account = async (): Promise<string> => {
    const [row] = await query(
      `INSERT INTO accounts (client_id, service, remote_id, name, scopes, access_token, access_ends_at) VALUES ($1, 'fernpost', $2, 'A', '{}', '\\x00', now()) RETURNING id`,
      [clientId, randomUUID()],
    );
    return String(row!['id']);
  };
  it('is kept in every stretch of its platform’s length, however calls come, by several at once', async () => {
    for (const limit of [
      { calls: 60, perMs: 60_000 },
      { calls: 7, perMs: 10_000 },
    ]) {
      const id = await account();
      const taken: number[] = [];
      let now = Date.parse('2026-03-02T06:00:00Z');
      let seed = 1;
      const chance = (): number => (seed = (seed * 48_271) % 2_147_483_647) / 2_147_483_647;
      for (let n = 0; n < 120; n += 1) {
        const at = now;
        const got = await Promise.all([pace.take(id, limit, at), pace.take(id, limit, at)]);
        for (const one of got) if (one === null) taken.push(at);
        now += chance() < 0.1 ? limit.perMs : Math.floor((chance() * limit.perMs * 1.6) / limit.calls);
      }
      for (const from of taken) expect(taken.filter((at) => at >= from && at < from + limit.perMs).length).toBeLessThanOrEqual(limit.calls);
      // And most of what is allowed is used.
      expect(taken.length).toBeGreaterThan(60);
    }
  });
  it('stands still for as long as its platform says, and says why', async () => {
    const id = await account();
    const now = Date.parse('2026-03-02T06:00:00Z');
    await pace.hold(id, now + 30_000, 'Slow down.');
    expect(await pace.take(id, { calls: 60, perMs: 60_000 }, now)).toEqual({ ms: 30_000, why: 'Slow down.' });
    expect(await pace.take(id, { calls: 60, perMs: 60_000 }, now + 30_001)).toBeNull();
  });
});

it('every adapter is known by its name, and waits long enough before it looks for what seemed lost', () => {
  for (const [name, platform] of PLATFORMS) {
    expect(platform.name).toBe(name);
    expect(platform.scopes.length).toBeGreaterThan(0);
    // A call that seemed lost is looked for only when it can have no effect any more: it takes half a minute at most to be answered.
    if (platform.once.by === 'mark') expect(platform.once.settleMs).toBeGreaterThanOrEqual(4 * 30_000);
  }
});
