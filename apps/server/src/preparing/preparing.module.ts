import { Module } from '@nestjs/common';
import { MediaModule } from '../media/media.module.js';
import { RecordingsModule } from '../recordings/recordings.module.js';
import { PreparingController } from './preparing.controller.js';
import { PreparingService } from './preparing.service.js';

@Module({ imports: [MediaModule, RecordingsModule], controllers: [PreparingController], providers: [PreparingService] })
export class PreparingModule {}
