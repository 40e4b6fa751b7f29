// API, worker and stand-ins as child processes that end with us.
import { spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT, SetupError } from './config.mjs';

/** The five stand-ins, and what this installation is registered as with each. */
const PLATFORMS = ['fernpost', 'hearthside', 'loopline', 'northgate', 'tidewire'];
export const platformsAt = (standinsUrl) =>
  JSON.stringify(
    Object.fromEntries(
      PLATFORMS.map((name) => [name, { url: `${standinsUrl}/platforms/${name}`, clientId: 'sift-reel', clientSecret: 'made-up', callbackSecret: 'made-up' }]),
    ),
  );

/** A key of this installation's own, made at its first start. Whoever runs it for others names one from where keys are kept. */
function sealingKey(dir) {
  const file = join(dir, 'sealing.key');
  try {
    return readFileSync(file, 'utf8').trim();
  } catch {
    mkdirSync(dir, { recursive: true });
    const key = `first:${randomBytes(32).toString('base64')}`;
    writeFileSync(file, `${key}\n`, { mode: 0o600 });
    return key;
  }
}

export function serviceEnv(settings, databaseUrl, extra = {}) {
  return {
    ...process.env,
    NODE_ENV: 'production',
    SIFT_REEL_DATABASE_URL: databaseUrl,
    SIFT_REEL_HOST: settings.host,
    SIFT_REEL_PORT: String(settings.port),
    SIFT_REEL_MEDIA_DIR: settings.mediaDir,
    SIFT_REEL_WEB_DIR: settings.webDir,
    SIFT_REEL_PUBLIC_URL: process.env.SIFT_REEL_PUBLIC_URL ?? `http://${settings.host}:${settings.port}`,
    // Where nobody names a mail server, the stand-in takes the mail.
    SIFT_REEL_MAIL_URL: process.env.SIFT_REEL_MAIL_URL ?? `smtp://127.0.0.1:${settings.mailPort}`,
    // Where nobody names a writing service, the stand-in is asked; each client says whether it may be.
    SIFT_REEL_WRITING_URL: process.env.SIFT_REEL_WRITING_URL ?? `http://127.0.0.1:${settings.standinsPort}/writing`,
    // Of addresses that are not public, the stand-in podcast host may be asked.
    SIFT_REEL_FETCH_FROM: process.env.SIFT_REEL_FETCH_FROM ?? `http://127.0.0.1:${settings.standinsPort}`,
    // Where nobody names platforms, the five stand-ins are posted to.
    SIFT_REEL_PLATFORMS: process.env.SIFT_REEL_PLATFORMS ?? platformsAt(`http://127.0.0.1:${settings.standinsPort}`),
    SIFT_REEL_SEALING_KEYS: process.env.SIFT_REEL_SEALING_KEYS ?? sealingKey(settings.dir),
    SIFT_REEL_PLATFORMS_DIR: join(settings.dir, 'platforms'),
    SIFT_REEL_SHOWS_DIR: join(settings.demoDir, 'shows'),
    SIFT_REEL_MADE_DIR: settings.demoDir,
    SIFT_REEL_MAIL_PORT: String(settings.mailPort),
    SIFT_REEL_STANDINS_PORT: String(settings.standinsPort),
    ...extra,
  };
}

const MAINS = { api: 'apps/server/dist/bundled/api.js', worker: 'apps/server/dist/bundled/worker.js', standins: 'apps/standins/dist/main.js' };

/** Starts `api`, `worker` or `standins` and waits until it says that it is ready. */
export function startService(part, env, { quiet = false } = {}) {
  // Detached: Ctrl-C reaches only us, and we stop the parts in their order.
  const child = spawn(process.execPath, [join(ROOT, MAINS[part])], {
    cwd: ROOT,
    env: { ...env, SIFT_REEL_PART: part },
    stdio: ['ignore', quiet ? 'ignore' : 'inherit', 'pipe', 'ipc'],
    detached: true,
  });
  let err = '';
  child.stderr.on('data', (chunk) => {
    err = (err + chunk).slice(-4000);
    if (!quiet) process.stderr.write(chunk);
  });
  const ended = new Promise((resolve) => child.once('close', (code, signal) => resolve({ code, signal })));
  const ready = new Promise((resolve, reject) => {
    child.once('message', () => resolve());
    ended.then(({ code, signal }) => reject(new SetupError(`The ${part} ended before it was ready (${code ?? signal}):\n${err}`)));
  });
  ready.catch(() => undefined);
  return {
    child,
    ready,
    ended,
    stop: async () => {
      if (child.exitCode !== null || child.signalCode !== null) return;
      process.kill(child.pid, 'SIGTERM');
      const timer = setTimeout(() => process.kill(child.pid, 'SIGKILL'), 15_000);
      await ended;
      clearTimeout(timer);
    },
  };
}
