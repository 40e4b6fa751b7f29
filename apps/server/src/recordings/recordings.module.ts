import { Module } from '@nestjs/common';
import { ClientsModule } from '../clients/clients.module.js';
import { MediaModule } from '../media/media.module.js';
import { RecordingFacts } from './recording-facts.js';
import { RecordingsController } from './recordings.controller.js';
import { RecordingsService } from './recordings.service.js';
import { ResumableUploads } from './resumable-uploads.service.js';
import { UploadsController } from './uploads.controller.js';

@Module({
  imports: [ClientsModule, MediaModule],
  controllers: [RecordingsController, UploadsController],
  providers: [RecordingsService, RecordingFacts, ResumableUploads],
  exports: [RecordingsService, RecordingFacts],
})
export class RecordingsModule {}
