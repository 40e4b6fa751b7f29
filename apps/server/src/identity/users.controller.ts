import { Body, Controller, Delete, Get, HttpCode, Inject, Param, ParseUUIDPipe, Post, Put } from '@nestjs/common';
import { ApiCreatedResponse, ApiNoContentResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { NewUserForm, UserForm } from '@sift-reel/forms';
import { type Actor, CurrentActor } from './actor.js';
import { InvitedUserView, UserView } from './identity.views.js';
import { UsersService } from './users.service.js';

/** The owner's desk: users and which clients they see. */
@ApiTags('identity')
@Controller('users')
export class UsersController {
  constructor(@Inject(UsersService) private readonly users: UsersService) {}

  @Get()
  @ApiOkResponse({ type: [UserView] })
  listUsers(@CurrentActor() actor: Actor): Promise<UserView[]> {
    return this.users.list(actor);
  }

  @Post()
  @ApiCreatedResponse({ type: InvitedUserView })
  createUser(@CurrentActor() actor: Actor, @Body() form: NewUserForm): Promise<InvitedUserView> {
    return this.users.create(actor, form);
  }

  @Put(':userId')
  @ApiOkResponse({ type: UserView })
  updateUser(@CurrentActor() actor: Actor, @Param('userId', ParseUUIDPipe) userId: string, @Body() form: UserForm): Promise<UserView> {
    return this.users.update(actor, userId, form);
  }

  @Post(':userId/invitation')
  @ApiCreatedResponse({ type: InvitedUserView })
  inviteUser(@CurrentActor() actor: Actor, @Param('userId', ParseUUIDPipe) userId: string): Promise<InvitedUserView> {
    return this.users.invite(actor, userId);
  }

  @Delete(':userId')
  @HttpCode(204)
  @ApiNoContentResponse()
  removeUser(@CurrentActor() actor: Actor, @Param('userId', ParseUUIDPipe) userId: string): Promise<void> {
    return this.users.remove(actor, userId);
  }
}
