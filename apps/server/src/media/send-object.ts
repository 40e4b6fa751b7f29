import { pipeline } from 'node:stream/promises';
import type { Response } from 'express';
import type { ObjectStore } from './object-store.js';

/** What is said of a file that is sent. */
export interface Sending {
  readonly type: string;
  readonly cacheControl: string;
  readonly disposition?: string;
}

/** One range of RFC 9110; more of them, and other units, are not answered by, as that allows. */
const ONE_RANGE = /^bytes=(?:\d+-\d*|-\d+)$/;

/** Answers with an object, or with a stretch of it, as it comes from the store. Whoever goes away ends the reading. */
export async function sendObject(response: Response, objects: ObjectStore, key: string, { type, cacheControl, disposition }: Sending): Promise<void> {
  const asked = response.req.headers.range;
  const gone = new AbortController();
  response.on('close', () => gone.abort());
  try {
    const { stream, status, bytes, contentRange } = await objects.read(key, asked !== undefined && ONE_RANGE.test(asked) ? asked : undefined, gone.signal);
    // Not before it is there: what is said of the file must not be said of an error.
    response.status(status).setHeader('Content-Length', bytes);
    response.setHeader('Accept-Ranges', 'bytes').setHeader('Content-Type', type).setHeader('Cache-Control', cacheControl);
    if (disposition !== undefined) response.setHeader('Content-Disposition', disposition);
    if (contentRange !== undefined) response.setHeader('Content-Range', contentRange);
    if (response.req.method === 'HEAD') {
      stream.destroy();
      response.end();
    } else await pipeline(stream, response);
  } catch (error) {
    if (gone.signal.aborted) return;
    if (error instanceof RangeError) {
      response.status(416).setHeader('Content-Range', `bytes */${await objects.sizeOf(key)}`);
      response.end();
    } else if (response.headersSent) response.destroy();
    else throw error;
  }
}
