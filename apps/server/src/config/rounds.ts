import { log } from './logger.js';

/** Work that comes round as long as the process lives, once at its start. A round that fails is logged, and the next one comes. */
export class Rounds {
  private timer: NodeJS.Timeout | null = null;

  /** @param what as the log names it */
  constructor(
    private readonly what: string,
    private readonly everyMs: number,
    private readonly act: () => Promise<unknown>,
  ) {}

  /** The first round is waited for, and its failure is the caller's. */
  async begin(): Promise<void> {
    await this.act();
    this.timer = setInterval(() => {
      this.act().catch((error: unknown) => log.warn({ error: String(error) }, `${this.what}: this round failed`));
    }, this.everyMs);
  }

  end(): void {
    if (this.timer !== null) clearInterval(this.timer);
  }
}
