import { ConflictException, GoneException, Inject, Injectable } from '@nestjs/common';
import type { NewUserForm, UserForm } from '@sift-reel/forms';
import { ForeignKeyConstraintError, Op, UniqueConstraintError } from 'sequelize';
import { InvalidFormException } from '../problems/refusals.js';
import type { AuditAction } from '../audit/trail-words.js';
import { AuditService } from '../audit/audit.service.js';
import { CONFIG, type Config } from '../config/config.module.js';
import { Database } from '../database/database.service.js';
import { claimVersion } from '../database/versions.js';
import { type Actor, found, requireOwner } from './actor.js';
import { Assignment, Invitation, User } from './identity.models.js';
import type { InvitedUserView, UserView } from './identity.views.js';
import { MailService } from './mail.service.js';
import { checkPassword, hashPassword } from './passwords.js';
import { hashToken, newToken, type OpenedSession, SessionsService } from './sessions.service.js';

const INVITATION_MS = 7 * 86_400_000;

/** Users, which clients they see, and how they come to their passwords. */
@Injectable()
export class UsersService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(AuditService) private readonly audit: AuditService,
    @Inject(SessionsService) private readonly sessions: SessionsService,
    @Inject(MailService) private readonly mail: MailService,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  async list(actor: Actor): Promise<UserView[]> {
    requireOwner(actor);
    const users = await User.findAll({ order: ['name'] });
    const assignments = await Assignment.findAll();
    return users.map((user) => toUserView(user, assignments));
  }

  /** A new user, who chooses a password by a one-time link. */
  async create(actor: Actor, form: NewUserForm): Promise<InvitedUserView> {
    requireOwner(actor);
    const { user, token } = await this.write(async () => {
      const made = await User.create({ email: form.email.toLowerCase(), name: form.name, role: form.role, passwordHash: null });
      await this.assign(made.id, form.clientIds);
      await this.record(actor, 'create', made);
      return { user: made, token: await this.newInvitation(made.id) };
    });
    return this.hand(actor, user, [...new Set(form.clientIds)], token);
  }

  /** A new link for a user who has not come yet, or who forgot their password. The link before it is void. */
  async invite(actor: Actor, userId: string): Promise<InvitedUserView> {
    requireOwner(actor);
    const { user, token } = await this.database.transaction(async () => {
      const row = found(await User.findByPk(userId, { lock: true }), 'user');
      await this.record(actor, 'invite', row);
      return { user: row, token: await this.newInvitation(row.id) };
    });
    const assignments = await Assignment.findAll({ where: { userId } });
    return this.hand(
      actor,
      user,
      assignments.map((row) => row.clientId),
      token,
    );
  }

  async update(actor: Actor, userId: string, form: UserForm): Promise<UserView> {
    requireOwner(actor);
    if (userId === actor.userId && (form.role !== 'owner' || !form.active)) throw new ConflictException('You cannot take the owner’s rights from yourself.');
    return this.write(async () => {
      const user = await claimVersion(User, userId, form.version, 'user', async (row) => toUserView(row, await Assignment.findAll({ where: { userId } })));
      await user.update({ name: form.name, role: form.role, active: form.active });
      await Assignment.destroy({ where: { userId } });
      await this.assign(userId, form.clientIds);
      if (!form.active) await this.sessions.endAll(userId);
      await this.record(actor, 'update', user);
      return toUserView(user, await Assignment.findAll({ where: { userId } }));
    });
  }

  /** What they made stays, without their name on it. */
  async remove(actor: Actor, userId: string): Promise<void> {
    requireOwner(actor);
    if (userId === actor.userId) throw new ConflictException('You cannot remove yourself.');
    await this.database.transaction(async () => {
      const user = found(await User.findByPk(userId, { lock: true }), 'user');
      await this.sessions.endAll(userId);
      await this.record(actor, 'delete', user);
      await user.destroy();
    });
  }

  /** A new password of one's own. Every session ends, and a new one begins for whoever changed it. */
  async changePassword(actor: Actor, current: string, next: string): Promise<OpenedSession> {
    const user = found(await User.findByPk(actor.userId), 'user');
    if (!(await checkPassword(user.passwordHash, current))) throw new InvalidFormException([{ field: 'current', detail: 'is not your password' }]);
    const passwordHash = await hashPassword(next);
    return this.database.transaction(async () => {
      const [changed] = await User.update({ passwordHash }, { where: { id: user.id, active: true, passwordHash: user.passwordHash } });
      if (changed === 0) throw new ConflictException('Your password was changed by somebody else just now. Sign in again.');
      return this.openAfterChange(user.id, 'change-password');
    });
  }

  async readInvitation(token: string): Promise<User> {
    const invitation = await Invitation.findOne({ where: { tokenHash: hashToken(token), expiresAt: { [Op.gt]: new Date() } } });
    const user = invitation === null ? null : await User.findOne({ where: { id: invitation.userId, active: true } });
    if (user === null) throw new GoneException('This link was used, replaced or is too old. Ask for a new one.');
    return user;
  }

  /** Takes the link up: it is void from then on, whoever was first. */
  async acceptInvitation(token: string, password: string): Promise<OpenedSession> {
    await this.readInvitation(token);
    const passwordHash = await hashPassword(password);
    return this.database.transaction(async () => {
      const user = await this.readInvitation(token);
      if ((await Invitation.destroy({ where: { tokenHash: hashToken(token) } })) === 0) throw new GoneException('This link was used already.');
      await user.update({ passwordHash });
      return this.openAfterChange(user.id, 'choose-password');
    });
  }

  private async openAfterChange(userId: string, action: AuditAction): Promise<OpenedSession> {
    await this.sessions.endAll(userId);
    await Invitation.destroy({ where: { userId } });
    await this.audit.record({ userId, clientId: null, action, subject: 'user', subjectId: userId });
    return this.sessions.open(userId);
  }

  private async newInvitation(userId: string): Promise<string> {
    const token = newToken();
    await Invitation.destroy({ where: { userId } });
    await Invitation.create({ tokenHash: hashToken(token), userId, expiresAt: new Date(Date.now() + INVITATION_MS) });
    return token;
  }

  /** Mails the link; where no mail can be sent, whoever asked hands it over. */
  private async hand(actor: Actor, user: User, clientIds: readonly string[], token: string): Promise<InvitedUserView> {
    const link = `${this.config.publicUrl}/welcome/${token}`;
    const mailed = await this.mail.send(
      { name: user.name, address: user.email },
      'Your way into Sift Reel',
      `${user.name},\n\n${actor.name} has made room for you in Sift Reel. Choose a password here:\n\n${link}\n\nThe link works once, for seven days.\n`,
    );
    return {
      user: toUserView(
        user,
        clientIds.map((clientId) => ({ userId: user.id, clientId })),
      ),
      mailed,
      link: mailed ? null : link,
    };
  }

  private async assign(userId: string, clientIds: readonly string[]): Promise<void> {
    await Assignment.bulkCreate([...new Set(clientIds)].map((clientId) => ({ userId, clientId })));
  }

  private async record(actor: Actor, action: AuditAction, user: User): Promise<void> {
    await this.audit.record({ userId: actor.userId, clientId: null, action, subject: 'user', subjectId: user.id, detail: { title: user.name } });
  }

  private async write<T>(act: () => Promise<T>): Promise<T> {
    try {
      return await this.database.transaction(act);
    } catch (error) {
      if (error instanceof UniqueConstraintError) throw new ConflictException('Somebody has this e-mail already.');
      if (error instanceof ForeignKeyConstraintError) throw new InvalidFormException([{ field: 'clientIds', detail: 'holds a client that is not there' }]);
      throw error;
    }
  }
}

function toUserView(user: User, assignments: readonly { userId: string; clientId: string }[]): UserView {
  const { id, name, email, role, active, version } = user;
  return {
    id,
    name,
    email,
    role,
    active,
    invited: user.passwordHash === null,
    clientIds: assignments.filter((row) => row.userId === id).map((row) => row.clientId),
    version,
  };
}
