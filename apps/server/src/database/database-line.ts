import { setTimeout as wait } from 'node:timers/promises';
import pg from 'pg';
import { log } from '../config/logger.js';

interface LineHooks {
  /** Channels of NOTIFY to hear. */
  readonly listen: readonly string[];
  onNotification(channel: string, payload: string): void;
  /** The line stands; after the first time, whatever was told in between was missed. */
  onOpen?(again: boolean): void;
  /** The line is lost, and with it every lock that it held. */
  onLost?(): void;
}

const FIRST_WAIT_MS = 200;
const LONGEST_WAIT_MS = 5_000;

/**
 * One connection to PostgreSQL of its own, that holds what lives as long as a connection does (LISTEN, session locks) and
 * comes back for as long as it takes when it is lost. There is never more than one, so nothing is heard twice.
 */
export class DatabaseLine {
  private client: pg.Client | null = null;
  private closing = false;
  private readonly wake = new AbortController();
  private opening: Promise<void> = Promise.resolve();
  private queue: Promise<unknown> = Promise.resolve();

  constructor(
    private readonly url: string,
    private readonly name: string,
    private readonly hooks: LineHooks,
  ) {}

  /** Opens the line for the first time. @throws what keeps it from opening */
  async open(): Promise<void> {
    await this.connect(false);
  }

  get isOpen(): boolean {
    return this.client !== null;
  }

  /** Runs `act` with the connection, one after the other. @throws LineLostError while there is none, or what `act` throws */
  use<T>(act: (client: pg.Client) => Promise<T>): Promise<T> {
    const turn = this.queue.then(async () => {
      const { client } = this;
      if (client === null) throw new LineLostError(`${this.name}: no line to the database`);
      return act(client);
    });
    this.queue = turn.catch(() => undefined);
    return turn;
  }

  async close(): Promise<void> {
    this.closing = true;
    this.wake.abort();
    await this.opening.catch(() => undefined);
    const { client } = this;
    this.client = null;
    await client?.end().catch(() => undefined);
  }

  private async connect(again: boolean): Promise<void> {
    const client = new pg.Client({ connectionString: this.url, application_name: `sift-reel ${this.name}`, keepAlive: true });
    let lost = false;
    const onGone = (reason: string): void => {
      if (lost) return;
      lost = true;
      client.removeAllListeners('notification');
      client.end().catch(() => undefined);
      if (this.client !== client) return; // never stood: whoever opened it is told
      this.client = null;
      if (this.closing) return;
      log.warn({ line: this.name, reason }, 'lost the line to the database');
      this.hooks.onLost?.();
      this.opening = this.comeBack();
    };
    client.on('error', (error) => onGone(error.message)); // stays: an error after the end must not take the process down
    client.on('end', () => onGone('ended'));
    client.on('notification', ({ channel, payload }) => this.hooks.onNotification(channel, payload ?? ''));
    try {
      await client.connect();
      for (const channel of this.hooks.listen) await client.query(`LISTEN ${channel}`);
      if (lost) throw new LineLostError('lost while it was opened');
    } catch (error) {
      lost = true;
      client.removeAllListeners('notification');
      await client.end().catch(() => undefined);
      throw error;
    }
    if (this.closing) {
      await client.end().catch(() => undefined);
      return;
    }
    this.client = client;
    this.hooks.onOpen?.(again);
  }

  private async comeBack(): Promise<void> {
    for (let waitMs = FIRST_WAIT_MS; !this.closing; waitMs = Math.min(waitMs * 2, LONGEST_WAIT_MS)) {
      try {
        await wait(waitMs, undefined, { signal: this.wake.signal });
        await this.connect(true);
        log.info({ line: this.name }, 'the line to the database is back');
        return;
      } catch (error) {
        if (!this.closing) log.debug({ line: this.name, error: String(error) }, 'the database cannot be reached yet');
      }
    }
  }
}

export class LineLostError extends Error {
  override readonly name = 'LineLostError';
}
