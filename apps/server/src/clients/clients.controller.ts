import { Body, Controller, Delete, Get, HttpCode, Inject, Param, ParseUUIDPipe, Post, Put } from '@nestjs/common';
import { ApiCreatedResponse, ApiNoContentResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { BlackoutForm, ChannelForm, ClientForm, InterestForm, PlatformProfileForm, SignalWeightsForm } from '@sift-reel/forms';
import { type Actor, CurrentActor } from '../identity/actor.js';
import { ClientsService } from './clients.service.js';
import { AuditView, BlackoutView, ChannelView, ClientView, InterestTermView, PlatformProfileView } from './clients.views.js';

@ApiTags('clients')
@Controller()
export class ClientsController {
  constructor(@Inject(ClientsService) private readonly clients: ClientsService) {}

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
  updateClient(@CurrentActor() actor: Actor, @Param('clientId', ParseUUIDPipe) clientId: string, @Body() form: ClientForm): Promise<ClientView> {
    return this.clients.update(actor, clientId, form);
  }

  @Put('clients/:clientId/signal-weights')
  @ApiOkResponse({ type: ClientView })
  setSignalWeights(@CurrentActor() actor: Actor, @Param('clientId', ParseUUIDPipe) clientId: string, @Body() form: SignalWeightsForm): Promise<ClientView> {
    return this.clients.setSignalWeights(actor, clientId, form.weights);
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
    return this.clients.listChannels(actor);
  }

  @Post('clients/:clientId/channels')
  @ApiCreatedResponse({ type: ChannelView })
  createChannel(@CurrentActor() actor: Actor, @Param('clientId', ParseUUIDPipe) clientId: string, @Body() form: ChannelForm): Promise<ChannelView> {
    return this.clients.createChannel(actor, clientId, form);
  }

  @Put('channels/:channelId')
  @ApiOkResponse({ type: ChannelView })
  updateChannel(@CurrentActor() actor: Actor, @Param('channelId', ParseUUIDPipe) channelId: string, @Body() form: ChannelForm): Promise<ChannelView> {
    return this.clients.updateChannel(actor, channelId, form);
  }

  @Delete('channels/:channelId')
  @HttpCode(204)
  @ApiNoContentResponse()
  removeChannel(@CurrentActor() actor: Actor, @Param('channelId', ParseUUIDPipe) channelId: string): Promise<void> {
    return this.clients.removeChannel(actor, channelId);
  }

  @Get('blackouts')
  @ApiOkResponse({ type: [BlackoutView] })
  listBlackouts(@CurrentActor() actor: Actor): Promise<BlackoutView[]> {
    return this.clients.listBlackouts(actor);
  }

  @Post('clients/:clientId/blackouts')
  @ApiCreatedResponse({ type: BlackoutView })
  createBlackout(@CurrentActor() actor: Actor, @Param('clientId', ParseUUIDPipe) clientId: string, @Body() form: BlackoutForm): Promise<BlackoutView> {
    return this.clients.createBlackout(actor, clientId, form);
  }

  @Delete('blackouts/:blackoutId')
  @HttpCode(204)
  @ApiNoContentResponse()
  removeBlackout(@CurrentActor() actor: Actor, @Param('blackoutId', ParseUUIDPipe) blackoutId: string): Promise<void> {
    return this.clients.removeBlackout(actor, blackoutId);
  }

  @Get('platform-profiles')
  @ApiOkResponse({ type: [PlatformProfileView] })
  listPlatformProfiles(): Promise<PlatformProfileView[]> {
    return this.clients.listPlatforms();
  }

  @Post('platform-profiles')
  @ApiCreatedResponse({ type: PlatformProfileView })
  createPlatformProfile(@CurrentActor() actor: Actor, @Body() form: PlatformProfileForm): Promise<PlatformProfileView> {
    return this.clients.createPlatform(actor, form);
  }

  @Put('platform-profiles/:platformProfileId')
  @ApiOkResponse({ type: PlatformProfileView })
  updatePlatformProfile(
    @CurrentActor() actor: Actor,
    @Param('platformProfileId', ParseUUIDPipe) id: string,
    @Body() form: PlatformProfileForm,
  ): Promise<PlatformProfileView> {
    return this.clients.updatePlatform(actor, id, form);
  }
}
