import { Module } from '@nestjs/common';
import { AuditModule } from '../audit/audit.module.js';
import { MediaModule } from '../media/media.module.js';
import { RecordingsModule } from '../recordings/recordings.module.js';
import { AligningController } from './aligning.controller.js';
import { AligningService } from './aligning.service.js';

@Module({ imports: [AuditModule, MediaModule, RecordingsModule], controllers: [AligningController], providers: [AligningService] })
export class AligningModule {}
