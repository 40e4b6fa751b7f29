import { openAsBlob } from 'node:fs';
import { Inject, Injectable, type OnModuleInit } from '@nestjs/common';
import type { Shape } from '@sift-reel/core';
import { Channel, Client } from '../clients/clients.models.js';
import { Clock } from '../config/clock.js';
import { log } from '../config/logger.js';
import { Database } from '../database/database.service.js';
import { JobWorker } from '../jobs/job-worker.service.js';
import type { JobRun } from '../jobs/job-run.js';
import { MediaStore } from '../media/media-store.service.js';
import { MissingFileError } from '../media/store-errors.js';
import { Post } from '../planning/planning.models.js';
import { Fixing, type Hindrance, waitingFor } from './fixing.service.js';
import { HandedFiles } from './handed-files.service.js';
import { Lines } from './lines.service.js';
import { PLATFORMS } from './platforms/all.js';
import { type Content, LaterError, type Line, NoAnswerError, type Outcome, type PostingPlatform, RefusedError, RightGoneError } from './platforms/platform.js';
import { FIX_AHEAD_MS, POST } from './post.kind.js';
import { Sending, SendingEvent, type SendingEventName } from './publishing.models.js';

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
/** A call with a key that seemed lost takes no effect any more so much later. */
const SETTLE_MS = 120_000;
/** A call that publishes is sent within this share of the time after which it would be looked for, or not at all. */
const STALE_SHARE = 1 / 3;

/** A post on its way, with all that its way needs. */
interface Way {
  readonly run: JobRun;
  readonly post: Post;
  readonly sending: Sending;
  readonly platform: PostingPlatform;
  readonly content: Content;
  readonly line: Line;
  readonly lateMs: number;
  /** False where the file is gone: what may be there is still looked for. */
  readonly hasFile: boolean;
  /** The call that publishes was announced then, in this look; null before. */
  readonly announced: { atMs: number | null };
}

/** How a look at a post ends. */
interface End {
  readonly post: Partial<Pick<Post, 'state' | 'waits' | 'failure' | 'tryAt'>>;
  readonly sending?: Partial<Pick<Sending, 'doubtSince' | 'remoteId' | 'address' | 'postedAt'>>;
  /** What was fixed is let go: it is fixed anew when it may go out. */
  readonly unfix?: true;
  readonly event?: SendingEventName;
  readonly detail?: string;
}

/**
 * Brings posts out, in the worker. Each look takes a post as far as it can go, and writes how far that is. A call that publishes is
 * announced before it is made: whoever comes after a call whose end is not known finds out first what came of it, by the platform's key or
 * by looking for the post's mark, and only then makes another. See docs/decisions/0033.
 */
@Injectable()
export class PostWork implements OnModuleInit {
  constructor(
    @Inject(JobWorker) private readonly worker: JobWorker,
    @Inject(Database) private readonly database: Database,
    @Inject(Fixing) private readonly fixing: Fixing,
    @Inject(Lines) private readonly lines: Lines,
    @Inject(HandedFiles) private readonly handed: HandedFiles,
    @Inject(MediaStore) private readonly media: MediaStore,
    @Inject(Clock) private readonly clock: Clock,
  ) {}

  onModuleInit(): void {
    this.worker.register(POST, (postId, run) => this.look(postId, run));
  }

  private async look(postId: string, run: JobRun): Promise<void> {
    const post = await Post.findByPk(postId);
    if (post === null || !['planned', 'waiting', 'sending', 'processing'].includes(post.state)) return run.complete();
    const channel = await Channel.findByPk(post.channelId, { include: ['platformProfile'] });
    const client = await Client.findByPk(post.clientId);
    const platform = PLATFORMS.get(channel?.platformProfile.service ?? '');
    if (channel === null || client === null || platform === undefined) return run.complete();
    const lateMs = client.lateMinutes * 60_000;
    let sending = await Sending.findByPk(postId);
    // What was fixed for another account, and is not there, is fixed anew.
    const isOpen = sending !== null && sending.remoteId === null && sending.doubtSince === null;
    if (isOpen && (sending!.accountId === null || sending!.accountId !== channel.accountId)) sending = null;
    if (sending === null) {
      const fixed = await this.ready(post, platform, lateMs, run);
      if (fixed === null) return;
      sending = fixed;
    }
    if (sending.accountId === null) return this.end(run, post, { post: { tryAt: this.in(GONE_LOOK_MS) } }); // a person says what came of it
    await this.carry(post, sending, platform, lateMs, run);
  }

