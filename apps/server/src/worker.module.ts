import { Module } from '@nestjs/common';
import { ConfigModule } from './config/config.module.js';
import { DatabaseModule } from './database/database.module.js';
import { JobsModule, JobWorkerModule } from './jobs/jobs.module.js';
import { SiftingWorkerModule } from './sifting/sifting-worker.module.js';

@Module({ imports: [ConfigModule, DatabaseModule, JobsModule, JobWorkerModule, SiftingWorkerModule] })
export class WorkerModule {}
