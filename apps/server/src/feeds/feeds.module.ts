import { Module } from '@nestjs/common';
import { FetchingModule } from '../fetching/fetching.module.js';
import { MediaModule } from '../media/media.module.js';
import { RecordingsModule } from '../recordings/recordings.module.js';
import { SiftingModule } from '../sifting/sifting.module.js';
import { FeedsController } from './feeds.controller.js';
import { FeedsService } from './feeds.service.js';
import { FetchesService } from './fetches.service.js';
import { Intake } from './intake.service.js';
import { SiftWhenTimed } from './sift-when-timed.service.js';

@Module({
  imports: [FetchingModule, MediaModule, RecordingsModule, SiftingModule],
  controllers: [FeedsController],
  providers: [FeedsService, FetchesService, Intake, SiftWhenTimed],
})
export class FeedsModule {}
