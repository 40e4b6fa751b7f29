import { Inject, Injectable, type OnApplicationBootstrap, type OnModuleDestroy } from '@nestjs/common';
import { Rounds } from '../config/rounds.js';
import { Database } from '../database/database.service.js';
import { JobsService } from '../jobs/jobs.service.js';
import { FEED } from './feeds.kind.js';

const LOOK_EVERY_MS = 15_000;
/**
 * Feeds that are due, of clients the agency works for. Their next time is set at once: whoever looks in the same moment passes them over,
 * and a reading that never ends is tried again later.
 */
const DUE = `UPDATE feeds SET next_read_at = now() + interval '20 minutes' WHERE id IN (
  SELECT f.id FROM feeds f JOIN clients c ON c.id = f.client_id AND c.archived_at IS NULL
  WHERE f.next_read_at <= now() ORDER BY f.next_read_at LIMIT 50 FOR UPDATE OF f SKIP LOCKED) RETURNING id, client_id AS "clientId"`;

/** Sees to it that feeds are read when they are due: any number of workers may, and each time one does. */
@Injectable()
export class FeedClock implements OnApplicationBootstrap, OnModuleDestroy {
  private readonly rounds = new Rounds('feeds that are due', LOOK_EVERY_MS, () => this.look());

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(JobsService) private readonly jobs: JobsService,
  ) {}

  async onApplicationBootstrap(): Promise<void> {
    await this.rounds.begin();
  }
  onModuleDestroy(): void {
    this.rounds.end();
  }

  async look(): Promise<number> {
    return this.database.transaction(async () => {
      const due = await this.database.run<{ id: string; clientId: string }>(DUE);
      for (const { id, clientId } of due) await this.jobs.enqueue(FEED, { subjectId: id, clientId, about: { feedId: id }, size: 'short', again: true });
      return due.length;
    });
  }
}