  /** What is to go out, fixed; or null, and how the look ended is written. */
  private async ready(post: Post, platform: PostingPlatform, lateMs: number, run: JobRun): Promise<Sending | null> {
    const now = this.clock.nowMs();
    const fixAt = post.at.getTime() - platform.aheadMs - FIX_AHEAD_MS;
    if (now < fixAt) {
      await this.fixing.prepareFile(post);
      await this.end(run, post, { post: { tryAt: new Date(fixAt) } });
      return null;
    }
    if (this.isLate(post, lateMs)) {
      await this.end(run, post, this.missed(post, lateMs));
      return null;
    }
    const fixed = await this.fixing.fix(post, run);
    if (fixed instanceof Sending) {
      const written = await this.write(run, post, { post: { state: 'sending', tryAt: this.in(2 * 60_000) }, event: 'fixed' });
      return written ? fixed : null;
    }
    await this.end(run, post, this.waiting(post, fixed));
    return null;
  }

  private async carry(post: Post, sending: Sending, platform: PostingPlatform, lateMs: number, run: JobRun): Promise<void> {
    const announced: Way['announced'] = { atMs: null };
    const line = this.lines.open({
      accountId: sending.accountId!,
      platform,
      signal: run.signal,
      keep: (kept) => this.keep(run, sending, kept),
      isStale: () => this.isStale(announced.atMs, platform),
    });
    const walk = async (path: string | null): Promise<void> => {
      const content = this.contentOf(post, sending, path ?? '');
      await this.end(run, post, await this.go({ run, post, sending, platform, lateMs, line, announced, content, hasFile: path !== null }));
    };
    try {
      await this.media.use(sending.file, 'renders', walk, run.signal);
    } catch (error) {
      if (!(error instanceof MissingFileError)) throw error;
      if (sending.doubtSince !== null || sending.remoteId !== null) await walk(null);
      else await this.end(run, post, { ...this.waiting(post, { waits: 'file', detail: 'Its file is gone; it is made again.' }), unfix: true });
    }
  }

  /** As far as it can go. @returns how it ended; what is thrown leaves it as it was */
  private async go(way: Way): Promise<End> {
    const { sending, platform, content, line, post, run } = way;
    try {
      if (sending.doubtSince !== null) {
        const known = await this.clear(way);
        if (known !== 'not there') return known;
        await this.write(run, post, { post: {}, sending: { doubtSince: null }, event: 'not-found' });
        sending.doubtSince = null;
      }
      if (sending.remoteId !== null) return await this.follow(way);
      if (!way.hasFile) return { ...this.waiting(post, { waits: 'file', detail: 'Its file is gone; it is made again.' }), unfix: true };
      if (this.isLate(post, way.lateMs)) return { ...this.missed(post, way.lateMs), unfix: true };
      await platform.prepare?.(content, sending.kept, line);
      const goesAt = post.at.getTime() - platform.aheadMs;
      if (this.clock.nowMs() < goesAt) return { post: { state: 'sending', tryAt: new Date(goesAt) } };
      const hindrance = await this.begin(way);
      if (hindrance !== null) return { ...this.waiting(post, hindrance), unfix: true };
    } catch (error) {
      return this.stumbled(way, error, 'before');
    }
    try {
      return this.came(way, await platform.publish(content, sending.kept, line));
    } catch (error) {
      return this.stumbled(way, error, 'published');
    }
  }

  /** Announces the call that publishes, if nothing stands against it at this moment. */
  private async begin({ run, post, sending, announced }: Way): Promise<Hindrance | null> {
    let hindrance: Hindrance | null = null;
    const doubtSince = new Date(this.clock.nowMs());
    await run.keep(async () => {
      const now = await Post.findByPk(post.id, { lock: true });
      if (now === null || now.version !== post.version) hindrance = { waits: 'approval', detail: 'It was changed just now.' };
      else hindrance = await this.fixing.hindranceOf(post, sending.shortVersion);
      if (hindrance !== null) return;
      // Together: what may be there does not move, whatever was written of it before.
      await now!.update({ state: 'sending', waits: null, version: now!.state === 'sending' ? now!.version : now!.version + 1 });
      Object.assign(post.dataValues, now!.dataValues);
      await sending.update({ doubtSince, tries: sending.tries + 1 });
      await this.tell(post, 'begun', sending.tries === 1 ? '' : String(sending.tries));
    });
    announced.atMs = doubtSince.getTime();
    return hindrance;
  }

