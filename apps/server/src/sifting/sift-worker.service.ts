import { Inject, Injectable, type BeforeApplicationShutdown, type OnApplicationBootstrap } from '@nestjs/common';
import { InjectConnection } from '@nestjs/sequelize';
import { Embedder } from '@sift-reel/embedder';
import pg from 'pg';
import { QueryTypes } from 'sequelize';
import { Sequelize } from 'sequelize-typescript';
import { CONFIG, type Config } from '../config/config.module.js';
import { log } from '../config/logger.js';
import { QueueService, SIFT_QUEUE, type SiftJob } from '../jobs/queue.service.js';
import { runSift } from './sift-runner.js';
import { databaseVectorCache } from './vector-cache.js';

const SWEEP_EVERY_MS = 3_000;
const LOCK = `hashtextextended('sift:' || $1, 0)`;

/**
 * Takes sifts from the queue, one at a time. While it works on one it holds an advisory lock of PostgreSQL, which falls
 * with its connection: a sift that says `running` while nobody holds its lock was left by a worker that is gone, and is
 * put back into the queue.
 */
@Injectable()
export class SiftWorker implements OnApplicationBootstrap, BeforeApplicationShutdown {
  private readonly stop = new AbortController();
  private readonly embedder: Embedder;
  private sweep: NodeJS.Timeout | null = null;
  private working: Promise<void> = Promise.resolve();
  constructor(
    @InjectConnection() private readonly sequelize: Sequelize,
    @Inject(QueueService) private readonly queue: QueueService,
    @Inject(CONFIG) private readonly config: Config,
  ) {
    this.embedder = new Embedder({ threads: config.vectorThreads, cache: databaseVectorCache(sequelize) });
  }

  async onApplicationBootstrap(): Promise<void> {
    await this.requeueLeft();
    this.sweep = setInterval(() => {
      this.requeueLeft().catch((error: unknown) => log.error({ error: String(error) }, 'sweep failed'));
    }, SWEEP_EVERY_MS);
    await this.queue.boss.work<SiftJob>(SIFT_QUEUE, { batchSize: 1, pollingIntervalSeconds: 0.5 }, async ([job]) => {
      if (job === undefined) return;
      this.working = this.take(job.data.siftId);
      await this.working;
    });
    log.info('worker is ready');
  }

  private async take(siftId: string): Promise<void> {
    const lock = new pg.Client({ connectionString: this.config.databaseUrl });
    await lock.connect();
    try {
      const { rows } = await lock.query<{ held: boolean }>(`SELECT pg_try_advisory_lock(${LOCK}) AS held`, [siftId]);
      if (rows[0]?.held !== true) return; // another worker is on it
      log.info({ siftId }, 'sift taken up');
      await runSift(siftId, { sequelize: this.sequelize, embedder: this.embedder, mediaDir: this.config.mediaDir }, this.stop.signal);
      log.info({ siftId }, 'sift left');
    } finally {
      await lock.end();
    }
  }

  /** Sifts that nobody works on any more go back into the queue, each once. */
  private async requeueLeft(): Promise<void> {
    await this.sequelize.transaction(async (transaction) => {
      const rows = await this.sequelize.query<{ id: string }>(
        `UPDATE sifts SET state = 'waiting' WHERE state = 'running' AND NOT EXISTS (
           SELECT 1 FROM pg_locks WHERE locktype = 'advisory' AND objsubid = 1
             AND ((classid::bigint << 32) | objid::bigint) = hashtextextended('sift:' || sifts.id::text, 0)
             AND database = (SELECT oid FROM pg_database WHERE datname = current_database())) RETURNING id`,
        { transaction, type: QueryTypes.SELECT },
      );
      for (const { id } of rows) {
        log.warn({ siftId: id }, 'sift was left unfinished; it is put back into the queue');
        await this.queue.sendSift(id, transaction);
      }
    });
  }

  async beforeApplicationShutdown(): Promise<void> {
    if (this.sweep !== null) clearInterval(this.sweep);
    this.stop.abort(new Error('the worker is shutting down'));
    await this.working.catch(() => undefined);
    await this.embedder.close();
  }
}
