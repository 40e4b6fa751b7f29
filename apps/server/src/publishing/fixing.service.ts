import { createHash } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { asPosted, isUnderway, type PostWaits } from '@sift-reel/core';
import { Channel, Client, PlatformProfile, PostingWindow, voiceOf } from '../clients/clients.models.js';
import { channelLock } from '../clients/channels.service.js';
import { Clock } from '../config/clock.js';
import { Database } from '../database/database.service.js';
import type { JobRun } from '../jobs/job-run.js';
import { Post } from '../planning/planning.models.js';
import { storedTalk } from '../recordings/stored-talk.js';
import { type MadeFile, RenderAsking } from '../rendering/render-asking.service.js';
import { copyFor, toShortChannel } from '../shorts/short-views.js';
import { KEPT_WITH_ALL, passageOf, Short } from '../shorts/shorts.models.js';
import { talkLanguages } from '../shorts/talk-languages.js';
import { TextPool } from '../text/text-pool.service.js';
import { FIX_AHEAD_MS, stopsLock } from './post.kind.js';
import { PostRecord } from './post-record.service.js';
import { STOPPED } from './posting-clock.service.js';
import { Account, Sending } from './publishing.models.js';

/** Why a post cannot go out now: what it waits for, and in words. */
export interface Hindrance {
  readonly waits: PostWaits;
  readonly detail: string;
}

const WORDS: Readonly<Record<PostWaits, string>> = {
  account: 'no account is connected to its channel',
  right: 'the right to post was gone',
  stop: 'posting was stopped',
  approval: 'its short was not approved',
  words: 'its words were not right for the channel',
  file: 'its file was not there',
  limit: 'the platform took no more',
};

/** What a post is waiting for, as the end of a sentence. */
export const waitingFor = (waits: PostWaits): string => WORDS[waits];

/**
 * A mark that nobody else's post has, always the same for the same post: what was sent once is found again, whatever was forgotten here.
 * @param turnedDown how often it was taken and turned down: that stands there under its mark, and what goes out after it has another
 */
export const markOf = (postId: string, turnedDown = 0): string =>
  `sr-${createHash('sha256')
    .update(['post', postId, ...(turnedDown > 0 ? [turnedDown] : [])].join(':'))
    .digest('hex')
    .slice(0, 14)}`;

