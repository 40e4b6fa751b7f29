/** No platform is believed to mean longer. */
const LONGEST_MS = 48 * 3_600_000;

/**
 * How long an answer asks to wait (RFC 9110, section 10.2.3), in ms; null where it does not say, or says nothing that can be read. A moment
 * is held against the answer's own date, so that a clock that differs from ours makes no difference.
 */
export function retryAfterMs(headers: Headers, nowMs: number): number | null {
  const text = headers.get('retry-after')?.trim() ?? '';
  if (/^\d{1,9}$/.test(text)) return Math.min(LONGEST_MS, Number(text) * 1_000);
  // An HTTP date; other texts that Date.parse would take are none.
  const until = /^[A-Z][a-z]{2,8}(?:,| )/.test(text) ? Date.parse(text) : Number.NaN;
  if (Number.isNaN(until)) return null;
  const dated = Date.parse(headers.get('date') ?? '');
  return Math.min(LONGEST_MS, Math.max(0, until - (Number.isNaN(dated) ? nowMs : dated)));
}
