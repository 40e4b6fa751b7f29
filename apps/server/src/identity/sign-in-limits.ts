import { createHash } from 'node:crypto';
import { isIPv6 } from 'node:net';
import { HttpException, Inject, Injectable } from '@nestjs/common';
import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible';
import { Database } from '../database/database.service.js';

/** Attempts that may fail, and the seconds in which they count. */
export const LIMITS = {
  /** By one address on one account. */
  pair: { points: 8, duration: 60 },
  /** By one address, on whichever accounts. */
  address: { points: 30, duration: 300 },
  /** On one account, from wherever. */
  account: { points: 60, duration: 900 },
} as const;
type LimitName = keyof typeof LIMITS;

/**
 * Slows guessing down. Attempts are counted in PostgreSQL, before the password is looked at, so that many at once and many
 * API processes count as one; an attempt that succeeds is taken out of the count again.
 */
@Injectable()
export class SignInLimits {
  private readonly limiters: Readonly<Record<LimitName, RateLimiterPostgres>>;

  constructor(@Inject(Database) { sequelize }: Database) {
    const limiter = (name: LimitName): RateLimiterPostgres =>
      new RateLimiterPostgres({
        storeClient: sequelize,
        storeType: 'sequelize',
        tableName: 'sign_in_counts',
        tableCreated: true,
        keyPrefix: name,
        ...LIMITS[name],
      });
    this.limiters = { pair: limiter('pair'), address: limiter('address'), account: limiter('account') };
  }

  /** @throws HttpException 429 when there were too many; else `act`, whose failure counts and whose success does not */
  async attempt<T>(address: string, account: string | null, act: () => Promise<T>): Promise<T> {
    const place = placeOf(address);
    const keys: [LimitName, string][] = [['address', hashed(place)]];
    if (account !== null) keys.push(['pair', hashed(`${place} ${account}`)], ['account', hashed(account)]);
    for (const [name, key] of keys) await this.count(name, key);
    const result = await act();
    for (const [name, key] of keys) await this.limiters[name].reward(key);
    return result;
  }

  private async count(name: LimitName, key: string): Promise<void> {
    try {
      await this.limiters[name].consume(key);
    } catch (refusal) {
      if (!(refusal instanceof RateLimiterRes)) throw refusal;
      const seconds = Math.max(1, Math.ceil(refusal.msBeforeNext / 1_000));
      throw new HttpException(`Too many attempts. Wait ${seconds < 120 ? `${seconds} s` : `${Math.ceil(seconds / 60)} minutes`}, then try again.`, 429);
    }
  }
}

const hashed = (text: string): string => createHash('sha256').update(text).digest('hex');

/** Whoever has an IPv6 address has a whole /64 of them (RFC 4291, section 2.5.4). */
function placeOf(address: string): string {
  if (!isIPv6(address)) return address;
  const [head = '', tail] = address.toLowerCase().split('::');
  const before = head === '' ? [] : head.split(':');
  const after = tail === undefined || tail === '' ? [] : tail.split(':');
  const middle = tail === undefined ? 0 : 8 - before.length - after.length;
  const groups = [...before, ...Array.from({ length: Math.max(0, middle) }, () => '0'), ...after];
  const mapped = /:ffff:(\d+\.\d+\.\d+\.\d+)$/.exec(address.toLowerCase());
  return mapped?.[1] ?? `${groups.slice(0, 4).join(':')}::/64`;
}
