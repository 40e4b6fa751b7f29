import './transactions.js';
import { Global, Module } from '@nestjs/common';
import { SequelizeModule } from '@nestjs/sequelize';
import { CONFIG, type Config } from '../config/config.module.js';
import { Database } from './database.service.js';
import { MODELS } from '../models.js';

/** A statement that runs longer is a fault; one that waits longer for a lock is told to try again. */
const STATEMENT_MS = 30_000;
const LOCK_MS = 10_000;
/** A transaction that does nothing for so long has lost its program. */
const IDLE_MS = 20_000;
/** A request that gets no connection in this time is answered 503. */
const ACQUIRE_MS = 10_000;

@Global()
@Module({
  imports: [
    SequelizeModule.forRootAsync({
      inject: [CONFIG],
      useFactory: (config: Config) => ({
        dialect: 'postgres' as const,
        uri: config.databaseUrl,
        models: MODELS,
        logging: false,
        autoLoadModels: false,
        synchronize: false,
        pool: { max: config.poolSize, acquire: ACQUIRE_MS, idle: 10_000 },
        dialectOptions: {
          application_name: `sift-reel ${process.env['SIFT_REEL_PART'] ?? 'server'}`,
          statement_timeout: STATEMENT_MS,
          lock_timeout: LOCK_MS,
          idle_in_transaction_session_timeout: IDLE_MS,
          keepAlive: true,
        },
        retryAttempts: 2,
        retryDelay: 500,
      }),
    }),
  ],
  providers: [Database],
  exports: [Database],
})
export class DatabaseModule {}
