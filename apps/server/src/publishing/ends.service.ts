import { Inject, Injectable } from '@nestjs/common';
import { Clock } from '../config/clock.js';
import type { Post } from '../planning/planning.models.js';
import { type Hindrance, waitingFor } from './fixing.service.js';
import { LaterError, NoAnswerError, type Outcome, RefusedError, RightGoneError } from './platforms/platform.js';
import { FIX_AHEAD_MS } from './post.kind.js';
import type { End, Way } from './way.js';

/** Waits before the same is tried again: doubled each time, with a share by chance, so that what failed together does not come back together. */
const [FIRST_WAIT_MS, LONGEST_WAIT_MS] = [4_000, 5 * 60_000];
/** What is waited for without anybody telling is looked at again so much later. */
const WAITING_LOOK_MS = 20_000;
/** A wait that a platform asks for, from here on, stands on record… */
const TOLD_WAIT_MS = 30_000;
/** …and from here on is shown as such. */
const SHOWN_WAIT_MS = 10 * 60_000;
/** A right that is gone is told of when it comes back; this is for the case that it is not. */
const GONE_LOOK_MS = 10 * 60_000;
export const FILE_GONE: Hindrance = { waits: 'file', detail: 'Its file is gone; it is made again.' };

/** What an outcome, a refusal or a broken line comes to for a post: its state, what stands on record, and when it is looked at again. */
@Injectable()
export class Ends {
  constructor(@Inject(Clock) private readonly clock: Clock) {}

  came({ post, platform }: Way, outcome: Outcome): End {
    const now = this.clock.nowMs();
    switch (outcome.state) {
      case 'posted':
        return {
          post: { state: 'posted', tryAt: null, failure: null },
          sending: { doubtSince: null, remoteId: outcome.remoteId, address: outcome.address, postedAt: platform.aheadMs > 0 ? post.at : new Date(now) },
          event: 'posted',
          detail: outcome.address,
        };
      case 'processing': {
        const early = platform.aheadMs > 0 && now < post.at.getTime();
        // Handed over ahead: it is looked after until its minute, so that a stop still reaches it.
        const tryAt = early ? new Date(Math.min(post.at.getTime() + outcome.askAfterMs, now + FIX_AHEAD_MS)) : this.in(outcome.askAfterMs);
        const isNew = post.state !== 'processing';
        return {
          post: { state: 'processing', tryAt },
          sending: { doubtSince: null, remoteId: outcome.remoteId },
          ...(isNew ? { event: 'taken' as const } : {}),
        };
      }
      case 'refused':
        return {
          post: { state: 'refused', failure: outcome.words || 'The platform gave no reason.', tryAt: null, turnedDown: post.turnedDown + 1 },
          sending: { doubtSince: null, remoteId: null },
          event: 'refused',
          detail: outcome.words,
        };
    }
  }

  /**
   * What a call that failed comes to.
   * @param when `published`: the call that publishes, so that what is said to have had no effect leaves no doubt
   */
  async stumbled(way: Way, error: unknown, when: 'before' | 'published'): Promise<End> {
    const { run, post, sending } = way;
    if (run.signal.aborted) throw run.signal.reason;
    // In doubt about a call before this one, or about this one.
    const inDoubt = when === 'before' && sending.doubtSince !== null;
    const isThere = inDoubt || sending.remoteId !== null;
    const settled = when === 'published' ? { sending: { doubtSince: null } } : {};
    if (error instanceof NoAnswerError) return this.unheard(way, error, when);
    if (error instanceof LaterError) return this.later(way, error, isThere, settled);
    if (error instanceof RightGoneError) {
      // What may be there, or is, is not sent again for want of a right: it waits to be asked about.
      if (isThere) return { post: { ...this.stays(post), tryAt: this.in(GONE_LOOK_MS) }, event: 'waits', detail: error.message };
      return { ...this.waiting(post, { waits: 'right', detail: error.message }), ...settled };
    }
    if (!(error instanceof RefusedError)) throw error;
    if (isThere) return { post: { ...this.stays(post), tryAt: this.in(this.backOff(sending.tries)) }, event: 'put-off', detail: error.message };
    if (error.isDuplicate) {
      const twin = await this.twin(way);
      if (twin !== null) return twin;
    }
    return { post: { state: 'refused', failure: error.message, tryAt: null }, ...settled, event: 'refused', detail: error.message };
  }

