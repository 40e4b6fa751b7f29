import { Body, Controller, Get, HttpCode, Inject, Param, ParseUUIDPipe, Post, Put, Query } from '@nestjs/common';
import { ApiCreatedResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { EditForm, EditListForm, KeepPassagesForm, ReelForm } from '@sift-reel/forms';
import { type Actor, CurrentActor } from '../identity/actor.js';
import { CuttingService } from './cutting.service.js';
import { EditListView, FramesQuery, FramesView, TalkAroundView, TighteningQuery, TighteningView } from './cutting.views.js';
import { EditListsService } from './edit-lists.service.js';
import { ReelsService } from './reels.service.js';
import { ShortView } from './shorts.views.js';

@ApiTags('cutting')
@Controller('shorts/:shortId')
export class CuttingController {
  constructor(@Inject(CuttingService) private readonly cutting: CuttingService) {}

  @Get('talk')
  @ApiOkResponse({ type: TalkAroundView })
  readTalk(@CurrentActor() actor: Actor, @Param('shortId', ParseUUIDPipe) shortId: string): Promise<TalkAroundView> {
    return this.cutting.talk(actor, shortId);
  }

  @Put('edit')
  @ApiOkResponse({ type: ShortView })
  saveEdit(@CurrentActor() actor: Actor, @Param('shortId', ParseUUIDPipe) shortId: string, @Body() form: EditForm): Promise<ShortView> {
    return this.cutting.save(actor, shortId, form);
  }

  @Get('tightening')
  @ApiOkResponse({ type: [TighteningView] })
  proposeTightening(
    @CurrentActor() actor: Actor,
    @Param('shortId', ParseUUIDPipe) shortId: string,
    @Query() { pauseMs, paddingMs }: TighteningQuery,
  ): Promise<TighteningView[]> {
    return this.cutting.tightening(actor, shortId, { ...(pauseMs === undefined ? {} : { pauseMs }), ...(paddingMs === undefined ? {} : { paddingMs }) });
  }

  @Get('frames')
  @ApiOkResponse({ type: FramesView })
  drawFrames(@CurrentActor() actor: Actor, @Param('shortId', ParseUUIDPipe) shortId: string, @Query() { shape }: FramesQuery): Promise<FramesView> {
    return this.cutting.frames(actor, shortId, shape);
  }
}

@ApiTags('cutting')
@Controller('sifts/:siftId')
export class ReelsController {
  constructor(
    @Inject(ReelsService) private readonly reels: ReelsService,
    @Inject(EditListsService) private readonly editLists: EditListsService,
  ) {}

  @Post('reel')
  @ApiCreatedResponse({ type: ShortView })
  keepReel(@CurrentActor() actor: Actor, @Param('siftId', ParseUUIDPipe) siftId: string, @Body() form: ReelForm): Promise<ShortView> {
    return this.reels.keep(actor, siftId, form);
  }

  @Post('edit-list')
  @HttpCode(200)
  @ApiOkResponse({ type: EditListView, description: 'What an edit list plays; nothing is kept of it' })
  readEditList(@CurrentActor() actor: Actor, @Param('siftId', ParseUUIDPipe) siftId: string, @Body() form: EditListForm): Promise<EditListView> {
    return this.editLists.read(actor, siftId, form);
  }

  @Post('passages')
  @ApiCreatedResponse({ type: [ShortView] })
  keepPassages(@CurrentActor() actor: Actor, @Param('siftId', ParseUUIDPipe) siftId: string, @Body() form: KeepPassagesForm): Promise<ShortView[]> {
    return this.editLists.keep(actor, siftId, form);
  }
}
