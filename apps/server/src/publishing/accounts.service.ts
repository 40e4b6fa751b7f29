import { randomUUID } from 'node:crypto';
import { ConflictException, Inject, Injectable, NotFoundException, ServiceUnavailableException, UnprocessableEntityException } from '@nestjs/common';
import type { ConnectedForm, StopForm } from '@sift-reel/forms';
import { UniqueConstraintError } from 'sequelize';
import { AuditService } from '../audit/audit.service.js';
import { channelLock } from '../clients/channels.service.js';
import { Channel, Client, PlatformProfile } from '../clients/clients.models.js';
import { Clock } from '../config/clock.js';
import { CONFIG, type Config } from '../config/config.module.js';
import { log } from '../config/logger.js';
import { Database } from '../database/database.service.js';
import { type Actor, found, mayPass, requireClient, requireOwner, scoped } from '../identity/actor.js';
import { User } from '../identity/identity.models.js';
import { hashToken } from '../identity/sessions.service.js';
import { Lines } from './lines.service.js';
import { PLATFORMS } from './platforms/all.js';
import { LaterError, type PostingPlatform, RightGoneError } from './platforms/platform.js';
import { stopsLock } from './post.kind.js';
import { Account, PostingStop } from './publishing.models.js';
import type { ConnectedView, ConnectingView, PostingView, StopView } from './publishing.views.js';
import { accessPlace, refreshPlace, RightsService, type Tokens } from './rights.service.js';
import { Sealing } from './sealing.js';

const ERRAND_MS = 15 * 60_000;

/** Posts that wait, or are on their way, are looked at again at once. $1 channels */
const LOOK_AGAIN = `UPDATE posts SET try_at = NULL WHERE state IN ('waiting', 'sending', 'processing') AND channel_id = ANY ($1::uuid[])`;
/** $1 the state's hash */
const TAKE_ERRAND = `DELETE FROM connect_attempts WHERE state_hash = $1
RETURNING client_id AS "clientId", channel_id AS "channelId", user_id AS "userId", service, verifier, ends_at AS "endsAt"`;

interface ErrandRow {
  readonly clientId: string;
  readonly channelId: string;
  readonly userId: string;
  readonly service: string;
  readonly verifier: Buffer;
  readonly endsAt: Date;
}

