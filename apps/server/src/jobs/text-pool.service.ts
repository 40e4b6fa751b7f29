import { Injectable, type OnModuleDestroy } from '@nestjs/common';
import type { Candidate, Copy, SearchHit } from '@sift-reel/core';
import { Piscina } from 'piscina';
import type { PrepareOutcome, ProposeCopyTask, ScorePassageTask, SearchTask } from './text-tasks.js';

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

  search(task: SearchTask): Promise<SearchHit[]> {
    return this.pool.run(task, { name: 'search' }) as Promise<SearchHit[]>;
  }

  scorePassage(task: ScorePassageTask): Promise<Candidate> {
    return this.pool.run(task, { name: 'scoreOwnPassage' }) as Promise<Candidate>;
  }

  async onModuleDestroy(): Promise<void> {
    await this.pool.destroy();
  }
}
