import { pipeline } from 'node:stream/promises';
import { Body, Controller, Delete, Get, HttpCode, Inject, Param, ParseUUIDPipe, Post, Put, Query, Res } from '@nestjs/common';
import { ApiCreatedResponse, ApiNoContentResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';
import { type Actor, CurrentActor } from '../identity/actor.js';
import { dispositionOf } from '../shorts/send-file.js';
import { MediaStore } from '../media/media-store.service.js';
import { KeptFiles } from './kept-files.service.js';
import { GoingFileView, ReadyView, RenderForm, RendersQuery, RenderView } from './rendering.views.js';
import { archiveOf } from './render-archive.js';
import { RendersService, type WantedFiles } from './renders.service.js';

const OF_SHORT = 'shorts/:shortId/renders';

@ApiTags('renders')
@Controller()
export class RendersController {
  constructor(
    @Inject(RendersService) private readonly renders: RendersService,
    @Inject(KeptFiles) private readonly kept: KeptFiles,
    @Inject(MediaStore) private readonly media: MediaStore,
  ) {}

  @Get(OF_SHORT)
  @ApiOkResponse({ type: [RenderView] })
  listRenders(@CurrentActor() actor: Actor, @Param('shortId', ParseUUIDPipe) shortId: string): Promise<RenderView[]> {
    return this.renders.list(actor, shortId);
  }

  @Post(OF_SHORT)
  @ApiCreatedResponse({ type: RenderView })
  askForRender(@CurrentActor() actor: Actor, @Param('shortId', ParseUUIDPipe) shortId: string, @Body() form: RenderForm): Promise<RenderView> {
    return this.renders.ask(actor, shortId, form);
  }

  @Get('files-going')
  @ApiOkResponse({ type: [GoingFileView] })
  listGoingFiles(@CurrentActor() actor: Actor): Promise<GoingFileView[]> {
    return this.kept.going(actor);
  }

  @Put('renders/:renderId/keeping')
  @HttpCode(204)
  @ApiNoContentResponse()
  keepFileLonger(@CurrentActor() actor: Actor, @Param('renderId', ParseUUIDPipe) renderId: string): Promise<void> {
    return this.kept.keepLonger(actor, renderId);
  }

  @Get('renders/ready')
  @ApiOkResponse({ type: [ReadyView] })
  listReady(@CurrentActor() actor: Actor, @Query() query: RendersQuery): Promise<ReadyView[]> {
    return this.renders.ready(actor, wantedOf(query));
  }

  @Get('renders/files.zip')
  @ApiOkResponse({ description: 'A ZIP of the files of some shorts, each with its captions beside it' })
  async readArchive(@CurrentActor() actor: Actor, @Query() query: RendersQuery, @Res() response: Response): Promise<void> {
    const { name, entries } = await this.renders.archive(actor, wantedOf(query));
    response.setHeader('Content-Type', 'application/zip').setHeader('Content-Disposition', dispositionOf(name)).setHeader('Cache-Control', 'private, no-store');
    await pipeline(archiveOf(entries), response).catch(() => response.destroy()); // gone, or broken off
  }

  @Delete('renders/:renderId')
  @HttpCode(204)
  @ApiNoContentResponse()
  cancelRender(@CurrentActor() actor: Actor, @Param('renderId', ParseUUIDPipe) renderId: string): Promise<void> {
    return this.renders.cancel(actor, renderId);
  }

  @Get('renders/:renderId/file')
  @ApiOkResponse({ description: 'The file; ranges are answered' })
  async readRender(@CurrentActor() actor: Actor, @Param('renderId', ParseUUIDPipe) renderId: string, @Res() response: Response): Promise<void> {
    const { file, name, type } = await this.renders.fileOf(actor, renderId);
    await this.media.send(response, file, 'renders', { type, cacheControl: 'private, max-age=3600', disposition: dispositionOf(name) });
  }
}

const wantedOf = ({ shape, shortIds, platformProfileId }: RendersQuery): WantedFiles => ({
  shape,
  shortIds: shortIds.split(','),
  platformProfileId: platformProfileId ?? null,
});
