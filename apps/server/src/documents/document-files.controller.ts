import { Controller, Get, Inject, Param, ParseEnumPipe, ParseIntPipe, ParseUUIDPipe, Query, Res } from '@nestjs/common';
import { ApiOkResponse, ApiQuery, ApiTags } from '@nestjs/swagger';
import { CARD_SHAPES, type CardShape, cardsOf, fileName } from '@sift-reel/core';
import type { Response } from 'express';
import { cardStyleOf, Client } from '../clients/clients.models.js';
import { Database } from '../database/database.service.js';
import { type Actor, CurrentActor, found } from '../identity/actor.js';
import { RecordingsService } from '../recordings/recordings.service.js';
import { sendFile } from '../shorts/send-file.js';
import { talkLanguages } from '../shorts/talk-languages.js';
import { TextPool } from '../text/text-pool.service.js';
import { DOCUMENT_FORMATS, type DocumentFormat } from '../text/document-tasks.js';
import { DocumentsService } from './documents.service.js';

const FORMATS: Readonly<Record<DocumentFormat, { readonly ending: string; readonly type: string }>> = {
  markdown: { ending: 'md', type: 'text/markdown; charset=utf-8' },
  html: { ending: 'html', type: 'text/html; charset=utf-8' },
  plain: { ending: 'txt', type: 'text/plain; charset=utf-8' },
  docx: { ending: 'docx', type: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document' },
  chapters: { ending: 'json', type: 'application/json+chapters; charset=utf-8' },
};
const PICTURES = { svg: 'image/svg+xml; charset=utf-8', png: 'image/png' } as const;

const oneOf = (values: readonly string[]): ParseEnumPipe => new ParseEnumPipe(Object.fromEntries(values.map((value) => [value, value])));

/** Documents and quote cards to take away. */
@ApiTags('exports')
@Controller('documents/:documentId')
export class DocumentFilesController {
  constructor(
    @Inject(DocumentsService) private readonly documents: DocumentsService,
    @Inject(RecordingsService) private readonly recordings: RecordingsService,
    @Inject(Database) private readonly database: Database,
    @Inject(TextPool) private readonly text: TextPool,
  ) {}

  @Get('file')
  @ApiOkResponse({ description: 'The document as a file; `chapters` is the podcast namespace’s JSON' })
  @ApiQuery({ name: 'as', enum: [...DOCUMENT_FORMATS] })
  async exportDocument(
    @CurrentActor() actor: Actor,
    @Param('documentId', ParseUUIDPipe) documentId: string,
    @Query('as', oneOf(DOCUMENT_FORMATS)) as: DocumentFormat,
    @Res() response: Response,
  ): Promise<void> {
    const { clientId, recordingId, kind, content, recording } = await this.documents.find(actor, documentId);
    const language = (await talkLanguages(this.database, [recordingId])).get(recordingId)!;
    const { talk } = await this.recordings.readTalk(actor, recordingId);
    const body = await this.text.writeDocument(clientId, { talk, as, content, title: recording.title, language });
    const { ending, type } = FORMATS[as];
    sendFile(response, fileName([recording.title, kind.replace('-', ' ')], ending), type, Buffer.from(body));
  }

  @Get('cards/:number')
  @ApiOkResponse({ description: 'A quotation of the document as a picture; numbers count from 1' })
  @ApiQuery({ name: 'as', enum: Object.keys(PICTURES) })
  @ApiQuery({ name: 'shape', enum: [...CARD_SHAPES] })
  async exportCard(
    @CurrentActor() actor: Actor,
    @Param('documentId', ParseUUIDPipe) documentId: string,
    @Param('number', ParseIntPipe) number: number,
    @Query('as', oneOf(Object.keys(PICTURES))) as: keyof typeof PICTURES,
    @Query('shape', oneOf(CARD_SHAPES)) shape: CardShape,
    @Res() response: Response,
  ): Promise<void> {
    const { clientId, content, recording } = await this.documents.find(actor, documentId);
    const card = found(cardsOf(content, recording.title)[number - 1] ?? null, 'quotation');
    const client = found(await Client.findByPk(clientId), 'client');
    const picture = await this.text.drawCard(clientId, { card, shape, style: cardStyleOf(client), as });
    sendFile(response, fileName([recording.title, `card ${number}`, shape], as), PICTURES[as], Buffer.from(picture));
  }
}
