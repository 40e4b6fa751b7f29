const MINUTE_MS = 60_000;
/** A feed is read every hour, unless it says how long it stays as it is; then not more often than this, and once a day at least. */
const [USUAL_MINUTES, LEAST_MINUTES] = [60, 15];
export const MOST_MINUTES = 24 * 60;

const later = (now: Date, minutes: number): Date => new Date(now.getTime() + minutes * MINUTE_MS);

/** When a feed is read next after it was read. @param ttlMinutes as it says (RSS 2.0, ttl), or null */
export function afterReading(now: Date, ttlMinutes: number | null): Date {
  return later(now, Math.min(MOST_MINUTES, Math.max(LEAST_MINUTES, ttlMinutes ?? USUAL_MINUTES)));
}

/**
 * When a feed is read next after it could not be, for the `misses`-th time in a row: after a quarter of an hour, then twice as long each
 * time, up to a day; not before the other side asked. @returns null for one that ended
 */
export function afterMiss(now: Date, misses: number, { afterMs, ended }: { readonly afterMs: number | null; readonly ended: boolean }): Date | null {
  if (ended) return null;
  const minutes = Math.min(MOST_MINUTES, LEAST_MINUTES * 2 ** Math.min(10, misses - 1));
  return new Date(now.getTime() + Math.max(minutes * MINUTE_MS, afterMs ?? 0));
}
