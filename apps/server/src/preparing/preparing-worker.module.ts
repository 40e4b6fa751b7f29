import { Module } from '@nestjs/common';
import { MediaModule } from '../media/media.module.js';
import { PrepareWork } from './prepare-work.service.js';

@Module({ imports: [MediaModule], providers: [PrepareWork] })
export class PreparingWorkerModule {}
