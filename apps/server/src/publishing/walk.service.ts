import { Inject, Injectable } from '@nestjs/common';
import { Clock } from '../config/clock.js';
import { Database } from '../database/database.service.js';
import { Post } from '../planning/planning.models.js';
import { Ends, FILE_GONE } from './ends.service.js';
import { Fixing, type Hindrance } from './fixing.service.js';
import { RefusedError } from './platforms/platform.js';
import { PostRecord } from './post-record.service.js';
import { Sending } from './publishing.models.js';
import type { End, Way } from './way.js';

/** A call with a key that seemed lost takes no effect any more so much later. */
const SETTLE_MS = 120_000;
const CHANGED: Hindrance = { waits: 'approval', detail: 'It was changed just now.' };

/**
 * Takes a post as far as it can go. A call that publishes is announced before it is made: whoever comes after a call whose end is not known
 * finds out first what came of it, by the platform's key or by looking for the post's mark, and only then makes another. See
 * docs/decisions/0033.
 */
@Injectable()
export class Walk {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(Fixing) private readonly fixing: Fixing,
    @Inject(Ends) private readonly ends: Ends,
    @Inject(PostRecord) private readonly record: PostRecord,
    @Inject(Clock) private readonly clock: Clock,
  ) {}

  /** As far as it can go. @returns how it ended; what is thrown leaves it as it was */
  async go(way: Way): Promise<End> {
    const { sending, platform, content, line, post, run } = way;
    try {
      if (sending.doubtSince !== null) {
        const known = await this.clear(way);
        if (known !== 'not there') return known;
        await this.record.write(run, post, { post: {}, sending: { doubtSince: null }, event: 'not-found' });
        sending.doubtSince = null;
      }
      if (sending.remoteId !== null) return await this.follow(way);
      if (!way.hasFile) return { ...this.ends.waiting(post, FILE_GONE), unfix: true };
      if (this.ends.isLate(post, way.lateMs)) return { ...this.ends.missed(post, way.lateMs, sending.tries), unfix: true };
      await platform.prepare?.(content, sending.kept, line);
      const goesAt = post.at.getTime() - platform.aheadMs;
      if (this.clock.nowMs() < goesAt) return { post: { state: 'sending', tryAt: new Date(goesAt) } };
      const hindrance = await this.begin(way);
      if (hindrance !== null) return { ...this.ends.waiting(post, hindrance), unfix: true };
    } catch (error) {
      return this.ends.stumbled(way, error, 'before');
    }
    try {
      return this.ends.came(way, await platform.publish(content, sending.kept, line));
    } catch (error) {
      return this.ends.stumbled(way, error, 'published');
    }
  }

  /** Announces the call that publishes, if nothing stands against it at this moment. */
  private async begin({ run, post, sending, announced }: Way): Promise<Hindrance | null> {
    const doubtSince = new Date(this.clock.nowMs());
    const tries = sending.tries + 1;
    const hindrance = await run.keep(async () => {
      const now = await Post.findByPk(post.id, { lock: true });
      if (now === null || now.version !== post.version) return CHANGED;
      const found = await this.fixing.hindranceOf(post, sending.shortVersion);
      if (found !== null) return found;
      // Together: what may be there does not move, whatever was written of it before.
      const version = now.state === 'sending' ? now.version : now.version + 1;
      await now.update({ state: 'sending', waits: null, version });
      await Sending.update({ doubtSince, tries }, { where: { postId: post.id } });
      await this.record.tell(post, 'begun', tries === 1 ? '' : String(tries));
      return null;
    });
    if (hindrance !== null) return hindrance;
    // What is known here follows what was written for good: a transaction may be tried twice.
    post.set({ version: post.state === 'sending' ? post.version : post.version + 1, state: 'sending', waits: null });
    sending.set({ doubtSince, tries });
    announced.atMs = doubtSince.getTime();
    return null;
  }

  /** What came of a call whose end is not known. */
  private async clear(way: Way): Promise<End | 'not there'> {
    const { platform, content, sending, line } = way;
    const since = sending.doubtSince!.getTime();
    const now = this.clock.nowMs();
    if (platform.once.by === 'key' && way.hasFile && now < since + platform.once.lifeMs && (await this.mayGo(way))) {
      try {
        // The same call again: with its key it has no second effect, and its answer says what the first one came to.
        return this.ends.came(way, await platform.publish(content, sending.kept, line));
      } catch (error) {
        // Turned away for what it is: the first one was not taken, or it would have been answered with that.
        if (!(error instanceof RefusedError)) throw error;
        const found = await platform.look(content, sending.kept, line);
        if (found !== null) return this.ends.came(way, found);
        return { post: { state: 'refused', failure: error.message, tryAt: null }, sending: { doubtSince: null }, event: 'refused', detail: error.message };
      }
    }
    const settledAt = since + (platform.once.by === 'mark' ? platform.once.settleMs : SETTLE_MS);
    if (now < settledAt) return { post: { state: 'sending', tryAt: new Date(settledAt) } };
    const found = await platform.look(content, sending.kept, line);
    if (found === null) return 'not there';
    const end = this.ends.came(way, found);
    return { ...end, event: end.event === 'posted' || end.event === 'taken' ? 'found' : end.event! };
  }

  /** Whether it might be put before the public now; else it is only looked for. */
  private async mayGo({ post, sending, lateMs }: Way): Promise<boolean> {
    return !this.ends.isLate(post, lateMs) && (await this.database.transaction(() => this.fixing.hindranceOf(post, sending.shortVersion))) === null;
  }

  /** What has become of what the platform took. Before its minute it is called back where posting was stopped meanwhile. */
  private async follow(way: Way): Promise<End> {
    const { platform, sending, line, post } = way;
    const early = this.clock.nowMs() < post.at.getTime();
    if (platform.aheadMs > 0 && early) {
      const hindrance = await this.database.transaction(() => this.fixing.hindranceOf(post, sending.shortVersion));
      if (hindrance !== null && hindrance.waits !== 'right' && hindrance.waits !== 'account') {
        await platform.takeDown(sending.remoteId!, line).catch((error: unknown) => {
          if (!(error instanceof RefusedError && error.status === 404)) throw error;
        });
        return { ...this.ends.waiting(post, hindrance), unfix: true, event: 'recalled' };
      }
    }
    try {
      return this.ends.came(way, await platform.progress(sending.remoteId!, line));
    } catch (error) {
      if (!(error instanceof RefusedError && error.status === 404)) throw error;
      // Gone there: called back by a look that died before it could say so, or taken down by somebody.
      if (platform.aheadMs > 0 && early) return { post: { state: 'planned', tryAt: this.ends.in(0) }, unfix: true, event: 'recalled' };
      const failure = 'It is not there any more: somebody took it down at the platform.';
      return { post: { state: 'refused', failure, tryAt: null }, sending: { remoteId: null }, event: 'refused', detail: failure };
    }
  }
}
