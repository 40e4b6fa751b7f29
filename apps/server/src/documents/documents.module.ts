import { Module } from '@nestjs/common';
import { RecordingsModule } from '../recordings/recordings.module.js';
import { ShortsModule } from '../shorts/shorts.module.js';
import { DocumentFilesController } from './document-files.controller.js';
import { DocumentHistory } from './document-history.service.js';
import { DocumentMaker } from './document-maker.service.js';
import { DocumentsController } from './documents.controller.js';
import { DocumentsService } from './documents.service.js';

@Module({
  imports: [RecordingsModule, ShortsModule],
  controllers: [DocumentsController, DocumentFilesController],
  providers: [DocumentsService, DocumentMaker, DocumentHistory],
})
export class DocumentsModule {}
