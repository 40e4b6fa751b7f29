import { createHash, randomBytes, timingSafeEqual } from 'node:crypto';
import type { SimClock } from './sim-clock.js';

/** How a platform gives rights: how long a token lasts, and whether a new one to renew with comes along each time. */
export interface RightsStyle {
  readonly scopes: readonly string[];
  readonly accessLifeS: number;
  readonly rotates: boolean;
}

interface Code {
  readonly account: string;
  readonly scopes: readonly string[];
  readonly challenge: string;
  readonly redirect: string;
  readonly endsMs: number;
}

export interface Right {
  readonly account: string;
  readonly scopes: readonly string[];
}

interface Grant extends Right {
  readonly id: string;
  refresh: string;
  /** Still good until what replaced it was used once: the answer may have been lost. */
  before: string | null;
}

/** A refusal of RFC 6749, section 5.2. */
export class RightRefused extends Error {
  constructor(
    readonly code: 'invalid_request' | 'invalid_client' | 'invalid_grant' | 'unsupported_grant_type' | 'invalid_scope',
    readonly status = 400,
  ) {
    super(code);
  }
}

const CODE_LIFE_MS = 60_000;
const secret = (): string => randomBytes(24).toString('base64url');
const same = (a: string, b: string): boolean => a.length === b.length && timingSafeEqual(Buffer.from(a), Buffer.from(b));

/** What a platform remembers of rights, as it is kept over a restart. */
export interface RightsState {
  readonly grants: readonly Grant[];
  readonly access: readonly (readonly [string, { readonly grant: string; readonly endsMs: number }])[];
}

/** Rights to post for an account: authorization code with PKCE (RFC 6749, 4.1; RFC 7636, S256 alone), renewed and taken back (RFC 7009). */
export class Rights {
  private readonly codes = new Map<string, Code>();
  private readonly grants = new Map<string, Grant>();
  private readonly access = new Map<string, { readonly grant: string; readonly endsMs: number }>();

  constructor(
    private readonly clock: SimClock,
    private readonly style: RightsStyle,
    private readonly client: { readonly id: string; readonly secret: string },
  ) {}

  restore({ grants, access }: RightsState): void {
    for (const grant of grants) this.grants.set(grant.id, grant);
    for (const [token, one] of access) this.access.set(token, one);
  }
  state(): RightsState {
    return { grants: [...this.grants.values()], access: [...this.access] };
  }

  /** @returns the code that goes back with the browser */
  allow(account: string, scopes: readonly string[], challenge: string, redirect: string): string {
    const code = secret();
    this.codes.set(code, { account, scopes, challenge, redirect, endsMs: this.clock.nowMs() + CODE_LIFE_MS * 10 });
    return code;
  }

  /** Answers at the token endpoint. @throws RightRefused */
  token(form: URLSearchParams, basic: { readonly id: string; readonly secret: string } | null): object {
    if (basic === null || basic.id !== this.client.id || !same(basic.secret, this.client.secret)) throw new RightRefused('invalid_client', 401);
    switch (form.get('grant_type')) {
      case 'authorization_code':
        return this.exchange(form);
      case 'refresh_token':
        return this.renew(form.get('refresh_token') ?? '');
      default:
        throw new RightRefused('unsupported_grant_type');
    }
  }

  private exchange(form: URLSearchParams): object {
    const asked = form.get('code') ?? '';
    const code = this.codes.get(asked);
    this.codes.delete(asked); // once only (RFC 6749, 4.1.2)
    if (code === undefined || code.endsMs < this.clock.nowMs() || code.redirect !== form.get('redirect_uri')) throw new RightRefused('invalid_grant');
    const challenge = createHash('sha256')
      .update(form.get('code_verifier') ?? '')
      .digest('base64url');
    if (!same(challenge, code.challenge)) throw new RightRefused('invalid_grant');
    const grant: Grant = { id: secret(), account: code.account, scopes: code.scopes, refresh: secret(), before: null };
    this.grants.set(grant.id, grant);
    return this.give(grant);
  }

  private renew(refresh: string): object {
    const grant = [...this.grants.values()].find((one) => one.refresh === refresh || (one.before !== null && one.before === refresh));
    if (grant === undefined) throw new RightRefused('invalid_grant');
    if (this.style.rotates) {
      grant.before = grant.refresh === refresh ? refresh : grant.before;
      grant.refresh = secret();
    }
    return this.give(grant);
  }

  private give(grant: Grant): object {
    const token = secret();
    this.access.set(token, { grant: grant.id, endsMs: this.clock.nowMs() + this.style.accessLifeS * 1_000 });
    return { access_token: token, token_type: 'Bearer', expires_in: this.style.accessLifeS, refresh_token: grant.refresh, scope: grant.scopes.join(' ') };
  }

  /** Takes a token's right away (RFC 7009): one that is not known is no error. */
  revokeToken(token: string): void {
    const grant = this.access.get(token)?.grant ?? [...this.grants.values()].find((one) => one.refresh === token)?.id;
    if (grant !== undefined) this.grants.delete(grant);
  }

  /** The account's owner takes back every right that was given for it. */
  revoke(account: string): void {
    for (const grant of [...this.grants.values()]) if (grant.account === account) this.grants.delete(grant.id);
  }

  /** Whose right a bearer token is (RFC 6750); null for none. */
  of(header: string | undefined): Right | null {
    const token = /^Bearer ([\w-]+)$/i.exec(header ?? '')?.[1] ?? '';
    const one = this.access.get(token);
    const grant = one === undefined || one.endsMs <= this.clock.nowMs() ? undefined : this.grants.get(one.grant);
    if (grant === undefined) return null;
    grant.before = null;
    return { account: grant.account, scopes: grant.scopes };
  }
}
