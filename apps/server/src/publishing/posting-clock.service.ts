import { Inject, Injectable, type OnApplicationBootstrap, type OnModuleDestroy } from '@nestjs/common';
import { Clock } from '../config/clock.js';
import { CONFIG, type Config } from '../config/config.module.js';
import { Rounds } from '../config/rounds.js';
import { Database } from '../database/database.service.js';
import { JobsService } from '../jobs/jobs.service.js';
import { PLATFORMS } from './platforms/all.js';
import { FILE_AHEAD_MS, LONG_BYTES, POST } from './post.kind.js';

const LOOK_EVERY_MS = 1_000;
/** In simulated time more often, by the time of day; not so often that nothing else is done. */
const LEAST_MS = 100;
const MOST_AT_ONCE = 200;

/** A stop that holds for a post `p`. */
export const STOPPED = `EXISTS (SELECT FROM posting_stops s WHERE (s.client_id IS NULL OR s.client_id = p.client_id) AND (s.channel_id IS NULL OR s.channel_id = p.channel_id))`;

/** What a waiting post `p` waits for is not there yet, as far as a look at the tables tells; what takes more than that is looked at again and again. */
const STILL_WAITS = `CASE p.waits WHEN 'stop' THEN ${STOPPED}
  WHEN 'right' THEN NOT EXISTS (SELECT FROM accounts a WHERE a.id = c.account_id AND a.state = 'connected')
  WHEN 'account' THEN c.account_id IS NULL
  WHEN 'approval' THEN NOT EXISTS (SELECT FROM shorts s WHERE s.id = p.short_id AND s.approved_version IS NOT NULL)
  ELSE false END`;

/** One worker looks at a time; the others have nothing to add. */
const MINE = `SELECT pg_try_advisory_xact_lock(hashtextextended('posting-clock', 0)) AS mine`;

/**
 * Posts that are due for a look and have none asked for, of clients the agency works for, on channels with an account. Nothing of them is
 * locked or written: a look holds its job and then its post, and whoever held them the other way round would stand in its way. $1 now,
 * $2 services, $3 ms each is looked at before its time, by service
 */
const DUE = `SELECT p.id, p.client_id AS "clientId", p.channel_id AS "channelId", (SELECT s.bytes FROM sendings s WHERE s.post_id = p.id) AS bytes
FROM posts p JOIN channels c ON c.id = p.channel_id JOIN clients k ON k.id = p.client_id AND k.archived_at IS NULL
  JOIN platform_profiles f ON f.id = c.platform_profile_id
WHERE p.state IN ('planned', 'waiting', 'sending', 'processing') AND f.service = ANY ($2)
  AND (p.state <> 'planned' OR p.late_ok OR p.at >= c.account_since)
  AND coalesce(p.try_at, p.at - ($3::jsonb ->> f.service)::bigint * interval '1 millisecond') <= $1::timestamptz
  AND (p.state <> 'waiting' OR p.at + k.late_minutes * interval '1 minute' < $1::timestamptz OR NOT ${STILL_WAITS})
  AND NOT EXISTS (SELECT FROM jobs j WHERE j.kind = 'post' AND j.subject_id = p.id AND j.state IN ('waiting', 'running'))
ORDER BY p.at, p.id LIMIT ${MOST_AT_ONCE}`;

/** Sees to it that posts are looked at when they are due: any number of workers may, and each time one does. */
@Injectable()
export class PostingClock implements OnApplicationBootstrap, OnModuleDestroy {
  private readonly rounds: Rounds;
  private readonly services: string[];
  private readonly ahead: string;

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(JobsService) private readonly jobs: JobsService,
    @Inject(Clock) private readonly clock: Clock,
    @Inject(CONFIG) config: Config,
  ) {
    this.rounds = new Rounds('posts that are due', Math.max(LEAST_MS, LOOK_EVERY_MS / clock.speed()), () => this.look());
    const known = [...PLATFORMS.values()].filter(({ name }) => config.platforms[name] !== undefined);
    this.services = known.map(({ name }) => name);
    this.ahead = JSON.stringify(Object.fromEntries(known.map(({ name, aheadMs }) => [name, aheadMs + FILE_AHEAD_MS])));
  }

  async onApplicationBootstrap(): Promise<void> {
    if (this.services.length > 0) await this.rounds.begin();
  }
  onModuleDestroy(): void {
    this.rounds.end();
  }

  async look(): Promise<number> {
    const due = await this.database.transaction(async () => {
      if ((await this.database.run<{ mine: boolean }>(MINE))[0]?.mine !== true) return 0;
      const now = new Date(this.clock.nowMs());
      const rows = await this.database.run<{ id: string; clientId: string; channelId: string; bytes: string | null }>(DUE, [now, this.services, this.ahead]);
      for (const { id, clientId, channelId, bytes } of rows) {
        const size = Number(bytes ?? 0) > LONG_BYTES ? 'long' : 'short';
        await this.jobs.enqueue(POST, { subjectId: id, clientId, about: { postId: id, channelId }, size, again: true });
      }
      return rows.length;
    });
    return due === MOST_AT_ONCE ? due + (await this.look()) : due;
  }
}
