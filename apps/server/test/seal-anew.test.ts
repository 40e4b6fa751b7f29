import { execFile } from 'node:child_process';
import { randomBytes, randomUUID } from 'node:crypto';
import { promisify } from 'node:util';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { Sealing } from '../dist/publishing/sealing.js';
import { query, World } from './world.js';

let world: World;
beforeAll(async () => {
  world = await World.make();
});
afterAll(() => world.close());

it('tokens are sealed anew with the first key by a command, once, and open as before', async () => {
  const [old, today] = ['old', 'today'].map((name) => ({ name, bytes: randomBytes(32) }));
  const clientId = await world.client();
  const id = randomUUID();
  const before = new Sealing({ sealingKeys: [old!] });
  await query(
    `INSERT INTO accounts (id, client_id, service, remote_id, name, scopes, access_token, refresh_token, access_ends_at) VALUES ($1, $2, 'fernpost', $3, 'A', '{}', $4, $5, now())`,
    [id, clientId, id, before.seal('an access token', `access:${id}`), before.seal('a refresh token', `refresh:${id}`)],
  );
  // Of other tests' keys there may be some that nobody has any more: only what is named here counts.
  await query('DELETE FROM accounts WHERE id <> $1', [id]);
  const keys = [today!, old!].map(({ name, bytes }) => `${name}:${bytes.toString('base64')}`).join(',');
  const run = async (): Promise<string> =>
    (
      await promisify(execFile)(process.execPath, ['apps/server/dist/publishing/seal-anew.main.js'], {
        env: { ...process.env, SIFT_REEL_SEALING_KEYS: keys, SIFT_REEL_LOG_LEVEL: 'error' },
      })
    ).stdout;
  expect(await run()).toContain('1 accounts were sealed');
  expect(await run()).toContain('0 accounts were sealed');
  const [row] = await query('SELECT access_token, refresh_token FROM accounts WHERE id = $1', [id]);
  const after = new Sealing({ sealingKeys: [today!] });
  expect(after.open(row!['access_token'] as Buffer, `access:${id}`)).toBe('an access token');
  expect(after.open(row!['refresh_token'] as Buffer, `refresh:${id}`)).toBe('a refresh token');
});
