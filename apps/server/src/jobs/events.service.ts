import { EventEmitter } from 'node:events';
import { Inject, Injectable, type BeforeApplicationShutdown, type OnModuleInit } from '@nestjs/common';
import pLimit from 'p-limit';
import { Observable } from 'rxjs';
import { CONFIG, type Config } from '../config/config.module.js';
import { log } from '../config/logger.js';
import { DatabaseLine } from '../database/database-line.js';
import { mayPass } from '../identity/actor.js';
import { SessionsService } from '../identity/sessions.service.js';
import type { JobState } from './job-kind.js';

/** What the browser is told of a job, as it happens. */
export interface JobEvent {
  readonly kind: string;
  readonly subjectId: string;
  readonly clientId: string;
  readonly about: Readonly<Record<string, string>>;
  readonly state: JobState;
  readonly stage: string;
  readonly fraction: number;
  readonly leftMs: number | null;
  readonly attempt: number;
  readonly failure: string | null;
}

/**
 * `job`: a job changed. `beat`: the line is open. `missed`: it was not for a while, load again what may have changed.
 * `over`: the session ended; sign in again.
 */
export type StreamMessage =
  { readonly type: 'job'; readonly job: JobEvent } | { readonly type: 'beat' } | { readonly type: 'missed' } | { readonly type: 'over' };

const BEAT_MS = 20_000;

/** Hears what the database tells of jobs and passes it on to whoever may see it; any web node shows any worker's work. */
@Injectable()
export class EventsService implements OnModuleInit, BeforeApplicationShutdown {
  private readonly events = new EventEmitter().setMaxListeners(0);
  private readonly line: DatabaseLine;

  constructor(
    @Inject(CONFIG) config: Config,
    @Inject(SessionsService) private readonly sessions: SessionsService,
  ) {
    this.line = new DatabaseLine(config.databaseUrl, 'event line', {
      listen: ['job_changed', 'access_changed'],
      onNotification: (channel, payload) => {
        if (channel === 'access_changed') this.events.emit('access', payload);
        else this.events.emit('job', JSON.parse(payload) as JobEvent);
      },
      onOpen: (again) => {
        if (again) this.events.emit('missed');
      },
    });
  }

  async onModuleInit(): Promise<void> {
    await this.line.open();
  }

  /** True while the database's events are heard. */
  get hears(): boolean {
    return this.line.isOpen;
  }

  /** The stream of one session, until the browser goes away or the session ends. What its user may see is looked at for each event. */
  streamFor(token: string, userId: string): Observable<{ data: StreamMessage }> {
    return new Observable((subscriber) => {
      const oneAfterAnother = pLimit(1); // what is told keeps its order, however long looking takes
      const send = (data: StreamMessage): void => subscriber.next({ data });
      const whenSignedIn = (act: (clientIds: readonly string[] | 'all') => void): void => {
        oneAfterAnother(() => this.sessions.actorOf(token)).then(
          (actor) => {
            if (subscriber.closed) return;
            if (actor !== null) return act(actor.clientIds);
            send({ type: 'over' });
            subscriber.complete();
          },
          (error: unknown) => {
            // Nobody knows what they may see: end the stream, and the browser comes back for it.
            log.warn({ error: String(error) }, 'an event stream was ended');
            subscriber.complete();
          },
        );
      };
      const onJob = (job: JobEvent): void =>
        whenSignedIn((clientIds) => {
          if (mayPass(clientIds, job.clientId)) send({ type: 'job', job });
        });
      const onMissed = (): void => whenSignedIn(() => send({ type: 'missed' }));
      const onAccess = (changed: string): void => {
        if (changed === userId) whenSignedIn(() => send({ type: 'missed' }));
      };
      const onStop = (): void => subscriber.complete();
      const heard = { job: onJob, missed: onMissed, access: onAccess, stop: onStop };
      for (const [name, listener] of Object.entries(heard)) this.events.on(name, listener);
      const beat = setInterval(() => whenSignedIn(() => send({ type: 'beat' })), BEAT_MS);
      send({ type: 'beat' });
      return () => {
        clearInterval(beat);
        oneAfterAnother.clearQueue();
        for (const [name, listener] of Object.entries(heard)) this.events.off(name, listener);
      };
    });
  }

  async beforeApplicationShutdown(): Promise<void> {
    this.events.emit('stop');
    await this.line.close();
  }
}
