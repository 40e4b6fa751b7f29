import { Body, Controller, Delete, HttpCode, Inject, Param, ParseUUIDPipe, Post } from '@nestjs/common';
import { ApiAcceptedResponse, ApiNoContentResponse, ApiTags } from '@nestjs/swagger';
import { AlignmentForm } from '@sift-reel/forms';
import { type Actor, CurrentActor } from '../identity/actor.js';
import { AlignmentView } from '../recordings/recordings.views.js';
import { AligningService } from './aligning.service.js';

@ApiTags('recordings')
@Controller()
export class AligningController {
  constructor(@Inject(AligningService) private readonly aligning: AligningService) {}

  @Post('recordings/:recordingId/alignment')
  @HttpCode(202)
  @ApiAcceptedResponse({ type: AlignmentView })
  listenForWords(@CurrentActor() actor: Actor, @Param('recordingId', ParseUUIDPipe) recordingId: string, @Body() form: AlignmentForm): Promise<AlignmentView> {
    return this.aligning.ask(actor, recordingId, form);
  }

  @Delete('recordings/:recordingId/alignment')
  @HttpCode(204)
  @ApiNoContentResponse()
  stopListening(@CurrentActor() actor: Actor, @Param('recordingId', ParseUUIDPipe) recordingId: string): Promise<void> {
    return this.aligning.leave(actor, recordingId);
  }
}
