import { ConflictException, Inject, Injectable } from '@nestjs/common';
import type { BlackoutForm, ChannelChangeForm, ChannelForm } from '@sift-reel/forms';
import { ForeignKeyConstraintError, UniqueConstraintError } from 'sequelize';
import type { AuditAction } from '../audit/trail-words.js';
import { AuditService } from '../audit/audit.service.js';
import { Database } from '../database/database.service.js';
import { claimVersion } from '../database/versions.js';
import { type Actor, found, requireClient, scoped } from '../identity/actor.js';
import { ClientFacts } from './client-facts.js';
import { Blackout, Channel, Client, PlatformProfile, PostingWindow } from './clients.models.js';
import type { BlackoutView, ChannelView } from './clients.views.js';
import { toPlatformView } from './platforms.service.js';

/** Lock of all that stands on a channel: its rules, and its posts. */
export const channelLock = (channelId: string): string => `channel:${channelId}`;

/** Channels with their windows, and days without posts. */
@Injectable()
export class ChannelsService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(AuditService) private readonly audit: AuditService,
    @Inject(ClientFacts) private readonly facts: ClientFacts,
  ) {}

  async list(actor: Actor): Promise<ChannelView[]> {
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

  async create(actor: Actor, clientId: string, { windows, ...fields }: ChannelForm): Promise<ChannelView> {
    requireClient(actor, clientId);
    const id = await this.write(async () => {
      found(await Client.findOne({ where: { id: clientId, archivedAt: null }, attributes: ['id'] }), 'client');
      found(await PlatformProfile.findByPk(fields.platformProfileId), 'platform profile');
      const channel = await Channel.create({ ...fields, clientId });
      await PostingWindow.bulkCreate(windows.map((window) => ({ ...window, channelId: channel.id })));
      await this.record(actor, 'create', channel);
      return channel.id;
    });
    return this.read(actor, id);
  }

  /** Changes a channel. Its posts keep their wall times: where the zone changes, their instants follow. */
  async update(actor: Actor, channelId: string, { windows, version, ...fields }: ChannelChangeForm): Promise<ChannelView> {
    await this.find(actor, channelId);
    await this.write(async () => {
      await this.database.lock(channelLock(channelId));
      const channel = await claimVersion(Channel, channelId, version, 'channel', () => this.read(actor, channelId));
      found(await PlatformProfile.findByPk(fields.platformProfileId), 'platform profile');
      await channel.update(fields);
      await PostingWindow.destroy({ where: { channelId } });
      await PostingWindow.bulkCreate(windows.map((window) => ({ ...window, channelId })));
      await this.facts.channelChanged(channelId);
      await this.record(actor, 'update', channel);
    });
    return this.read(actor, channelId);
  }

  async remove(actor: Actor, channelId: string): Promise<void> {
    try {
      await this.database.transaction(async () => {
        const channel = await this.find(actor, channelId);
        await channel.destroy();
        await this.record(actor, 'delete', channel);
      });
    } catch (error) {
      if (error instanceof ForeignKeyConstraintError) throw new ConflictException('The channel has posts. Take them off the schedule first.');
      throw error;
    }
  }

  async listBlackouts(actor: Actor): Promise<BlackoutView[]> {
    return (await Blackout.findAll({ where: scoped(actor), order: ['fromDate'] })).map(toBlackoutView);
  }

  async createBlackout(actor: Actor, clientId: string, form: BlackoutForm): Promise<BlackoutView> {
    requireClient(actor, clientId);
    return this.database.transaction(async () => {
      found(await Client.findOne({ where: { id: clientId, archivedAt: null }, attributes: ['id'] }), 'client');
      if (form.channelId !== null) found(await Channel.findOne({ where: { id: form.channelId, clientId } }), 'channel');
      const row = await Blackout.create({ ...form, clientId });
      await this.recordBlackout(actor, 'create', row);
      return toBlackoutView(row);
    });
  }

  async removeBlackout(actor: Actor, blackoutId: string): Promise<void> {
    await this.database.transaction(async () => {
      const row = found(await Blackout.findOne({ where: { id: blackoutId, ...scoped(actor) } }), 'blackout');
      await row.destroy();
      await this.recordBlackout(actor, 'delete', row);
    });
  }

  private async find(actor: Actor, channelId: string): Promise<Channel> {
    return found(await Channel.findOne({ where: { id: channelId, ...scoped(actor) }, include: [PlatformProfile, PostingWindow] }), 'channel');
  }

  private async read(actor: Actor, channelId: string): Promise<ChannelView> {
    return toChannelView(await this.find(actor, channelId));
  }

  private async record(actor: Actor, action: AuditAction, { id, clientId, name }: Channel): Promise<void> {
    await this.audit.record({ userId: actor.userId, clientId, action, subject: 'channel', subjectId: id, detail: { title: name } });
  }

  private async recordBlackout(actor: Actor, action: AuditAction, { id, clientId, reason }: Blackout): Promise<void> {
    await this.audit.record({ userId: actor.userId, clientId, action, subject: 'blackout', subjectId: id, detail: { title: reason } });
  }

  private async write<T>(act: () => Promise<T>): Promise<T> {
    try {
      return await this.database.transaction(act);
    } catch (error) {
      if (!(error instanceof UniqueConstraintError)) throw error;
      const windows = error.fields['minute'] !== undefined;
      throw new ConflictException(windows ? 'Two posting windows stand at the same time.' : 'The client has a channel of this name already.');
    }
  }
}

export function toBlackoutView({ id, clientId, channelId, fromDate, toDate, reason }: Blackout): BlackoutView {
  return { id, clientId, channelId: channelId ?? null, fromDate, toDate, reason };
}

export function toChannelView(row: Channel): ChannelView {
  const { id, clientId, name, zone, order, postsPerDay, postsPerWeek, language, version } = row;
  const windows = row.windows.map(({ weekday, minute, weight }) => ({ weekday, minute, weight })).sort((a, b) => a.weekday - b.weekday || a.minute - b.minute);
  return { id, clientId, name, zone, order, postsPerDay, postsPerWeek, language, platform: toPlatformView(row.platformProfile), windows, version };
}
