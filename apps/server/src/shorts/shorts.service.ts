import { ConflictException, Inject, Injectable, UnprocessableEntityException } from '@nestjs/common';
import { InjectConnection } from '@nestjs/sequelize';
import { checkFit, type Copy, type CopyLimits, copyProblems, type PlanChannel } from '@sift-reel/core';
import type { CopyForm } from '@sift-reel/forms';
import { QueryTypes, type Transaction } from 'sequelize';
import { Sequelize } from 'sequelize-typescript';
import { AuditService } from '../audit/audit.service.js';
import { Channel, Client, PlatformProfile, PostingWindow } from '../clients/clients.models.js';
import { type Actor, found, scoped } from '../identity/actor.js';
import { User } from '../identity/identity.models.js';
import { TextPool } from '../jobs/text-pool.service.js';
import { Recording, TranscriptRow } from '../recordings/recordings.models.js';
import { CandidateRow } from '../sifting/sifting.models.js';
import { toPlanChannel } from './plan-channel.js';
import { CopyRow, Short } from './shorts.models.js';
import type { CopyView, ShortChannelView, ShortView } from './shorts.views.js';

/** Limits for the words that go to all channels, where a client has none yet. */
const OPEN_LIMITS: CopyLimits = { title: 100, description: 500, hashtags: 8 };

@Injectable()
export class ShortsService {
  constructor(
    @InjectConnection() private readonly sequelize: Sequelize,
    @Inject(TextPool) private readonly pool: TextPool,
    @Inject(AuditService) private readonly audit: AuditService,
  ) {}

  /** The short of a kept candidate, made with proposed copy when it is not there yet. */
  async ensureFor(actor: Actor, candidate: CandidateRow): Promise<void> {
    if ((await Short.findOne({ where: { candidateId: candidate.id } })) !== null) return;
    const sift = await this.sequelize.query<{ recordingId: string }>('SELECT recording_id AS "recordingId" FROM sifts WHERE id = :id', {
      replacements: { id: candidate.siftId },
      type: QueryTypes.SELECT,
    });
    const recordingId = sift[0]!.recordingId;
    const copy = await this.propose(candidate.clientId, recordingId, candidate.firstWord, candidate.endWord);
    await this.sequelize.transaction(async (transaction) => {
      const { id: candidateId, clientId, firstWord, endWord, startMs, endMs, score } = candidate;
      const [short, made] = await Short.findOrCreate({
        where: { candidateId },
        defaults: { candidateId, clientId, recordingId, firstWord, endWord, startMs, endMs, score },
        transaction,
      });
      if (!made) return; // kept twice at the same moment: one short
      await CopyRow.create({ ...copy, shortId: short.id, clientId, channelId: null }, { transaction });
      await this.audit.record(
        { userId: actor.userId, clientId, action: 'make', subject: 'short', subjectId: short.id, detail: { title: copy.title } },
        transaction,
      );
    });
  }

  /** @throws ConflictException when the candidate's short stands on the schedule */
  async requireUnposted(candidateId: string): Promise<void> {
    const short = await Short.findOne({ where: { candidateId } });
    if (short !== null && (await this.postCounts([short.id])).has(short.id))
      throw new ConflictException('Its short stands on the schedule. Take it off there first.');
  }

  /** Moves a short's span with its candidate. @throws ConflictException when it is approved */
  async moveWith(candidate: CandidateRow, transaction: Transaction): Promise<void> {
    const short = await Short.findOne({ where: { candidateId: candidate.id }, transaction });
    if (short === null) return;
    if (short.approvedAt !== null && candidate.state === 'kept') throw new ConflictException('Its short is approved. Un-approve it to move its ends.');
    const { firstWord, endWord, startMs, endMs } = candidate;
    await short.update({ firstWord, endWord, startMs, endMs }, { transaction });
  }

  async list(actor: Actor, filter: { recordingId?: string; clientId?: string } = {}): Promise<ShortView[]> {
    const where = {
      ...scoped(actor),
      ...(filter.recordingId === undefined ? {} : { recordingId: filter.recordingId }),
      ...(filter.clientId === undefined ? {} : { clientId: filter.clientId }),
    };
    const scope = scoped(actor).clientId;
    if (filter.clientId !== undefined && scope !== undefined && !scope.includes(filter.clientId)) return [];
    const shorts = await Short.findAll({
      where,
      include: [{ model: CandidateRow, where: { state: 'kept' } }, Recording, CopyRow],
      order: [
        ['recordingId', 'ASC'],
        ['score', 'DESC'],
        ['id', 'ASC'],
      ],
    });
    return this.views(shorts);
  }

