import { Module } from '@nestjs/common';
import { RecordingsModule } from '../recordings/recordings.module.js';
import { CandidateHooks } from './candidate-hooks.js';
import { CandidatesService } from './candidates.service.js';
import { LatestSifts } from './latest-sifts.service.js';
import { OwnCandidatesService } from './own-candidates.service.js';
import { SearchService } from './search.service.js';
import { SiftingController } from './sifting.controller.js';
import { SiftingService } from './sifting.service.js';

@Module({
  imports: [RecordingsModule],
  controllers: [SiftingController],
  providers: [SiftingService, CandidatesService, CandidateHooks, SearchService, OwnCandidatesService, LatestSifts],
  exports: [SiftingService, CandidateHooks, CandidatesService, OwnCandidatesService],
})
export class SiftingModule {}
