import { log } from './logger.js';

/** Work that comes round as long as the process lives, once at its start, one round at a time. A round that fails is logged, and the next one comes. */
export class Rounds {
  private timer: NodeJS.Timeout | null = null;
  private isOver = false;

  /** @param what as the log names it */
  constructor(
    private readonly what: string,
    private readonly everyMs: number,
    private readonly act: () => Promise<unknown>,
  ) {}

  /** The first round is waited for, and its failure is the caller's. */
  async begin(): Promise<void> {
    await this.act();
    this.next();
  }

  end(): void {
    this.isOver = true;
    if (this.timer !== null) clearTimeout(this.timer);
  }

  /** Each round is reckoned from the end of the last, so that none begins beside another, however long one waits for the database. */
  private next(): void {
    if (this.isOver) return;
    this.timer = setTimeout(() => {
      void this.act()
        .catch((error: unknown) => log.warn({ error: String(error) }, `${this.what}: this round failed`))
        .finally(() => this.next());
    }, this.everyMs);
  }
}
