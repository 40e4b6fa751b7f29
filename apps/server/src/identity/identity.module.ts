import { Module } from '@nestjs/common';
import { APP_GUARD } from '@nestjs/core';
import { ThrottlerModule } from '@nestjs/throttler';
import { IdentityController } from './identity.controller.js';
import { SessionGuard } from './session.guard.js';
import { SessionsService } from './sessions.service.js';
import { SIGN_IN_ATTEMPTS, SIGN_IN_WINDOW_MS } from './sign-in.throttle.js';
import { UsersController } from './users.controller.js';

@Module({
  imports: [ThrottlerModule.forRoot([{ ttl: SIGN_IN_WINDOW_MS, limit: SIGN_IN_ATTEMPTS }])],
  controllers: [IdentityController, UsersController],
  providers: [SessionsService, { provide: APP_GUARD, useClass: SessionGuard }],
  exports: [SessionsService],
})
export class IdentityModule {}