/** Accounts that posts go out with, and the switches that stop them. */
@Injectable()
export class AccountsService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(CONFIG) private readonly config: Config,
    @Inject(Clock) private readonly clock: Clock,
    @Inject(AuditService) private readonly audit: AuditService,
    @Inject(RightsService) private readonly rights: RightsService,
    @Inject(Lines) private readonly lines: Lines,
    @Inject(Sealing) private readonly sealing: Sealing,
  ) {}

  async read(actor: Actor): Promise<PostingView> {
    return this.database.snapshot(async () => {
      const clients = await Client.findAll({ attributes: ['id'], where: { archivedAt: null } });
      const seen = clients.map(({ id }) => id).filter((id) => mayPass(actor.clientIds, id));
      const accounts = await Account.findAll({ where: { clientId: seen }, order: ['service', 'name', 'id'] });
      const channels = await Channel.findAll({ attributes: ['id', 'accountId'], where: { clientId: seen } });
      const names = new Map((await User.findAll({ attributes: ['id', 'name'] })).map(({ id, name }) => [id, name]));
      return {
        isReady: this.sealing.isReady,
        services: this.services().map(({ name, title, correct }) => ({ name, title, corrects: correct !== undefined })),
        accounts: accounts.map(({ id, clientId, service, name, state, trouble, stateSince, connectedBy, connectedAt }) => ({
          id,
          clientId,
          service,
          name,
          state,
          trouble: trouble ?? null,
          stateSince: stateSince.toISOString(),
          connectedBy: names.get(connectedBy ?? '') ?? 'a former user',
          connectedAt: connectedAt.toISOString(),
        })),
        channels: channels.flatMap(({ id, accountId }) => (accountId == null ? [] : [{ channelId: id, accountId }])),
        stops: await this.stops(actor, names),
      };
    });
  }

  /** Where a browser is to go, so that its owner allows posting on a channel. */
  async begin(actor: Actor, channelId: string): Promise<ConnectingView> {
    const { channel, platform } = await this.channel(actor, channelId);
    if (!this.sealing.isReady)
      throw new ServiceUnavailableException('No key is configured to seal tokens with (SIFT_REEL_SEALING_KEYS), so no account can be connected.');
    const errand = await this.asking(() => this.rights.begin(platform.name, platform.scopes));
    const hash = hashToken(errand.state);
    await this.database.transaction(async () => {
      await this.database.run('DELETE FROM connect_attempts WHERE ends_at < now()');
      await this.database.run(
        'INSERT INTO connect_attempts (state_hash, client_id, channel_id, user_id, service, verifier, ends_at) VALUES ($1, $2, $3, $4, $5, $6, $7)',
        [
          hash,
          channel.clientId,
          channelId,
          actor.userId,
          platform.name,
          this.sealing.seal(errand.verifier, `verifier:${hash}`),
          new Date(Date.now() + ERRAND_MS),
        ],
      );
    });
    return { address: errand.address };
  }

  /** Takes what the browser came back with: once, and only from whoever was sent. */
  async finish(actor: Actor, { state, code, iss, error }: ConnectedForm): Promise<ConnectedView> {
    const hash = hashToken(state);
    const [errand] = await this.database.run<ErrandRow>(TAKE_ERRAND, [hash]);
    if (errand === undefined || errand.userId !== actor.userId || errand.endsAt.getTime() < Date.now())
      throw new NotFoundException('This was begun too long ago, was finished already, or by somebody else. Begin again on the channel.');
    const { channel, platform } = await this.channel(actor, errand.channelId);
    const back = new URLSearchParams();
    for (const [name, value] of Object.entries({ state, code, iss, error })) if (value !== undefined) back.set(name, value);
    const tokens = await this.asking(() => this.rights.finish(platform.name, back, state, this.sealing.open(errand.verifier, `verifier:${hash}`)));
    const who = await this.asking(() => platform.who(this.lines.openWith(platform, tokens.access)));
    await this.keep(actor, channel, platform, tokens, who);
    return { clientId: channel.clientId, channelId: channel.id, accountName: who.name };
  }

  /** Which account of its client a channel posts with; null: by hand. */
  async choose(actor: Actor, channelId: string, accountId: string | null): Promise<PostingView> {
    await this.database.transaction(async () => {
      await this.database.lock(channelLock(channelId));
      const channel = found(await Channel.findOne({ where: { id: channelId, ...scoped(actor) }, include: [PlatformProfile] }), 'channel');
      if (accountId !== null) {
        const account = found(await Account.findOne({ where: { id: accountId, clientId: channel.clientId } }), 'account');
        if (account.service !== channel.platformProfile.service) throw new UnprocessableEntityException('The account is on another platform than the channel.');
      }
      await channel.update({ accountId, accountSince: this.since(channel, accountId) });
      await this.database.run(LOOK_AGAIN, [[channelId]]);
      await this.record(actor, accountId === null ? 'disconnect' : 'connect', channel);
    });
    return this.read(actor);
  }

  /** Forgets an account and gives its right back. What was sent with it stays known. */
  async disconnect(actor: Actor, accountId: string): Promise<void> {
    const account = found(await Account.findOne({ where: { id: accountId, ...scoped(actor) } }), 'account');
    await this.rights.giveBack(account).catch(() => log.warn({ accountId }, 'the platform could not be told that its right is not needed any more'));
    await this.database.transaction(async () => {
      const row = found(await Account.findOne({ where: { id: accountId, ...scoped(actor) }, lock: true }), 'account');
      const channels = await Channel.findAll({ attributes: ['id'], where: { accountId } });
      await Channel.update({ accountId: null, accountSince: null }, { where: { accountId } });
      await row.destroy();
      await this.database.run(LOOK_AGAIN, [channels.map(({ id }) => id)]);
      const { clientId, name } = row;
      await this.audit.record({ userId: actor.userId, clientId, action: 'disconnect', subject: 'account', subjectId: accountId, detail: { title: name } });
    });
  }

  /**
   * Stops posting, or lets it go on. When this has returned, no call that publishes begins any more where it is stopped: whoever begins one
   * holds the same lock, and reads the stops under it.
   */
  async setStop(actor: Actor, { clientId, channelId, stopped }: StopForm): Promise<PostingView> {
    if (clientId === null) {
      if (channelId !== null) throw new UnprocessableEntityException('A channel is stopped with its client named.');
      requireOwner(actor);
    } else requireClient(actor, clientId);
    await this.database.transaction(async () => {
      await this.database.lock(stopsLock);
      if (clientId !== null) found(await Client.findOne({ where: { id: clientId, archivedAt: null }, attributes: ['id'] }), 'client');
      if (channelId !== null) found(await Channel.findOne({ where: { id: channelId, clientId: clientId! }, attributes: ['id'] }), 'channel');
      const where = { clientId, channelId };
      const there = await PostingStop.findOne({ where });
      if (stopped && there === null) await PostingStop.create({ ...where, stoppedBy: actor.userId });
      if (!stopped) await there?.destroy();
      if (stopped === (there === null))
        await this.audit.record({
          userId: actor.userId,
          clientId,
          action: stopped ? 'stop-posting' : 'let-post',
          subject: 'posting',
          subjectId: channelId ?? clientId ?? 'all',
        });
    });
    // Not under that lock: whoever begins a call holds the post, and waits for the lock.
    await this.database.run(
      `UPDATE posts SET try_at = NULL WHERE state IN ('waiting', 'processing') AND ($1::uuid IS NULL OR client_id = $1) AND ($2::uuid IS NULL OR channel_id = $2)`,
      [clientId, channelId],
    );
    return this.read(actor);
  }

  /** Seals with today's key what was sealed with one before. @returns how many accounts */
  async sealAnew(): Promise<number> {
    let done = 0;
    for (const { id } of await Account.findAll({ attributes: ['id'] })) {
      done += await this.database.transaction(async () => {
        const account = await Account.findByPk(id, { lock: true });
        if (account === null || (this.sealing.isFresh(account.accessToken) && (account.refreshToken === null || this.sealing.isFresh(account.refreshToken))))
          return 0;
        const again = (sealed: Buffer, place: string): Buffer => this.sealing.seal(this.sealing.open(sealed, place), place);
        await account.update({
          accessToken: again(account.accessToken, accessPlace(id)),
          refreshToken: account.refreshToken === null ? null : again(account.refreshToken, refreshPlace(id)),
        });
        return 1;
      });
    }
    return done;
  }

  /** A channel that was posted by hand begins anew; another account in its place goes on. */
  private since({ accountId, accountSince }: Channel, next: string | null): Date | null {
    if (next === null) return null;
    return accountId == null ? new Date(this.clock.nowMs()) : (accountSince ?? new Date(this.clock.nowMs()));
  }

  private services(): PostingPlatform[] {
    return [...PLATFORMS.values()].filter(({ name }) => this.config.platforms[name] !== undefined);
  }

  private async stops(actor: Actor, names: ReadonlyMap<string, string>): Promise<StopView[]> {
    const rows = await PostingStop.findAll({ order: ['stoppedAt'] });
    return rows
      .filter(({ clientId }) => clientId === null || clientId === undefined || mayPass(actor.clientIds, clientId))
      .map(({ id, clientId, channelId, stoppedBy, stoppedAt }) => ({
        id,
        clientId: clientId ?? null,
        channelId: channelId ?? null,
        stoppedBy: names.get(stoppedBy ?? '') ?? 'a former user',
        stoppedAt: stoppedAt.toISOString(),
      }));
  }

  private async channel(actor: Actor, channelId: string): Promise<{ channel: Channel; platform: PostingPlatform }> {
    const channel = found(await Channel.findOne({ where: { id: channelId, ...scoped(actor) }, include: [PlatformProfile] }), 'channel');
    const platform = this.services().find(({ name }) => name === channel.platformProfile.service);
    if (platform === undefined)
      throw new UnprocessableEntityException(`${channel.platformProfile.name} posts through nothing that is configured. Choose it on the platforms screen.`);
    return { channel, platform };
  }

  private async keep(actor: Actor, channel: Channel, platform: PostingPlatform, tokens: Tokens, who: { remoteId: string; name: string }): Promise<void> {
    const { clientId } = channel;
    // Where they are not told, they are those that were asked for (RFC 6749, 5.1).
    const scopes = tokens.scopes.length === 0 ? [...platform.scopes] : [...tokens.scopes];
    const missing = platform.scopes.filter((scope) => !scopes.includes(scope));
    const right =
      missing.length === 0
        ? { state: 'connected' as const, trouble: null }
        : { state: 'lacking' as const, trouble: `It was connected without ${missing.join(' and ')}.` };
    try {
      await this.database.transaction(async () => {
        await this.database.lock(channelLock(channel.id), `account:${platform.name}:${who.remoteId}`);
        const known = await Account.findOne({ where: { service: platform.name, remoteId: who.remoteId }, lock: true });
        if (known !== null && known.clientId !== clientId)
          throw new ConflictException('This account is connected already, and not with this client. Choose another one there.');
        const id = known?.id ?? randomUUID();
        const fields = {
          name: who.name,
          scopes,
          ...right,
          accessToken: this.sealing.seal(tokens.access, accessPlace(id)),
          refreshToken: tokens.refresh === null ? null : this.sealing.seal(tokens.refresh, refreshPlace(id)),
          accessEndsAt: new Date(tokens.endsMs),
          stateSince: new Date(this.clock.nowMs()),
          renewingUntil: null,
          connectedBy: actor.userId,
          connectedAt: new Date(this.clock.nowMs()),
        };
        if (known === null) await Account.create({ id, clientId, service: platform.name, remoteId: who.remoteId, ...fields });
        else await known.update({ ...fields, version: known.version + 1 });
        const now = found(await Channel.findByPk(channel.id, { lock: true }), 'channel');
        await now.update({ accountId: id, accountSince: this.since(now, id) });
        const channels = await Channel.findAll({ attributes: ['id'], where: { accountId: id } });
        await this.database.run(LOOK_AGAIN, [channels.map((one) => one.id)]);
        await this.audit.record({ userId: actor.userId, clientId, action: 'connect', subject: 'account', subjectId: id, detail: { title: who.name } });
      });
    } catch (error) {
      if (error instanceof UniqueConstraintError) throw new ConflictException('Somebody else has just connected this account.');
      throw error;
    }
  }

  /** What a platform says to it, in an answer of ours. */
  private async asking<T>(act: () => Promise<T>): Promise<T> {
    try {
      return await act();
    } catch (error) {
      if (error instanceof RightGoneError) throw new UnprocessableEntityException(error.message);
      if (error instanceof LaterError) throw new ServiceUnavailableException(error.message);
      log.warn({ error: error instanceof Error ? error.name : 'unknown' }, 'a platform could not be asked for a right');
      throw new ServiceUnavailableException('The platform could not be asked just now. Begin again.');
    }
  }

  private async record(actor: Actor, action: 'connect' | 'disconnect', { id, clientId, name }: Channel): Promise<void> {
    await this.audit.record({ userId: actor.userId, clientId, action, subject: 'channel', subjectId: id, detail: { title: name } });
  }
}
