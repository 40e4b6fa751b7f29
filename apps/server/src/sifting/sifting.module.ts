import { Module } from '@nestjs/common';
import { ProgressService } from '../jobs/progress.service.js';
import { RecordingsModule } from '../recordings/recordings.module.js';
import { ShortsModule } from '../shorts/shorts.module.js';
import { OwnCandidatesService } from './own-candidates.service.js';
import { SearchService } from './search.service.js';
import { SiftingController } from './sifting.controller.js';
import { SiftingService } from './sifting.service.js';

@Module({
  imports: [RecordingsModule, ShortsModule],
  controllers: [SiftingController],
  providers: [SiftingService, SearchService, OwnCandidatesService, ProgressService],
  exports: [SiftingService],
})
export class SiftingModule {}
