import { Module } from '@nestjs/common';
import { AligningModule } from '../aligning/aligning.module.js';
import { AuditModule } from '../audit/audit.module.js';
import { FetchingModule } from '../fetching/fetching.module.js';
import { MediaModule } from '../media/media.module.js';
import { PreparingModule } from '../preparing/preparing.module.js';
import { RecordingsModule } from '../recordings/recordings.module.js';
import { SiftingModule } from '../sifting/sifting.module.js';
import { TextModule } from '../text/text.module.js';
import { FeedClock } from './feed-clock.service.js';
import { FeedWork } from './feed-work.service.js';
import { FetchWork } from './fetch-work.service.js';
import { Intake } from './intake.service.js';
import { SiftWhenTimed } from './sift-when-timed.service.js';

/** What a file sets going when it comes in by hand, it sets going here, too: hence the features that hear of it. */
@Module({
  imports: [AuditModule, TextModule, FetchingModule, MediaModule, RecordingsModule, PreparingModule, SiftingModule, AligningModule],
  providers: [Intake, SiftWhenTimed, FeedWork, FetchWork, FeedClock],
})
export class FeedsWorkerModule {}
