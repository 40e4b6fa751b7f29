import { createHash, randomBytes } from 'node:crypto';
import { Injectable, UnauthorizedException } from '@nestjs/common';
import { Op } from 'sequelize';
import type { Actor } from './actor.js';
import { Assignment, Session, User } from './identity.models.js';
import { checkPassword } from './passwords.js';

const SESSION_MS = 14 * 86_400_000;

function hashToken(token: string): string {
  return createHash('sha256').update(token).digest('hex');
}

@Injectable()
export class SessionsService {
  /** @returns the token for the cookie. @throws UnauthorizedException with the same words for a wrong e-mail and a wrong password */
  async signIn(email: string, password: string): Promise<{ token: string; actor: Actor; expiresAt: Date }> {
    const user = await User.findOne({ where: { email: email.toLowerCase(), active: true } });
    if (!(await checkPassword(user?.passwordHash ?? null, password)) || user === null) {
      throw new UnauthorizedException('E-mail and password do not match.');
    }
    const token = randomBytes(32).toString('base64url');
    const expiresAt = new Date(Date.now() + SESSION_MS);
    await Session.destroy({ where: { expiresAt: { [Op.lt]: new Date() } } });
    await Session.create({ tokenHash: hashToken(token), userId: user.id, csrfToken: randomBytes(24).toString('base64url'), expiresAt });
    const actor = await this.actorOf(token);
    if (actor === null) throw new Error('a session that was just made is not there');
    return { token, actor, expiresAt };
  }

  /** The actor of a cookie's token, or null when the session is over or the user was switched off. */
  async actorOf(token: string): Promise<Actor | null> {
    const session = await Session.findOne({ where: { tokenHash: hashToken(token), expiresAt: { [Op.gt]: new Date() } } });
    if (session === null) return null;
    const user = await User.findOne({ where: { id: session.userId, active: true } });
    if (user === null) return null;
    const clientIds = user.role === 'owner' ? ('all' as const) : (await Assignment.findAll({ where: { userId: user.id } })).map((row) => row.clientId);
    return { userId: user.id, name: user.name, email: user.email, role: user.role, clientIds, csrfToken: session.csrfToken };
  }

  async signOut(token: string): Promise<void> {
    await Session.destroy({ where: { tokenHash: hashToken(token) } });
  }

  /** Ends every session of a user, after a change of what they may do. */
  async endAll(userId: string): Promise<void> {
    await Session.destroy({ where: { userId } });
  }
}
