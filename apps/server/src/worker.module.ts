import { Module } from '@nestjs/common';
import { AligningWorkerModule } from './aligning/aligning-worker.module.js';
import { ConfigModule } from './config/config.module.js';
import { DatabaseModule } from './database/database.module.js';
import { FeedsWorkerModule } from './feeds/feeds-worker.module.js';
import { JobsModule, JobWorkerModule } from './jobs/jobs.module.js';
import { PreparingWorkerModule } from './preparing/preparing-worker.module.js';
import { PublishingWorkerModule } from './publishing/publishing-worker.module.js';
import { RenderingWorkerModule } from './rendering/rendering-worker.module.js';
import { SiftingWorkerModule } from './sifting/sifting-worker.module.js';
import { WritingWorkerModule } from './writing/writing-worker.module.js';

@Module({
  imports: [
    ConfigModule,
    DatabaseModule,
    JobsModule,
    JobWorkerModule,
    PreparingWorkerModule,
    AligningWorkerModule,
    FeedsWorkerModule,
    SiftingWorkerModule,
    WritingWorkerModule,
    RenderingWorkerModule,
    PublishingWorkerModule,
  ],
})
export class WorkerModule {}
