import { ConflictException, Inject, Injectable, ServiceUnavailableException, UnprocessableEntityException } from '@nestjs/common';
import type { OutcomeForm, PostedWordsForm } from '@sift-reel/forms';
import type { AuditAction } from '../audit/trail-words.js';
import { AuditService } from '../audit/audit.service.js';
import { channelLock } from '../clients/channels.service.js';
import { Channel } from '../clients/clients.models.js';
import { Clock } from '../config/clock.js';
import { Database } from '../database/database.service.js';
import { type Actor, found, scoped } from '../identity/actor.js';
import { User } from '../identity/identity.models.js';
import { StaleWriteException } from '../problems/refusals.js';
import { Post } from '../planning/planning.models.js';
import { toPostView } from '../planning/plan-views.js';
import type { PostView } from '../planning/planning.views.js';
import { Short } from '../shorts/shorts.models.js';
import { Lines } from './lines.service.js';
import { PLATFORMS } from './platforms/all.js';
import { type Content, LaterError, type Line, NoAnswerError, type PostingPlatform, RefusedError, RightGoneError } from './platforms/platform.js';
import { Account, Sending, SendingEvent, type SendingEventName } from './publishing.models.js';
import type { SendingView } from './publishing.views.js';

const ANSWER_MS = 25_000;
const MOST_EVENTS = 200;

/** A post that is out, with the line to where it is. */
interface Out {
  readonly sending: Sending;
  readonly platform: PostingPlatform;
  readonly line: Line;
}

