import { Body, Controller, Delete, Get, HttpCode, Inject, Post, Req, Res, UseGuards } from '@nestjs/common';
import { ApiCreatedResponse, ApiNoContentResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { SignInForm } from '@sift-reel/forms';
import { stringifySetCookie } from 'cookie';
import type { Request, Response } from 'express';
import { AuditService } from '../audit/audit.service.js';
import { CONFIG, type Config } from '../config/config.module.js';
import { type Actor, CurrentActor } from './actor.js';
import { SessionView } from './identity.views.js';
import { Public, sessionCookieName, sessionToken } from './session.guard.js';
import { SessionsService } from './sessions.service.js';
import { SignInThrottle } from './sign-in.throttle.js';

@ApiTags('identity')
@Controller('session')
export class IdentityController {
  constructor(
    @Inject(SessionsService) private readonly sessions: SessionsService,
    @Inject(AuditService) private readonly audit: AuditService,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  @Public()
  @UseGuards(SignInThrottle)
  @Post()
  @ApiCreatedResponse({ type: SessionView })
  async signIn(@Body() form: SignInForm, @Res({ passthrough: true }) response: Response): Promise<SessionView> {
    const { token, actor, expiresAt } = await this.sessions.signIn(form.email, form.password);
    await this.audit.record({ userId: actor.userId, clientId: null, action: 'sign-in', subject: 'session', subjectId: actor.userId });
    this.setCookie(response, token, expiresAt);
    return toView(actor);
  }

  @Get()
  @ApiOkResponse({ type: SessionView })
  readSession(@CurrentActor() actor: Actor): SessionView {
    return toView(actor);
  }

  @Delete()
  @HttpCode(204)
  @ApiNoContentResponse()
  async signOut(@Req() request: Request, @Res({ passthrough: true }) response: Response): Promise<void> {
    const token = sessionToken(request, this.config);
    if (token !== null) await this.sessions.signOut(token);
    this.setCookie(response, '', new Date(0));
  }

  private setCookie(response: Response, value: string, expires: Date): void {
    response.append(
      'Set-Cookie',
      stringifySetCookie({
        name: sessionCookieName(this.config),
        value,
        httpOnly: true,
        sameSite: 'strict',
        path: '/',
        secure: this.config.secureCookies,
        expires,
      }),
    );
  }
}

function toView({ userId, name, email, role, csrfToken }: Actor): SessionView {
  return { userId, name, email, role, csrfToken };
}