  async read(actor: Actor, shortId: string): Promise<ShortView> {
    return (await this.views([await this.find(actor, shortId)]))[0]!;
  }

  async find(actor: Actor, shortId: string): Promise<Short> {
    return found(
      await Short.findOne({ where: { id: shortId, ...scoped(actor) }, include: [{ model: CandidateRow, where: { state: 'kept' } }, Recording, CopyRow] }),
      'short',
    );
  }

  /** Saves words: for all channels (`channelId` null) or for one. */
  async saveCopy(actor: Actor, shortId: string, channelId: string | null, form: CopyForm): Promise<ShortView> {
    const short = await this.find(actor, shortId);
    requireDraft(short);
    await this.sequelize.transaction(async (transaction) => {
      if (channelId !== null) found(await Channel.findOne({ where: { id: channelId, clientId: short.clientId }, transaction }), 'channel');
      const fields = {
        title: form.title.trim(),
        description: form.description.trim(),
        hashtags: form.hashtags.map((tag) => tag.replace(/^#/, '')),
        keywords: form.keywords,
        coverLine: form.coverLine.trim(),
      };
      const row = await CopyRow.findOne({ where: { shortId, channelId }, transaction });
      if (row === null) await CopyRow.create({ ...fields, shortId, channelId, clientId: short.clientId }, { transaction });
      else await row.update(fields, { transaction });
      await this.audit.record(
        { userId: actor.userId, clientId: short.clientId, action: 'word', subject: 'short', subjectId: shortId, detail: { title: fields.title } },
        transaction,
      );
    });
    return this.read(actor, shortId);
  }

  /** The channel goes back to the words for all. */
  async dropVariant(actor: Actor, shortId: string, channelId: string): Promise<ShortView> {
    const short = await this.find(actor, shortId);
    requireDraft(short);
    await this.sequelize.transaction(async (transaction) => {
      await CopyRow.destroy({ where: { shortId, channelId }, transaction });
      await this.audit.record({ userId: actor.userId, clientId: short.clientId, action: 'drop-variant', subject: 'short', subjectId: shortId }, transaction);
    });
    return this.read(actor, shortId);
  }

  /** A fresh proposal, inside one channel's limits or inside all; nothing is saved. */
  async proposeAgain(actor: Actor, shortId: string, channelId: string | null): Promise<CopyView> {
    const short = await this.find(actor, shortId);
    return toCopyView(await this.propose(short.clientId, short.recordingId, short.firstWord, short.endWord, channelId));
  }

  /** Approving needs a title; words that break a channel's limits only keep it from that channel. */
  async setApproval(actor: Actor, shortId: string, approved: boolean): Promise<ShortView> {
    const short = await this.find(actor, shortId);
    if (!approved && (await this.postCounts([shortId])).has(shortId)) throw new ConflictException('The short stands on the schedule. Take it off there first.');
    if (approved && baseCopy(short).title.trim() === '') throw new UnprocessableEntityException('Give the short a title before you approve it.');
    await this.sequelize.transaction(async (transaction) => {
      await short.update(approved ? { approvedAt: new Date(), approvedBy: actor.userId } : { approvedAt: null, approvedBy: null }, { transaction });
      await this.audit.record(
        {
          userId: actor.userId,
          clientId: short.clientId,
          action: approved ? 'approve' : 'un-approve',
          subject: 'short',
          subjectId: shortId,
          detail: { title: baseCopy(short).title },
        },
        transaction,
      );
    });
    return this.read(actor, shortId);
  }

  async postCounts(shortIds: readonly string[]): Promise<Map<string, number>> {
    if (shortIds.length === 0) return new Map();
    const rows = await this.sequelize.query<{ shortId: string; n: number }>(
      'SELECT short_id AS "shortId", count(*)::int AS n FROM posts WHERE short_id IN (:ids) GROUP BY short_id',
      { replacements: { ids: [...shortIds] }, type: QueryTypes.SELECT },
    );
    return new Map(rows.map((row) => [row.shortId, row.n]));
  }

  private async propose(clientId: string, recordingId: string, firstWord: number, endWord: number, channelId: string | null = null): Promise<Copy> {
    const [transcript, client, channels] = await Promise.all([
      TranscriptRow.findByPk(recordingId, { attributes: ['packed'] }),
      Client.findByPk(clientId),
      Channel.findAll({ where: { clientId, ...(channelId === null ? {} : { id: channelId }) }, include: [PlatformProfile] }),
    ]);
    if (channelId !== null && channels.length === 0) found(null, 'channel');
    const least = (pick: (profile: PlatformProfile) => number, open: number): number =>
      channels.reduce((limit, channel) => Math.min(limit, pick(channel.platformProfile)), open);
    const limits = {
      title: least((p) => p.titleLimit, OPEN_LIMITS.title),
      description: least((p) => p.descriptionLimit, OPEN_LIMITS.description),
      hashtags: least((p) => p.hashtagLimit, OPEN_LIMITS.hashtags),
    };
    return this.pool.proposeCopy({ packed: found(transcript, 'transcript').packed, firstWord, endWord, clientTags: client?.tags ?? [], limits });
  }

  private async views(shorts: readonly Short[]): Promise<ShortView[]> {
    if (shorts.length === 0) return [];
    const clientIds = [...new Set(shorts.map((short) => short.clientId))];
    const [channels, users, posts] = await Promise.all([
      Channel.findAll({
        where: { clientId: clientIds },
        include: [PlatformProfile, PostingWindow],
        order: [
          ['order', 'ASC'],
          ['name', 'ASC'],
        ],
      }),
      User.findAll({ attributes: ['id', 'name'] }),
      this.postCounts(shorts.map((short) => short.id)),
    ]);
    const names = new Map(users.map((user) => [user.id, user.name]));
    return shorts.map((short) => ({
      id: short.id,
      clientId: short.clientId,
      recordingId: short.recordingId,
      recordingTitle: short.recording.title,
      siftId: short.candidate.siftId,
      candidateId: short.candidateId,
      firstWord: short.firstWord,
      endWord: short.endWord,
      startMs: short.startMs,
      endMs: short.endMs,
      score: short.score,
      kind: short.candidate.kind,
      firstLine: short.candidate.firstLine,
      reason: short.candidate.reason,
      copy: baseCopy(short),
      channels: channels.filter((channel) => channel.clientId === short.clientId).map((channel) => toShortChannel(short, channel)),
      approved: short.approvedAt !== null && short.approvedAt !== undefined,
      approvedBy: short.approvedBy === null || short.approvedBy === undefined ? null : (names.get(short.approvedBy) ?? 'a former user'),
      postCount: posts.get(short.id) ?? 0,
    }));
  }
}

function requireDraft(short: Short): void {
  if (short.approvedAt !== null && short.approvedAt !== undefined) throw new ConflictException('The short is approved. Un-approve it to change its words.');
}

export function baseCopy(short: Short): CopyView {
  const row = short.copies.find((copy) => copy.channelId === null);
  return row === undefined ? { title: '', description: '', hashtags: [], keywords: [], coverLine: '' } : toCopyView(row);
}

/** The words a channel gets: its own, or those for all. */
export function copyFor(short: Short, channelId: string): CopyView {
  const own = short.copies.find((copy) => copy.channelId === channelId);
  return own === undefined ? baseCopy(short) : toCopyView(own);
}

function toCopyView({ title, description, hashtags, keywords, coverLine }: Copy): CopyView {
  return { title, description, hashtags: [...hashtags], keywords: [...keywords], coverLine };
}

function toShortChannel(short: Short, channel: Channel): ShortChannelView {
  const own = short.copies.find((copy) => copy.channelId === channel.id);
  const plan: PlanChannel = toPlanChannel(channel, []);
  const misfit = checkFit(
    {
      id: short.id,
      clientId: short.clientId,
      recordingId: short.recordingId,
      title: '',
      lengthMs: short.endMs - short.startMs,
      score: short.score,
      approved: true,
      copyProblems: {},
    },
    plan,
  )[0];
  return {
    channelId: channel.id,
    name: channel.name,
    platform: channel.platformProfile.name,
    titleLimit: plan.rules.copy.title,
    descriptionLimit: plan.rules.copy.description,
    hashtagLimit: plan.rules.copy.hashtags,
    variant: own === undefined ? null : toCopyView(own),
    problems: copyProblems(copyFor(short, channel.id), plan.rules.copy).map(({ field, detail }) => ({ field, detail })),
    unfit: misfit?.detail ?? null,
  };
}
