import { Module } from '@nestjs/common';
import { MediaModule } from '../media/media.module.js';
import { TextModule } from '../text/text.module.js';
import { RenderWork } from './render-work.service.js';

@Module({ imports: [TextModule, MediaModule], providers: [RenderWork] })
export class RenderingWorkerModule {}
