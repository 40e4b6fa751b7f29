import { setTimeout as wait } from 'node:timers/promises';
import { Inject, Injectable } from '@nestjs/common';
import * as oauth from 'oauth4webapi';
import { Clock } from '../config/clock.js';
import { CONFIG, type Config, type PlatformConfig } from '../config/config.module.js';
import { Database } from '../database/database.service.js';
import { LaterError, RightGoneError } from './platforms/platform.js';
import { Account } from './publishing.models.js';
import { Sealing } from './sealing.js';

/** Longest that a platform may take to answer about rights. Inside a lease, so well within it. */
const ANSWER_MS = 10_000;
const LEASE_MS = 20_000;
const LOOK_AGAIN_MS = 200;
/** A token is renewed so long before it ends. */
const AHEAD_MS = 60_000;
/** Of a token that says nothing of its end. */
const UNTOLD_LIFE_S = 3_600;

/** Who renews, until when; nobody else does meanwhile. By the time of day, as a lease holds for a process. $1 account, $2 token as it was */
const LEASE = `UPDATE accounts SET renewing_until = clock_timestamp() + interval '${LEASE_MS} milliseconds'
WHERE id = $1 AND access_token = $2 AND state = 'connected' AND (renewing_until IS NULL OR renewing_until < clock_timestamp()) RETURNING id`;

export interface Tokens {
  readonly access: string;
  readonly refresh: string | null;
  readonly endsMs: number;
  readonly scopes: readonly string[];
}

/** What has to be remembered between sending a browser away and its coming back. */
export interface Errand {
  readonly address: string;
  readonly state: string;
  readonly verifier: string;
}

export const accessPlace = (accountId: string): string => `access:${accountId}`;
export const refreshPlace = (accountId: string): string => `refresh:${accountId}`;

/** Rights at platforms: asked for (RFC 6749, 4.1, with PKCE, RFC 7636), renewed before they end, and given back (RFC 7009). */
@Injectable()
export class RightsService {
  private readonly servers = new Map<string, oauth.AuthorizationServer>();

  constructor(
    @Inject(CONFIG) private readonly config: Config,
    @Inject(Database) private readonly database: Database,
    @Inject(Sealing) private readonly sealing: Sealing,
    @Inject(Clock) private readonly clock: Clock,
  ) {}

  /** Where a browser comes back to. */
  private get redirect(): string {
    return `${this.config.publicUrl}/connected`;
  }

  /** Where a browser is sent to, to be asked. */
  async begin(service: string, scopes: readonly string[]): Promise<Errand> {
    const platform = this.platform(service);
    const server = await this.server(service, platform);
    const verifier = oauth.generateRandomCodeVerifier();
    const state = oauth.generateRandomState();
    const address = new URL(server.authorization_endpoint ?? '');
    const asked = {
      client_id: platform.clientId,
      redirect_uri: this.redirect,
      response_type: 'code',
      scope: scopes.join(' '),
      code_challenge: await oauth.calculatePKCECodeChallenge(verifier),
      code_challenge_method: 'S256',
      state,
    };
    for (const [name, value] of Object.entries(asked)) address.searchParams.set(name, value);
    return { address: address.href, state, verifier };
  }

  /**
   * The tokens for what a browser came back with.
   * @param back the query that it came with
   * @throws RightGoneError where the right was not given, in plain words
   */
  async finish(service: string, back: URLSearchParams, state: string, verifier: string): Promise<Tokens> {
    const platform = this.platform(service);
    const server = await this.server(service, platform);
    const client: oauth.Client = { client_id: platform.clientId };
    try {
      const params = oauth.validateAuthResponse(server, client, back, state);
      const authentication = oauth.ClientSecretBasic(platform.clientSecret);
      const answer = await oauth.authorizationCodeGrantRequest(server, client, authentication, params, this.redirect, verifier, this.options(platform));
      return this.tokensOf(await oauth.processAuthorizationCodeResponse(server, client, answer));
    } catch (error) {
      if (error instanceof oauth.AuthorizationResponseError)
        throw new RightGoneError(error.error === 'access_denied' ? 'It was not allowed there.' : `The platform refused: ${error.error}.`, 'revoked');
      if (error instanceof oauth.ResponseBodyError) throw new RightGoneError(`The platform refused: ${error.error}. Begin again.`, 'revoked');
      throw new LaterError('The platform could not be asked just now. Begin again.', null);
    }
  }

