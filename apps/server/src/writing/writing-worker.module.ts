import { Module } from '@nestjs/common';
import { CopyCheck } from '../shorts/copy-check.service.js';
import { ProposalsService } from '../shorts/proposals.service.js';
import { TextModule } from '../text/text.module.js';
import { WritingWork } from './writing-work.service.js';

@Module({ imports: [TextModule], providers: [CopyCheck, ProposalsService, WritingWork] })
export class WritingWorkerModule {}
