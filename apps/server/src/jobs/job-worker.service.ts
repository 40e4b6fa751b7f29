import { setTimeout as wait } from 'node:timers/promises';
import { Inject, Injectable, type BeforeApplicationShutdown, type OnApplicationBootstrap } from '@nestjs/common';
import type pg from 'pg';
import { ConnectionError } from 'sequelize';
import { CONFIG, type Config } from '../config/config.module.js';
import { log } from '../config/logger.js';
import { Database } from '../database/database.service.js';
import { DatabaseLine, LineLostError } from '../database/database-line.js';
import { sqlState } from '../database/sql-state.js';
import { StoreAwayError } from '../media/store-errors.js';
import { type JobKind, JobLaterError, JobOverError, type JobQueue, JobRefusedError } from './job-kind.js';
import { JobRun } from './job-run.js';
import { claimable, FAIL, HAND_BACK, MARK_LOST, RUN_LATER, START, TAKE_BACK, TRY_LOCK, UNLOCK, UNMARK } from './job-statements.js';

/** The work of a kind. It may run twice and stop anywhere: it ends with `run.complete`, and writes for good only in there. */
type JobWork = (subjectId: string, run: JobRun) => Promise<void>;

interface Claimed {
  readonly id: string;
  readonly kind: string;
  readonly subjectId: string;
  readonly lockKey: string;
  readonly size: 'short' | 'long';
  readonly attempt: number;
  readonly faults: number;
}

interface Running {
  readonly job: Claimed;
  readonly kind: JobKind;
  readonly run: JobRun;
  settled: Promise<void>;
}

/** Jobs are looked for when one is told of, and now and then, in case that was missed. */
const LOOK_EVERY_MS = 1_000;
const SWEEP_EVERY_MS = 1_000;
/** A worker whose line broke stops its runs at once; after this nothing of them is at work any more. */
const GRACE_MS = 2_000;
/** Time to stop in when the worker is told to; the rest of five seconds is for closing. */
const STOP_MS = 3_500;
/** So long after the store could not be reached it is asked again. */
const STORE_AWAY_MS = 5_000;
/** States of PostgreSQL that say: not now, and through no fault of the work. */
const DATABASE_GONE = /^(?:08|57P|53)/;
const SOCKET_GONE = new Set(['ECONNRESET', 'ECONNREFUSED', 'EPIPE']);

/**
 * Runs the jobs of every kind that was registered. A worker has one line of its own to the database. A job is claimed in one
 * transaction on it: the row is locked, the session lock taken, the state changed; a worker that dies before the end has
 * claimed nothing, and one that dies after it lets its lock fall, which every other worker sees within a second.
 */
