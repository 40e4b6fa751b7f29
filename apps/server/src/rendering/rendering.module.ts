import { Module } from '@nestjs/common';
import { MediaModule } from '../media/media.module.js';
import { RecordingsModule } from '../recordings/recordings.module.js';
import { ShortsModule } from '../shorts/shorts.module.js';
import { RenderAsking } from './render-asking.service.js';
import { RendersController } from './renders.controller.js';
import { KeptFiles } from './kept-files.service.js';
import { RendersService } from './renders.service.js';

@Module({ imports: [MediaModule, RecordingsModule, ShortsModule], controllers: [RendersController], providers: [KeptFiles, RenderAsking, RendersService] })
export class RenderingModule {}
