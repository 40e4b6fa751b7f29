import { QueryTypes } from 'sequelize';
import type { Sequelize } from 'sequelize-typescript';
import { PROGRESS_CHANNEL, type SiftProgressEvent } from '../jobs/progress.service.js';
import { SiftCancelledError } from './errors.js';
import type { Sift, SiftState } from './sifting.models.js';

const REPORT_EVERY_MS = 400;

/** Writes a sift's progress to its row and tells the browsers; hears there whether the producer wants it to stop. */
export class ProgressReporter {
  private startedMs = 0;
  private startedFraction: number | null = null;
  private lastMs = 0;
  private lastStage = '';
  constructor(
    private readonly sequelize: Sequelize,
    private readonly sift: Sift,
  ) {}

  async start(): Promise<void> {
    this.startedMs = Date.now();
    await this.write('running', 'reading', 0, null);
  }

  /** @throws SiftCancelledError when the producer asked for it */
  async report(stage: string, fraction: number): Promise<void> {
    const now = Date.now();
    if (stage === this.lastStage && now - this.lastMs < REPORT_EVERY_MS) return;
    this.startedFraction ??= fraction; // what the cache had is no measure of speed
    this.lastMs = now;
    this.lastStage = stage;
    const gained = fraction - this.startedFraction;
    const leftMs = gained > 0.02 ? Math.round(((now - this.startedMs) * (1 - fraction)) / gained) : null;
    if (await this.write('running', stage, fraction, leftMs)) throw new SiftCancelledError('cancelled by the producer');
  }

  async done(): Promise<void> {
    await this.notify({ state: 'done', stage: 'done', fraction: 1, leftMs: 0 });
  }

  async cancelled(): Promise<void> {
    await this.finish('cancelled', null);
  }

  async failed(failure: string): Promise<void> {
    await this.finish('failed', failure.slice(0, 1_000));
  }

  private async finish(state: SiftState, failure: string | null): Promise<void> {
    await this.sequelize.query(
      `UPDATE sifts SET state = $2, failure = $3, finished_at = now(), left_ms = NULL WHERE id = $1 AND state IN ('waiting', 'running')`,
      { bind: [this.sift.id, state, failure], type: QueryTypes.UPDATE },
    );
    await this.notify({ state, stage: state, fraction: 0, leftMs: null });
  }

  /** @returns whether a stop was asked for */
  private async write(state: SiftState, stage: string, fraction: number, leftMs: number | null): Promise<boolean> {
    const rows = await this.sequelize.query<{ cancelAsked: boolean }>(
      `UPDATE sifts SET state = $2, stage = $3, fraction = $4, left_ms = $5 WHERE id = $1 AND state IN ('waiting', 'running') RETURNING cancel_asked AS "cancelAsked"`,
      { bind: [this.sift.id, state, stage, fraction, leftMs], type: QueryTypes.SELECT },
    );
    await this.notify({ state, stage, fraction, leftMs });
    return rows[0]?.cancelAsked ?? true;
  }

  private async notify(fields: Pick<SiftProgressEvent, 'state' | 'stage' | 'fraction' | 'leftMs'>): Promise<void> {
    const event: SiftProgressEvent = { siftId: this.sift.id, recordingId: this.sift.recordingId, clientId: this.sift.clientId, ...fields };
    await this.sequelize.query('SELECT pg_notify($1, $2)', { bind: [PROGRESS_CHANNEL, JSON.stringify(event)], type: QueryTypes.SELECT });
  }
}