/** Fixes what of a post goes out, at the moment it is to go; or says what it waits for. */
@Injectable()
export class Fixing {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(RenderAsking) private readonly renders: RenderAsking,
    @Inject(TextPool) private readonly text: TextPool,
    @Inject(PostRecord) private readonly record: PostRecord,
    @Inject(Clock) private readonly clock: Clock,
  ) {}

  /** Sees to it, ahead of its time, that a post will have its file. What stands against that is said when its time comes. */
  async prepareFile(post: Post): Promise<void> {
    const { short, channel } = await this.load(post);
    if (short === null || channel === null || short.approvedVersion === null) return;
    if ((await this.renders.fileFor(short, channel)) === null) await this.renders.askFor(short, channel).catch(() => undefined);
  }

  /**
   * What goes out, written down, or why it cannot. Nothing goes out that is not kept, approved in this version, worded within the channel's
   * limits and rendered as it is now; all of that is read under the locks that a change of it would need.
   */
  async fix(post: Post, run: JobRun): Promise<Sending | Hindrance> {
    const seen = await this.load(post);
    const { short, channel } = seen;
    if (short === null) return { waits: 'approval', detail: 'Its short is not kept any more.' };
    const file = channel === null ? null : await this.renders.fileFor(short, channel);
    if (file === null && channel !== null && short.approvedVersion !== null) {
      const told = await this.renders.askFor(short, channel).then(
        () => 'Its file is being made.',
        (error: unknown) => (error instanceof Error ? error.message : String(error)),
      );
      return { waits: 'file', detail: told };
    }
    const captions =
      file === null ? '' : await this.text.captions(short.clientId, { talk: await storedTalk(short.recordingId), ...passageOf(short), format: 'subrip' });
    const [fixed, written] = await run.keep(async (): Promise<[Sending | Hindrance, Partial<Post> | null]> => {
      await this.database.lock(channelLock(post.channelId), `short-posts:${post.shortId}`);
      await this.database.rows('SELECT id FROM shorts WHERE id = $1 FOR SHARE', [post.shortId]);
      const hindrance = await this.hindranceOf(post, short.version);
      if (hindrance !== null) return [hindrance, null];
      const made = await this.write(post, file!, captions);
      if (!(made instanceof Sending)) return [made, null];
      // Together: there is no moment in which somebody could move what is fixed already.
      const tryAt = new Date(this.clock.nowMs() + 2 * FIX_AHEAD_MS);
      return [made, await this.record.put(post, { post: { state: 'sending', tryAt }, event: 'fixed' })];
    });
    // What is known here follows what was written for good.
    if (written !== null) post.set({ ...written });
    return fixed;
  }

  /**
   * Why a post may not be put before the public at this moment, read under the locks of whoever would forbid it; null when nothing stands
   * against it. Inside a transaction.
   * @param version of the short that is to go out
   */
  async hindranceOf(post: Post, version: number): Promise<Hindrance | null> {
    // Whoever stops posting takes this lock alone: after that, nothing begins any more.
    await this.database.rows('SELECT pg_advisory_xact_lock_shared(hashtextextended($1, 0))', [stopsLock]);
    await this.database.rows('SELECT id FROM shorts WHERE id = $1 FOR SHARE', [post.shortId]);
    const { short, channel, client } = await this.load(post);
    if (channel?.accountId == null) return { waits: 'account', detail: 'No account is connected to its channel.' };
    const account = await Account.findByPk(channel.accountId);
    if (account !== null && account.service !== channel.platformProfile.service)
      return { waits: 'account', detail: 'Its channel is on another platform than its account.' };
    if (account?.state !== 'connected') return { waits: 'right', detail: account?.trouble ?? 'The account was disconnected.' };
    const stopped = await this.database.rows(`SELECT 1 FROM posts p WHERE p.id = $1 AND ${STOPPED}`, [post.id]);
    if (stopped.length > 0) return { waits: 'stop', detail: 'Posting is stopped.' };
    if (short === null) return { waits: 'approval', detail: 'Its short is not kept any more.' };
    if (short.approvedVersion !== short.version) return { waits: 'approval', detail: 'Its short is not approved as it is now.' };
    if (short.version !== version) return { waits: 'file', detail: 'Its short was changed just now.' };
    const languages = await talkLanguages(this.database, [short.recordingId]);
    const { problems, unfit } = toShortChannel(short, channel, voiceOf(client!), languages.get(short.recordingId) ?? 'en');
    if (unfit !== null) return { waits: 'words', detail: unfit };
    return problems.length === 0 ? null : { waits: 'words', detail: problems.map(({ field, detail }) => `${field} ${detail}`).join('; ') };
  }

  private async write(seen: Post, file: MadeFile, captions: string): Promise<Sending | Hindrance> {
    const post = await Post.findByPk(seen.id, { lock: true });
    if (post === null || post.version !== seen.version || isUnderway(post.state)) return { waits: 'file', detail: 'It was changed just now.' };
    const { short, channel, client } = await this.load(post);
    const languages = await talkLanguages(this.database, [short!.recordingId]);
    const copy = copyFor(short!, channel!, languages.get(short!.recordingId) ?? 'en');
    const { title, description, hashtags } = asPosted(copy, voiceOf(client!));
    // What is there, or may be, is never written over: then this fails by the row's key.
    await Sending.destroy({ where: { postId: post.id, remoteId: null, doubtSince: null } });
    return Sending.create({
      postId: post.id,
      clientId: post.clientId,
      accountId: channel!.accountId,
      service: channel!.platformProfile.service!,
      mark: markOf(post.id, post.turnedDown),
      shortVersion: short!.version,
      copy: { title, description, hashtags: hashtags.map((tag) => tag.replace(/^#/, '')), coverLine: copy.coverLine },
      captions,
      renderId: file.renderId,
      file: file.file,
      bytes: String(file.bytes),
      lengthMs: file.lengthMs,
      shape: file.shape,
      at: post.at,
      fixedAt: new Date(this.clock.nowMs()),
    });
  }

  private async load(post: Post): Promise<{ short: Short | null; channel: Channel | null; client: Client | null }> {
    return {
      short: await Short.findOne({ where: { id: post.shortId, clientId: post.clientId }, include: KEPT_WITH_ALL }),
      channel: await Channel.findOne({ where: { id: post.channelId }, include: [PlatformProfile, PostingWindow] }),
      client: await Client.findByPk(post.clientId),
    };
  }
}
