// Where things are. Every path and port comes from the environment, with a default, and is checked here.
import { fileURLToPath } from 'node:url';
import { join, resolve } from 'node:path';

export const ROOT = resolve(fileURLToPath(new URL('../..', import.meta.url)));

/** @param {'live' | 'test'} profile its own database, ports and files */
export function settings(profile) {
  const defaults =
    profile === 'live' ? { port: 4310, pgPort: 4311, mailPort: 4312, standinsPort: 4313 } : { port: 4320, pgPort: 4321, mailPort: 4322, standinsPort: 4323 };
  const varDir = resolve(process.env.SIFT_REEL_VAR_DIR ?? join(ROOT, 'var'));
  const dir = join(varDir, profile);
  const prefix = profile === 'live' ? 'SIFT_REEL' : 'SIFT_REEL_TEST';
  return {
    profile,
    dir,
    demoDir: join(varDir, 'demo'),
    host: '127.0.0.1',
    port: portOf(`${prefix}_PORT`, defaults.port),
    pgPort: portOf(`${prefix}_PG_PORT`, defaults.pgPort),
    mailPort: portOf(`${prefix}_MAIL_PORT`, defaults.mailPort),
    standinsPort: portOf(`${prefix}_STANDINS_PORT`, defaults.standinsPort),
    mediaDir: resolve(process.env[`${prefix}_MEDIA_DIR`] ?? join(dir, 'media')),
    webDir: join(ROOT, 'apps/web/dist'),
  };
}

function portOf(name, fallback) {
  const text = process.env[name];
  if (text === undefined || text === '') return fallback;
  const port = Number(text);
  if (!Number.isInteger(port) || port < 1024 || port > 65535) throw new SetupError(`${name} must be a port from 1024 to 65535, found “${text}”`);
  return port;
}

/** Something is missing or in the way; the message says what to do. */
export class SetupError extends Error {}

export const say = (text) => process.stdout.write(`${text}\n`);

/** Runs a script's main function; a SetupError ends it with its message and code 1. */
export async function runMain(main) {
  try {
    await main();
  } catch (error) {
    process.stderr.write(`${error instanceof SetupError ? error.message : error.stack}\n`);
    process.exit(1);
  }
}
