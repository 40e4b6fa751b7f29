import { Module } from '@nestjs/common';
import { ConfigModule } from './config/config.module.js';
import { DatabaseModule } from './database/database.module.js';
import { JobsModule } from './jobs/jobs.module.js';
import { SiftWorker } from './sifting/sift-worker.service.js';

@Module({ imports: [ConfigModule, DatabaseModule, JobsModule], providers: [SiftWorker] })
export class WorkerModule {}
