import { basename } from 'node:path';

/** What a file at an address is called. */
export function fileName(url: string): string {
  const { pathname, hostname } = new URL(url);
  let name = basename(pathname);
  try {
    name = decodeURIComponent(name);
  } catch {
    // as it is written, then
  }
  return name.replace(/[\0/\\\p{Cc}\p{Surrogate}]/gu, '').slice(0, 255) || hostname;
}
