import { ConflictException, Inject, Injectable, UnprocessableEntityException } from '@nestjs/common';
import { InjectConnection } from '@nestjs/sequelize';
import { checkPlacement, dayNumber, instantOf, layOut, type Plan, type PlannedPost, type PlanRow, type PlanShort } from '@sift-reel/core';
import type { AcceptForm, LayOutForm, MovePostForm } from '@sift-reel/forms';
import { Op, type Transaction, UniqueConstraintError } from 'sequelize';
import { Sequelize } from 'sequelize-typescript';
import { AuditService } from '../audit/audit.service.js';
import { Blackout, Channel, Client, PlatformProfile, PostingWindow } from '../clients/clients.models.js';
import { toChannelView } from '../clients/clients.service.js';
import { type Actor, found, scoped } from '../identity/actor.js';
import { Recording } from '../recordings/recordings.models.js';
import { toPlanChannel } from '../shorts/plan-channel.js';
import { Short } from '../shorts/shorts.models.js';
import { copyFor, ShortsService } from '../shorts/shorts.service.js';
import type { ShortView } from '../shorts/shorts.views.js';
import { Clock } from './clock.js';
import { Post } from './planning.models.js';
import type { PostView, ProposalView, ScheduleShortView, ScheduleView } from './planning.views.js';

const LONGEST_STRETCH_DAYS = 92;

interface LoadedPlan {
  readonly plan: Plan;
  readonly channels: readonly Channel[];
  readonly blackouts: readonly Blackout[];
  readonly shorts: readonly ShortView[];
  readonly posts: readonly Post[];
}

@Injectable()
export class PlanningService {
  constructor(
    @InjectConnection() private readonly sequelize: Sequelize,
    @Inject(ShortsService) private readonly shorts: ShortsService,
    @Inject(AuditService) private readonly audit: AuditService,
    @Inject(Clock) private readonly clock: Clock,
  ) {}

  async read(actor: Actor): Promise<ScheduleView> {
    const { plan, channels, blackouts, shorts, posts } = await this.load(actor);
    const recordingOf = new Map(shorts.map((short) => [short.id, short.recordingId]));
    return {
      channels: channels.map(toChannelView),
      blackouts: blackouts.map(({ id, clientId, channelId, fromDate, toDate, reason }) => ({
        id,
        clientId,
        channelId: channelId ?? null,
        fromDate,
        toDate,
        reason,
      })),
      shorts: shorts.map(toScheduleShort),
      posts: posts.map((post) => toPostView(post, recordingOf.get(post.shortId) ?? post.shortId)),
      now: new Date(plan.nowMs).toISOString(),
    };
  }

  /** A proposal; nothing is written. */
  async propose(actor: Actor, form: LayOutForm): Promise<ProposalView> {
    if (dayNumber(form.toDate) - dayNumber(form.fromDate) > LONGEST_STRETCH_DAYS)
      throw new UnprocessableEntityException(`Lay out at most ${LONGEST_STRETCH_DAYS} days at once.`);
    const { plan } = await this.load(actor);
    const unknown = form.shortIds.find((id) => !plan.shorts.some((short) => short.id === id));
    if (unknown !== undefined) found(null, 'short');
    const { placements, unplaced } = layOut({ plan, shortIds: form.shortIds, fromDate: form.fromDate, toDate: form.toDate });
    return {
      placements: placements.map(({ shortId, channelId, date, minute, atMs, why }) => ({
        shortId,
        channelId,
        date,
        minute,
        at: new Date(atMs).toISOString(),
        why,
      })),
      unplaced: [...unplaced],
    };
  }

