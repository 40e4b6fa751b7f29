import { ConflictException, Inject, Injectable, type OnModuleInit, UnprocessableEntityException } from '@nestjs/common';
import {
  asPosted,
  checkMoves,
  checkPlacement,
  dayNumber,
  instantOf,
  isUnderway,
  type Plan,
  type PlanChannel,
  type PlannedPost,
  type PlanRow,
  type PlanShort,
} from '@sift-reel/core';
import type { AcceptForm, LayOutForm, MovePostForm, PlacementForm, PostMoveForm, PostStateForm, WhatIfForm } from '@sift-reel/forms';
import { Op, UniqueConstraintError } from 'sequelize';
import { StaleWriteException } from '../problems/refusals.js';
import type { AuditAction } from '../audit/trail-words.js';
import { AuditService } from '../audit/audit.service.js';
import { ClientFacts } from '../clients/client-facts.js';
import { channelLock, toBlackoutView, toChannelView } from '../clients/channels.service.js';
import { Channel, Client, PlatformProfile, voiceOf } from '../clients/clients.models.js';
import { Database } from '../database/database.service.js';
import { type Actor, found, requireClient, scoped } from '../identity/actor.js';
import { RecordingFacts } from '../recordings/recording-facts.js';
import { Recording } from '../recordings/recordings.models.js';
import { ShortFacts } from '../shorts/short-facts.js';
import { copyFor } from '../shorts/short-views.js';
import { talkLanguages } from '../shorts/talk-languages.js';
import { Short } from '../shorts/shorts.models.js';
import { TextPool } from '../text/text-pool.service.js';
import { BatchesService } from './batches.service.js';
import { PlanLoader } from './plan-loader.service.js';
import { toPostView, toScheduleShort } from './plan-views.js';
import { Post } from './planning.models.js';
import type { PostView, ProposalView, ScheduleView } from './planning.views.js';

const LONGEST_STRETCH_DAYS = 92;