  /** What came of a call whose end is not known. */
  private async clear(way: Way): Promise<End | 'not there'> {
    const { platform, content, sending, line } = way;
    const since = sending.doubtSince!.getTime();
    const now = this.clock.nowMs();
    if (platform.once.by === 'key' && way.hasFile && now < since + platform.once.lifeMs && (await this.mayGo(way))) {
      try {
        // The same call again: with its key it has no second effect, and its answer says what the first one came to.
        return this.came(way, await platform.publish(content, sending.kept, line));
      } catch (error) {
        // Turned away for what it is: the first one was not taken, or it would have been answered with that.
        if (!(error instanceof RefusedError)) throw error;
        const found = await platform.look(content, sending.kept, line);
        if (found !== null) return this.came(way, found);
        return { post: { state: 'refused', failure: error.message, tryAt: null }, sending: { doubtSince: null }, event: 'refused', detail: error.message };
      }
    }
    const settledAt = since + (platform.once.by === 'mark' ? platform.once.settleMs : SETTLE_MS);
    if (now < settledAt) return { post: { state: 'sending', tryAt: new Date(settledAt) } };
    const found = await platform.look(content, sending.kept, line);
    if (found === null) return 'not there';
    const end = this.came(way, found);
    return { ...end, event: end.event === 'posted' || end.event === 'taken' ? 'found' : end.event! };
  }

