import { Body, Controller, Delete, Get, HttpCode, Inject, Param, ParseIntPipe, ParseUUIDPipe, Post, Put, Query } from '@nestjs/common';
import { ApiCreatedResponse, ApiNoContentResponse, ApiOkResponse, ApiQuery, ApiTags } from '@nestjs/swagger';
import { DocumentForm, DocumentSeenForm, NewDocumentForm } from '@sift-reel/forms';
import { type Actor, CurrentActor } from '../identity/actor.js';
import { DocumentsService } from './documents.service.js';
import { DocumentEntryView, DocumentVersionView, DocumentView } from './documents.views.js';

const OF_RECORDING = 'recordings/:recordingId/documents';
const ONE = 'documents/:documentId';

@ApiTags('documents')
@Controller()
export class DocumentsController {
  constructor(@Inject(DocumentsService) private readonly documents: DocumentsService) {}

  @Get(OF_RECORDING)
  @ApiOkResponse({ type: [DocumentEntryView] })
  listDocuments(@CurrentActor() actor: Actor, @Param('recordingId', ParseUUIDPipe) recordingId: string): Promise<DocumentEntryView[]> {
    return this.documents.list(actor, recordingId);
  }

  @Post(OF_RECORDING)
  @ApiCreatedResponse({ type: DocumentView })
  makeDocument(@CurrentActor() actor: Actor, @Param('recordingId', ParseUUIDPipe) recordingId: string, @Body() form: NewDocumentForm): Promise<DocumentView> {
    return this.documents.make(actor, recordingId, form.kind);
  }

  @Get(ONE)
  @ApiOkResponse({ type: DocumentView })
  readDocument(@CurrentActor() actor: Actor, @Param('documentId', ParseUUIDPipe) documentId: string): Promise<DocumentView> {
    return this.documents.read(actor, documentId);
  }

  @Put(ONE)
  @ApiOkResponse({ type: DocumentView })
  saveDocument(@CurrentActor() actor: Actor, @Param('documentId', ParseUUIDPipe) documentId: string, @Body() form: DocumentForm): Promise<DocumentView> {
    return this.documents.save(actor, documentId, form);
  }

  @Put(`${ONE}/proposal`)
  @ApiOkResponse({ type: DocumentView })
  makeDocumentAgain(
    @CurrentActor() actor: Actor,
    @Param('documentId', ParseUUIDPipe) documentId: string,
    @Body() form: DocumentSeenForm,
  ): Promise<DocumentView> {
    return this.documents.makeAgain(actor, documentId, form.version);
  }

  @Get(`${ONE}/versions`)
  @ApiOkResponse({ type: [DocumentVersionView] })
  listDocumentVersions(@CurrentActor() actor: Actor, @Param('documentId', ParseUUIDPipe) documentId: string): Promise<DocumentVersionView[]> {
    return this.documents.listVersions(actor, documentId);
  }

  @Delete(ONE)
  @HttpCode(204)
  @ApiNoContentResponse()
  @ApiQuery({ name: 'version', type: Number, description: 'The version that was seen' })
  removeDocument(
    @CurrentActor() actor: Actor,
    @Param('documentId', ParseUUIDPipe) documentId: string,
    @Query('version', ParseIntPipe) version: number,
  ): Promise<void> {
    return this.documents.remove(actor, documentId, version);
  }
}