@Injectable()
export class JobWorker implements OnApplicationBootstrap, BeforeApplicationShutdown {
  private readonly kinds = new Map<string, { kind: JobKind; work: JobWork }>();
  private readonly running = new Map<string, Running>();
  private readonly line: DatabaseLine;
  private readonly timers: NodeJS.Timeout[] = [];
  private stopping = false;
  private looking: Promise<void> = Promise.resolve();
  private again = false;

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(CONFIG) config: Config,
  ) {
    this.line = new DatabaseLine(config.databaseUrl, 'worker line', {
      listen: ['job_waiting', 'job_cancelled'],
      onNotification: (channel, payload) => {
        if (channel === 'job_waiting') this.look();
        else this.running.get(payload)?.run.abort(new JobOverError('cancelled'));
      },
      onOpen: () => this.look(),
      onLost: () => {
        for (const { run } of this.running.values()) run.abort(new LineLostError('the worker lost its line to the database'));
      },
    });
  }

  /** Registers the work of a kind, before the application starts. */
  register(kind: JobKind, work: JobWork): void {
    if (this.kinds.has(kind.name)) throw new Error(`two works for ${kind.name}`);
    this.kinds.set(kind.name, { kind, work });
  }

  async onApplicationBootstrap(): Promise<void> {
    await this.line.open();
    this.timers.push(setInterval(() => this.look(), LOOK_EVERY_MS));
    this.timers.push(setInterval(() => void this.sweep(), SWEEP_EVERY_MS));
    this.look();
    log.info({ kinds: [...this.kinds.keys()] }, 'worker is ready');
  }

  /** Fills free slots. One look at a time; a wish for another during it is remembered. */
  private look(): void {
    if (this.stopping || this.again) return;
    this.again = true;
    this.looking = this.looking.then(async () => {
      this.again = false;
      try {
        for (const queue of this.queues()) while (await this.claimOne(queue));
      } catch (error) {
        if (!(error instanceof LineLostError)) log.warn({ error: String(error) }, 'no job could be claimed');
      }
    });
  }

  private queues(): JobQueue[] {
    return [...new Map([...this.kinds.values()].map(({ kind }) => [kind.queue.name, kind.queue])).values()];
  }

  /** @returns whether a job was claimed */
  private async claimOne(queue: JobQueue): Promise<boolean> {
    const kinds = [...this.kinds.values()].filter(({ kind }) => kind.queue.name === queue.name).map(({ kind }) => kind.name);
    const mine = [...this.running.values()].filter(({ kind }) => kind.queue.name === queue.name);
    if (this.stopping || mine.length >= queue.slots) return false;
    const longOnes = mine.filter(({ job }) => job.size === 'long').length;
    const held = [...this.running.values()].map(({ job }) => job.lockKey);
    const job = await this.line.use((client) => claim(client, queue.neededAt, kinds, longOnes < queue.longSlots, held));
    if (job === null) return false;
    this.start(job);
    return true;
  }

  private start(job: Claimed): void {
    const { kind, work } = this.kinds.get(job.kind)!;
    const run = new JobRun(this.database, job.id, job.attempt, job.faults + 1 >= kind.attempts);
    const entry: Running = { job, kind, run, settled: Promise.resolve() };
    this.running.set(job.id, entry);
    log.info({ kind: job.kind, subjectId: job.subjectId, attempt: job.attempt }, 'job taken up');
    if (!this.line.isOpen) run.abort(new LineLostError('the worker lost its line to the database'));
    entry.settled = this.carryOut(job, kind, work, run)
      .catch((error: unknown) => log.error({ error: String(error) }, 'the end of a job could not be written'))
      .then(async () => {
        this.running.delete(job.id);
        await this.line.use((client) => client.query(UNLOCK, [job.lockKey])).catch(() => undefined); // gone with the line
        log.info({ kind: job.kind, subjectId: job.subjectId }, 'job left');
        this.look();
      });
  }

  private async carryOut(job: Claimed, kind: JobKind, work: JobWork, run: JobRun): Promise<void> {
    try {
      run.signal.throwIfAborted();
      await work(job.subjectId, run);
    } catch (error) {
      const reason: unknown = run.signal.aborted ? run.signal.reason : error;
      if (reason instanceof JobOverError) return;
      if (reason instanceof LineLostError || reason instanceof StoppingError || isDatabaseGone(reason)) {
        await this.write(HAND_BACK, [job.id, job.attempt, 0, null]);
        return;
      }
      if (reason instanceof StoreAwayError) {
        log.warn({ kind: job.kind, subjectId: job.subjectId, error: String(reason.cause) }, 'job handed back: the store is away');
        await this.write(HAND_BACK, [job.id, job.attempt, STORE_AWAY_MS, reason.message]);
        return;
      }
      const text = (reason instanceof Error ? reason.message : String(reason)).slice(0, 1_000);
      if (reason instanceof JobRefusedError) await this.write(FAIL, [job.id, job.attempt, text]);
      else if (reason instanceof JobLaterError) {
        log.info({ kind: job.kind, subjectId: job.subjectId }, 'job put off');
        const faults = job.faults + 1;
        if (faults >= kind.attempts) await this.write(FAIL, [job.id, job.attempt, text]);
        else await this.write(RUN_LATER, [job.id, job.attempt, Math.max(kind.backOffMs(faults), reason.afterMs ?? 0), text]);
      } else {
        log.error({ kind: job.kind, subjectId: job.subjectId, error: reason instanceof Error ? reason.stack : text }, 'job failed');
        const faults = job.faults + 1;
        if (faults >= kind.attempts) await this.write(FAIL, [job.id, job.attempt, `It stopped on a fault of the program: ${text}`]);
        else await this.write(RUN_LATER, [job.id, job.attempt, kind.backOffMs(faults), null]);
      }
    }
  }

  /** How a run ended is written as soon as the database is there; each statement holds for this run alone. */
  private async write(statement: string, values: readonly unknown[]): Promise<void> {
    for (let waitMs = 100; ; waitMs = Math.min(waitMs * 2, 2_000)) {
      try {
        await this.database.run(statement, values);
        return;
      } catch (error) {
        if (this.stopping || !isDatabaseGone(error)) throw error;
        await wait(waitMs);
      }
    }
  }

  /** Jobs whose worker is gone are taken back into the queue, or set aside when they took too many workers down. */
  private async sweep(): Promise<void> {
    try {
      const taken = await this.line.use(async (client) => {
        await client.query(UNMARK);
        const { rows } = await client.query<{ id: string; kind: string; crashes: number }>(TAKE_BACK, [GRACE_MS]);
        await client.query(MARK_LOST);
        return rows;
      });
      for (const { id, kind, crashes } of taken) log.warn({ jobId: id, kind, crashes }, 'job was left by a worker that is gone');
    } catch (error) {
      if (!(error instanceof LineLostError)) log.debug({ error: String(error) }, 'no sweep');
    }
  }

  /** Hands back what is at work, and is gone within five seconds. */
  async beforeApplicationShutdown(): Promise<void> {
    this.stopping = true;
    for (const timer of this.timers) clearInterval(timer);
    await this.looking;
    const left = [...this.running.values()];
    for (const { run } of left) run.abort(new StoppingError('the worker is shutting down'));
    await Promise.race([Promise.all(left.map(({ settled }) => settled)), wait(STOP_MS, undefined, { ref: false })]);
    await this.line.close();
  }
}

