import { Body, Controller, Delete, Get, HttpCode, Inject, Param, ParseIntPipe, ParseUUIDPipe, Post, Put, Query, Res } from '@nestjs/common';
import { ApiNoContentResponse, ApiOkResponse, ApiQuery, ApiTags } from '@nestjs/swagger';
import { fileName } from '@sift-reel/core';
import { TranslationForm, TranslationReadForm, TranslationSeenForm, XliffForm } from '@sift-reel/forms';
import type { Response } from 'express';
import { type Actor, CurrentActor } from '../identity/actor.js';
import { LanguagePipe } from './language.pipe.js';
import { sendFile } from './send-file.js';
import { TranslationsService } from './translations.service.js';
import { TranslationView } from './translations.views.js';

const ONE = ':shortId/translations/:language';

@ApiTags('translations')
@Controller('shorts')
export class TranslationsController {
  constructor(@Inject(TranslationsService) private readonly translations: TranslationsService) {}

  @Get(':shortId/translations')
  @ApiOkResponse({ type: [TranslationView] })
  listTranslations(@CurrentActor() actor: Actor, @Param('shortId', ParseUUIDPipe) shortId: string): Promise<TranslationView[]> {
    return this.translations.list(actor, shortId);
  }

  @Get(ONE)
  @ApiOkResponse({ type: TranslationView })
  readTranslation(
    @CurrentActor() actor: Actor,
    @Param('shortId', ParseUUIDPipe) shortId: string,
    @Param('language', LanguagePipe) language: string,
  ): Promise<TranslationView> {
    return this.translations.read(actor, shortId, language);
  }

  @Put(ONE)
  @ApiOkResponse({ type: TranslationView })
  saveTranslation(
    @CurrentActor() actor: Actor,
    @Param('shortId', ParseUUIDPipe) shortId: string,
    @Param('language', LanguagePipe) language: string,
    @Body() form: TranslationForm,
  ): Promise<TranslationView> {
    return this.translations.save(actor, shortId, language, form);
  }

  @Post(`${ONE}/draft`)
  @HttpCode(200)
  @ApiOkResponse({ type: TranslationView })
  draftTranslation(
    @CurrentActor() actor: Actor,
    @Param('shortId', ParseUUIDPipe) shortId: string,
    @Param('language', LanguagePipe) language: string,
    @Body() form: TranslationSeenForm,
  ): Promise<TranslationView> {
    return this.translations.draft(actor, shortId, language, form.version);
  }

  @Put(`${ONE}/reading`)
  @ApiOkResponse({ type: TranslationView })
  setTranslationRead(
    @CurrentActor() actor: Actor,
    @Param('shortId', ParseUUIDPipe) shortId: string,
    @Param('language', LanguagePipe) language: string,
    @Body() form: TranslationReadForm,
  ): Promise<TranslationView> {
    return this.translations.setRead(actor, shortId, language, form);
  }

  @Delete(ONE)
  @HttpCode(204)
  @ApiNoContentResponse()
  @ApiQuery({ name: 'version', type: Number, description: 'The version that was seen' })
  removeTranslation(
    @CurrentActor() actor: Actor,
    @Param('shortId', ParseUUIDPipe) shortId: string,
    @Param('language', LanguagePipe) language: string,
    @Query('version', ParseIntPipe) version: number,
  ): Promise<void> {
    return this.translations.remove(actor, shortId, language, version);
  }

  @Post(':shortId/xliff')
  @HttpCode(200)
  @ApiOkResponse({ type: TranslationView, description: 'The translation that came back, checked' })
  importXliff(@CurrentActor() actor: Actor, @Param('shortId', ParseUUIDPipe) shortId: string, @Body() form: XliffForm): Promise<TranslationView> {
    return this.translations.importXliff(actor, shortId, form);
  }

  @Get(`${ONE}/xliff`)
  @ApiOkResponse({ description: 'XLIFF 2.1: a unit a field and a caption' })
  async exportXliff(
    @CurrentActor() actor: Actor,
    @Param('shortId', ParseUUIDPipe) shortId: string,
    @Param('language', LanguagePipe) language: string,
    @Res() response: Response,
  ): Promise<void> {
    const { name, body } = await this.translations.exportXliff(actor, shortId, language);
    sendFile(response, fileName(name, 'xlf'), 'application/xliff+xml; charset=utf-8', body);
  }

  @Get(`${ONE}/captions.srt`)
  @ApiOkResponse({ description: 'SubRip in the language' })
  async exportTranslatedSubRip(
    @CurrentActor() actor: Actor,
    @Param('shortId', ParseUUIDPipe) shortId: string,
    @Param('language', LanguagePipe) language: string,
    @Res() response: Response,
  ): Promise<void> {
    const { name, body } = await this.translations.captions(actor, shortId, language, 'subrip');
    sendFile(response, fileName(name, 'srt'), 'application/x-subrip; charset=utf-8', body);
  }

  @Get(`${ONE}/captions.vtt`)
  @ApiOkResponse({ description: 'WebVTT in the language' })
  async exportTranslatedWebVtt(
    @CurrentActor() actor: Actor,
    @Param('shortId', ParseUUIDPipe) shortId: string,
    @Param('language', LanguagePipe) language: string,
    @Res() response: Response,
  ): Promise<void> {
    const { name, body } = await this.translations.captions(actor, shortId, language, 'webvtt');
    sendFile(response, fileName(name, 'vtt'), 'text/vtt; charset=utf-8', body);
  }
}
