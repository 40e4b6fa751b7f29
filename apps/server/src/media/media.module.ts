import { Module } from '@nestjs/common';
import { MediaStore } from './media-store.service.js';

/** Files and what reads them; knows no feature. */
@Module({ providers: [MediaStore], exports: [MediaStore] })
export class MediaModule {}
