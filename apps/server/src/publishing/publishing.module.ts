import { Module } from '@nestjs/common';
import { MediaModule } from '../media/media.module.js';
import { AccountsService } from './accounts.service.js';
import { HandedFiles } from './handed-files.service.js';
import { Lines } from './lines.service.js';
import { Pace } from './pace.service.js';
import { PublishingController } from './publishing.controller.js';
import { RightsService } from './rights.service.js';
import { Sealing } from './sealing.js';
import { SendingsService } from './sendings.service.js';

@Module({
  imports: [MediaModule],
  controllers: [PublishingController],
  providers: [AccountsService, SendingsService, HandedFiles, Lines, Pace, RightsService, Sealing],
})
export class PublishingModule {}
