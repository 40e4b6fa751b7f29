import { ConflictException, Inject, Injectable } from '@nestjs/common';
import { InterestRefusedError, type InterestTerm, normaliseWeights, readInterestCsv, WeightsRefusedError } from '@sift-reel/core';
import type {
  ComeAgainForm,
  LatenessForm,
  FilesKeptForm,
  CardStyleForm,
  ClientChangeForm,
  ClientForm,
  SignalWeightsForm,
  VoiceFields,
  VoiceForm,
  WritingAllowedForm,
} from '@sift-reel/forms';
import { Op, UniqueConstraintError } from 'sequelize';
import { InvalidFormException } from '../problems/refusals.js';
import { AuditEntry } from '../audit/audit-entry.model.js';
import type { AuditAction } from '../audit/trail-words.js';
import { AuditService } from '../audit/audit.service.js';
import { Database } from '../database/database.service.js';
import { claimVersion } from '../database/versions.js';
import { type Actor, found, requireClient, requireOwner, scoped } from '../identity/actor.js';
import { User } from '../identity/identity.models.js';
import { ClientFacts } from './client-facts.js';
import { cardStyleOf, Client, InterestRow, voiceOf } from './clients.models.js';
import type { ArchivedClientView, AuditView, ClientView, InterestTermView } from './clients.views.js';

const CHANNELS = 'SELECT client_id AS "clientId", count(*)::int AS n FROM channels GROUP BY client_id';

