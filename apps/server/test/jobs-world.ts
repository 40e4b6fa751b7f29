import { randomUUID } from 'node:crypto';
import { type ChildProcess, spawn } from 'node:child_process';
import { setTimeout as wait } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';
import pg from 'pg';

/** Runs of the test's works, and what they did for good. */
const TABLES = `
  CREATE TABLE IF NOT EXISTS beats (job_id uuid NOT NULL, attempt integer NOT NULL, pid integer NOT NULL, at timestamptz NOT NULL DEFAULT clock_timestamp());
  CREATE TABLE IF NOT EXISTS deeds (job_id uuid NOT NULL, attempt integer NOT NULL);
`;

export interface TestWorker {
  readonly pid: number;
  readonly ended: Promise<{ code: number | null; signal: string | null }>;
  kill(signal: NodeJS.Signals): void;
}

/** Jobs of small kinds, and processes that work on them. */
export class JobsWorld {
  private readonly workers: { child: ChildProcess; ended: Promise<unknown> }[] = [];
  constructor(readonly url: string) {}

  async setUp(): Promise<void> {
    await this.query(TABLES);
  }

  async query<T = Record<string, unknown>>(sql: string, values: readonly unknown[] = []): Promise<T[]> {
    const client = new pg.Client({ connectionString: this.url });
    client.on('error', () => undefined); // the query itself says so
    await client.connect();
    try {
      return (await client.query(sql, [...values])).rows as T[];
    } finally {
      await client.end();
    }
  }

  async client(): Promise<string> {
    const [row] = await this.query<{ id: string }>(`INSERT INTO clients (name, zone, standing_brief) VALUES ($1, 'UTC', '{}') RETURNING id`, [
      `Client ${randomUUID()}`,
    ]);
    return row!.id;
  }

  /** @returns the id of the new job */
  async enqueue(kind: string, clientId: string, size = 'short'): Promise<string> {
    const lockKey = kind === 'shared' ? 'shared:the one thing' : null;
    const [row] = await this.query<{ id: string }>(
      `INSERT INTO jobs (kind, subject_id, client_id, lock_key, size) SELECT $1, s, $2, coalesce($4, $1 || ':' || s), $3 FROM gen_random_uuid() AS s RETURNING id`,
      [kind, clientId, size, lockKey],
    );
    return row!.id;
  }

  async job(id: string): Promise<{ state: string; attempt: number; faults: number; crashes: number; failure: string | null; stage: string; fraction: number }> {
    const [row] = await this.query('SELECT * FROM jobs WHERE id = $1', [id]);
    return row as never;
  }

  async startWorker(): Promise<TestWorker> {
    const child = spawn(process.execPath, [fileURLToPath(new URL('../dist/bundled-tests/jobs-worker.js', import.meta.url))], {
      env: { ...process.env, SIFT_REEL_DATABASE_URL: this.url, SIFT_REEL_PART: 'test worker', SIFT_REEL_LOG_LEVEL: 'silent' },
      stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    });
    const ended = new Promise<{ code: number | null; signal: string | null }>((resolve) => child.once('close', (code, signal) => resolve({ code, signal })));
    this.workers.push({ child, ended });
    await Promise.race([new Promise((resolve) => child.once('message', resolve)), ended]);
    return { pid: child.pid!, ended, kill: (signal) => child.kill(signal) };
  }

  async stopWorkers(): Promise<void> {
    for (const { child } of this.workers) child.kill('SIGKILL');
    await Promise.all(this.workers.splice(0).map(({ ended }) => ended));
  }
}

/** Waits until something holds; a busy machine may be slow, and what does not come at all is said. */
export async function until(what: string, holds: () => Promise<boolean>, patienceMs = 60_000): Promise<void> {
  const end = Date.now() + patienceMs;
  while (!(await holds())) {
    if (Date.now() > end) throw new Error(`${what}: it does not come to it`);
    await wait(50);
  }
}
