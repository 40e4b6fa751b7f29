import { Injectable, type OnModuleDestroy } from '@nestjs/common';
import type { Copy } from '@sift-reel/core';
import { Piscina } from 'piscina';
import type { PrepareOutcome, ProposeCopyTask } from './text-tasks.js';

/** Threads for work on text that would hold up the event loop. */
@Injectable()
export class TextPool implements OnModuleDestroy {
  private readonly pool = new Piscina({ filename: new URL('./text-tasks.js', import.meta.url).href, minThreads: 0, maxThreads: 2, idleTimeout: 30_000 });

  prepareTranscript(bytes: Uint8Array): Promise<PrepareOutcome> {
    return this.pool.run({ bytes }, { name: 'prepareTranscript' }) as Promise<PrepareOutcome>;
  }

  proposeCopy(task: ProposeCopyTask): Promise<Copy> {
    return this.pool.run(task, { name: 'proposeCopyForShort' }) as Promise<Copy>;
  }

  async onModuleDestroy(): Promise<void> {
    await this.pool.destroy();
  }
}
