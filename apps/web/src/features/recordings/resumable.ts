import { type DetailedError, Upload } from 'tus-js-client';
import { csrfHeader } from '../../app/base-api.js';
import { sessionEnded, untilSignedIn } from '../../app/session.js';
import { store } from '../../app/store.js';

/** Sent at a time: so much is sent again at most where the line breaks without a word. */
const PIECE_BYTES = 16 * 1_024 * 1_024;
/** How long it waits before it tries again, time after time; from the start once something went through. Some ten minutes in all. */
const WAITS_MS = [0, 1_000, 3_000, 5_000, 10_000, 20_000, 30_000, 60_000, 60_000, 60_000, 120_000, 240_000];

/** A file that is on the server in whole, to be brought in by its id. */
export interface SentFile {
  readonly id: string;
  /** It was brought in: the browser need not remember it any more. */
  forget(): void;
}

/**
 * Sends a file in pieces, after the tus protocol. Where the line breaks it goes on by itself; where the browser was closed, it
 * goes on as soon as the same file is brought again.
 * @param onProgress told the bytes that are there, and all of them
 * @throws Error that says in words why it cannot be sent; AbortError once `signal` says so, and nothing is left of it then
 */
export async function sendInPieces(file: File, onProgress: (sent: number, all: number) => void, signal?: AbortSignal): Promise<SentFile> {
  let known: string | null = null;
  const upload = new Upload(file, {
    endpoint: '/api/uploads',
    chunkSize: PIECE_BYTES,
    retryDelays: WAITS_MS,
    metadata: { filename: file.name },
    onBeforeRequest: async (request) => {
      if (store.getState().session.ended) await untilSignedIn();
      request.setHeader('x-csrf-token', csrfHeader());
    },
    onShouldRetry: (error) => {
      const status = statusOf(error);
      // The session ended: it waits until somebody signs in over the screen.
      if (status === 401) store.dispatch(sessionEnded());
      return status === 0 || status === 401 || status === 403 || status === 409 || status === 423 || status >= 500;
    },
    onUploadUrlAvailable: () => {
      known = upload.url?.split('/').at(-1) ?? null;
    },
    onProgress,
  });
  const earlier = (await upload.findPreviousUploads()).at(-1);
  if (earlier !== undefined) upload.resumeFromPreviousUpload(earlier);
  await new Promise<void>((resolve, reject) => {
    upload.options.onSuccess = () => resolve();
    upload.options.onError = reject;
    signal?.addEventListener('abort', () => {
      void upload.abort(true).catch(() => undefined);
      reject(new DOMException('stopped', 'AbortError'));
    });
    upload.start();
  });
  return {
    id: known ?? upload.url!.split('/').at(-1)!,
    forget: () =>
      void upload.findPreviousUploads().then((all) => {
        for (const { urlStorageKey } of all) void upload.options.urlStorage?.removeUpload(urlStorageKey);
      }),
  };
}

const statusOf = (error: Error | DetailedError): number => ('originalResponse' in error ? (error.originalResponse?.getStatus() ?? 0) : 0);

/** What the server said when it refused, as JSON; undefined where it said nothing. */
export function bodyOf(error: unknown): unknown {
  try {
    return JSON.parse((error as DetailedError).originalResponse?.getBody() ?? '');
  } catch {
    return undefined;
  }
}
