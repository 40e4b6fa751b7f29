import { Module } from '@nestjs/common';
import { ChannelsService } from './channels.service.js';
import { ClientFacts } from './client-facts.js';
import { ClientsController } from './clients.controller.js';
import { ClientsService } from './clients.service.js';
import { PlatformsService } from './platforms.service.js';

@Module({ controllers: [ClientsController], providers: [ClientsService, ChannelsService, PlatformsService, ClientFacts], exports: [ClientFacts] })
export class ClientsModule {}