/** Claims the fairest job that may start, in one transaction: its row, its session lock and its new state, or none of them. */
async function claim(
  client: pg.Client,
  neededAt: string | undefined,
  kinds: readonly string[],
  longToo: boolean,
  held: readonly string[],
): Promise<Claimed | null> {
  let locked: string | null = null;
  try {
    await client.query('BEGIN');
    const { rows } = await client.query<Omit<Claimed, 'attempt' | 'faults'>>(claimable(neededAt), [kinds, longToo, held]);
    for (const row of rows) {
      const lock = await client.query<{ held: boolean }>(TRY_LOCK, [row.lockKey]);
      if (lock.rows[0]?.held !== true) continue; // a run that was cancelled is still stopping somewhere
      locked = row.lockKey;
      const started = await client.query<{ attempt: number; faults: number }>(START, [row.id]);
      await client.query('COMMIT');
      return { ...row, ...started.rows[0]! };
    }
    await client.query('ROLLBACK');
    return null;
  } catch (error) {
    await client.query('ROLLBACK').catch(() => undefined);
    if (locked !== null) await client.query(UNLOCK, [locked]).catch(() => undefined);
    throw error;
  }
}

class StoppingError extends Error {
  override readonly name = 'StoppingError';
}

/** The database went away, or will not take more just now. */
function isDatabaseGone(error: unknown): boolean {
  if (error instanceof ConnectionError || error instanceof LineLostError) return true;
  const code = sqlState(error) ?? (error as { code?: unknown } | null)?.code;
  if (typeof code === 'string' && (DATABASE_GONE.test(code) || SOCKET_GONE.has(code))) return true;
  return error instanceof Error && /connection (?:terminated|error|is closed)/i.test(error.message); // the driver gives these no code
}
