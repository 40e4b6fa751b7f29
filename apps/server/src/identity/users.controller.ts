import { Body, ConflictException, Controller, Get, Inject, Param, ParseUUIDPipe, Post, Put } from '@nestjs/common';
import { ApiCreatedResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { InjectConnection } from '@nestjs/sequelize';
import { NewUserForm, UserForm } from '@sift-reel/forms';
import { UniqueConstraintError } from 'sequelize';
import { Sequelize } from 'sequelize-typescript';
import { AuditService } from '../audit/audit.service.js';
import { type Actor, CurrentActor, found, requireOwner } from './actor.js';
import { Assignment, User } from './identity.models.js';
import { UserView } from './identity.views.js';
import { hashPassword } from './passwords.js';
import { SessionsService } from './sessions.service.js';

/** The owner's desk: users and which clients they see. */
@ApiTags('identity')
@Controller('users')
export class UsersController {
  constructor(
    @InjectConnection() private readonly sequelize: Sequelize,
    @Inject(AuditService) private readonly audit: AuditService,
    @Inject(SessionsService) private readonly sessions: SessionsService,
  ) {}

  @Get()
  @ApiOkResponse({ type: [UserView] })
  async listUsers(@CurrentActor() actor: Actor): Promise<UserView[]> {
    requireOwner(actor);
    const [users, assignments] = await Promise.all([User.findAll({ order: ['name'] }), Assignment.findAll()]);
    return users.map((user) =>
      toView(
        user,
        assignments.filter((row) => row.userId === user.id).map((row) => row.clientId),
      ),
    );
  }

  @Post()
  @ApiCreatedResponse({ type: UserView })
  async createUser(@CurrentActor() actor: Actor, @Body() form: NewUserForm): Promise<UserView> {
    requireOwner(actor);
    const passwordHash = await hashPassword(form.password);
    try {
      return await this.sequelize.transaction(async (transaction) => {
        const user = await User.create({ email: form.email.toLowerCase(), name: form.name, role: form.role, passwordHash }, { transaction });
        await Assignment.bulkCreate(
          form.clientIds.map((clientId) => ({ userId: user.id, clientId })),
          { transaction },
        );
        await this.audit.record({ userId: actor.userId, clientId: null, action: 'create', subject: 'user', subjectId: user.id }, transaction);
        return toView(user, form.clientIds);
      });
    } catch (error) {
      if (error instanceof UniqueConstraintError) throw new ConflictException('Somebody has this e-mail already.');
      throw error;
    }
  }

  @Put(':userId')
  @ApiOkResponse({ type: UserView })
  async updateUser(@CurrentActor() actor: Actor, @Param('userId', ParseUUIDPipe) userId: string, @Body() form: UserForm): Promise<UserView> {
    requireOwner(actor);
    if (userId === actor.userId && (form.role !== 'owner' || !form.active)) throw new ConflictException('You cannot take the owner’s rights from yourself.');
    const view = await this.sequelize.transaction(async (transaction) => {
      const user = found(await User.findByPk(userId, { transaction }), 'user');
      await user.update({ name: form.name, role: form.role, active: form.active }, { transaction });
      await Assignment.destroy({ where: { userId }, transaction });
      await Assignment.bulkCreate(
        form.clientIds.map((clientId) => ({ userId, clientId })),
        { transaction },
      );
      await this.audit.record({ userId: actor.userId, clientId: null, action: 'update', subject: 'user', subjectId: userId }, transaction);
      return toView(user, form.clientIds);
    });
    if (!form.active) await this.sessions.endAll(userId);
    return view;
  }
}

function toView(user: User, clientIds: string[]): UserView {
  return { id: user.id, name: user.name, email: user.email, role: user.role, active: user.active, clientIds };
}
