import { Module } from '@nestjs/common';
import { AuditModule } from '../audit/audit.module.js';
import { MediaModule } from '../media/media.module.js';
import { RenderAsking } from '../rendering/render-asking.service.js';
import { TextModule } from '../text/text.module.js';
import { Ends } from './ends.service.js';
import { Fixing } from './fixing.service.js';
import { HandedFiles } from './handed-files.service.js';
import { Lines } from './lines.service.js';
import { Pace } from './pace.service.js';
import { PostRecord } from './post-record.service.js';
import { PostWork } from './post-work.service.js';
import { PostingClock } from './posting-clock.service.js';
import { RightsService } from './rights.service.js';
import { Sealing } from './sealing.js';
import { Walk } from './walk.service.js';

@Module({
  imports: [AuditModule, MediaModule, TextModule],
  providers: [RenderAsking, Fixing, HandedFiles, Lines, Pace, RightsService, Sealing, Ends, PostRecord, Walk, PostWork, PostingClock],
})
export class PublishingWorkerModule {}
