import { ConflictException, Inject, Injectable, type OnModuleInit, UnprocessableEntityException } from '@nestjs/common';
import { asPosted, checkMoves, checkPlacement, dayNumber, instantOf, type Plan, type PlanChannel, planMoved, type PlanRow } from '@sift-reel/core';
import type { LayOutForm, WhatIfForm } from '@sift-reel/forms';
import { Op } from 'sequelize';
import { ClientFacts } from '../clients/client-facts.js';
import { toBlackoutView, toChannelView } from '../clients/channels.service.js';
import { Channel, Client, PlatformProfile, voiceOf } from '../clients/clients.models.js';
import { Database } from '../database/database.service.js';
import { type Actor, requireClient, scoped } from '../identity/actor.js';
import { RecordingFacts } from '../recordings/recording-facts.js';
import { Recording } from '../recordings/recordings.models.js';
import { ShortFacts } from '../shorts/short-facts.js';
import { copyFor } from '../shorts/short-views.js';
import { talkLanguages } from '../shorts/talk-languages.js';
import { Short } from '../shorts/shorts.models.js';
import { TextPool } from '../text/text-pool.service.js';
import { find, place } from './placed.js';
import { PlanLoader } from './plan-loader.service.js';
import { toPostView, toScheduleShort } from './plan-views.js';
import { Post } from './planning.models.js';
import type { ProposalView, ScheduleView } from './planning.views.js';

const LONGEST_STRETCH_DAYS = 92;

@Injectable()
export class PlanningService implements OnModuleInit {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(PlanLoader) private readonly loader: PlanLoader,
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
    const { plan: standing, posts } = await this.loader.all(actor);
    const keptMoves = form.keptMoves ?? [];
    for (const { postId, channelId } of keptMoves) {
      find(posts, postId, 'post');
      find(standing.channels, channelId, 'channel');
    }
    const plan = planMoved(standing, keptMoves);
    const shorts = form.shortIds.map((id) => find(plan.shorts, id, 'short'));
    const asked = { ...plan, channels: changeChannels(plan, form.whatIf) };
    const kept = place(asked, form.kept);
    for (const { short, channel, post } of kept.placed) {
      const refusal = checkPlacement(kept.plan, short, channel, post, post.id)[0];
      if (refusal !== undefined) throw new ConflictException(`“${short.title}” cannot stay on ${channel.name}: ${refusal.detail}`);
    }
    const refused = checkMoves(place(standing, form.kept).plan, keptMoves)[0];
    if (refused !== undefined) throw new ConflictException(`A post cannot move as it was proposed: ${refused.refusal.detail}`);
    const keptIds = kept.placed.map(({ post }) => post.id);
    const going = new Set(keptMoves.map((move) => move.postId));
    const movableIds = posts.filter((post) => post.movable && !going.has(post.id)).map((post) => post.id);
    const request = { plan: kept.plan, keptIds, movableIds, shortIds: form.shortIds, fromDate: form.fromDate, toDate: form.toDate };
    const { placements, moves, unplaced, value, bound } = await this.texts.layOut(shorts[0]?.clientId ?? '', request);
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
      moves: moves.map(({ postId, channelId, date, minute, atMs, why, worth, worthBefore }) => {
        const { shortId, date: fromDate, minute: fromMinute, version } = find(posts, postId, 'post');
        return { postId, version, shortId, channelId, date, minute, at: new Date(atMs).toISOString(), fromDate, fromMinute, why, worth, worthBefore };
      }),
      unplaced: [...unplaced],
      value,
      bound,
    };
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
