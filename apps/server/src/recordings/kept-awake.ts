import type { ServerResponse } from 'node:http';

/** A quarter of what browsers, and what stands between, wait at the least for a sign of life. */
const EVERY_MS = 15_000;

/**
 * Tells whoever waits for an answer, now and then, that it is being worked on (102, RFC 2518, 10.1), so that no line is cut for its
 * silence. A client reads past it to the answer itself (RFC 9110, 15.2).
 */
export async function keptAwake<T>(response: ServerResponse, work: Promise<T>, everyMs = EVERY_MS): Promise<T> {
  const awake = setInterval(() => {
    if (!response.headersSent && !response.destroyed) response.writeProcessing();
  }, everyMs);
  try {
    return await work;
  } finally {
    clearInterval(awake);
  }
}
