import { Controller, Delete, Get, HttpCode, Inject, Param, ParseUUIDPipe, Post } from '@nestjs/common';
import { ApiCreatedResponse, ApiNoContentResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { type Actor, CurrentActor } from '../identity/actor.js';
import { WritingService } from './writing.service.js';
import { WritingServiceView, WritingView } from './writing.views.js';

const OF_SHORT = 'shorts/:shortId/writings';

@ApiTags('writing')
@Controller()
export class WritingController {
  constructor(@Inject(WritingService) private readonly writing: WritingService) {}

  @Get('writing-service')
  @ApiOkResponse({ type: WritingServiceView })
  readWritingService(): WritingServiceView {
    return this.writing.service();
  }

  @Get(OF_SHORT)
  @ApiOkResponse({ type: [WritingView] })
  listWritings(@CurrentActor() actor: Actor, @Param('shortId', ParseUUIDPipe) shortId: string): Promise<WritingView[]> {
    return this.writing.list(actor, shortId);
  }

  @Post(OF_SHORT)
  @ApiCreatedResponse({ type: WritingView })
  askForWords(@CurrentActor() actor: Actor, @Param('shortId', ParseUUIDPipe) shortId: string): Promise<WritingView> {
    return this.writing.ask(actor, shortId);
  }

  @Delete('writings/:writingId')
  @HttpCode(204)
  @ApiNoContentResponse()
  cancelWriting(@CurrentActor() actor: Actor, @Param('writingId', ParseUUIDPipe) writingId: string): Promise<void> {
    return this.writing.cancel(actor, writingId);
  }
}
