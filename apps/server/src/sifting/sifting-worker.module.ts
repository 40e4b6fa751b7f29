import { Module } from '@nestjs/common';
import { TextModule } from '../text/text.module.js';
import { SiftWork } from './sift-work.service.js';

@Module({ imports: [TextModule], providers: [SiftWork] })
export class SiftingWorkerModule {}
