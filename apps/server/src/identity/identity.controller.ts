import { Body, Controller, Delete, Get, HttpCode, Inject, Param, Post, Put, Req, Res } from '@nestjs/common';
import { ApiCreatedResponse, ApiNoContentResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { ChangePasswordForm, ChoosePasswordForm, SignInForm } from '@sift-reel/forms';
import { stringifySetCookie } from 'cookie';
import type { Request, Response } from 'express';
import { CONFIG, type Config } from '../config/config.module.js';
import { type Actor, CurrentActor } from './actor.js';
import { InvitationView, SessionView } from './identity.views.js';
import { Public, sessionCookieName, sessionToken } from './session.guard.js';
import { type OpenedSession, SessionsService } from './sessions.service.js';
import { SignInLimits } from './sign-in-limits.js';
import { UsersService } from './users.service.js';

@ApiTags('identity')
@Controller()
export class IdentityController {
  constructor(
    @Inject(SessionsService) private readonly sessions: SessionsService,
    @Inject(UsersService) private readonly users: UsersService,
    @Inject(SignInLimits) private readonly limits: SignInLimits,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  @Public()
  @Post('session')
  @ApiCreatedResponse({ type: SessionView })
  async signIn(@Body() form: SignInForm, @Req() request: Request, @Res({ passthrough: true }) response: Response): Promise<SessionView> {
    const opened = await this.limits.attempt(request.ip ?? '', form.email.toLowerCase(), () => this.sessions.signIn(form.email, form.password));
    return this.handOut(opened, response);
  }

  @Get('session')
  @ApiOkResponse({ type: SessionView })
  readSession(@CurrentActor() actor: Actor): SessionView {
    return toView(actor);
  }

  @Delete('session')
  @HttpCode(204)
  @ApiNoContentResponse()
  async signOut(@CurrentActor() actor: Actor, @Req() request: Request, @Res({ passthrough: true }) response: Response): Promise<void> {
    const token = sessionToken(request, this.config);
    if (token !== null) await this.sessions.signOut(token, actor);
    this.setCookie(response, '', new Date(0));
  }

  /** Ends every session of the user; this one goes on with a new token. */
  @Put('session/password')
  @ApiOkResponse({ type: SessionView })
  async changePassword(
    @CurrentActor() actor: Actor,
    @Body() form: ChangePasswordForm,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<SessionView> {
    const opened = await this.limits.attempt(request.ip ?? '', actor.email, () => this.users.changePassword(actor, form.current, form.next));
    return this.handOut(opened, response);
  }

  @Public()
  @Get('invitations/:token')
  @ApiOkResponse({ type: InvitationView })
  async readInvitation(@Param('token') token: string, @Req() request: Request): Promise<InvitationView> {
    const { name, email } = await this.limits.attempt(request.ip ?? '', null, () => this.users.readInvitation(token));
    return { name, email };
  }

  @Public()
  @Post('invitations/:token')
  @ApiCreatedResponse({ type: SessionView })
  async acceptInvitation(
    @Param('token') token: string,
    @Body() form: ChoosePasswordForm,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<SessionView> {
    const opened = await this.limits.attempt(request.ip ?? '', null, () => this.users.acceptInvitation(token, form.password));
    return this.handOut(opened, response);
  }

  private handOut({ token, actor, expiresAt }: OpenedSession, response: Response): SessionView {
    this.setCookie(response, token, expiresAt);
    return toView(actor);
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
