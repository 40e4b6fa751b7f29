import { Inject, Injectable } from '@nestjs/common';
import { Database } from '../database/database.service.js';
import type { PostingPlatform } from './platforms/platform.js';

/** Of what a platform allows, so much is asked: its clock and ours, and the way between, differ. */
const SHARE = 0.9;
/** Of that, so much may be asked at once; the rest evenly. */
const AT_ONCE = 0.3;

/** $1 account, $2 now, $3 ms between two calls, $4 ms that may be asked ahead */
const TAKE = `INSERT INTO account_paces AS a (account_id, due_at) VALUES ($1, $2::timestamptz + $3 * interval '1 millisecond')
ON CONFLICT (account_id) DO UPDATE SET due_at = greatest(a.due_at, $2::timestamptz) + $3 * interval '1 millisecond'
WHERE a.held_until <= $2 AND greatest(a.due_at, $2::timestamptz) - $2::timestamptz <= $4 * interval '1 millisecond' RETURNING account_id`;
const WAIT = `SELECT held_until AS "heldUntil", held_why AS "heldWhy", due_at AS "dueAt" FROM account_paces WHERE account_id = $1`;
/** $1 account, $2 until, $3 why */
const HOLD = `INSERT INTO account_paces (account_id, held_until, held_why) VALUES ($1, $2, $3)
ON CONFLICT (account_id) DO UPDATE SET held_until = greatest(account_paces.held_until, excluded.held_until), held_why = excluded.held_why`;

export interface PaceWait {
  readonly ms: number;
  /** What the platform said, where it asked us to wait. */
  readonly why: string | null;
}

/**
 * Keeps to a platform's limit of calls for each account, over all workers: one row an account, changed by one statement. It is the generic
 * cell rate algorithm (ITU-T I.371, annex A; from memory): in no stretch as long as the platform's are there more calls than a burst and
 * what an even pace adds to it, which together are less than it allows.
 */
@Injectable()
export class Pace {
  constructor(@Inject(Database) private readonly database: Database) {}

  /** Takes the right to one call. @returns null, or how long to wait before asking again */
  async take(accountId: string, { calls, perMs }: PostingPlatform['pace'], nowMs: number): Promise<PaceWait | null> {
    const burst = Math.max(1, Math.floor(calls * SHARE * AT_ONCE));
    const betweenMs = perMs / Math.max(1, calls * SHARE - burst);
    const aheadMs = (burst - 1) * betweenMs;
    const now = new Date(nowMs);
    if ((await this.database.run(TAKE, [accountId, now, betweenMs, aheadMs])).length > 0) return null;
    const [row] = await this.database.run<{ heldUntil: Date | number; heldWhy: string | null; dueAt: Date | number }>(WAIT, [accountId]);
    const held = Number(row?.heldUntil ?? 0) - nowMs; // minus infinity is a number here
    const due = Number(row?.dueAt ?? 0) - aheadMs - nowMs;
    return { ms: Math.max(1, held, due), why: held > 0 ? (row?.heldWhy ?? null) : null };
  }

  /** Nothing is asked of an account for so long, whoever wants to: its platform said so. */
  async hold(accountId: string, untilMs: number, why: string): Promise<void> {
    await this.database.run(HOLD, [accountId, new Date(untilMs), why]);
  }
}
