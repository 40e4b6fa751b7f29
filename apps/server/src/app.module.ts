import { Module } from '@nestjs/common';
import { AligningModule } from './aligning/aligning.module.js';
import { AuditModule } from './audit/audit.module.js';
import { ClientsModule } from './clients/clients.module.js';
import { ConfigModule } from './config/config.module.js';
import { DatabaseModule } from './database/database.module.js';
import { FeedsModule } from './feeds/feeds.module.js';
import { HealthController } from './health/health.controller.js';
import { IdentityModule } from './identity/identity.module.js';
import { JobEventsModule, JobsModule } from './jobs/jobs.module.js';
import { PlanningModule } from './planning/planning.module.js';
import { PublishingModule } from './publishing/publishing.module.js';
import { PreparingModule } from './preparing/preparing.module.js';
import { RecordingsModule } from './recordings/recordings.module.js';
import { ShortsModule } from './shorts/shorts.module.js';
import { SiftingModule } from './sifting/sifting.module.js';
import { DocumentsModule } from './documents/documents.module.js';
import { RenderingModule } from './rendering/rendering.module.js';
import { WritingModule } from './writing/writing.module.js';
import { TextModule } from './text/text.module.js';

@Module({
  imports: [
    ConfigModule,
    DatabaseModule,
    AuditModule,
    JobsModule,
    JobEventsModule,
    TextModule,
    IdentityModule,
    ClientsModule,
    RecordingsModule,
    PreparingModule,
    SiftingModule,
    ShortsModule,
    AligningModule,
    FeedsModule,
    DocumentsModule,
    RenderingModule,
    WritingModule,
    PlanningModule,
    PublishingModule,
  ],
  controllers: [HealthController],
})
export class AppModule {}
