import { ConflictException, Inject, Injectable } from '@nestjs/common';
import { InjectConnection } from '@nestjs/sequelize';
import { InterestRefusedError, type InterestTerm, normaliseWeights, readInterestCsv, WeightsRefusedError } from '@sift-reel/core';
import type { BlackoutForm, ChannelForm, ClientForm, PlatformProfileForm } from '@sift-reel/forms';
import { ForeignKeyConstraintError, type Transaction, UniqueConstraintError } from 'sequelize';
import { Sequelize } from 'sequelize-typescript';
import { InvalidFormException } from '../api/problems.js';
import { AuditEntry } from '../audit/audit-entry.model.js';
import { AuditService } from '../audit/audit.service.js';
import { type Actor, found, requireClient, requireOwner, scoped } from '../identity/actor.js';
import { User } from '../identity/identity.models.js';
import { Recording } from '../recordings/recordings.models.js';
import { Blackout, Channel, Client, InterestRow, PlatformProfile, PostingWindow } from './clients.models.js';
import type { AuditView, BlackoutView, ChannelView, ClientView, InterestTermView, PlatformProfileView } from './clients.views.js';

@Injectable()
export class ClientsService {
  constructor(
    @InjectConnection() private readonly sequelize: Sequelize,
    @Inject(AuditService) private readonly audit: AuditService,
  ) {}

  async list(actor: Actor): Promise<ClientView[]> {
    const { clientId } = scoped(actor);
    const clients = await Client.findAll({ where: clientId === undefined ? {} : { id: clientId }, order: ['name'] });
    const [recordings, channels] = await Promise.all([
      Recording.findAll({ where: scoped(actor), attributes: ['clientId'] }),
      Channel.findAll({ where: scoped(actor), attributes: ['clientId'] }),
    ]);
    const count = (rows: readonly { clientId: string }[], id: string): number => rows.filter((row) => row.clientId === id).length;
    return clients.map((client) => toClientView(client, count(recordings, client.id), count(channels, client.id)));
  }

  async create(actor: Actor, form: ClientForm): Promise<ClientView> {
    requireOwner(actor);
    return this.write('A client of this name exists already.', async (transaction) => {
      const client = await Client.create({ ...form }, { transaction });
      await this.audit.record(
        { userId: actor.userId, clientId: client.id, action: 'create', subject: 'client', subjectId: client.id, detail: { title: form.name } },
        transaction,
      );
      return toClientView(client, 0, 0);
    });
  }

  async update(actor: Actor, clientId: string, form: ClientForm): Promise<ClientView> {
    requireClient(actor, clientId);
    await this.write('A client of this name exists already.', async (transaction) => {
      const client = found(await Client.findByPk(clientId, { transaction }), 'client');
      await client.update({ ...form }, { transaction });
      await this.audit.record(
        { userId: actor.userId, clientId, action: 'update', subject: 'client', subjectId: clientId, detail: { title: form.name } },
        transaction,
      );
    });
    return found(
      (await this.list(actor)).find((view) => view.id === clientId),
      'client',
    );
  }

  /** The client's own weights of the signals, scaled to sum to one; null goes back to the fitted ones. New sifts use them. */
  async setSignalWeights(actor: Actor, clientId: string, weights: readonly number[] | null): Promise<ClientView> {
    requireClient(actor, clientId);
    const signalWeights = weights === null ? null : usable(weights);
    await this.sequelize.transaction(async (transaction) => {
      const client = found(await Client.findByPk(clientId, { transaction }), 'client');
      await client.update({ signalWeights }, { transaction });
      await this.audit.record(
        { userId: actor.userId, clientId, action: 'update', subject: 'client', subjectId: clientId, detail: { title: client.name, signalWeights } },
        transaction,
      );
    });
    return found(
      (await this.list(actor)).find((view) => view.id === clientId),
      'client',
    );
  }

  async listInterest(actor: Actor, clientId: string): Promise<InterestTermView[]> {
    requireClient(actor, clientId);
    const rows = await InterestRow.findAll({
      where: { clientId },
      order: [
        ['volume', 'DESC'],
        ['term', 'ASC'],
      ],
    });
    return rows.map(({ term, volume, competition, change }) => ({ term, volume, competition, change }));
  }

