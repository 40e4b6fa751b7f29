import { spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { fileURLToPath } from 'node:url';
import { expect, it } from 'vitest';
import { settings } from '../../../scripts/lib/config.mjs';
import { serviceEnv } from '../../../scripts/lib/services.mjs';
import { hashPassword } from '../dist/identity/passwords.js';
import { ConfigError, readConfig } from '../dist/config/config.js';
import { Caller, PASSWORD, query } from './world.js';

it('the log is structured and holds no secret', async () => {
  const test = settings('test');
  const env = serviceEnv(test, process.env['SIFT_REEL_DATABASE_URL']!, { SIFT_REEL_LOG_LEVEL: 'debug' }) as NodeJS.ProcessEnv;
  delete env['SIFT_REEL_WEB_DIR'];
  const email = `log-${randomUUID()}@agency.example`;
  const passwordHash = await hashPassword(PASSWORD);
  await query(`INSERT INTO users (email, name, role, password_hash) VALUES ($1, 'Log', 'owner', $2)`, [email, passwordHash]);
  const child = spawn(process.execPath, [fileURLToPath(new URL('../dist/api.js', import.meta.url))], { env, stdio: ['ignore', 'pipe', 'pipe', 'ipc'] });
  let output = '';
  child.stdout!.on('data', (chunk: Buffer) => {
    output += chunk.toString();
  });
  child.stderr!.on('data', (chunk: Buffer) => {
    output += chunk.toString();
  });
  await new Promise((resolve) => {
    child.once('message', resolve);
  });
  const caller = new Caller(`http://${test.host}:${test.port}`);
  const signed = await caller.signIn(email);
  await caller.signIn(email, 'the wrong password');
  await caller.post('clients', { name: '', password: 'in the wrong place' });
  await caller.get(`recordings/${randomUUID()}`);
  const opens = randomUUID();
  await caller.get(`calendar/${opens}.ics`);
  child.kill('SIGTERM');
  await new Promise((resolve) => {
    child.once('close', resolve);
  });
  const token = signed.headers.get('set-cookie')!.split(';')[0]!.split('=')[1]!;
  for (const secret of [PASSWORD, 'the wrong password', 'in the wrong place', token, opens, signed.body.csrfToken, passwordHash])
    expect(output).not.toContain(secret);
  const lines = output
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line) as { msg: string; path?: string; status?: number });
  expect(lines).toContainEqual(expect.objectContaining({ msg: 'request', path: '/api/session', status: 201 }));
});

it('the environment is checked at start, by the variable’s name', () => {
  const good = { SIFT_REEL_DATABASE_URL: 'postgres://x@127.0.0.1/x' };
  expect(readConfig(good)).toMatchObject({ port: 4310, host: '127.0.0.1', secureCookies: false, clockFile: null });
  const store = { SIFT_REEL_S3_ENDPOINT: 'https://store.example', SIFT_REEL_S3_BUCKET: 'reels', SIFT_REEL_S3_KEY_ID: 'k', SIFT_REEL_S3_SECRET: 's' };
  expect(readConfig(good).store).toBeNull();
  expect(readConfig({ ...good, ...store }).store).toMatchObject({ bucket: 'reels', prefix: '', publicEndpoint: null, cacheBytes: 50e9 });
  for (const [name, value] of [
    ['SIFT_REEL_S3_BUCKET', ''],
    ['SIFT_REEL_S3_KEY_ID', ''],
    ['SIFT_REEL_S3_SECRET', ''],
    ['SIFT_REEL_S3_PREFIX', 'no-slash'],
    ['SIFT_REEL_S3_PREFIX', '../up/'],
    ['SIFT_REEL_S3_ENDPOINT', 'store.example'],
    ['SIFT_REEL_S3_PUBLIC_ENDPOINT', 'ftp://store.example'],
    ['SIFT_REEL_MEDIA_CACHE_GB', '0'],
  ]) {
    expect(() => readConfig({ ...good, ...store, [name!]: value })).toThrow(ConfigError);
    expect(() => readConfig({ ...good, ...store, [name!]: value })).toThrow(name!);
  }
  for (const [name, value] of [
    ['SIFT_REEL_PORT', '99999'],
    ['SIFT_REEL_PORT', 'http'],
    ['SIFT_REEL_LOG_LEVEL', 'loud'],
    ['SIFT_REEL_DATABASE_URL', 'mysql://x'],
    ['SIFT_REEL_VECTOR_THREADS', '0'],
  ]) {
    expect(() => readConfig({ ...good, [name!]: value })).toThrow(ConfigError);
    expect(() => readConfig({ ...good, [name!]: value })).toThrow(name!);
  }
});