  /** Writes an accepted proposal, all of it or nothing; each placement is checked again, in order of time. */
  async accept(actor: Actor, form: AcceptForm): Promise<PostView[]> {
    return this.write(async (transaction) => {
      const { plan } = await this.load(actor, transaction);
      const wished = form.placements
        .map((one) => ({
          ...one,
          channel: found(
            plan.channels.find((channel) => channel.id === one.channelId),
            'channel',
          ),
          short: found(
            plan.shorts.find((short) => short.id === one.shortId),
            'short',
          ),
        }))
        .map((one) => ({ ...one, atMs: instantOf(one.channel.zone, one).atMs }))
        .sort((a, b) => a.channel.order - b.channel.order || a.atMs - b.atMs);
      const grown = { ...plan, posts: [...plan.posts] };
      const views: PostView[] = [];
      for (const { channel, short, date, minute, atMs, why } of wished) {
        const refusal = checkPlacement(grown, short, channel, { date, minute })[0];
        if (refusal !== undefined) throw new ConflictException(`“${short.title}” cannot go to ${channel.name}: ${refusal.detail}`);
        const post = await Post.create(
          { clientId: short.clientId, channelId: channel.id, shortId: short.id, batchId: form.batchId, date, minute, at: new Date(atMs), why },
          { transaction },
        );
        grown.posts.push({ id: post.id, shortId: short.id, recordingId: short.recordingId, channelId: channel.id, date, minute, atMs, state: 'planned' });
        await this.audit.record(
          { userId: actor.userId, clientId: short.clientId, action: 'place', subject: 'post', subjectId: post.id, detail: { title: short.title } },
          transaction,
        );
        views.push(toPostView(post, short.recordingId));
      }
      return views;
    });
  }

  async move(actor: Actor, postId: string, form: MovePostForm): Promise<PostView> {
    return this.write(async (transaction) => {
      const { plan, posts } = await this.load(actor, transaction);
      const post = found(
        posts.find((one) => one.id === postId),
        'post',
      );
      if (post.state === 'posted') throw new ConflictException('It was posted already, so it cannot move.');
      const channel = found(
        plan.channels.find((one) => one.id === form.channelId),
        'channel',
      );
      const short = found(
        plan.shorts.find((one) => one.id === post.shortId),
        'short',
      );
      const refusal = checkPlacement(plan, short, channel, form, postId)[0];
      if (refusal !== undefined) throw new ConflictException(refusal.detail);
      await post.update(
        {
          channelId: channel.id,
          date: form.date,
          minute: form.minute,
          at: new Date(instantOf(channel.zone, form).atMs),
          state: 'planned',
          failure: null,
          why: 'Put here by hand.',
        },
        { transaction },
      );
      await this.audit.record(
        { userId: actor.userId, clientId: post.clientId, action: 'move', subject: 'post', subjectId: post.id, detail: { title: short.title } },
        transaction,
      );
      return toPostView(post, short.recordingId);
    });
  }

  async takeOff(actor: Actor, postId: string): Promise<void> {
    await this.sequelize.transaction(async (transaction) => {
      const post = found(await Post.findOne({ where: { id: postId, ...scoped(actor) }, transaction }), 'post');
      if (post.state === 'posted') throw new ConflictException('It was posted already, so it stays on the schedule.');
      await post.destroy({ transaction });
      await this.audit.record({ userId: actor.userId, clientId: post.clientId, action: 'take-off', subject: 'post', subjectId: post.id }, transaction);
    });
  }

  /** Marks a post as posted by hand, or takes the mark back. */
  async setState(actor: Actor, postId: string, state: 'planned' | 'posted'): Promise<PostView> {
    return this.sequelize.transaction(async (transaction) => {
      const post = found(await Post.findOne({ where: { id: postId, ...scoped(actor) }, transaction }), 'post');
      await post.update({ state, failure: null }, { transaction });
      await this.audit.record(
        { userId: actor.userId, clientId: post.clientId, action: state === 'posted' ? 'mark-posted' : 'unmark-posted', subject: 'post', subjectId: post.id },
        transaction,
      );
      const short = found(await Short.findByPk(post.shortId, { transaction }), 'short');
      return toPostView(post, short.recordingId);
    });
  }

  /** The posts of a stretch of days with all that somebody who posts them by hand needs. */
  async rows(actor: Actor, fromDate: string, toDate: string, clientId?: string): Promise<PlanRow[]> {
    const scope = scoped(actor);
    const where = { ...scope, date: { [Op.between]: [fromDate, toDate] } };
    const posts = (await Post.findAll({ where, order: ['at'] })).filter((post) => clientId === undefined || post.clientId === clientId);
    const shorts = new Map(
      (await Short.findAll({ where: { id: posts.map((post) => post.shortId), ...scope }, include: ['copies', Recording] })).map((short) => [short.id, short]),
    );
    const channels = new Map(
      (await Channel.findAll({ where: { id: posts.map((post) => post.channelId), ...scope }, include: [PlatformProfile] })).map((channel) => [
        channel.id,
        channel,
      ]),
    );
    const clients = new Map((await Client.findAll({ where: { id: posts.map((post) => post.clientId) } })).map((client) => [client.id, client.name]));
    return posts.map((post) => {
      const short = shorts.get(post.shortId)!;
      const channel = channels.get(post.channelId)!;
      const { title, description, hashtags } = copyFor(short, channel.id);
      return {
        postId: post.id,
        client: clients.get(post.clientId) ?? '',
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
        lengthMs: short.endMs - short.startMs,
        score: short.score,
      };
    });
  }

