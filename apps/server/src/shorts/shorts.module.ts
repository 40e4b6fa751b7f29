import { Module } from '@nestjs/common';
import { RecordingsModule } from '../recordings/recordings.module.js';
import { SiftingModule } from '../sifting/sifting.module.js';
import { CopyCheck } from './copy-check.service.js';
import { CopyHistory } from './copy-history.service.js';
import { ExportsController } from './exports.controller.js';
import { KeptCandidates } from './kept-candidates.service.js';
import { ProposalsService } from './proposals.service.js';
import { ShortFacts } from './short-facts.js';
import { ShortsController } from './shorts.controller.js';
import { ShortsService } from './shorts.service.js';

@Module({
  imports: [RecordingsModule, SiftingModule],
  controllers: [ShortsController, ExportsController],
  providers: [ShortsService, ProposalsService, CopyCheck, CopyHistory, KeptCandidates, ShortFacts],
  exports: [ShortsService, ShortFacts, ProposalsService, CopyCheck],
})
export class ShortsModule {}
