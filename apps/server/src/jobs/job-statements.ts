import { MOST_CRASHES } from './job-kind.js';

// Every change of a job, as plain text. A trigger of the table tells browsers and workers of each (job_changed, job_waiting,
// job_cancelled), so that no statement can forget to.

/** The session lock that says: somebody works on this. It falls with the connection of whoever holds it. */
const LOCK = (lockKey: string): string => `hashtextextended('job:' || ${lockKey}, 0)`;
export const TRY_LOCK = `SELECT pg_try_advisory_lock(${LOCK('$1')}) AS held`;
export const UNLOCK = `SELECT pg_advisory_unlock(${LOCK('$1')})`;

const HELD = `EXISTS (SELECT FROM pg_locks WHERE locktype = 'advisory' AND objsubid = 1 AND granted
  AND ((classid::bigint << 32) | objid::bigint) = ${LOCK('jobs.lock_key')}
  AND database = (SELECT oid FROM pg_database WHERE datname = current_database()))`;

/** Asks for a job, or for a finished one again: a new count of faults and crashes. $1 kind, subject, client, about, lock key, size, $7 one that is done, too */
export const ENQUEUE = `INSERT INTO jobs (kind, subject_id, client_id, about, lock_key, size) VALUES ($1, $2, $3, $4, $5, $6)
ON CONFLICT (kind, subject_id) DO UPDATE SET state = 'waiting', stage = 'waiting', fraction = 0, left_ms = NULL, faults = 0, crashes = 0,
  failure = NULL, due_at = now(), lost_at = NULL, finished_at = NULL, size = excluded.size
  WHERE jobs.state IN ('failed', 'cancelled') OR ($7 AND jobs.state = 'done') RETURNING id`;

/** $1 kind, $2 subject */
export const CANCEL = `UPDATE jobs SET state = 'cancelled', stage = 'cancelled', left_ms = NULL, finished_at = now()
WHERE kind = $1 AND subject_id = $2 AND state IN ('waiting', 'running') RETURNING id`;

/**
 * Jobs that may start now: what is needed soonest, then the fairest first: of the client that has least at work, then of the one that
 * was served longest ago. `neededAt` as a queue tells it; $1 kinds, $2 whether long ones may, $3 lock keys that this worker still holds. Rows are held to the end of the
 * transaction; those that another worker looks at are passed over.
 */
export const claimable = (neededAt = 'NULL::timestamptz'): string => `SELECT id, kind, subject_id AS "subjectId", lock_key AS "lockKey", size FROM jobs
WHERE state = 'waiting' AND due_at <= now() AND kind = ANY ($1) AND (size = 'short' OR $2) AND lock_key <> ALL ($3)
  AND NOT EXISTS (SELECT FROM jobs other WHERE other.lock_key = jobs.lock_key AND other.state = 'running')
ORDER BY (${neededAt}) NULLS LAST, (SELECT count(*) FROM jobs other WHERE other.client_id = jobs.client_id AND other.state = 'running'),
  (SELECT max(other.started_at) FROM jobs other WHERE other.client_id = jobs.client_id) NULLS FIRST, due_at, id
LIMIT 8 FOR UPDATE SKIP LOCKED`;

/** $1 id */
export const START = `UPDATE jobs SET state = 'running', stage = 'starting', fraction = 0, left_ms = NULL, attempt = attempt + 1, lost_at = NULL,
  failure = NULL, started_at = now() WHERE id = $1 AND state = 'waiting' RETURNING attempt, faults`;

const THIS_RUN = `id = $1 AND attempt = $2 AND state = 'running'`;
/** $1 id, $2 attempt, $3 stage, $4 fraction, $5 ms left */
export const REPORT = `UPDATE jobs SET stage = $3, fraction = $4, left_ms = $5 WHERE ${THIS_RUN} RETURNING id`;
/** While the transaction lasts, nobody ends or takes over the run. $1 id, $2 attempt */
export const HOLD = `SELECT id FROM jobs WHERE ${THIS_RUN} FOR UPDATE`;
/** $1 id, $2 attempt */
export const COMPLETE = `UPDATE jobs SET state = 'done', stage = 'done', fraction = 1, left_ms = 0, failure = NULL, finished_at = now() WHERE ${THIS_RUN} RETURNING id`;
/** $1 id, $2 attempt, $3 reason */
export const FAIL = `UPDATE jobs SET state = 'failed', stage = 'failed', left_ms = NULL, failure = $3, finished_at = now() WHERE ${THIS_RUN}`;
/** After a fault: $1 id, $2 attempt, $3 ms to wait, $4 why, where that is of use to the producer, else null */
export const RUN_LATER = `UPDATE jobs SET state = 'waiting', stage = 'waiting', left_ms = NULL, faults = faults + 1, failure = $4,
  due_at = now() + $3 * interval '1 millisecond' WHERE ${THIS_RUN}`;
/** Unfinished, through no fault of the job: $1 id, $2 attempt, $3 ms to wait, $4 why, where that is of use to the producer, else null */
export const HAND_BACK = `UPDATE jobs SET state = 'waiting', stage = 'waiting', left_ms = NULL, failure = $4,
  due_at = now() + $3 * interval '1 millisecond' WHERE ${THIS_RUN}`;

/** Runs whose worker is gone are marked first… */
export const MARK_LOST = `UPDATE jobs SET lost_at = now() WHERE state = 'running' AND lost_at IS NULL AND NOT ${HELD}`;
/** …unmarked when somebody holds them after all… */
export const UNMARK = `UPDATE jobs SET lost_at = NULL WHERE state = 'running' AND lost_at IS NOT NULL AND ${HELD}`;
/** …and go back into the queue $1 ms later, when a worker that only lost its line has had time to stop or to hand back. */
export const TAKE_BACK = `UPDATE jobs SET crashes = crashes + 1, lost_at = NULL, left_ms = NULL,
  state = CASE WHEN crashes + 1 >= ${MOST_CRASHES} THEN 'failed' ELSE 'waiting' END,
  stage = CASE WHEN crashes + 1 >= ${MOST_CRASHES} THEN 'failed' ELSE 'waiting' END,
  failure = CASE WHEN crashes + 1 >= ${MOST_CRASHES} THEN 'It took its worker down ${MOST_CRASHES} times, so it is set aside. Run it again when the cause is known.' END,
  finished_at = CASE WHEN crashes + 1 >= ${MOST_CRASHES} THEN now() END,
  due_at = now() + crashes * interval '2 seconds'
WHERE state = 'running' AND lost_at < now() - $1 * interval '1 millisecond' AND NOT ${HELD} RETURNING id, kind, crashes`;
