import { createHash, randomBytes } from 'node:crypto';
import { Inject, Injectable, UnauthorizedException } from '@nestjs/common';
import { Op } from 'sequelize';
import { AuditService } from '../audit/audit.service.js';
import { Database } from '../database/database.service.js';
import type { Actor } from './actor.js';
import { Session, User } from './identity.models.js';
import { checkPassword } from './passwords.js';

const SESSION_MS = 14 * 86_400_000;

export function hashToken(token: string): string {
  return createHash('sha256').update(token).digest('hex');
}

export function newToken(): string {
  return randomBytes(32).toString('base64url');
}

export interface OpenedSession {
  /** For the cookie; only its hash is kept. */
  readonly token: string;
  readonly actor: Actor;
  readonly expiresAt: Date;
}

/**
 * One look at who a token belongs to and what they may see now. Archived clients are out of everybody's sight; an owner
 * sees all of the others, which is null where none is archived.
 */
const ACTOR = `SELECT users.id AS "userId", users.name, users.email, users.role, sessions.csrf_token AS "csrfToken",
  CASE WHEN users.role <> 'owner' THEN
    (SELECT coalesce(array_agg(clients.id::text), '{}') FROM assignments JOIN clients ON clients.id = client_id AND archived_at IS NULL WHERE user_id = users.id)
  WHEN EXISTS (SELECT FROM clients WHERE archived_at IS NOT NULL) THEN
    (SELECT coalesce(array_agg(id::text), '{}') FROM clients WHERE archived_at IS NULL)
  END AS "clientIds"
FROM sessions JOIN users ON users.id = sessions.user_id
WHERE sessions.token_hash = $1 AND sessions.expires_at > now() AND users.active`;

@Injectable()
export class SessionsService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(AuditService) private readonly audit: AuditService,
  ) {}

  /** @throws UnauthorizedException with the same words for a wrong e-mail and a wrong password; the trail tells them apart */
  async signIn(email: string, password: string): Promise<OpenedSession> {
    const user = await User.findOne({ where: { email: email.toLowerCase(), active: true } });
    if (!(await checkPassword(user?.passwordHash ?? null, password)) || user === null) {
      await this.audit.record({
        userId: user?.id ?? null,
        clientId: null,
        action: 'sign-in-failed',
        subject: 'session',
        subjectId: user?.id ?? 'unknown',
        detail: { title: user?.name ?? 'an unknown e-mail' },
      });
      throw new UnauthorizedException('E-mail and password do not match.');
    }
    return this.database.transaction(async () => {
      // Read again under a lock: a password changed while this one was checked, or a user switched off, opens nothing.
      const still = await User.findOne({ where: { id: user.id, active: true, passwordHash: user.passwordHash }, lock: true });
      if (still === null) throw new UnauthorizedException('E-mail and password do not match.');
      await Session.destroy({ where: { expiresAt: { [Op.lt]: new Date() } } });
      await this.audit.record({ userId: user.id, clientId: null, action: 'sign-in', subject: 'session', subjectId: user.id });
      return this.open(user.id);
    });
  }

  /** A new session of a user. */
  async open(userId: string): Promise<OpenedSession> {
    const token = newToken();
    const expiresAt = new Date(Date.now() + SESSION_MS);
    await Session.create({ tokenHash: hashToken(token), userId, csrfToken: randomBytes(24).toString('base64url'), expiresAt });
    const actor = await this.actorOf(token);
    if (actor === null) throw new Error('a session that was just made is not there');
    return { token, actor, expiresAt };
  }

  /** The actor of a cookie's token, or null when the session is over or the user was switched off. */
  async actorOf(token: string): Promise<Actor | null> {
    const [row] = await this.database.rows<Omit<Actor, 'clientIds'> & { clientIds: string[] | null }>(ACTOR, [hashToken(token)]);
    return row === undefined ? null : { ...row, clientIds: row.clientIds ?? 'all' };
  }

  async signOut(token: string, actor: Actor): Promise<void> {
    await this.database.transaction(async () => {
      await Session.destroy({ where: { tokenHash: hashToken(token) } });
      await this.audit.record({ userId: actor.userId, clientId: null, action: 'sign-out', subject: 'session', subjectId: actor.userId });
    });
  }

  /** Ends every session of a user, and with it their event streams. */
  async endAll(userId: string): Promise<void> {
    await Session.destroy({ where: { userId } });
  }
}
