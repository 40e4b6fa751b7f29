import { type BaseQueryFn, createApi, type FetchArgs, fetchBaseQuery, type FetchBaseQueryError, type FetchBaseQueryMeta } from '@reduxjs/toolkit/query/react';
import { sessionEnded, untilSignedIn } from './session.js';

let csrfToken = '';

/** The session's token against forged requests comes with every answer that tells of a session, and is sent with every request. */
function takeToken(answer: unknown): void {
  const token = (answer as { csrfToken?: unknown } | null | undefined)?.csrfToken;
  if (typeof token === 'string') csrfToken = token;
}

export function csrfHeader(): string {
  return csrfToken;
}

const send = fetchBaseQuery({
  baseUrl: '/',
  prepareHeaders: (headers) => {
    if (csrfToken !== '') headers.set('x-csrf-token', csrfToken);
    return headers;
  },
});

let requests = 0;

/** Counts requests, so that an answer can be told to be older than a change. */
export function nextRequest(): number {
  requests += 1;
  return requests;
}

export type Meta = FetchBaseQueryMeta & { readonly request_: number };

/** Signing in and asking who one is are answered 401 as they are. */
const OPEN = /^\/?api\/(?:session|invitations\/[^/]+)$/;

/**
 * Forms come out of their check as instances of their class, which fetchBaseQuery would not take for JSON. A request that
 * is refused because the session ended waits for somebody to sign in over the screen, and is sent again.
 */
const sendPlain: BaseQueryFn<string | FetchArgs, unknown, FetchBaseQueryError, object, Meta> = async (args, api, extra) => {
  const body: unknown = typeof args === 'string' ? undefined : args.body;
  const plain = typeof args === 'string' || body === undefined ? args : { ...args, body: structuredClone(body) };
  const url = typeof args === 'string' ? args : args.url;
  for (;;) {
    const number = nextRequest();
    const answer = await send(plain, api, extra);
    takeToken(answer.data); // here and nowhere else: a screen may still show the session before
    if (answer.error?.status !== 401 || OPEN.test(url)) {
      const meta = { ...answer.meta, request_: number } as Meta;
      return answer.error === undefined ? { data: answer.data, meta } : { error: answer.error, meta };
    }
    api.dispatch(sessionEnded());
    await untilSignedIn();
  }
};

/** The one API of the web app; the generated endpoints are injected into it. */
export const baseApi = createApi({
  baseQuery: sendPlain,
  keepUnusedDataFor: 300,
  // What others change is looked for when one comes back to the window, or the line comes back.
  refetchOnFocus: true,
  refetchOnReconnect: true,
  endpoints: () => ({}),
});
