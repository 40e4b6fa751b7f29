import { ConfigError } from './config/config.js';

/** Whatever still hangs on a server that was told to stop, it is gone within five seconds. */
const GONE_AFTER_MS = 4_700;

/**
 * Starts a server of ours as a process: says when it is ready, ends with whoever started it (even when that is killed and
 * can say nothing more), and ends in time when it is told to. What keeps it from starting is said in plain words.
 */
export async function startPart(start: () => Promise<void>): Promise<void> {
  for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => setTimeout(() => process.exit(0), GONE_AFTER_MS).unref());
  try {
    await start();
    if (process.send !== undefined) process.on('disconnect', () => process.kill(process.pid, 'SIGTERM'));
    process.send?.({ ready: true });
  } catch (error) {
    process.stderr.write(`${inWords(error)}\n`);
    process.exit(1);
  }
}

function inWords(error: unknown): string {
  if (error instanceof ConfigError) return error.message;
  const { code, port } = error as { code?: unknown; port?: unknown };
  if (code === 'EADDRINUSE') return `The port ${String(port)} is in use.`;
  return error instanceof Error ? (error.stack ?? error.message) : String(error);
}
