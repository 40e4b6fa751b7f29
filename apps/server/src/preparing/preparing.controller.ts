import { Controller, Get, HttpCode, Inject, Param, ParseUUIDPipe, Post, Res } from '@nestjs/common';
import { ApiAcceptedResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';
import { type Actor, CurrentActor } from '../identity/actor.js';
import { SoundLevelsView, PreparationView } from '../recordings/recordings.views.js';
import { MediaStore } from '../media/media-store.service.js';
import { PreparingService } from './preparing.service.js';

/** What was made of one file never changes: another file has other addresses. */
const CACHED = 'private, max-age=86400, immutable';

@ApiTags('recordings')
@Controller()
export class PreparingController {
  constructor(
    @Inject(PreparingService) private readonly preparing: PreparingService,
    @Inject(MediaStore) private readonly media: MediaStore,
  ) {}

  @Post('recordings/:recordingId/preparation')
  @HttpCode(202)
  @ApiAcceptedResponse({ type: PreparationView })
  prepareAgain(@CurrentActor() actor: Actor, @Param('recordingId', ParseUUIDPipe) recordingId: string): Promise<PreparationView> {
    return this.preparing.again(actor, recordingId);
  }

  @Get('recordings/:recordingId/levels')
  @ApiOkResponse({ type: SoundLevelsView })
  readLevels(@CurrentActor() actor: Actor, @Param('recordingId', ParseUUIDPipe) recordingId: string): Promise<SoundLevelsView> {
    return this.preparing.levels(actor, recordingId);
  }

  @Get('preparations/:preparationId/proxy')
  @ApiOkResponse({ description: 'What browsers play instead of the original; ranges are answered' })
  async readProxy(@CurrentActor() actor: Actor, @Param('preparationId', ParseUUIDPipe) preparationId: string, @Res() response: Response): Promise<void> {
    const { file, type } = await this.preparing.proxyOf(actor, preparationId);
    await this.media.send(response, file, 'prepared', { type, cacheControl: CACHED });
  }

  @Get('preparations/:preparationId/sprite')
  @ApiOkResponse({ description: 'Small pictures of the recording in one sheet' })
  async readSprite(@CurrentActor() actor: Actor, @Param('preparationId', ParseUUIDPipe) preparationId: string, @Res() response: Response): Promise<void> {
    await this.media.send(response, await this.preparing.spriteOf(actor, preparationId), 'prepared', { type: 'image/jpeg', cacheControl: CACHED });
  }
}