  private async load(actor: Actor, transaction?: Transaction): Promise<LoadedPlan> {
    const scope = scoped(actor);
    const [channels, blackouts, shorts, posts] = await Promise.all([
      Channel.findAll({
        where: scope,
        include: [PlatformProfile, PostingWindow],
        order: [
          ['clientId', 'ASC'],
          ['order', 'ASC'],
          ['name', 'ASC'],
        ],
        ...(transaction === undefined ? {} : { transaction }),
      }),
      Blackout.findAll({ where: scope }),
      this.shorts.list(actor),
      Post.findAll({ where: scope, order: ['at'], ...(transaction === undefined ? {} : { transaction, lock: transaction.LOCK.UPDATE }) }),
    ]);
    const byId = new Map(shorts.map((short) => [short.id, short]));
    const planned: PlannedPost[] = posts.map((post) => ({
      id: post.id,
      shortId: post.shortId,
      recordingId: byId.get(post.shortId)?.recordingId ?? '',
      channelId: post.channelId,
      date: post.date,
      minute: post.minute,
      atMs: post.at.getTime(),
      state: post.state,
    }));
    const plan: Plan = {
      channels: channels.map((channel) =>
        toPlanChannel(
          channel,
          blackouts.filter(
            (one) => one.clientId === channel.clientId && (one.channelId === null || one.channelId === undefined || one.channelId === channel.id),
          ),
        ),
      ),
      shorts: shorts.map(toPlanShort),
      posts: planned,
      nowMs: this.clock.nowMs(),
    };
    return { plan, channels, blackouts, shorts, posts };
  }

  private async write<T>(act: (transaction: Transaction) => Promise<T>): Promise<T> {
    try {
      return await this.sequelize.transaction(async (transaction) => {
        await this.sequelize.query(`SELECT pg_advisory_xact_lock(hashtextextended('schedule', 0))`, { transaction }); // two accepts never interleave
        return act(transaction);
      });
    } catch (error) {
      if (error instanceof UniqueConstraintError) throw new ConflictException('Somebody else has just placed something there. Load the schedule again.');
      throw error;
    }
  }
}

function problemText(short: ShortView, channelId: string): string | null {
  const channel = short.channels.find((one) => one.channelId === channelId);
  return channel === undefined || channel.problems.length === 0
    ? null
    : channel.problems.map(({ field, detail }) => `${field === 'coverLine' ? 'cover line' : field} ${detail}`).join('; ');
}

function toPlanShort(short: ShortView): PlanShort {
  const problems = Object.fromEntries(
    short.channels
      .map((channel) => [channel.channelId, problemText(short, channel.channelId)] as const)
      .filter((entry): entry is [string, string] => entry[1] !== null),
  );
  return {
    id: short.id,
    clientId: short.clientId,
    recordingId: short.recordingId,
    title: short.copy.title,
    lengthMs: short.endMs - short.startMs,
    score: short.score,
    approved: short.approved,
    copyProblems: problems,
  };
}

function toScheduleShort(short: ShortView): ScheduleShortView {
  const { id, clientId, recordingId, title, lengthMs, score, approved, copyProblems } = toPlanShort(short);
  return {
    id,
    clientId,
    recordingId,
    recordingTitle: short.recordingTitle,
    title,
    lengthMs,
    score,
    approved,
    copyProblems: Object.entries(copyProblems).map(([channelId, detail]) => ({ channelId, detail })),
  };
}

function toPostView(post: Post, recordingId: string): PostView {
  const { id, clientId, channelId, shortId, date, minute, at, state, why } = post;
  return {
    id,
    clientId,
    channelId,
    shortId,
    batchId: post.batchId ?? null,
    recordingId,
    date,
    minute,
    at: at.toISOString(),
    state,
    failure: post.failure ?? null,
    why,
  };
}
