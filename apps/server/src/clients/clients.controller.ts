import { Body, Controller, Delete, Get, HttpCode, Inject, Param, ParseUUIDPipe, Post, Put } from '@nestjs/common';
import { ApiCreatedResponse, ApiNoContentResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import {
  BlackoutForm,
  CardStyleForm,
  ChannelChangeForm,
  ChannelForm,
  ClientChangeForm,
  ClientForm,
  ComeAgainForm,
  LatenessForm,
  FilesKeptForm,
  InterestForm,
  PlatformProfileChangeForm,
  PlatformProfileForm,
  SignalWeightsForm,
  VoiceForm,
  WritingAllowedForm,
} from '@sift-reel/forms';
import { type Actor, CurrentActor } from '../identity/actor.js';
import { ChannelsService } from './channels.service.js';
import { ClientsService } from './clients.service.js';
import { ArchivedClientView, AuditView, BlackoutView, ChannelView, ClientView, InterestTermView, PlatformProfileView } from './clients.views.js';
import { PlatformsService } from './platforms.service.js';

@ApiTags('clients')
@Controller()
export class ClientsController {
  constructor(
    @Inject(ClientsService) private readonly clients: ClientsService,
    @Inject(ChannelsService) private readonly channels: ChannelsService,
    @Inject(PlatformsService) private readonly platforms: PlatformsService,
  ) {}

  @Get('clients')
  @ApiOkResponse({ type: [ClientView] })
  listClients(@CurrentActor() actor: Actor): Promise<ClientView[]> {
    return this.clients.list(actor);
  }

  @Post('clients')
  @ApiCreatedResponse({ type: ClientView })
  createClient(@CurrentActor() actor: Actor, @Body() form: ClientForm): Promise<ClientView> {
    return this.clients.create(actor, form);
  }

  @Put('clients/:clientId')
  @ApiOkResponse({ type: ClientView })
  updateClient(@CurrentActor() actor: Actor, @Param('clientId', ParseUUIDPipe) clientId: string, @Body() form: ClientChangeForm): Promise<ClientView> {
    return this.clients.update(actor, clientId, form);
  }

  @Get('archived-clients')
  @ApiOkResponse({ type: [ArchivedClientView] })
  listArchivedClients(@CurrentActor() actor: Actor): Promise<ArchivedClientView[]> {
    return this.clients.listArchived(actor);
  }

  @Delete('clients/:clientId')
  @HttpCode(204)
  @ApiNoContentResponse()
  archiveClient(@CurrentActor() actor: Actor, @Param('clientId', ParseUUIDPipe) clientId: string): Promise<void> {
    return this.clients.archive(actor, clientId);
  }

  @Post('archived-clients/:clientId/restore')
  @HttpCode(200)
  @ApiOkResponse({ type: ClientView })
  restoreClient(@CurrentActor() actor: Actor, @Param('clientId', ParseUUIDPipe) clientId: string): Promise<ClientView> {
    return this.clients.restore(actor, clientId);
  }

  @Get('audit')
  @ApiOkResponse({ type: [AuditView] })
  listAgencyAudit(@CurrentActor() actor: Actor): Promise<AuditView[]> {
    return this.clients.listAgencyAudit(actor);
  }

  @Put('clients/:clientId/signal-weights')
  @ApiOkResponse({ type: ClientView })
  setSignalWeights(@CurrentActor() actor: Actor, @Param('clientId', ParseUUIDPipe) clientId: string, @Body() form: SignalWeightsForm): Promise<ClientView> {
    return this.clients.setSignalWeights(actor, clientId, form);
  }

  @Put('clients/:clientId/voice')
  @ApiOkResponse({ type: ClientView })
  setVoice(@CurrentActor() actor: Actor, @Param('clientId', ParseUUIDPipe) clientId: string, @Body() form: VoiceForm): Promise<ClientView> {
    return this.clients.setVoice(actor, clientId, form);
  }

  @Put('clients/:clientId/card-style')
  @ApiOkResponse({ type: ClientView })
  setCardStyle(@CurrentActor() actor: Actor, @Param('clientId', ParseUUIDPipe) clientId: string, @Body() form: CardStyleForm): Promise<ClientView> {
    return this.clients.setCardStyle(actor, clientId, form);
  }

  @Put('clients/:clientId/writing-service')
  @ApiOkResponse({ type: ClientView })
  allowWriting(@CurrentActor() actor: Actor, @Param('clientId', ParseUUIDPipe) clientId: string, @Body() form: WritingAllowedForm): Promise<ClientView> {
    return this.clients.allowWriting(actor, clientId, form);
  }

  @Put('clients/:clientId/files-kept')
  @ApiOkResponse({ type: ClientView })
  setFilesKept(@CurrentActor() actor: Actor, @Param('clientId', ParseUUIDPipe) clientId: string, @Body() form: FilesKeptForm): Promise<ClientView> {
    return this.clients.setFilesKept(actor, clientId, form);
  }

  @Put('clients/:clientId/lateness')
  @ApiOkResponse({ type: ClientView })
  setLateness(@CurrentActor() actor: Actor, @Param('clientId', ParseUUIDPipe) clientId: string, @Body() form: LatenessForm): Promise<ClientView> {
    return this.clients.setLateness(actor, clientId, form);
  }

  @Put('clients/:clientId/come-again')
  @ApiOkResponse({ type: ClientView })
  setComeAgain(@CurrentActor() actor: Actor, @Param('clientId', ParseUUIDPipe) clientId: string, @Body() form: ComeAgainForm): Promise<ClientView> {
    return this.clients.setComeAgain(actor, clientId, form);
  }

  @Get('clients/:clientId/interest')
  @ApiOkResponse({ type: [InterestTermView] })
  listInterest(@CurrentActor() actor: Actor, @Param('clientId', ParseUUIDPipe) clientId: string): Promise<InterestTermView[]> {
    return this.clients.listInterest(actor, clientId);
  }

  @Put('clients/:clientId/interest')
  @ApiOkResponse({ type: [InterestTermView] })
  setInterest(@CurrentActor() actor: Actor, @Param('clientId', ParseUUIDPipe) clientId: string, @Body() form: InterestForm): Promise<InterestTermView[]> {
    return this.clients.setInterest(actor, clientId, form.csv);
  }

  @Get('clients/:clientId/audit')
  @ApiOkResponse({ type: [AuditView] })
  listAudit(@CurrentActor() actor: Actor, @Param('clientId', ParseUUIDPipe) clientId: string): Promise<AuditView[]> {
    return this.clients.listAudit(actor, clientId);
  }

  @Get('channels')
  @ApiOkResponse({ type: [ChannelView] })
  listChannels(@CurrentActor() actor: Actor): Promise<ChannelView[]> {
    return this.channels.list(actor);
  }

  @Post('clients/:clientId/channels')
  @ApiCreatedResponse({ type: ChannelView })
  createChannel(@CurrentActor() actor: Actor, @Param('clientId', ParseUUIDPipe) clientId: string, @Body() form: ChannelForm): Promise<ChannelView> {
    return this.channels.create(actor, clientId, form);
  }

  @Put('channels/:channelId')
  @ApiOkResponse({ type: ChannelView })
  updateChannel(@CurrentActor() actor: Actor, @Param('channelId', ParseUUIDPipe) channelId: string, @Body() form: ChannelChangeForm): Promise<ChannelView> {
    return this.channels.update(actor, channelId, form);
  }

  @Delete('channels/:channelId')
  @HttpCode(204)
  @ApiNoContentResponse()
  removeChannel(@CurrentActor() actor: Actor, @Param('channelId', ParseUUIDPipe) channelId: string): Promise<void> {
    return this.channels.remove(actor, channelId);
  }

  @Get('blackouts')
  @ApiOkResponse({ type: [BlackoutView] })
  listBlackouts(@CurrentActor() actor: Actor): Promise<BlackoutView[]> {
    return this.channels.listBlackouts(actor);
  }

  @Post('clients/:clientId/blackouts')
  @ApiCreatedResponse({ type: BlackoutView })
  createBlackout(@CurrentActor() actor: Actor, @Param('clientId', ParseUUIDPipe) clientId: string, @Body() form: BlackoutForm): Promise<BlackoutView> {
    return this.channels.createBlackout(actor, clientId, form);
  }

  @Delete('blackouts/:blackoutId')
  @HttpCode(204)
  @ApiNoContentResponse()
  removeBlackout(@CurrentActor() actor: Actor, @Param('blackoutId', ParseUUIDPipe) blackoutId: string): Promise<void> {
    return this.channels.removeBlackout(actor, blackoutId);
  }

  @Get('platform-profiles')
  @ApiOkResponse({ type: [PlatformProfileView] })
  listPlatformProfiles(): Promise<PlatformProfileView[]> {
    return this.platforms.list();
  }

  @Post('platform-profiles')
  @ApiCreatedResponse({ type: PlatformProfileView })
  createPlatformProfile(@CurrentActor() actor: Actor, @Body() form: PlatformProfileForm): Promise<PlatformProfileView> {
    return this.platforms.create(actor, form);
  }

  @Put('platform-profiles/:platformProfileId')
  @ApiOkResponse({ type: PlatformProfileView })
  updatePlatformProfile(
    @CurrentActor() actor: Actor,
    @Param('platformProfileId', ParseUUIDPipe) id: string,
    @Body() form: PlatformProfileChangeForm,
  ): Promise<PlatformProfileView> {
    return this.platforms.update(actor, id, form);
  }
}
