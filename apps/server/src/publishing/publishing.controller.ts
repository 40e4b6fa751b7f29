import { createHmac, timingSafeEqual } from 'node:crypto';
import {
  Body,
  Controller,
  Delete,
  ForbiddenException,
  Get,
  HttpCode,
  Inject,
  NotFoundException,
  Param,
  ParseIntPipe,
  ParseUUIDPipe,
  Post,
  Put,
  Query,
  Req,
  Res,
} from '@nestjs/common';
import { ApiCreatedResponse, ApiExcludeEndpoint, ApiNoContentResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { ChannelAccountForm, ConnectedForm, OutcomeForm, PostedWordsForm, PostSeenForm, StopForm } from '@sift-reel/forms';
import type { Request, Response } from 'express';
import { CONFIG, type Config } from '../config/config.module.js';
import { type Actor, CurrentActor } from '../identity/actor.js';
import { Public } from '../identity/session.guard.js';
import { MediaStore } from '../media/media-store.service.js';
import { PostView } from '../planning/planning.views.js';
import { AccountsService } from './accounts.service.js';
import { HandedFiles } from './handed-files.service.js';
import { ConnectedView, ConnectingView, PostingView, SendingView } from './publishing.views.js';
import { SendingsService } from './sendings.service.js';

@ApiTags('publishing')
@Controller()
export class PublishingController {
  constructor(
    @Inject(AccountsService) private readonly accounts: AccountsService,
    @Inject(SendingsService) private readonly sendings: SendingsService,
    @Inject(HandedFiles) private readonly handed: HandedFiles,
    @Inject(MediaStore) private readonly media: MediaStore,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  @Get('posting')
  @ApiOkResponse({ type: PostingView })
  readPosting(@CurrentActor() actor: Actor): Promise<PostingView> {
    return this.accounts.read(actor);
  }

  @Put('posting/stops')
  @ApiOkResponse({ type: PostingView })
  setStop(@CurrentActor() actor: Actor, @Body() form: StopForm): Promise<PostingView> {
    return this.accounts.setStop(actor, form);
  }

  @Post('channels/:channelId/connecting')
  @HttpCode(200)
  @ApiOkResponse({ type: ConnectingView })
  beginConnecting(@CurrentActor() actor: Actor, @Param('channelId', ParseUUIDPipe) channelId: string): Promise<ConnectingView> {
    return this.accounts.begin(actor, channelId);
  }

  @Put('channels/:channelId/account')
  @ApiOkResponse({ type: PostingView })
  chooseAccount(@CurrentActor() actor: Actor, @Param('channelId', ParseUUIDPipe) channelId: string, @Body() form: ChannelAccountForm): Promise<PostingView> {
    return this.accounts.choose(actor, channelId, form.accountId);
  }

  @Post('accounts')
  @ApiCreatedResponse({ type: ConnectedView })
  finishConnecting(@CurrentActor() actor: Actor, @Body() form: ConnectedForm): Promise<ConnectedView> {
    return this.accounts.finish(actor, form);
  }

  @Delete('accounts/:accountId')
  @HttpCode(204)
  @ApiNoContentResponse()
  disconnectAccount(@CurrentActor() actor: Actor, @Param('accountId', ParseUUIDPipe) accountId: string): Promise<void> {
    return this.accounts.disconnect(actor, accountId);
  }

  @Get('posts/:postId/sending')
  @ApiOkResponse({ type: SendingView })
  readSending(@CurrentActor() actor: Actor, @Param('postId', ParseUUIDPipe) postId: string): Promise<SendingView> {
    return this.sendings.read(actor, postId);
  }

  @Post('posts/:postId/sending')
  @ApiCreatedResponse({ type: PostView })
  sendAgain(@CurrentActor() actor: Actor, @Param('postId', ParseUUIDPipe) postId: string, @Body() form: PostSeenForm): Promise<PostView> {
    return this.sendings.sendAgain(actor, postId, form.version);
  }

  @Put('posts/:postId/outcome')
  @ApiOkResponse({ type: PostView })
  tellOutcome(@CurrentActor() actor: Actor, @Param('postId', ParseUUIDPipe) postId: string, @Body() form: OutcomeForm): Promise<PostView> {
    return this.sendings.tellOutcome(actor, postId, form);
  }

  @Put('posts/:postId/words')
  @ApiOkResponse({ type: SendingView })
  correctPost(@CurrentActor() actor: Actor, @Param('postId', ParseUUIDPipe) postId: string, @Body() form: PostedWordsForm): Promise<SendingView> {
    return this.sendings.correct(actor, postId, form);
  }

  @Delete('posts/:postId/publication')
  @ApiOkResponse({ type: SendingView })
  takePostDown(
    @CurrentActor() actor: Actor,
    @Param('postId', ParseUUIDPipe) postId: string,
    @Query('version', ParseIntPipe) version: number,
  ): Promise<SendingView> {
    return this.sendings.takeDown(actor, postId, version);
  }

  /** A platform fetches the file of a post: whoever has the address may, for an hour. */
  @Public()
  @ApiExcludeEndpoint()
  @Get('handed/:token/video.mp4')
  async sendHanded(@Param('token') token: string, @Res() response: Response): Promise<void> {
    await this.media.send(response, await this.handed.fileOf(token), 'renders', { type: 'video/mp4', cacheControl: 'private, no-store' });
  }

  /** A platform calls back. Signed over its bytes; it may come again, since it is only a hint to ask. */
  @Public()
  @ApiExcludeEndpoint()
  @Post('platforms/:service/callbacks')
  @HttpCode(204)
  async takeCallback(@Param('service') service: string, @Req() request: Request & { rawBody?: Buffer }): Promise<void> {
    const platform = Object.hasOwn(this.config.platforms, service) ? this.config.platforms[service] : undefined;
    if (platform === undefined) throw new NotFoundException('There is nothing here.');
    const right = Buffer.from(
      `sha256=${createHmac('sha256', platform.callbackSecret)
        .update(request.rawBody ?? '')
        .digest('hex')}`,
    );
    const given = Buffer.from(request.header('take-signature') ?? '');
    if (given.length !== right.length || !timingSafeEqual(given, right)) throw new ForbiddenException('The signature does not hold.');
    const take: unknown = (request.body as { take?: unknown } | undefined)?.take;
    if (typeof take === 'string') await this.sendings.calledBack(service, take);
  }
}
