import { EventEmitter } from 'node:events';
import { Inject, Injectable, type OnApplicationShutdown, type OnModuleInit } from '@nestjs/common';
import pg from 'pg';
import { Observable } from 'rxjs';
import { CONFIG, type Config } from '../config/config.module.js';
import { log } from '../config/logger.js';
import type { Actor } from '../identity/actor.js';

export const PROGRESS_CHANNEL = 'sift_progress';

/** What the browser is told of a sift, as it happens. */
export interface SiftProgressEvent {
  readonly siftId: string;
  readonly recordingId: string;
  readonly clientId: string;
  readonly state: string;
  readonly stage: string;
  readonly fraction: number;
  readonly leftMs: number | null;
}

const RECONNECT_MS = 1_000;

/** Hears PostgreSQL's notifications and passes them on to whoever may see them; any web node shows any worker's work. */
@Injectable()
export class ProgressService implements OnModuleInit, OnApplicationShutdown {
  private readonly events = new EventEmitter().setMaxListeners(0);
  private client: pg.Client | null = null;
  private closing = false;
  private timer: NodeJS.Timeout | null = null;
  constructor(@Inject(CONFIG) private readonly config: Config) {}

  async onModuleInit(): Promise<void> {
    await this.listen();
  }

  private async listen(): Promise<void> {
    const client = new pg.Client({ connectionString: this.config.databaseUrl });
    client.on('notification', ({ payload }) => this.events.emit('progress', JSON.parse(payload ?? 'null') as SiftProgressEvent));
    client.on('error', (error) => {
      log.warn({ error: error.message }, 'lost the line to the database’s notifications');
      this.client = null;
      if (!this.closing)
        this.timer = setTimeout(() => {
          this.listen().catch((again: unknown) => log.error({ error: String(again) }, 'cannot listen'));
        }, RECONNECT_MS);
    });
    await client.connect();
    await client.query(`LISTEN ${PROGRESS_CHANNEL}`);
    this.client = client;
  }

  /** Events about the actor's clients, until the browser goes away; a beat every 20 s keeps the line open. */
  streamFor(actor: Actor): Observable<{ data: SiftProgressEvent | { beat: true } }> {
    return new Observable((subscriber) => {
      const pass = (event: SiftProgressEvent): void => {
        if (actor.clientIds === 'all' || actor.clientIds.includes(event.clientId)) subscriber.next({ data: event });
      };
      this.events.on('progress', pass);
      const beat = setInterval(() => subscriber.next({ data: { beat: true } }), 20_000);
      subscriber.next({ data: { beat: true } });
      return () => {
        clearInterval(beat);
        this.events.off('progress', pass);
      };
    });
  }

  async onApplicationShutdown(): Promise<void> {
    this.closing = true;
    if (this.timer !== null) clearTimeout(this.timer);
    await this.client?.end();
  }
}
