import { Body, Controller, Delete, Get, HttpCode, Inject, Param, ParseUUIDPipe, Post, Put } from '@nestjs/common';
import { ApiCreatedResponse, ApiNoContentResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { FeedChangeForm, FeedForm, LinkForm, TakeInForm } from '@sift-reel/forms';
import { type Actor, CurrentActor } from '../identity/actor.js';
import { RecordingView } from '../recordings/recordings.views.js';
import { FeedsService } from './feeds.service.js';
import { EpisodeView, FeedView } from './feeds.views.js';
import { FetchesService } from './fetches.service.js';

@ApiTags('feeds')
@Controller()
export class FeedsController {
  constructor(
    @Inject(FeedsService) private readonly feeds: FeedsService,
    @Inject(FetchesService) private readonly fetches: FetchesService,
  ) {}

  @Get('feeds')
  @ApiOkResponse({ type: [FeedView] })
  listFeeds(@CurrentActor() actor: Actor): Promise<FeedView[]> {
    return this.feeds.list(actor);
  }

  @Post('clients/:clientId/feeds')
  @ApiCreatedResponse({ type: FeedView })
  followFeed(@CurrentActor() actor: Actor, @Param('clientId', ParseUUIDPipe) clientId: string, @Body() form: FeedForm): Promise<FeedView> {
    return this.feeds.follow(actor, clientId, form);
  }

  @Put('feeds/:feedId')
  @ApiOkResponse({ type: FeedView })
  changeFeed(@CurrentActor() actor: Actor, @Param('feedId', ParseUUIDPipe) feedId: string, @Body() form: FeedChangeForm): Promise<FeedView> {
    return this.feeds.change(actor, feedId, form);
  }

  @Delete('feeds/:feedId')
  @HttpCode(204)
  @ApiNoContentResponse()
  leaveFeed(@CurrentActor() actor: Actor, @Param('feedId', ParseUUIDPipe) feedId: string): Promise<void> {
    return this.feeds.leave(actor, feedId);
  }

  @Post('feeds/:feedId/reading')
  @HttpCode(200)
  @ApiOkResponse({ type: FeedView })
  readFeedNow(@CurrentActor() actor: Actor, @Param('feedId', ParseUUIDPipe) feedId: string): Promise<FeedView> {
    return this.feeds.readNow(actor, feedId);
  }

  @Get('feeds/:feedId/episodes')
  @ApiOkResponse({ type: [EpisodeView] })
  listEpisodes(@CurrentActor() actor: Actor, @Param('feedId', ParseUUIDPipe) feedId: string): Promise<EpisodeView[]> {
    return this.feeds.episodes(actor, feedId);
  }

  @Get('new-episodes')
  @ApiOkResponse({ type: [EpisodeView] })
  listNewEpisodes(@CurrentActor() actor: Actor): Promise<EpisodeView[]> {
    return this.feeds.newEpisodes(actor);
  }

  @Post('episodes/:episodeId/recording')
  @ApiCreatedResponse({ type: RecordingView })
  takeInEpisode(@CurrentActor() actor: Actor, @Param('episodeId', ParseUUIDPipe) episodeId: string, @Body() form: TakeInForm): Promise<RecordingView> {
    return this.feeds.takeIn(actor, episodeId, form);
  }

  @Post('clients/:clientId/links')
  @ApiCreatedResponse({ type: RecordingView })
  fetchLink(@CurrentActor() actor: Actor, @Param('clientId', ParseUUIDPipe) clientId: string, @Body() form: LinkForm): Promise<RecordingView> {
    return this.feeds.fromLink(actor, clientId, form);
  }

  @Post('recordings/:recordingId/fetch')
  @HttpCode(200)
  @ApiOkResponse({ type: RecordingView })
  fetchAgain(@CurrentActor() actor: Actor, @Param('recordingId', ParseUUIDPipe) recordingId: string): Promise<RecordingView> {
    return this.fetches.again(actor, recordingId);
  }

  @Delete('recordings/:recordingId/fetch')
  @HttpCode(200)
  @ApiOkResponse({ type: RecordingView })
  stopFetch(@CurrentActor() actor: Actor, @Param('recordingId', ParseUUIDPipe) recordingId: string): Promise<RecordingView> {
    return this.fetches.stop(actor, recordingId);
  }
}
