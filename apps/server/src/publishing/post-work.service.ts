import { openAsBlob } from 'node:fs';
import { Inject, Injectable, type OnModuleInit } from '@nestjs/common';
import type { Shape } from '@sift-reel/core';
import { Channel, Client } from '../clients/clients.models.js';
import { Clock } from '../config/clock.js';
import { JobWorker } from '../jobs/job-worker.service.js';
import type { JobRun } from '../jobs/job-run.js';
import { MediaStore } from '../media/media-store.service.js';
import { MissingFileError } from '../media/store-errors.js';
import { Post } from '../planning/planning.models.js';
import { Ends, FILE_GONE } from './ends.service.js';
import { Fixing } from './fixing.service.js';
import { HandedFiles } from './handed-files.service.js';
import { Lines } from './lines.service.js';
import { PLATFORMS } from './platforms/all.js';
import type { Content, PostingPlatform } from './platforms/platform.js';
import { FIX_AHEAD_MS, POST } from './post.kind.js';
import { PostRecord } from './post-record.service.js';
import { Sending } from './publishing.models.js';
import { Walk } from './walk.service.js';
import type { Way } from './way.js';

/** A right that is gone is told of when it comes back; this is for the case that it is not. */
const GONE_LOOK_MS = 10 * 60_000;
/** A call that publishes is sent within this share of the time after which it would be looked for, or not at all. */
const STALE_SHARE = 1 / 3;

/** Brings posts out, in the worker: each look takes one as far as it can go, and writes how far that is. */
@Injectable()
export class PostWork implements OnModuleInit {
  constructor(
    @Inject(JobWorker) private readonly worker: JobWorker,
    @Inject(Fixing) private readonly fixing: Fixing,
    @Inject(Walk) private readonly walk: Walk,
    @Inject(Ends) private readonly ends: Ends,
    @Inject(PostRecord) private readonly record: PostRecord,
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
    if (sending.accountId === null) return this.record.end(run, post, { post: { tryAt: this.ends.in(GONE_LOOK_MS) } }); // a person says what came of it
    await this.carry(post, sending, platform, lateMs, run);
  }

  /** What is to go out, fixed; or null, and how the look ended is written. */
  private async ready(post: Post, platform: PostingPlatform, lateMs: number, run: JobRun): Promise<Sending | null> {
    const now = this.clock.nowMs();
    const fixAt = post.at.getTime() - platform.aheadMs - FIX_AHEAD_MS;
    if (now < fixAt) {
      await this.fixing.prepareFile(post);
      await this.record.end(run, post, { post: { tryAt: new Date(fixAt) } });
      return null;
    }
    if (this.ends.isLate(post, lateMs)) {
      await this.record.end(run, post, this.ends.missed(post, lateMs));
      return null;
    }
    const fixed = await this.fixing.fix(post, run);
    if (fixed instanceof Sending) return fixed;
    await this.record.end(run, post, this.ends.waiting(post, fixed));
    return null;
  }

  private async carry(post: Post, sending: Sending, platform: PostingPlatform, lateMs: number, run: JobRun): Promise<void> {
    const announced: Way['announced'] = { atMs: null };
    const line = this.lines.open({
      accountId: sending.accountId!,
      platform,
      signal: run.signal,
      keep: (kept) => this.record.keep(run, sending, kept),
      isStale: () => this.isStale(announced.atMs, platform),
    });
    const go = async (path: string | null): Promise<void> => {
      const content = this.contentOf(post, sending, path ?? '');
      await this.record.end(run, post, await this.walk.go({ run, post, sending, platform, lateMs, line, announced, content, hasFile: path !== null }));
    };
    try {
      await this.media.use(sending.file, 'renders', go, run.signal);
    } catch (error) {
      if (!(error instanceof MissingFileError)) throw error;
      if (sending.doubtSince !== null || sending.remoteId !== null) await go(null);
      else await this.record.end(run, post, { ...this.ends.waiting(post, FILE_GONE), unfix: true });
    }
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
}
