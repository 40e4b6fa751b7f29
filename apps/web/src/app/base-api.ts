import { type BaseQueryFn, createApi, type FetchArgs, fetchBaseQuery, type FetchBaseQueryError } from '@reduxjs/toolkit/query/react';

let csrfToken = '';

/** The session's token against forged requests; sent with every request. */
export function setCsrfToken(token: string): void {
  csrfToken = token;
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

/** Forms come out of their check as instances of their class, which fetchBaseQuery would not take for JSON. */
const sendPlain: BaseQueryFn<string | FetchArgs, unknown, FetchBaseQueryError> = (args, api, extra) => {
  const body: unknown = typeof args === 'string' ? undefined : args.body;
  return send(typeof args === 'string' || body === undefined ? args : { ...args, body: structuredClone(body) }, api, extra);
};

/** The one API of the web app; the generated endpoints are injected into it. */
export const baseApi = createApi({
  baseQuery: sendPlain,
  keepUnusedDataFor: 300,
  endpoints: () => ({}),
});
