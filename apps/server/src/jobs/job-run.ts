import type { Database } from '../database/database.service.js';
import { JobOverError } from './job-kind.js';
import { COMPLETE, HOLD, REPORT } from './job-statements.js';

const REPORT_EVERY_MS = 400;
/** A gain that tells a speed. */
const LEAST_GAIN = 0.02;

/** One run of a job, as the work sees it. */
export class JobRun {
  private readonly stop = new AbortController();
  private readonly startedMs = Date.now();
  private firstFraction: number | null = null;
  private furthest = 0;
  private lastMs = 0;
  private lastStage = '';
  private writing: Promise<void> = Promise.resolve();

  constructor(
    private readonly database: Database,
    readonly jobId: string,
    readonly attempt: number,
    /** No other run follows if this one ends in a fault. */
    readonly isLast = false,
  ) {}

  /** Aborted when the run is over: cancelled, taken over, or its worker stops. The work stops where it is. */
  get signal(): AbortSignal {
    return this.stop.signal;
  }

  abort(reason: Error): void {
    this.stop.abort(reason);
  }

  /**
   * Tells where the run stands; most calls cost nothing, so it may be called often.
   * @param fraction 0 to 1, of all the work
   * @throws the reason when the run is over
   */
  report(stage: string, fraction: number): void {
    this.signal.throwIfAborted();
    const now = Date.now();
    if (stage === this.lastStage && now - this.lastMs < REPORT_EVERY_MS) return;
    this.firstFraction ??= fraction; // what was there already is no measure of speed
    this.lastMs = now;
    this.lastStage = stage;
    const gained = fraction - this.firstFraction;
    const leftMs = gained > LEAST_GAIN ? Math.round(((now - this.startedMs) * (1 - fraction)) / gained) : null;
    const told = (this.furthest = Math.max(this.furthest, Math.min(1, fraction))); // a stage may begin before where the last one ended
    this.writing = this.database.apart(() => this.writing.then(() => this.write(stage, told, leftMs)));
  }

  /**
   * Keeps what a stage made, so that the next run need not make it again. The job's row is held until it is written.
   * @throws JobOverError when the run was cancelled or taken over; nothing is written then
   */
  async keep<T>(act: () => Promise<T>): Promise<T> {
    await this.writing;
    return this.database.transaction(async () => {
      const rows = await this.database.run(HOLD, [this.jobId, this.attempt]);
      if (rows.length === 0) throw new JobOverError('cancelled or taken over');
      return act();
    });
  }

  /**
   * Ends the job as done, together with what `act` writes: both, or neither.
   * @throws JobOverError when the run was cancelled or taken over; nothing is written then
   */
  async complete(act: () => Promise<void> = () => Promise.resolve()): Promise<void> {
    await this.writing;
    await this.database.transaction(async () => {
      const rows = await this.database.run(COMPLETE, [this.jobId, this.attempt]);
      if (rows.length === 0) throw new JobOverError('cancelled or taken over');
      await act();
    });
  }

  /** Progress may be lost with the database's line; the line itself is watched elsewhere. */
  private async write(stage: string, fraction: number, leftMs: number | null): Promise<void> {
    const rows = await this.database.run(REPORT, [this.jobId, this.attempt, stage, fraction, leftMs]).catch(() => null);
    if (rows?.length === 0) this.abort(new JobOverError('cancelled or taken over'));
  }
}
