import { Inject, Injectable } from '@nestjs/common';
import type { Plan } from '@sift-reel/core';
import type { WhereOptions } from 'sequelize';
import { Blackout, Channel, PlatformProfile, PostingWindow } from '../clients/clients.models.js';
import { Database } from '../database/database.service.js';
import { type Actor, scoped } from '../identity/actor.js';
import { toPlanChannel } from '../shorts/plan-channel.js';
import { ShortsService } from '../shorts/shorts.service.js';
import type { ShortView } from '../shorts/shorts.views.js';
import { Clock } from '../config/clock.js';
import { toPlanShort } from './plan-views.js';
import { Post } from './planning.models.js';

interface LoadedPlan {
  readonly plan: Plan;
  readonly channels: readonly Channel[];
  readonly blackouts: readonly Blackout[];
  readonly shorts: readonly ShortView[];
  readonly posts: readonly Post[];
  /** Recording of each post's short, by the post's id. */
  readonly recordingOf: ReadonlyMap<string, string>;
}

/** All that may speak for or against a place, of a whole schedule or of some channels and shorts of it. */
@Injectable()
export class PlanLoader {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(ShortsService) private readonly shorts: ShortsService,
    @Inject(Clock) private readonly clock: Clock,
  ) {}

  /** The whole schedule of an actor's clients. */
  async all(actor: Actor): Promise<LoadedPlan> {
    const shorts = await this.shorts.list(actor);
    const posts = await Post.findAll({ where: scoped(actor), order: ['at'] });
    return this.assemble(scoped(actor), shorts, posts);
  }

  /**
   * What a write of some shorts on some channels rests on: the channels of their clients, the posts of those channels and
   * the other posts of those shorts. Read under the locks that the write holds.
   */
  async around(actor: Actor, channelIds: readonly string[], shortIds: readonly string[]): Promise<LoadedPlan> {
    const shorts = await this.shorts.list(actor, { ids: shortIds });
    const clientId = [...new Set(shorts.map((short) => short.clientId))];
    const ids = await this.database.rows<{ id: string }>('SELECT id FROM posts WHERE channel_id = ANY ($1::uuid[]) OR short_id = ANY ($2::uuid[])', [
      channelIds,
      shortIds,
    ]);
    const posts = await Post.findAll({ where: { id: ids.map((row) => row.id), ...scoped(actor) }, order: ['at'] });
    return this.assemble({ ...scoped(actor), clientId }, shorts, posts);
  }

  private async assemble(where: WhereOptions, shorts: readonly ShortView[], posts: readonly Post[]): Promise<LoadedPlan> {
    const known = new Map(shorts.map((short) => [short.id, short.recordingId]));
    const others = [...new Set(posts.map((post) => post.shortId))].filter((id) => !known.has(id));
    const channels = await Channel.findAll({
      where,
      include: [PlatformProfile, PostingWindow],
      order: [
        ['clientId', 'ASC'],
        ['order', 'ASC'],
        ['name', 'ASC'],
      ],
    });
    const blackouts = await Blackout.findAll({ where });
    const recordings =
      others.length === 0
        ? []
        : await this.database.rows<{ id: string; recordingId: string }>('SELECT id, recording_id AS "recordingId" FROM shorts WHERE id = ANY ($1::uuid[])', [
            others,
          ]);
    for (const { id, recordingId } of recordings) known.set(id, recordingId);
    const recordingOf = new Map(posts.map((post) => [post.id, known.get(post.shortId) ?? '']));
    const plan: Plan = {
      channels: channels.map((channel) =>
        toPlanChannel(
          channel,
          blackouts.filter((one) => one.clientId === channel.clientId && (one.channelId == null || one.channelId === channel.id)),
        ),
      ),
      shorts: shorts.map(toPlanShort),
      posts: posts.map(({ id, shortId, channelId, date, minute, at, state }) => ({
        id,
        shortId,
        recordingId: recordingOf.get(id) ?? '',
        channelId,
        date,
        minute,
        atMs: at.getTime(),
        state,
      })),
      nowMs: this.clock.nowMs(),
    };
    return { plan, channels, blackouts, shorts, posts, recordingOf };
  }
}
