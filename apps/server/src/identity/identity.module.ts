import { Module } from '@nestjs/common';
import { APP_GUARD } from '@nestjs/core';
import { IdentityController } from './identity.controller.js';
import { MailService } from './mail.service.js';
import { SessionGuard } from './session.guard.js';
import { SessionsService } from './sessions.service.js';
import { SignInLimits } from './sign-in-limits.js';
import { UsersController } from './users.controller.js';
import { UsersService } from './users.service.js';

@Module({
  controllers: [IdentityController, UsersController],
  providers: [SessionsService, UsersService, SignInLimits, MailService, { provide: APP_GUARD, useClass: SessionGuard }],
  exports: [SessionsService],
})
export class IdentityModule {}
