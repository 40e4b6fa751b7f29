import { Module } from '@nestjs/common';
import { MediaStore } from './media-store.service.js';
import { RecordingsController } from './recordings.controller.js';
import { RecordingsService } from './recordings.service.js';

@Module({ controllers: [RecordingsController], providers: [RecordingsService, MediaStore], exports: [RecordingsService, MediaStore] })
export class RecordingsModule {}