/** What a person does with posts that are on their way, or out. */
@Injectable()
export class SendingsService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(Clock) private readonly clock: Clock,
    @Inject(AuditService) private readonly audit: AuditService,
    @Inject(Lines) private readonly lines: Lines,
  ) {}

  async read(actor: Actor, postId: string): Promise<SendingView> {
    const post = found(await Post.findOne({ where: { id: postId, ...scoped(actor) } }), 'post');
    return this.database.snapshot(async () => {
      const sending = await Sending.findByPk(postId);
      const account = sending?.accountId == null ? null : await Account.findByPk(sending.accountId);
      const events = await SendingEvent.findAll({ where: { postId }, order: [['id', 'DESC']], limit: MOST_EVENTS });
      const users = await User.findAll({ attributes: ['id', 'name'], where: { id: events.flatMap(({ userId }) => userId ?? []) } });
      const names = new Map(users.map(({ id, name }) => [id, name]));
      const platform = PLATFORMS.get(sending?.service ?? '');
      const inDoubt = sending?.doubtSince != null;
      return {
        service: platform?.title ?? null,
        account: account?.name ?? null,
        title: sending?.copy.title ?? '',
        description: sending?.copy.description ?? '',
        hashtags: [...(sending?.copy.hashtags ?? [])],
        fixedAt: sending?.fixedAt.toISOString() ?? null,
        inDoubt,
        askPerson: isOpen(post, sending) && account?.state !== 'connected',
        tries: sending?.tries ?? 0,
        address: sending?.address ?? null,
        postedAt: post.state === 'posted' ? (sending?.postedAt?.toISOString() ?? null) : null,
        takenDownAt: sending?.takenDownAt?.toISOString() ?? null,
        corrects: platform?.correct !== undefined,
        events: events.reverse().map(({ at, event, detail, userId }) => ({
          at: at.toISOString(),
          event,
          detail,
          by: userId == null ? null : (names.get(userId) ?? 'a former user'),
        })),
      };
    });
  }

  /** A post that was refused, or is too late, goes out now after all: what goes out is fixed anew, as it is today. */
  async sendAgain(actor: Actor, postId: string, version: number): Promise<PostView> {
    return this.change(actor, postId, version, async (post) => {
      if (post.state !== 'refused' && post.state !== 'missed')
        throw new ConflictException('Only what was refused, or is too late, is sent on a person’s word.');
      const channel = found(await Channel.findByPk(post.channelId, { attributes: ['accountId'] }), 'channel');
      if (channel.accountId == null) throw new UnprocessableEntityException('No account is connected to its channel: it is posted by hand.');
      await Sending.destroy({ where: { postId, remoteId: null, doubtSince: null } });
      await post.update({ state: 'planned', lateOk: true, tryAt: new Date(this.clock.nowMs()), version: post.version + 1 });
      await this.tell(actor, post, 'send-again', '');
      await this.record(actor, 'send-again', post);
    });
  }

  /** What a person found out where a sending broke off and nobody else can: whether it is up there. */
  async tellOutcome(actor: Actor, postId: string, { isUp, version }: OutcomeForm): Promise<PostView> {
    return this.change(actor, postId, version, async (post) => {
      const sending = await Sending.findByPk(postId, { lock: true });
      if (!isOpen(post, sending)) throw new ConflictException('What came of it is known.');
      const account = sending!.accountId == null ? null : await Account.findByPk(sending!.accountId);
      if (account?.state === 'connected') throw new ConflictException('Sift Reel can find that out itself, and does so within minutes.');
      if (isUp) await sending!.update({ doubtSince: null, postedAt: new Date(this.clock.nowMs()) });
      else await sending!.destroy();
      const failure = 'Its sending broke off, and it did not come through.';
      await post.update({ ...(isUp ? { state: 'posted', failure: null } : { state: 'missed', failure }), tryAt: null, version: post.version + 1 });
      await this.tell(actor, post, isUp ? 'told-up' : 'told-not-up', '');
      await this.record(actor, 'tell-outcome', post);
    });
  }

  /** Changes the words of a post that is out, there and on record here. */
  async correct(actor: Actor, postId: string, { title, description, version }: PostedWordsForm): Promise<SendingView> {
    const post = await this.seen(actor, postId, version);
    const { sending, platform, line } = await this.out(post);
    if (platform.correct === undefined) throw new UnprocessableEntityException(`${platform.title} changes no words once a post is out.`);
    const { copy, mark } = sending;
    const words = { title, description, hashtags: copy.hashtags };
    await asked(() => platform.correct!(sending.remoteId!, words, line, { ...copy, mark } as Content));
    await this.database.transaction(async () => {
      const now = found(await Sending.findByPk(postId, { lock: true }), 'post');
      await now.update({ copy: { ...now.copy, title, description } });
      await this.tell(actor, post, 'corrected', title);
      await this.record(actor, 'correct', post);
    });
    return this.read(actor, postId);
  }

  async takeDown(actor: Actor, postId: string, version: number): Promise<SendingView> {
    const post = await this.seen(actor, postId, version);
    const { sending, platform, line } = await this.out(post);
    await asked(() =>
      platform.takeDown(sending.remoteId!, line).catch((error: unknown) => {
        if (!(error instanceof RefusedError && error.status === 404)) throw error; // it is gone already
      }),
    );
    await this.database.transaction(async () => {
      const now = found(await Sending.findByPk(postId, { lock: true }), 'post');
      if (now.takenDownAt != null) return;
      await now.update({ takenDownAt: new Date(this.clock.nowMs()) });
      await this.tell(actor, post, 'taken-down', '');
      await this.record(actor, 'take-down', post);
    });
    return this.read(actor, postId);
  }

  /** A platform says that something became of a post: it is asked at once. What the call says is not believed, so that it may come twice, late or out of turn. */
  async calledBack(service: string, remoteId: string): Promise<void> {
    await this.database.run(
      `UPDATE posts SET try_at = NULL WHERE state = 'processing' AND id IN (SELECT post_id FROM sendings WHERE service = $1 AND remote_id = $2)`,
      [service, remoteId],
    );
  }

  private async out(post: Post): Promise<Out> {
    const sending = await Sending.findByPk(post.id);
    if (post.state !== 'posted' || sending?.remoteId == null) throw new ConflictException('It is not out, or was not sent by Sift Reel.');
    if (sending.takenDownAt != null) throw new ConflictException('It was taken down already.');
    const platform = PLATFORMS.get(sending.service);
    if (sending.accountId == null || platform === undefined)
      throw new ConflictException('Its account is not connected any more. Do it on the platform itself.');
    const line = this.lines.open({ accountId: sending.accountId, platform, signal: AbortSignal.timeout(ANSWER_MS), keep: () => Promise.resolve() });
    return { sending, platform, line };
  }

  private async seen(actor: Actor, postId: string, version: number): Promise<Post> {
    const post = found(await Post.findOne({ where: { id: postId, ...scoped(actor) } }), 'post');
    if (post.version !== version) throw new StaleWriteException('post', await viewOf(post));
    return post;
  }

  private async change(actor: Actor, postId: string, version: number, act: (post: Post) => Promise<void>): Promise<PostView> {
    const { channelId } = found(await Post.findOne({ where: { id: postId, ...scoped(actor) } }), 'post');
    return this.database.transaction(async () => {
      await this.database.lock(channelLock(channelId));
      const post = found(await Post.findOne({ where: { id: postId, ...scoped(actor) }, lock: true }), 'post');
      if (post.version !== version) throw new StaleWriteException('post', await viewOf(post));
      await act(post);
      return viewOf(post);
    });
  }

  private async tell(actor: Actor, { id, clientId }: Post, event: SendingEventName, detail: string): Promise<void> {
    await SendingEvent.create({ postId: id, clientId, at: new Date(this.clock.nowMs()), event, detail, userId: actor.userId });
  }

  private async record(actor: Actor, action: AuditAction, { id, clientId }: Post): Promise<void> {
    await this.audit.record({ userId: actor.userId, clientId, action, subject: 'post', subjectId: id });
  }
}

/** A call that publishes was begun, or it is looked over there, and how that ended is not known. */
const isOpen = ({ state }: Post, sending: Sending | null): boolean => sending !== null && (sending.doubtSince != null || state === 'processing');

const viewOf = async (post: Post): Promise<PostView> =>
  toPostView(post, found(await Short.findByPk(post.shortId, { attributes: ['recordingId'] }), 'short').recordingId);

/** What a platform answers, in an answer of ours. */
async function asked(act: () => Promise<void>): Promise<void> {
  try {
    await act();
  } catch (error) {
    if (error instanceof RefusedError) throw new UnprocessableEntityException(error.message);
    if (error instanceof RightGoneError) throw new ConflictException(error.message);
    if (error instanceof LaterError || error instanceof NoAnswerError) throw new ServiceUnavailableException(`${error.message} Try it again in a moment.`);
    throw error;
  }
}