  /**
   * A token that is good now.
   * @param failed one that was turned away: another is wanted
   * @throws RightGoneError where there is none any more; LaterError where the platform cannot be asked
   */
  async token(accountId: string, failed: string | null = null): Promise<string> {
    for (let waitedMs = 0; waitedMs < 2 * LEASE_MS; waitedMs += LOOK_AGAIN_MS) {
      const account = await Account.findByPk(accountId);
      if (account === null) throw new RightGoneError('The account was disconnected.', 'revoked');
      if (account.state !== 'connected') throw new RightGoneError(account.trouble ?? '', account.state);
      const access = this.sealing.open(account.accessToken, accessPlace(accountId));
      if (access !== failed && account.accessEndsAt.getTime() - AHEAD_MS > this.clock.nowMs()) return access;
      const mine = await this.database.run(LEASE, [accountId, account.accessToken]);
      if (mine.length > 0) return this.renew(account);
      await wait(LOOK_AGAIN_MS); // somebody renews it just now
    }
    throw new LaterError('The right to post is being renewed.', null);
  }

  /** Marks that the right is gone, or lacks something: its posts wait, and it is told. */
  async lose(accountId: string, state: 'revoked' | 'lacking', trouble: string): Promise<void> {
    await this.database.run(
      `UPDATE accounts SET state = $2, trouble = $3, state_since = $4, renewing_until = NULL, version = version + 1 WHERE id = $1 AND state = 'connected'`,
      [accountId, state, trouble.slice(0, 500) || 'The platform gave no reason.', new Date(this.clock.nowMs())],
    );
  }

  /** Gives a right back; that a platform cannot be reached for it keeps nobody from forgetting it here. */
  async giveBack(account: Account): Promise<void> {
    const platform = this.config.platforms[account.service];
    if (platform === undefined || account.refreshToken === null) return;
    const token = this.sealing.open(account.refreshToken, refreshPlace(account.id));
    const server = await this.server(account.service, platform);
    await oauth.revocationRequest(server, { client_id: platform.clientId }, oauth.ClientSecretBasic(platform.clientSecret), token, this.options(platform));
  }

  /** Under the lease: one at a time, so that a refresh token that is good once is used once. */
  private async renew(account: Account): Promise<string> {
    const { id, service } = account;
    try {
      const platform = this.platform(service);
      const server = await this.server(service, platform);
      if (account.refreshToken === null) throw new RightGoneError('The right is over, and the platform gave nothing to renew it with.', 'revoked');
      const client: oauth.Client = { client_id: platform.clientId };
      const refresh = this.sealing.open(account.refreshToken, refreshPlace(id));
      const answer = await oauth.refreshTokenGrantRequest(server, client, oauth.ClientSecretBasic(platform.clientSecret), refresh, this.options(platform));
      const tokens = this.tokensOf(await oauth.processRefreshTokenResponse(server, client, answer));
      await this.database.run(
        'UPDATE accounts SET access_token = $2, refresh_token = $3, access_ends_at = $4, renewing_until = NULL WHERE id = $1 AND access_token = $5',
        [
          id,
          this.sealing.seal(tokens.access, accessPlace(id)),
          this.sealing.seal(tokens.refresh ?? refresh, refreshPlace(id)),
          new Date(tokens.endsMs),
          account.accessToken,
        ],
      );
      return tokens.access;
    } catch (error) {
      const gone = error instanceof oauth.ResponseBodyError && (error.error === 'invalid_grant' || error.error === 'unauthorized_client');
      if (gone || error instanceof RightGoneError) {
        const words = error instanceof RightGoneError ? error.message : 'The right to post was taken back there.';
        await this.lose(id, 'revoked', words);
        throw new RightGoneError(words, 'revoked');
      }
      await this.database.run('UPDATE accounts SET renewing_until = NULL WHERE id = $1', [id]);
      throw new LaterError('The right to post could not be renewed just now.', null);
    }
  }

  private platform(service: string): PlatformConfig {
    const platform = this.config.platforms[service];
    if (platform === undefined) throw new RightGoneError('This installation knows no such platform.', 'revoked');
    return platform;
  }

  /** What a platform says of itself (RFC 8414), asked once. */
  private async server(service: string, platform: PlatformConfig): Promise<oauth.AuthorizationServer> {
    const known = this.servers.get(service);
    if (known !== undefined) return known;
    const issuer = new URL(platform.url);
    const answer = await oauth.discoveryRequest(issuer, { algorithm: 'oauth2', ...this.options(platform) });
    const server = await oauth.processDiscoveryResponse(issuer, answer);
    this.servers.set(service, server);
    return server;
  }

  /** Secrets go over https; over http only to a platform that configuration names so, such as a stand-in on loopback. */
  private options({ url }: PlatformConfig): { signal: AbortSignal; [oauth.allowInsecureRequests]: boolean } {
    return { signal: AbortSignal.timeout(ANSWER_MS), [oauth.allowInsecureRequests]: url.startsWith('http:') };
  }

  private tokensOf({ access_token, refresh_token, expires_in, scope }: oauth.TokenEndpointResponse): Tokens {
    const endsMs = this.clock.nowMs() + (expires_in ?? UNTOLD_LIFE_S) * 1_000;
    return { access: access_token, refresh: refresh_token ?? null, endsMs, scopes: (scope ?? '').split(' ').filter((one) => one !== '') };
  }
}
