import { t } from '../texts/texts.js';

/** What the server says went wrong (RFC 9457 problem details). */
export interface Problem {
  readonly status: number;
  readonly detail: string;
  readonly errors?: readonly { readonly field: string; readonly detail: string }[];
  /** `stale`: somebody else changed it since it was seen; `unsaid`: words need a tick. */
  readonly code?: string;
  /** What it is now, where it is stale. */
  readonly current?: unknown;
}

/** The problem in an error of RTK Query or of an upload, or null. */
export function problemOf(error: unknown): Problem | null {
  const data = (error as { data?: unknown } | null)?.data ?? error;
  return typeof data === 'object' && data !== null && typeof (data as Problem).detail === 'string' ? (data as Problem) : null;
}

/** What happened, in words that say what to do. */
export function problemText(error: unknown): string {
  const problem = problemOf(error);
  if (problem !== null) return problem.detail;
  const status = (error as { status?: unknown } | null)?.status;
  if (status === 'FETCH_ERROR' || status === 'TIMEOUT_ERROR') return t('app.the-server-cannot-be-reached-what');
  return error instanceof Error ? error.message : t('app.something-went-wrong-nothing-was-changed');
}
