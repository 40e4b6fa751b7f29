import { Controller, Inject, Req, Sse } from '@nestjs/common';
import { ApiExcludeEndpoint } from '@nestjs/swagger';
import type { Request } from 'express';
import type { Observable } from 'rxjs';
import { CONFIG, type Config } from '../config/config.module.js';
import { type Actor, CurrentActor } from '../identity/actor.js';
import { sessionToken } from '../identity/session.guard.js';
import { EventsService, type StreamMessage } from './events.service.js';

@Controller('progress')
export class EventsController {
  constructor(
    @Inject(EventsService) private readonly events: EventsService,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  /** Server-sent events of every job the actor may see. Not part of the generated client; see the web's `events.ts`. */
  @Sse()
  @ApiExcludeEndpoint()
  streamProgress(@CurrentActor() actor: Actor, @Req() request: Request): Observable<{ data: StreamMessage }> {
    return this.events.streamFor(sessionToken(request, this.config) ?? '', actor.userId);
  }
}
