import { Module } from '@nestjs/common';
import { MediaModule } from '../media/media.module.js';
import { TextModule } from '../text/text.module.js';
import { SiftWork } from './sift-work.service.js';

@Module({ imports: [TextModule, MediaModule], providers: [SiftWork] })
export class SiftingWorkerModule {}
