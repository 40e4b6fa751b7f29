import { ConflictException, Inject, Injectable, UnprocessableEntityException } from '@nestjs/common';
import { checkMoves, checkPlacement, instantOf, isUnderway, type Plan, planMoved } from '@sift-reel/core';
import type { AcceptForm, MovableForm, MovePostForm, PostMoveForm, PostStateForm } from '@sift-reel/forms';
import { UniqueConstraintError } from 'sequelize';
import { AuditService } from '../audit/audit.service.js';
import type { AuditAction } from '../audit/trail-words.js';
import { channelLock } from '../clients/channels.service.js';
import { Database } from '../database/database.service.js';
import { type Actor, found, scoped } from '../identity/actor.js';
import { StaleWriteException } from '../problems/refusals.js';
import { Short } from '../shorts/shorts.models.js';
import { BatchesService } from './batches.service.js';
import { find, place } from './placed.js';
import { PlanLoader } from './plan-loader.service.js';
import { toPostView } from './plan-views.js';
import { Post } from './planning.models.js';
import type { PostView } from './planning.views.js';

/** Writes to the schedule: each rule is read under the locks of the channels and shorts that it is about. */
@Injectable()
export class PlacingService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(PlanLoader) private readonly loader: PlanLoader,
    @Inject(BatchesService) private readonly batches: BatchesService,
    @Inject(AuditService) private readonly audit: AuditService,
  ) {}

  /** Writes an accepted proposal, all of it or nothing; each placement is checked again, beside all that it comes with. */
  async accept(actor: Actor, form: AcceptForm): Promise<PostView[]> {
    const moves = form.moves ?? [];
    const seen = await this.findAll(
      actor,
      moves.map((move) => move.postId),
    );
    const channelIds = [...form.placements, ...moves, ...seen].map((one) => one.channelId);
    const shortIds = [...form.placements, ...seen].map((one) => one.shortId);
    return this.write(channelIds, shortIds, async () => {
      if (form.batchId !== null) await this.batches.requireSeen(actor, form.batchId);
      const going = await this.hold(actor, moves, seen);
      const { plan } = await this.loader.around(actor, channelIds, shortIds);
      this.requireMoves(place(plan, form.placements).plan, moves, going, form.placements.length + moves.length === 1);
      const wished = place(planMoved(plan, moves), form.placements);
      // On the way posts may stand where others were.
      await this.database.run('SET CONSTRAINTS ALL DEFERRED');
      const views = await this.putAll(actor, plan, moves, going, (n) => moves[n]!.why);
      for (const [n, { channel, short, post }] of wished.placed.entries()) {
        const { date, minute, atMs } = post;
        const refusal = checkPlacement(wished.plan, short, channel, { date, minute }, post.id)[0];
        if (refusal !== undefined) throw new ConflictException(`“${short.title}” cannot go to ${channel.name}: ${refusal.detail}`);
        const { clientId, recordingId } = short;
        const { why } = form.placements[n]!;
        const written = await Post.create({
          clientId,
          channelId: channel.id,
          shortId: short.id,
          batchId: form.batchId,
          date,
          minute,
          at: new Date(atMs),
          why,
        });
        await this.record(actor, 'place', written, short.title);
        views.push(toPostView(written, recordingId));
      }
      await this.database.run('SET CONSTRAINTS ALL IMMEDIATE');
      return views;
    });
  }

  async move(actor: Actor, postId: string, form: MovePostForm): Promise<PostView> {
    return (await this.moveAll(actor, [{ ...form, postId }]))[0]!;
  }

  /** Moves posts, all of them or none; each is checked beside the others where they go. */
  async moveAll(actor: Actor, moves: readonly PostMoveForm[]): Promise<PostView[]> {
    const seen = await this.findAll(
      actor,
      moves.map((move) => move.postId),
    );
    const channelIds = [...seen.map((post) => post.channelId), ...moves.map((move) => move.channelId)];
    const shortIds = seen.map((post) => post.shortId);
    return this.write(channelIds, shortIds, async () => {
      const posts = await this.hold(actor, moves, seen);
      const { plan } = await this.loader.around(actor, channelIds, shortIds);
      this.requireMoves(plan, moves, posts, moves.length === 1);
      await this.database.run('SET CONSTRAINTS ALL DEFERRED');
      const views = await this.putAll(actor, plan, moves, posts, () => 'Put here by hand.');
      await this.database.run('SET CONSTRAINTS ALL IMMEDIATE');
      return views;
    });
  }

  /** Says of planned posts that laying out may move them, or that they stay; all of them or none. */
  async setMovable(actor: Actor, { posts, movable }: MovableForm): Promise<PostView[]> {
    const seen = await this.findAll(
      actor,
      posts.map((one) => one.postId),
    );
    return this.write(
      seen.map((post) => post.channelId),
      seen.map((post) => post.shortId),
      async () => {
        const held = await this.hold(actor, posts, seen);
        const { plan } = await this.loader.around(
          actor,
          seen.map((post) => post.channelId),
          seen.map((post) => post.shortId),
        );
        for (const post of held) {
          const { title } = find(plan.shorts, post.shortId, 'short');
          if (movable && post.state !== 'planned') throw new ConflictException(`“${title}” is not planned any more, so it stays where it is.`);
          if (post.movable === movable) continue;
          await post.update({ movable, version: post.version + 1 });
          await this.record(actor, movable ? 'let-move' : 'let-stay', post, title);
        }
        return held.map((post) => toPostView(post, find(plan.shorts, post.shortId, 'short').recordingId));
      },
    );
  }

  async takeOff(actor: Actor, postId: string): Promise<void> {
    const seen = await this.find(actor, postId);
    await this.write([seen.channelId], [seen.shortId], async () => {
      const post = await this.find(actor, postId, 'locked');
      if (post.state === 'posted') throw new ConflictException('It was posted already, so it stays on the schedule.');
      if (isUnderway(post.state)) throw new ConflictException('It is on its way already, so it stays on the schedule.');
      await post.destroy();
      await this.record(actor, 'take-off', post, '');
    });
  }

  /** Marks a post as posted by hand, or takes the mark back: to planned, or to refused where it had been. */
  async setState(actor: Actor, postId: string, { state, version }: PostStateForm): Promise<PostView> {
    const seen = await this.find(actor, postId);
    return this.write([seen.channelId], [seen.shortId], async () => {
      const post = await this.findSeen(actor, postId, version, seen.channelId);
      if (state === 'refused' && post.failure === null) throw new UnprocessableEntityException('The post was not refused, so it cannot go back to that.');
      if (post.state === 'sending' || post.state === 'processing') throw new ConflictException('It is on its way already; how it ends is seen here.');
      const sent = await this.database.rows('SELECT 1 FROM sendings WHERE post_id = $1 AND remote_id IS NOT NULL', [postId]);
      if (sent.length > 0) throw new ConflictException('It was posted by Sift Reel. Take it down there, if it is not to stand.');
      await post.update({ state, version: post.version + 1 });
      await this.record(actor, state === 'posted' ? 'mark-posted' : 'unmark-posted', post, '');
      const short = found(await Short.findByPk(post.shortId, { attributes: ['recordingId'] }), 'short');
      return toPostView(post, short.recordingId);
    });
  }

  /**
   * A write to the schedule: it holds the channels it touches and the shorts it places, so that rules of a channel and of a
   * short's order over its channels hold whoever else is writing, and other channels go on meanwhile.
   */
  private async write<T>(channelIds: readonly string[], shortIds: readonly string[], act: () => Promise<T>): Promise<T> {
    try {
      return await this.database.transaction(async () => {
        await this.database.lock(...channelIds.map(channelLock), ...shortIds.map((id) => `short-posts:${id}`));
        await this.database.rows('SELECT id FROM shorts WHERE id = ANY ($1::uuid[]) ORDER BY id FOR SHARE', [shortIds]);
        return act();
      });
    } catch (error) {
      if (error instanceof UniqueConstraintError) throw new ConflictException('Somebody else has just placed something there. Load the schedule again.');
      throw error;
    }
  }

  /** Posts in the order of their ids here. @throws UnprocessableEntityException where one is named twice */
  private async findAll(actor: Actor, postIds: readonly string[]): Promise<Post[]> {
    if (new Set(postIds).size !== postIds.length) throw new UnprocessableEntityException('A post is named twice; it can move to one place.');
    const posts = await Post.findAll({ where: { id: [...postIds], ...scoped(actor) } });
    return postIds.map((id) => find(posts, id, 'post'));
  }

  private async find(actor: Actor, postId: string, hold: 'free' | 'locked' = 'free'): Promise<Post> {
    return found(await Post.findOne({ where: { id: postId, ...scoped(actor) }, lock: hold === 'locked' }), 'post');
  }

  /** The post under the locks of its channel. @throws StaleWriteException when it is not what was seen */
  private async findSeen(actor: Actor, postId: string, version: number, channelId: string): Promise<Post> {
    const post = await this.find(actor, postId, 'locked');
    if (post.version !== version || post.channelId !== channelId) {
      const short = found(await Short.findByPk(post.shortId, { attributes: ['recordingId'] }), 'short');
      throw new StaleWriteException('post', toPostView(post, short.recordingId));
    }
    return post;
  }

  private async record(actor: Actor, action: AuditAction, { id, clientId }: Post, title: string): Promise<void> {
    await this.audit.record({ userId: actor.userId, clientId, action, subject: 'post', subjectId: id, detail: { title } });
  }

  /** Posts under the locks of their channels, as they were seen, in the order asked for. */
  private async hold(actor: Actor, asked: readonly { readonly postId: string; readonly version: number }[], seen: readonly Post[]): Promise<Post[]> {
    const posts: Post[] = [];
    for (const [n, { postId, version }] of asked.entries()) posts.push(await this.findSeen(actor, postId, version, seen[n]!.channelId));
    return posts;
  }

  /**
   * @param isAlone so that nobody need be told which it is
   * @throws ConflictException where something speaks against one of the moves, all of them made
   */
  private requireMoves(plan: Plan, moves: readonly PostMoveForm[], posts: readonly Post[], isAlone: boolean): void {
    for (const { channelId } of moves) find(plan.channels, channelId, 'channel');
    const refused = checkMoves(plan, moves)[0];
    if (refused === undefined) return;
    const { title } = find(plan.shorts, find(posts, refused.postId, 'post').shortId, 'short');
    throw new ConflictException(isAlone ? refused.refusal.detail : `“${title}” cannot move: ${refused.refusal.detail}`);
  }

  /** Writes posts where they are to go. Constraints are deferred on the way: some may stand where others were. */
  private async putAll(actor: Actor, plan: Plan, moves: readonly PostMoveForm[], posts: readonly Post[], whyOf: (n: number) => string): Promise<PostView[]> {
    for (const [n, { channelId, date, minute }] of moves.entries()) {
      const post = posts[n]!;
      const at = new Date(instantOf(find(plan.channels, channelId, 'channel').zone, { date, minute }).atMs);
      await post.update({ channelId, date, minute, at, state: 'planned', failure: null, why: whyOf(n), version: post.version + 1 });
      await this.record(actor, 'move', post, find(plan.shorts, post.shortId, 'short').title);
    }
    return posts.map((post) => toPostView(post, find(plan.shorts, post.shortId, 'short').recordingId));
  }
}