@Injectable()
export class ClientsService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(AuditService) private readonly audit: AuditService,
    @Inject(ClientFacts) private readonly facts: ClientFacts,
  ) {}

  async list(actor: Actor): Promise<ClientView[]> {
    const { clientId } = scoped(actor);
    return this.views(await Client.findAll({ where: { archivedAt: null, ...(clientId === undefined ? {} : { id: clientId }) }, order: ['name'] }));
  }

  async read(actor: Actor, clientId: string): Promise<ClientView> {
    requireClient(actor, clientId);
    return (await this.views([await this.find(clientId)]))[0]!;
  }

  async create(actor: Actor, form: ClientForm): Promise<ClientView> {
    requireOwner(actor);
    return this.write(async () => {
      const client = await Client.create({ ...form });
      await this.record(actor, 'create', client);
      return toClientView(client, 0, 0);
    });
  }

  async update(actor: Actor, clientId: string, { version, ...fields }: ClientChangeForm): Promise<ClientView> {
    requireClient(actor, clientId);
    await this.write(async () => {
      const client = await claimVersion(Client, clientId, version, 'client', () => this.read(actor, clientId));
      await client.update(fields);
      await this.record(actor, 'update', client);
    });
    return this.read(actor, clientId);
  }

  /** The client's own weights of the signals, scaled to sum to one; null goes back to the fitted ones. New sifts use them. */
  async setSignalWeights(actor: Actor, clientId: string, { weights, version }: SignalWeightsForm): Promise<ClientView> {
    requireClient(actor, clientId);
    const signalWeights = weights === null ? null : usable(weights);
    await this.database.transaction(async () => {
      const client = await claimVersion(Client, clientId, version, 'client', () => this.read(actor, clientId));
      await client.update({ signalWeights });
      await this.record(actor, 'update', client, { signalWeights });
    });
    return this.read(actor, clientId);
  }

  /** How the client's words sound. What is proposed and checked from now on follows it. */
  async setVoice(actor: Actor, clientId: string, { voice, version }: VoiceForm): Promise<ClientView> {
    requireClient(actor, clientId);
    await this.database.transaction(async () => {
      const client = await claimVersion(Client, clientId, version, 'client', () => this.read(actor, clientId));
      await client.update({ voice });
      await this.record(actor, 'voice', client);
    });
    return this.read(actor, clientId);
  }

  async setCardStyle(actor: Actor, clientId: string, { cardStyle, version }: CardStyleForm): Promise<ClientView> {
    requireClient(actor, clientId);
    await this.database.transaction(async () => {
      const client = await claimVersion(Client, clientId, version, 'client', () => this.read(actor, clientId));
      await client.update({ cardStyle });
      await this.record(actor, 'card-style', client);
    });
    return this.read(actor, clientId);
  }

  /** Whether the writing service may be asked about this client's recordings. */
  async allowWriting(actor: Actor, clientId: string, { allowed, version }: WritingAllowedForm): Promise<ClientView> {
    requireClient(actor, clientId);
    await this.database.transaction(async () => {
      const client = await claimVersion(Client, clientId, version, 'client', () => this.read(actor, clientId));
      await client.update({ writingService: allowed });
      await this.record(actor, allowed ? 'allow-writing' : 'forbid-writing', client);
    });
    return this.read(actor, clientId);
  }

  /** How long finished files are kept. What goes by it is told of a week beforehand. */
  async setFilesKept(actor: Actor, clientId: string, { days, version }: FilesKeptForm): Promise<ClientView> {
    requireClient(actor, clientId);
    await this.database.transaction(async () => {
      const client = await claimVersion(Client, clientId, version, 'client', () => this.read(actor, clientId));
      await client.update({ filesKeptDays: days });
      await this.record(actor, 'keep-files', client);
    });
    return this.read(actor, clientId);
  }

  async setComeAgain(actor: Actor, clientId: string, { days, version }: ComeAgainForm): Promise<ClientView> {
    requireClient(actor, clientId);
    await this.database.transaction(async () => {
      const client = await claimVersion(Client, clientId, version, 'client', () => this.read(actor, clientId));
      await client.update({ comeAgainDays: days });
      await this.record(actor, 'come-again', client);
    });
    return this.read(actor, clientId);
  }

  async setLateness(actor: Actor, clientId: string, { minutes, version }: LatenessForm): Promise<ClientView> {
    requireClient(actor, clientId);
    await this.database.transaction(async () => {
      const client = await claimVersion(Client, clientId, version, 'client', () => this.read(actor, clientId));
      await client.update({ lateMinutes: minutes });
      await this.record(actor, 'lateness', client);
    });
    return this.read(actor, clientId);
  }

  /** Takes a client, with all that it owns, out of everybody's sight. Nothing is deleted. */
  async archive(actor: Actor, clientId: string): Promise<void> {
    requireOwner(actor);
    requireClient(actor, clientId);
    await this.database.transaction(async () => {
      const client = found(await Client.findOne({ where: { id: clientId, archivedAt: null }, lock: true }), 'client');
      await client.update({ archivedAt: new Date(), version: client.version + 1 });
      await this.record(actor, 'archive', client);
    });
  }

  async listArchived(actor: Actor): Promise<ArchivedClientView[]> {
    requireOwner(actor);
    const rows = await Client.findAll({ where: { archivedAt: { [Op.ne]: null } }, order: ['name'] });
    return rows.map(({ id, name, archivedAt }) => ({ id, name, archivedAt: archivedAt!.toISOString() }));
  }

  /** Brings an archived client back as it was. */
  async restore(actor: Actor, clientId: string): Promise<ClientView> {
    requireOwner(actor);
    return this.database.transaction(async () => {
      const client = found(await Client.findOne({ where: { id: clientId, archivedAt: { [Op.ne]: null } }, lock: true }), 'client');
      await client.update({ archivedAt: null, version: client.version + 1 });
      await this.record(actor, 'restore', client);
      return (await this.views([client]))[0]!;
    });
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
    await this.database.transaction(async () => {
      const client = found(await Client.findOne({ where: { id: clientId, archivedAt: null }, lock: true }), 'client');
      await InterestRow.destroy({ where: { clientId } });
      await InterestRow.bulkCreate(terms.map((term) => ({ ...term, clientId })));
      await this.record(actor, 'update', client, { interestTerms: terms.length });
    });
    return this.listInterest(actor, clientId);
  }

  async listAudit(actor: Actor, clientId: string): Promise<AuditView[]> {
    requireClient(actor, clientId);
    return this.auditViews(await AuditEntry.findAll({ where: { clientId }, order: [['id', 'DESC']], limit: 200 }));
  }

  /** What belongs to no client: users, sign-ins and sign-outs, platform profiles, batches. */
  async listAgencyAudit(actor: Actor): Promise<AuditView[]> {
    requireOwner(actor);
    return this.auditViews(await AuditEntry.findAll({ where: { clientId: null }, order: [['id', 'DESC']], limit: 200 }));
  }

  private async auditViews(entries: readonly AuditEntry[]): Promise<AuditView[]> {
    const users = await User.findAll({ attributes: ['id', 'name'], where: { id: [...new Set(entries.flatMap((entry) => entry.userId ?? []))] } });
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

  private async find(clientId: string): Promise<Client> {
    return found(await Client.findOne({ where: { id: clientId, archivedAt: null } }), 'client');
  }

  private async views(clients: readonly Client[]): Promise<ClientView[]> {
    const recordings = await this.facts.recordingCounts();
    const channels = await this.database.rows<{ clientId: string; n: number }>(CHANNELS);
    const channelsOf = new Map(channels.map((row) => [row.clientId, row.n]));
    return clients.map((client) => toClientView(client, recordings.get(client.id) ?? 0, channelsOf.get(client.id) ?? 0));
  }

  private async record(actor: Actor, action: AuditAction, client: Client, more: object = {}): Promise<void> {
    const { id, name } = client;
    await this.audit.record({ userId: actor.userId, clientId: id, action, subject: 'client', subjectId: id, detail: { title: name, ...more } });
  }

  private async write<T>(act: () => Promise<T>): Promise<T> {
    try {
      return await this.database.transaction(act);
    } catch (error) {
      if (error instanceof UniqueConstraintError) throw new ConflictException('A client of this name exists already, perhaps among the archived ones.');
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

function toClientView(client: Client, recordingCount: number, channelCount: number): ClientView {
  const { id, name, zone, tags, standingBrief, signalWeights, writingService, filesKeptDays, comeAgainDays, lateMinutes, version } = client;
  const voice = voiceOf(client) as VoiceFields;
  return {
    id,
    name,
    zone,
    tags,
    standingBrief,
    signalWeights: signalWeights ?? null,
    voice,
    cardStyle: cardStyleOf(client),
    writingService,
    filesKeptDays: filesKeptDays ?? null,
    comeAgainDays: comeAgainDays ?? null,
    lateMinutes,
    recordingCount,
    channelCount,
    version,
  };
}