  /** Puts a whole new interest list in the place of the old one, or refuses it with its line and leaves the old one. */
  async setInterest(actor: Actor, clientId: string, csv: string): Promise<InterestTermView[]> {
    requireClient(actor, clientId);
    const terms = termsOf(csv);
    await this.sequelize.transaction(async (transaction) => {
      const client = found(await Client.findByPk(clientId, { transaction, lock: true }), 'client');
      await InterestRow.destroy({ where: { clientId }, transaction });
      await InterestRow.bulkCreate(
        terms.map((term) => ({ ...term, clientId })),
        { transaction },
      );
      await this.audit.record(
        {
          userId: actor.userId,
          clientId,
          action: 'update',
          subject: 'client',
          subjectId: clientId,
          detail: { title: client.name, interestTerms: terms.length },
        },
        transaction,
      );
    });
    return this.listInterest(actor, clientId);
  }

  async listChannels(actor: Actor): Promise<ChannelView[]> {
    const channels = await Channel.findAll({
      where: scoped(actor),
      include: [PlatformProfile, PostingWindow],
      order: [
        ['clientId', 'ASC'],
        ['order', 'ASC'],
        ['name', 'ASC'],
      ],
    });
    return channels.map(toChannelView);
  }

  async createChannel(actor: Actor, clientId: string, form: ChannelForm): Promise<ChannelView> {
    requireClient(actor, clientId);
    const { windows, ...fields } = form;
    const id = await this.write(
      'The client has a channel of this name already.',
      async (transaction) => {
        found(await PlatformProfile.findByPk(form.platformProfileId, { transaction }), 'platform profile');
        const channel = await Channel.create({ ...fields, clientId }, { transaction });
        await PostingWindow.bulkCreate(
          windows.map((window) => ({ ...window, channelId: channel.id })),
          { transaction },
        );
        await this.audit.record(
          { userId: actor.userId, clientId, action: 'create', subject: 'channel', subjectId: channel.id, detail: { title: form.name } },
          transaction,
        );
        return channel.id;
      },
      'Two posting windows stand at the same time.',
    );
    return found(
      (await this.listChannels(actor)).find((view) => view.id === id),
      'channel',
    );
  }

  async updateChannel(actor: Actor, channelId: string, form: ChannelForm): Promise<ChannelView> {
    const { windows, ...fields } = form;
    await this.write(
      'The client has a channel of this name already.',
      async (transaction) => {
        const channel = found(await Channel.findOne({ where: { id: channelId, ...scoped(actor) }, transaction }), 'channel');
        found(await PlatformProfile.findByPk(form.platformProfileId, { transaction }), 'platform profile');
        await channel.update(fields, { transaction });
        await PostingWindow.destroy({ where: { channelId }, transaction });
        await PostingWindow.bulkCreate(
          windows.map((window) => ({ ...window, channelId })),
          { transaction },
        );
        await this.audit.record(
          { userId: actor.userId, clientId: channel.clientId, action: 'update', subject: 'channel', subjectId: channelId, detail: { title: form.name } },
          transaction,
        );
      },
      'Two posting windows stand at the same time.',
    );
    return found(
      (await this.listChannels(actor)).find((view) => view.id === channelId),
      'channel',
    );
  }

  async removeChannel(actor: Actor, channelId: string): Promise<void> {
    try {
      await this.sequelize.transaction(async (transaction) => {
        const channel = found(await Channel.findOne({ where: { id: channelId, ...scoped(actor) }, transaction }), 'channel');
        await channel.destroy({ transaction });
        await this.audit.record(
          { userId: actor.userId, clientId: channel.clientId, action: 'delete', subject: 'channel', subjectId: channelId, detail: { title: channel.name } },
          transaction,
        );
      });
    } catch (error) {
      if (error instanceof ForeignKeyConstraintError) throw new ConflictException('The channel has posts. Take them off the schedule first.');
      throw error;
    }
  }

  async listBlackouts(actor: Actor): Promise<BlackoutView[]> {
    const rows = await Blackout.findAll({ where: scoped(actor), order: ['fromDate'] });
    return rows.map(({ id, clientId, channelId, fromDate, toDate, reason }) => ({ id, clientId, channelId, fromDate, toDate, reason }));
  }

  async createBlackout(actor: Actor, clientId: string, form: BlackoutForm): Promise<BlackoutView> {
    requireClient(actor, clientId);
    return this.sequelize.transaction(async (transaction) => {
      if (form.channelId !== null) found(await Channel.findOne({ where: { id: form.channelId, clientId }, transaction }), 'channel');
      const { id, channelId, fromDate, toDate, reason } = await Blackout.create({ ...form, clientId }, { transaction });
      await this.audit.record({ userId: actor.userId, clientId, action: 'create', subject: 'blackout', subjectId: id, detail: { title: reason } }, transaction);
      return { id, clientId, channelId: channelId ?? null, fromDate, toDate, reason };
    });
  }

