import { Inject, Injectable, type OnApplicationShutdown, type OnModuleInit } from '@nestjs/common';
import PgBoss from 'pg-boss';
import type pg from 'pg';
import type { Transaction } from 'sequelize';
import { CONFIG, type Config } from '../config/config.module.js';
import { log } from '../config/logger.js';

export const SIFT_QUEUE = 'sift';
export interface SiftJob {
  readonly siftId: string;
}

/** The one queue, in the same PostgreSQL. Sending joins the caller's transaction: row and job, both or neither. */
@Injectable()
export class QueueService implements OnModuleInit, OnApplicationShutdown {
  readonly boss: PgBoss;
  constructor(@Inject(CONFIG) config: Config) {
    this.boss = new PgBoss({ connectionString: config.databaseUrl, schema: 'pgboss', max: 4 });
    this.boss.on('error', (error: unknown) => log.error({ error: error instanceof Error ? error.message : String(error) }, 'queue error'));
  }

  async onModuleInit(): Promise<void> {
    await this.boss.start();
    await this.boss.createQueue(SIFT_QUEUE, { name: SIFT_QUEUE, retryLimit: 3, retryDelay: 2, expireInSeconds: 4 * 3_600 });
  }

  /** A sift's job. Sending it twice is harmless: the second finds the work done, or being done. */
  async sendSift(siftId: string, transaction?: Transaction): Promise<void> {
    const job: SiftJob = { siftId };
    if (transaction === undefined) {
      await this.boss.send(SIFT_QUEUE, job);
      return;
    }
    // Sequelize's transaction holds one connection of pg; the queue's insert goes over the same one, unseen by Sequelize,
    // which would refuse pg-boss's unset values.
    const { connection } = transaction as unknown as { connection: pg.Client };
    const db: PgBoss.Db = { executeSql: (text, values) => connection.query(text, values) };
    await this.boss.send(SIFT_QUEUE, job, { db });
  }

  /** True when the queue's own tables answer. */
  async answers(): Promise<boolean> {
    await this.boss.getQueueSize(SIFT_QUEUE);
    return true;
  }

  async onApplicationShutdown(): Promise<void> {
    await this.boss.stop({ graceful: true, wait: true, timeout: 5_000 });
  }
}
