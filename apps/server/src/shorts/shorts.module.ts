import { Module } from '@nestjs/common';
import { RecordingsModule } from '../recordings/recordings.module.js';
import { SiftingModule } from '../sifting/sifting.module.js';
import { CopyCheck } from './copy-check.service.js';
import { CopyHistory } from './copy-history.service.js';
import { CuttingController, ReelsController } from './cutting.controller.js';
import { CuttingService } from './cutting.service.js';
import { EditChecker } from './edit-checker.service.js';
import { EditListsService } from './edit-lists.service.js';
import { ExportsController } from './exports.controller.js';
import { KeptPassages } from './kept-passages.service.js';
import { KeptCandidates } from './kept-candidates.service.js';
import { ProposalsService } from './proposals.service.js';
import { ReelsService } from './reels.service.js';
import { ShortFacts } from './short-facts.js';
import { ShortsController } from './shorts.controller.js';
import { ShortsService } from './shorts.service.js';
import { Apertium } from './apertium.service.js';
import { TranslationsController } from './translations.controller.js';
import { TranslationsService } from './translations.service.js';

@Module({
  imports: [RecordingsModule, SiftingModule],
  controllers: [ShortsController, CuttingController, ReelsController, ExportsController, TranslationsController],
  providers: [
    ShortsService,
    CuttingService,
    ReelsService,
    EditListsService,
    KeptPassages,
    EditChecker,
    ProposalsService,
    CopyCheck,
    CopyHistory,
    KeptCandidates,
    ShortFacts,
    TranslationsService,
    Apertium,
  ],
  exports: [ShortsService, ShortFacts, ProposalsService, CopyCheck],
})
export class ShortsModule {}
