import { Inject, Injectable, type OnApplicationShutdown, type OnModuleInit } from '@nestjs/common';
import PgBoss from 'pg-boss';
import { QueryTypes, type Transaction } from 'sequelize';
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
    const sequelize = transaction === undefined ? undefined : (transaction as unknown as { sequelize: import('sequelize').Sequelize }).sequelize;
    const db =
      sequelize === undefined
        ? undefined
        : {
            executeSql: async (text: string, values: unknown[]) => {
              const rows = await sequelize.query(text, { bind: values, transaction: transaction ?? null, type: QueryTypes.SELECT });
              return { rows, rowCount: rows.length };
            },
          };
    await this.boss.send(SIFT_QUEUE, { siftId } satisfies SiftJob, db === undefined ? {} : { db: db as unknown as PgBoss.Db });
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