@Injectable()
export class PlanningService implements OnModuleInit {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(PlanLoader) private readonly loader: PlanLoader,
    @Inject(BatchesService) private readonly batches: BatchesService,
    @Inject(AuditService) private readonly audit: AuditService,
    @Inject(ClientFacts) private readonly clientFacts: ClientFacts,
    @Inject(RecordingFacts) private readonly recordingFacts: RecordingFacts,
    @Inject(ShortFacts) private readonly shortFacts: ShortFacts,
    @Inject(TextPool) private readonly texts: TextPool,
  ) {}

  onModuleInit(): void {
    this.shortFacts.providePostCounts(async (shortIds) => {
      const counts = 'SELECT short_id AS "shortId", count(*)::int AS n FROM posts WHERE short_id = ANY ($1::uuid[]) GROUP BY short_id';
      const rows = await this.database.rows<{ shortId: string; n: number }>(counts, [shortIds]);
      return new Map(rows.map((row) => [row.shortId, row.n]));
    });
    this.recordingFacts.object('remove', async (recordingId) => {
      const counts = 'SELECT count(*)::int AS n FROM posts JOIN shorts ON shorts.id = posts.short_id WHERE shorts.recording_id = $1';
      const [row] = await this.database.rows<{ n: number }>(counts, [recordingId]);
      return (row?.n ?? 0) === 0 ? null : `Shorts of this recording stand on the schedule (${row!.n}). Take them off first.`;
    });
    this.clientFacts.whenChannelChanges((channelId) => this.followZone(channelId));
  }

  async read(actor: Actor): Promise<ScheduleView> {
    const { plan, channels, blackouts, shorts, posts, recordingOf } = await this.database.snapshot(() => this.loader.all(actor));
    return {
      channels: channels.map(toChannelView),
      blackouts: blackouts.map(toBlackoutView),
      shorts: shorts.map(toScheduleShort),
      posts: posts.map((post) => toPostView(post, recordingOf.get(post.id) ?? '')),
      now: new Date(plan.nowMs).toISOString(),
    };
  }

  /** A proposal; nothing is written. */
  async propose(actor: Actor, form: LayOutForm): Promise<ProposalView> {
    if (dayNumber(form.toDate) - dayNumber(form.fromDate) > LONGEST_STRETCH_DAYS)
      throw new UnprocessableEntityException(`Lay out at most ${LONGEST_STRETCH_DAYS} days at once.`);
    const { plan } = await this.loader.all(actor);
    const shorts = form.shortIds.map((id) => find(plan.shorts, id, 'short'));
    const asked = { ...plan, channels: changeChannels(plan, form.whatIf) };
    const kept = place(asked, form.kept);
    for (const { short, channel, post } of kept.placed) {
      const refusal = checkPlacement(kept.plan, short, channel, post, post.id)[0];
      if (refusal !== undefined) throw new ConflictException(`“${short.title}” cannot stay on ${channel.name}: ${refusal.detail}`);
    }
    const keptIds = kept.placed.map(({ post }) => post.id);
    const request = { plan: kept.plan, keptIds, shortIds: form.shortIds, fromDate: form.fromDate, toDate: form.toDate };
    const { placements, unplaced, value, bound } = await this.texts.layOut(shorts[0]?.clientId ?? '', request);
    return {
      placements: placements.map(({ shortId, channelId, date, minute, atMs, why, worth }) => ({
        shortId,
        channelId,
        date,
        minute,
        at: new Date(atMs).toISOString(),
        why,
        worth,
      })),
      unplaced: [...unplaced],
      value,
      bound,
    };
  }

  /** Writes an accepted proposal, all of it or nothing; each placement is checked again, beside all that it comes with. */
  async accept(actor: Actor, form: AcceptForm): Promise<PostView[]> {
    const channelIds = form.placements.map((one) => one.channelId);
    const shortIds = form.placements.map((one) => one.shortId);
    return this.write(channelIds, shortIds, async () => {
      if (form.batchId !== null) await this.batches.requireSeen(actor, form.batchId);
      const { plan } = await this.loader.around(actor, channelIds, shortIds);
      const wished = place(plan, form.placements);
      const views: PostView[] = [];
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
      const posts: Post[] = [];
      for (const [n, { postId, version }] of moves.entries()) posts.push(await this.findSeen(actor, postId, version, seen[n]!.channelId));
      const { plan } = await this.loader.around(actor, channelIds, shortIds);
      for (const { channelId } of moves) find(plan.channels, channelId, 'channel');
      const refused = checkMoves(plan, moves)[0];
      if (refused !== undefined) {
        const { title } = find(plan.shorts, find(posts, refused.postId, 'post').shortId, 'short');
        throw new ConflictException(moves.length === 1 ? refused.refusal.detail : `“${title}” cannot move: ${refused.refusal.detail}`);
      }
      // On the way posts may stand where others were.
      await this.database.run('SET CONSTRAINTS ALL DEFERRED');
      for (const [n, { channelId, date, minute }] of moves.entries()) {
        const post = posts[n]!;
        const at = new Date(instantOf(find(plan.channels, channelId, 'channel').zone, { date, minute }).atMs);
        const place = { channelId, date, minute, at };
        await post.update({ ...place, state: 'planned', failure: null, why: 'Put here by hand.', version: post.version + 1 });
        await this.record(actor, 'move', post, find(plan.shorts, post.shortId, 'short').title);
      }
      await this.database.run('SET CONSTRAINTS ALL IMMEDIATE');
      return posts.map((post) => toPostView(post, find(plan.shorts, post.shortId, 'short').recordingId));
    });
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

  /** The posts of a stretch of days with all that somebody who posts them by hand needs. */
  async rows(actor: Pick<Actor, 'clientIds'>, fromDate: string, toDate: string, clientId?: string): Promise<PlanRow[]> {
    if (clientId !== undefined) requireClient(actor, clientId);
    const scope = scoped(actor);
    const where = { ...scope, date: { [Op.between]: [fromDate, toDate] } };
    const posts = (await Post.findAll({ where, order: ['at'] })).filter((post) => clientId === undefined || post.clientId === clientId);
    const shorts = new Map(
      (await Short.findAll({ where: { id: posts.map((post) => post.shortId), ...scope }, include: ['copies', 'translations', Recording] })).map((short) => [
        short.id,
        short,
      ]),
    );
    const channels = new Map(
      (await Channel.findAll({ where: { id: posts.map((post) => post.channelId), ...scope }, include: [PlatformProfile] })).map((channel) => [
        channel.id,
        channel,
      ]),
    );
    const languages = await talkLanguages(
      this.database,
      [...shorts.values()].map((short) => short.recordingId),
    );
    const clients = new Map((await Client.findAll({ where: { id: posts.map((post) => post.clientId) } })).map((client) => [client.id, client]));
    return posts.map((post) => {
      const short = shorts.get(post.shortId)!;
      const channel = channels.get(post.channelId)!;
      const client = clients.get(post.clientId)!;
      const { title, description, hashtags } = asPosted(copyFor(short, channel, languages.get(short.recordingId) ?? 'en'), voiceOf(client));
      return {
        postId: post.id,
        client: client.name,
        channel: channel.name,
        platform: channel.platformProfile.name,
        zone: channel.zone,
        date: post.date,
        minute: post.minute,
        atMs: post.at.getTime(),
        state: post.state,
        recording: short.recording.title,
        title,
        description,
        hashtags,
        lengthMs: short.playedMs,
        score: short.score,
      };
    });
  }

  /** Posts keep the time on their channel's wall; where its zone changes, the instants of those to come follow. */
  private async followZone(channelId: string): Promise<void> {
    const channel = await Channel.findByPk(channelId);
    if (channel === null) return;
    await this.database.run('SET CONSTRAINTS ALL DEFERRED');
    for (const post of await Post.findAll({ where: { channelId, state: ['planned', 'waiting', 'refused', 'missed'] } })) {
      const at = new Date(instantOf(channel.zone, post).atMs);
      if (at.getTime() !== post.at.getTime()) await post.update({ at, version: post.version + 1 });
    }
    await this.database.run('SET CONSTRAINTS ALL IMMEDIATE');
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
}

/** A plan with placements besides what it has, in the order in which they were asked for. */
function place(plan: Plan, placements: readonly PlacementForm[]): { plan: Plan; placed: { short: PlanShort; channel: PlanChannel; post: PlannedPost }[] } {
  const placed = placements.map(({ shortId, channelId, date, minute }, n) => {
    const short = find(plan.shorts, shortId, 'short');
    const channel = find(plan.channels, channelId, 'channel');
    const { atMs } = instantOf(channel.zone, { date, minute });
    const post: PlannedPost = { id: `wished:${n}`, shortId, recordingId: short.recordingId, channelId, date, minute, atMs, state: 'planned' };
    return { short, channel, post };
  });
  return { plan: { ...plan, posts: [...plan.posts, ...placed.map((one) => one.post)] }, placed };
}

/** The channels of a plan with changes that are only tried. */
function changeChannels(plan: Plan, changes: readonly WhatIfForm[]): PlanChannel[] {
  for (const { channelId } of changes) find(plan.channels, channelId, 'channel');
  return plan.channels.map((channel) =>
    changes
      .filter((one) => one.channelId === channel.id)
      .reduce(
        (old, { postsPerDay, postsPerWeek, windows, blackouts }) => ({
          ...old,
          postsPerDay: postsPerDay ?? old.postsPerDay,
          postsPerWeek: postsPerWeek ?? old.postsPerWeek,
          windows: [...old.windows, ...windows],
          blackouts: [...old.blackouts, ...blackouts.map((one) => ({ ...one, reason: '' }))],
        }),
        channel,
      ),
  );
}

function find<T extends { readonly id: string }>(rows: readonly T[], id: string, what: string): T {
  return found(
    rows.find((row) => row.id === id),
    what,
  );
}
