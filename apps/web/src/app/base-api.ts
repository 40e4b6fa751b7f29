import { createApi, fetchBaseQuery } from '@reduxjs/toolkit/query/react';

let csrfToken = '';

/** The session's token against forged requests; sent with every request. */
export function setCsrfToken(token: string): void {
  csrfToken = token;
}

export function csrfHeader(): string {
  return csrfToken;
}

/** The one API of the web app; the generated endpoints are injected into it. */
export const baseApi = createApi({
  baseQuery: fetchBaseQuery({
    baseUrl: '/',
    prepareHeaders: (headers) => {
      if (csrfToken !== '') headers.set('x-csrf-token', csrfToken);
      return headers;
    },
  }),
  keepUnusedDataFor: 300,
  endpoints: () => ({}),
});
