import { Module } from '@nestjs/common';
import { RecordingsModule } from '../recordings/recordings.module.js';
import { ExportsController } from './exports.controller.js';
import { ShortsController } from './shorts.controller.js';
import { ShortsService } from './shorts.service.js';

@Module({ imports: [RecordingsModule], controllers: [ShortsController, ExportsController], providers: [ShortsService], exports: [ShortsService] })
export class ShortsModule {}