  /** What came of it is not known: the doubt stays, if it was announced. */
  private unheard({ post, sending, platform }: Way, error: NoAnswerError, when: 'before' | 'published'): End {
    const settledAt = when === 'published' && platform.once.by === 'mark' ? sending.doubtSince!.getTime() + platform.once.settleMs : 0;
    const tryAt = new Date(Math.max(settledAt, this.in(this.backOff(sending.tries)).getTime()));
    return {
      post: { ...this.stays(post), tryAt },
      ...(when === 'before' ? { sending: { tries: sending.tries + 1 } } : {}),
      event: 'no-answer',
      detail: error.message,
    };
  }

  private later(way: Way, error: LaterError, isThere: boolean, settled: Pick<End, 'sending'>): End {
    const { post, sending } = way;
    const afterMs = error.afterMs ?? this.backOff(sending.tries);
    const more = error.afterMs === null ? { sending: { ...settled.sending, tries: sending.tries + 1 } } : settled;
    const tryAt = this.before(this.in(afterMs * (1 + Math.random() / 10)), way);
    if (afterMs >= SHOWN_WAIT_MS && !isThere) {
      const waits = { waits: 'limit', detail: error.message } as const;
      return { ...this.waiting(post, waits), post: { state: 'waiting', waits: 'limit', tryAt }, ...more };
    }
    const isWorthTelling = error.afterMs === null || afterMs >= TOLD_WAIT_MS;
    return { post: { ...this.stays(post), tryAt }, ...more, ...(isWorthTelling ? { event: 'put-off' as const, detail: error.message } : {}) };
  }

  /** They say that it is there already: by its mark it is known whether that is this post. Where that cannot be found out, the doubt stays. */
  private async twin(way: Way): Promise<End | null> {
    const { platform, content, sending, line, post } = way;
    try {
      const found = await platform.look(content, sending.kept, line);
      return found === null ? null : this.came(way, found);
    } catch (error) {
      if (way.run.signal.aborted) throw way.run.signal.reason;
      const detail = error instanceof Error ? error.message : '';
      return { post: { ...this.stays(post), tryAt: this.in(this.backOff(sending.tries)) }, event: 'no-answer', detail };
    }
  }

  isLate(post: Post, lateMs: number): boolean {
    return !post.lateOk && this.clock.nowMs() > post.at.getTime() + lateMs;
  }

  missed(post: Post, lateMs: number, tries = 0): End {
    const alone = tries > 0 ? 'the platform could not be reached, or did not take it, all that time' : 'nothing could send it in time';
    const why = post.waits == null ? alone : waitingFor(post.waits);
    const failure = `It would be over ${Math.round(lateMs / 60_000)} minutes late: ${why}.`;
    return { post: { state: 'missed', failure, tryAt: null }, event: 'missed', detail: failure };
  }

  waiting(post: Post, { waits, detail }: Hindrance): End {
    const told = post.state === 'waiting' && post.waits === waits; // told once is enough
    return { post: { state: 'waiting', waits, tryAt: this.in(WAITING_LOOK_MS) }, ...(told ? {} : { event: 'waits' as const, detail }) };
  }

  private stays({ state }: Post): { state: Post['state'] } {
    return { state: state === 'processing' ? 'processing' : 'sending' };
  }

  /** A wait that ends after it would be too late is looked at when it is. */
  private before(tryAt: Date, { post, sending, lateMs }: Way): Date {
    if (sending.remoteId !== null) return tryAt;
    return post.lateOk ? tryAt : new Date(Math.min(tryAt.getTime(), post.at.getTime() + lateMs + 1_000));
  }

  in(ms: number): Date {
    return new Date(this.clock.nowMs() + ms);
  }

  private backOff(tries: number): number {
    return Math.min(LONGEST_WAIT_MS, FIRST_WAIT_MS * 2 ** Math.min(tries, 10)) * (0.5 + Math.random());
  }
}