  async removeBlackout(actor: Actor, blackoutId: string): Promise<void> {
    await this.sequelize.transaction(async (transaction) => {
      const row = found(await Blackout.findOne({ where: { id: blackoutId, ...scoped(actor) }, transaction }), 'blackout');
      await row.destroy({ transaction });
      await this.audit.record(
        { userId: actor.userId, clientId: row.clientId, action: 'delete', subject: 'blackout', subjectId: blackoutId, detail: { title: row.reason } },
        transaction,
      );
    });
  }

  async listPlatforms(): Promise<PlatformProfileView[]> {
    return (await PlatformProfile.findAll({ order: ['name'] })).map(toPlatformView);
  }

  async createPlatform(actor: Actor, form: PlatformProfileForm): Promise<PlatformProfileView> {
    requireOwner(actor);
    return this.write('A platform profile of this name exists already.', async (transaction) => {
      const row = await PlatformProfile.create({ ...form }, { transaction });
      await this.audit.record(
        { userId: actor.userId, clientId: null, action: 'create', subject: 'platform-profile', subjectId: row.id, detail: { title: form.name } },
        transaction,
      );
      return toPlatformView(row);
    });
  }

  async updatePlatform(actor: Actor, platformProfileId: string, form: PlatformProfileForm): Promise<PlatformProfileView> {
    requireOwner(actor);
    return this.write('A platform profile of this name exists already.', async (transaction) => {
      const row = found(await PlatformProfile.findByPk(platformProfileId, { transaction }), 'platform profile');
      await row.update({ ...form }, { transaction });
      await this.audit.record(
        { userId: actor.userId, clientId: null, action: 'update', subject: 'platform-profile', subjectId: row.id, detail: { title: form.name } },
        transaction,
      );
      return toPlatformView(row);
    });
  }

  async listAudit(actor: Actor, clientId: string): Promise<AuditView[]> {
    requireClient(actor, clientId);
    const [entries, users] = await Promise.all([
      AuditEntry.findAll({ where: { clientId }, order: [['id', 'DESC']], limit: 200 }),
      User.findAll({ attributes: ['id', 'name'] }),
    ]);
    const names = new Map(users.map((user) => [user.id, user.name]));
    return entries.map((entry) => ({
      id: String(entry.id),
      at: entry.at.toISOString(),
      who: entry.userId === null ? 'Sift Reel' : (names.get(entry.userId) ?? 'a former user'),
      action: entry.action,
      subject: entry.subject,
      subjectId: entry.subjectId,
      detail: String((entry.detail as { title?: unknown }).title ?? ''),
    }));
  }

  /** A transaction whose unique constraints come back as 409 in words. */
  private async write<T>(nameTaken: string, act: (transaction: Transaction) => Promise<T>, windowTaken = nameTaken): Promise<T> {
    try {
      return await this.sequelize.transaction(act);
    } catch (error) {
      if (error instanceof UniqueConstraintError) throw new ConflictException(error.fields['minute'] === undefined ? nameTaken : windowTaken);
      throw error;
    }
  }
}

function termsOf(csv: string): InterestTerm[] {
  try {
    return readInterestCsv(csv);
  } catch (error) {
    if (error instanceof InterestRefusedError) throw new InvalidFormException([{ field: 'csv', detail: error.message }]);
    throw error;
  }
}

function usable(weights: readonly number[]): number[] {
  try {
    return normaliseWeights(weights);
  } catch (error) {
    if (error instanceof WeightsRefusedError) throw new InvalidFormException([{ field: 'weights', detail: error.message }]);
    throw error;
  }
}

function toClientView({ id, name, zone, tags, standingBrief, signalWeights }: Client, recordingCount: number, channelCount: number): ClientView {
  return { id, name, zone, tags, standingBrief, signalWeights: signalWeights ?? null, recordingCount, channelCount };
}

export function toPlatformView(row: PlatformProfile): PlatformProfileView {
  const { id, name, minDurationMs, maxDurationMs, shapes, titleLimit, descriptionLimit, hashtagLimit, postsPerDay, minGapMinutes } = row;
  return { id, name, minDurationMs, maxDurationMs, shapes, titleLimit, descriptionLimit, hashtagLimit, postsPerDay, minGapMinutes };
}

export function toChannelView(row: Channel): ChannelView {
  const { id, clientId, name, zone, order, postsPerDay, postsPerWeek } = row;
  const windows = row.windows.map(({ weekday, minute, weight }) => ({ weekday, minute, weight })).sort((a, b) => a.weekday - b.weekday || a.minute - b.minute);
  return { id, clientId, name, zone, order, postsPerDay, postsPerWeek, platform: toPlatformView(row.platformProfile), windows };
}
