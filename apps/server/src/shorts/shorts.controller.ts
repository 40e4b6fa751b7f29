import { Body, Controller, Delete, Get, HttpCode, Inject, Param, ParseIntPipe, ParseUUIDPipe, Post, Put, Query } from '@nestjs/common';
import { ApiOkResponse, ApiQuery, ApiTags } from '@nestjs/swagger';
import { ApprovalForm, CheckForm, CopyForm, EvergreenForm } from '@sift-reel/forms';
import { type Actor, CurrentActor } from '../identity/actor.js';
import { ShortsService } from './shorts.service.js';
import { CheckView, CopyVersionView, CopyView, PassageView, ShortView, TitleView } from './shorts.views.js';

const OPTIONAL_ID = new ParseUUIDPipe({ optional: true });

@ApiTags('shorts')
@Controller('shorts')
export class ShortsController {
  constructor(@Inject(ShortsService) private readonly shorts: ShortsService) {}

  @Get()
  @ApiOkResponse({ type: [ShortView] })
  @ApiQuery({ name: 'recordingId', required: false, type: String })
  @ApiQuery({ name: 'clientId', required: false, type: String })
  listShorts(
    @CurrentActor() actor: Actor,
    @Query('recordingId', OPTIONAL_ID) recordingId?: string,
    @Query('clientId', OPTIONAL_ID) clientId?: string,
  ): Promise<ShortView[]> {
    return this.shorts.list(actor, { recordingId, clientId });
  }

  @Get(':shortId')
  @ApiOkResponse({ type: ShortView })
  readShort(@CurrentActor() actor: Actor, @Param('shortId', ParseUUIDPipe) shortId: string): Promise<ShortView> {
    return this.shorts.read(actor, shortId);
  }

  @Put(':shortId/copy')
  @ApiOkResponse({ type: ShortView })
  saveCopy(@CurrentActor() actor: Actor, @Param('shortId', ParseUUIDPipe) shortId: string, @Body() form: CopyForm): Promise<ShortView> {
    return this.shorts.saveCopy(actor, shortId, null, form);
  }

  @Put(':shortId/copy/:channelId')
  @ApiOkResponse({ type: ShortView })
  saveVariant(
    @CurrentActor() actor: Actor,
    @Param('shortId', ParseUUIDPipe) shortId: string,
    @Param('channelId', ParseUUIDPipe) channelId: string,
    @Body() form: CopyForm,
  ): Promise<ShortView> {
    return this.shorts.saveCopy(actor, shortId, channelId, form);
  }

  @Delete(':shortId/copy/:channelId')
  @ApiOkResponse({ type: ShortView })
  @ApiQuery({ name: 'version', type: Number, description: 'The version that was seen' })
  dropVariant(
    @CurrentActor() actor: Actor,
    @Param('shortId', ParseUUIDPipe) shortId: string,
    @Param('channelId', ParseUUIDPipe) channelId: string,
    @Query('version', ParseIntPipe) version: number,
  ): Promise<ShortView> {
    return this.shorts.dropVariant(actor, shortId, channelId, version);
  }

  @Post(':shortId/proposal')
  @HttpCode(200)
  @ApiOkResponse({ type: CopyView })
  @ApiQuery({ name: 'channelId', required: false, type: String })
  proposeCopy(
    @CurrentActor() actor: Actor,
    @Param('shortId', ParseUUIDPipe) shortId: string,
    @Query('channelId', OPTIONAL_ID) channelId?: string,
  ): Promise<CopyView> {
    return this.shorts.proposeAgain(actor, shortId, channelId ?? null);
  }

  @Get(':shortId/history')
  @ApiOkResponse({ type: [CopyVersionView] })
  listCopyVersions(@CurrentActor() actor: Actor, @Param('shortId', ParseUUIDPipe) shortId: string): Promise<CopyVersionView[]> {
    return this.shorts.listVersions(actor, shortId);
  }

  @Get(':shortId/passage')
  @ApiOkResponse({ type: PassageView })
  readPassage(@CurrentActor() actor: Actor, @Param('shortId', ParseUUIDPipe) shortId: string): Promise<PassageView> {
    return this.shorts.readPassage(actor, shortId);
  }

  @Get(':shortId/titles')
  @ApiOkResponse({ type: [TitleView] })
  @ApiQuery({ name: 'channelId', required: false, type: String })
  offerTitles(
    @CurrentActor() actor: Actor,
    @Param('shortId', ParseUUIDPipe) shortId: string,
    @Query('channelId', OPTIONAL_ID) channelId?: string,
  ): Promise<TitleView[]> {
    return this.shorts.offerTitles(actor, shortId, channelId ?? null);
  }

  @Post(':shortId/check')
  @HttpCode(200)
  @ApiOkResponse({ type: CheckView })
  checkCopy(@CurrentActor() actor: Actor, @Param('shortId', ParseUUIDPipe) shortId: string, @Body() form: CheckForm): Promise<CheckView> {
    return this.shorts.check(actor, shortId, form);
  }

  @Put(':shortId/evergreen')
  @ApiOkResponse({ type: ShortView })
  setEvergreen(@CurrentActor() actor: Actor, @Param('shortId', ParseUUIDPipe) shortId: string, @Body() form: EvergreenForm): Promise<ShortView> {
    return this.shorts.setEvergreen(actor, shortId, form);
  }

  @Put(':shortId/approval')
  @ApiOkResponse({ type: ShortView })
  setApproval(@CurrentActor() actor: Actor, @Param('shortId', ParseUUIDPipe) shortId: string, @Body() form: ApprovalForm): Promise<ShortView> {
    return this.shorts.setApproval(actor, shortId, form);
  }
}
