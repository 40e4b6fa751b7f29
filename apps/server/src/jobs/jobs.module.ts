import { Global, Module } from '@nestjs/common';
import { IdentityModule } from '../identity/identity.module.js';
import { EventsController } from './events.controller.js';
import { EventsService } from './events.service.js';
import { JobWorker } from './job-worker.service.js';
import { JobsService } from './jobs.service.js';

/** What asks for work and reads how it stands: API and workers alike. */
@Global()
@Module({ providers: [JobsService], exports: [JobsService] })
export class JobsModule {}

/** What the browsers are told: the API alone. */
@Module({ imports: [IdentityModule], controllers: [EventsController], providers: [EventsService], exports: [EventsService] })
export class JobEventsModule {}

/** What does the work: workers alone. Each feature registers its kinds here. */
@Global()
@Module({ providers: [JobWorker], exports: [JobWorker] })
export class JobWorkerModule {}
