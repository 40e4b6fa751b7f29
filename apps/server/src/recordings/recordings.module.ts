import { Module } from '@nestjs/common';
import { ClientsModule } from '../clients/clients.module.js';
import { MediaModule } from '../media/media.module.js';
import { RecordingFacts } from './recording-facts.js';
import { RecordingsController } from './recordings.controller.js';
import { RecordingsService } from './recordings.service.js';

@Module({
  imports: [ClientsModule, MediaModule],
  controllers: [RecordingsController],
  providers: [RecordingsService, RecordingFacts],
  exports: [RecordingsService, RecordingFacts],
})
export class RecordingsModule {}