  /** Whether it might be put before the public now; else it is only looked for. */
  private async mayGo({ post, sending, lateMs }: Way): Promise<boolean> {
    return !this.isLate(post, lateMs) && (await this.database.transaction(() => this.fixing.hindranceOf(post, sending.shortVersion))) === null;
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
        return { ...this.waiting(post, hindrance), unfix: true, event: 'recalled' };
      }
    }
    try {
      return this.came(way, await platform.progress(sending.remoteId!, line));
    } catch (error) {
      if (!(error instanceof RefusedError && error.status === 404)) throw error;
      // Gone there: called back by a look that died before it could say so, or taken down by somebody.
      if (platform.aheadMs > 0 && early) return { post: { state: 'planned', tryAt: this.in(0) }, unfix: true, event: 'recalled' };
      const failure = 'It is not there any more: somebody took it down at the platform.';
      return { post: { state: 'refused', failure, tryAt: null }, sending: { remoteId: null }, event: 'refused', detail: failure };
    }
  }

  private came({ post, platform }: Way, outcome: Outcome): End {
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
          post: { state: 'refused', failure: outcome.words || 'The platform gave no reason.', tryAt: null },
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
  private async stumbled(way: Way, error: unknown, when: 'before' | 'published'): Promise<End> {
    const { run, post, sending, platform } = way;
    if (run.signal.aborted) throw run.signal.reason;
    const doubt = when === 'published' ? { sending: { doubtSince: null } } : {};
    const inDoubt = when === 'before' && sending.doubtSince !== null;
    if (error instanceof NoAnswerError) {
      const settledAt = when === 'published' && platform.once.by === 'mark' ? sending.doubtSince!.getTime() + platform.once.settleMs : 0;
      const tryAt = new Date(Math.max(settledAt, this.in(this.backOff(sending.tries)).getTime()));
      if (when === 'before') await sending.update({ tries: sending.tries + 1 });
      return { post: { ...this.stays(post), tryAt }, event: 'no-answer', detail: error.message };
    }
    if (error instanceof LaterError) {
      const afterMs = error.afterMs ?? this.backOff(sending.tries);
      if (error.afterMs === null) await sending.update({ tries: sending.tries + 1 });
      const tryAt = this.in(afterMs * (1 + Math.random() / 10));
      const shown = afterMs >= SHOWN_WAIT_MS && !inDoubt && sending.remoteId === null;
      if (shown)
        return {
          ...this.waiting(post, { waits: 'limit', detail: error.message }),
          post: { state: 'waiting', waits: 'limit', tryAt: this.before(tryAt, way) },
          ...doubt,
        };
      const isWorthTelling = error.afterMs === null || afterMs >= TOLD_WAIT_MS;
      return {
        post: { ...this.stays(post), tryAt: this.before(tryAt, way) },
        ...doubt,
        ...(isWorthTelling ? { event: 'put-off' as const, detail: error.message } : {}),
      };
    }
    if (error instanceof RightGoneError) {
      // What may be there, or is, is not sent again for want of a right: it waits to be asked about.
      if (inDoubt || sending.remoteId !== null) return { post: { ...this.stays(post), tryAt: this.in(GONE_LOOK_MS) }, event: 'waits', detail: error.message };
      return { ...this.waiting(post, { waits: 'right', detail: error.message }), ...doubt };
    }
    if (error instanceof RefusedError) {
      if (error.isDuplicate && !inDoubt) {
        const twin = await platform.look(way.content, sending.kept, way.line).catch(() => null);
        if (twin !== null) return this.came(way, twin);
      }
      if (inDoubt || sending.remoteId !== null)
        return { post: { ...this.stays(post), tryAt: this.in(this.backOff(sending.tries)) }, event: 'put-off', detail: error.message };
      return { post: { state: 'refused', failure: error.message, tryAt: null }, ...doubt, event: 'refused', detail: error.message };
    }
    throw error;
  }

  private isLate(post: Post, lateMs: number): boolean {
    return !post.lateOk && this.clock.nowMs() > post.at.getTime() + lateMs;
  }

  private missed(post: Post, lateMs: number): End {
    const why = post.waits === null || post.waits === undefined ? 'nothing could send it in time' : waitingFor(post.waits);
    const failure = `It would be over ${Math.round(lateMs / 60_000)} minutes late: ${why}.`;
    return { post: { state: 'missed', failure, tryAt: null }, event: 'missed', detail: failure };
  }

  private waiting(post: Post, { waits, detail }: Hindrance): End {
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

  private in(ms: number): Date {
    return new Date(this.clock.nowMs() + ms);
  }

  private backOff(tries: number): number {
    return Math.min(LONGEST_WAIT_MS, FIRST_WAIT_MS * 2 ** Math.min(tries, 10)) * (0.5 + Math.random());
  }

  private isStale(atMs: number | null, { once }: PostingPlatform): boolean {
    return once.by === 'mark' && atMs !== null && this.clock.nowMs() > atMs + once.settleMs * STALE_SHARE;
  }

  private contentOf(post: Post, sending: Sending, path: string): Content {
    const { copy, mark, captions, shape, lengthMs, bytes } = sending;
    return {
      ...copy,
      mark,
      captions,
      shape: shape as Shape,
      lengthMs,
      bytes: Number(bytes),
      atMs: post.at.getTime(),
      file: async (from, to) => {
        const blob = await openAsBlob(path, { type: 'video/mp4' });
        return from === undefined ? blob : blob.slice(from, to, 'application/octet-stream');
      },
      address: () => this.handed.addressOf(post.id),
    };
  }

  private async keep(run: JobRun, sending: Sending, kept: Sending['kept']): Promise<void> {
    await run.keep(async () => {
      await sending.update({ kept: { ...sending.kept, ...kept } });
    });
  }

  private async end(run: JobRun, post: Post, end: End): Promise<void> {
    await run.complete(async () => {
      await this.put(post, end);
    });
  }

  /** Like an end, in the middle. @returns false where the post is not what it was, and nothing was written */
  private async write(run: JobRun, post: Post, end: End): Promise<boolean> {
    let written = false;
    await run.keep(async () => {
      written = await this.put(post, end);
    });
    return written;
  }

  /** Written only where nobody changed the post since the look began; what was changed is looked at anew. */
  private async put(post: Post, { post: fields, sending, unfix, event, detail }: End): Promise<boolean> {
    const now = await Post.findByPk(post.id, { lock: true });
    if (now === null) return false;
    if (now.version !== post.version) {
      log.info({ postId: post.id }, 'a post was changed while it was looked at');
      // What came of a call is kept, whatever else has changed.
      if (sending !== undefined) await Sending.update(sending, { where: { postId: post.id } });
      if (fields.state === 'posted') await now.update({ state: 'posted', version: now.version + 1 });
      return false;
    }
    const shown = fields.state !== undefined && (fields.state !== now.state || (fields.waits ?? null) !== (now.waits ?? null));
    await now.update({ ...(fields.state === undefined ? {} : { waits: null }), ...fields, version: shown ? now.version + 1 : now.version });
    Object.assign(post.dataValues, now.dataValues);
    if (unfix === true) await Sending.destroy({ where: { postId: post.id } });
    else if (sending !== undefined) await Sending.update(sending, { where: { postId: post.id } });
    if (event !== undefined) await this.tell(post, event, detail ?? '');
    return true;
  }

  private async tell(post: Post, event: SendingEventName, detail: string): Promise<void> {
    await SendingEvent.create({ postId: post.id, clientId: post.clientId, at: new Date(this.clock.nowMs()), event, detail: detail.slice(0, 600) });
  }
}
