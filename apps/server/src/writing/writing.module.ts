import { Module } from '@nestjs/common';
import { ShortsModule } from '../shorts/shorts.module.js';
import { WritingController } from './writing.controller.js';
import { WritingService } from './writing.service.js';

@Module({ imports: [ShortsModule], controllers: [WritingController], providers: [WritingService] })
export class WritingModule {}
