import { timingSafeEqual } from 'node:crypto';
import { type CanActivate, type ExecutionContext, ForbiddenException, Inject, Injectable, SetMetadata, UnauthorizedException } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import { parseCookie } from 'cookie';
import type { Request } from 'express';
import { CONFIG, type Config } from '../config/config.module.js';
import type { RequestWithActor } from './actor.js';
import { SessionsService } from './sessions.service.js';

const PUBLIC = 'public';
/** A route that needs no session. It is still refused to other sites' pages. */
export const Public = (): MethodDecorator & ClassDecorator => SetMetadata(PUBLIC, true);

const CSRF_HEADER = 'x-csrf-token';

export function sessionCookieName(config: Config): string {
  return config.secureCookies ? '__Host-sift-reel' : 'sift-reel';
}

export function sessionToken(request: Request, config: Config): string | null {
  return parseCookie(request.headers.cookie ?? '')[sessionCookieName(config)] ?? null;
}

/**
 * Lets a request through when it has a session and, where it changes something, comes from our own pages: the session's
 * own token in a header (which another site cannot read), and no sign of another site in `Sec-Fetch-Site` or `Origin`.
 */
@Injectable()
export class SessionGuard implements CanActivate {
  constructor(
    @Inject(Reflector) private readonly reflector: Reflector,
    @Inject(SessionsService) private readonly sessions: SessionsService,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  async canActivate(context: ExecutionContext): Promise<boolean> {
    const request = context.switchToHttp().getRequest<RequestWithActor>();
    const changes = !['GET', 'HEAD', 'OPTIONS'].includes(request.method);
    if (changes) refuseOtherSites(request);
    const isPublic = this.reflector.getAllAndOverride<boolean | undefined>(PUBLIC, [context.getHandler(), context.getClass()]);
    const token = sessionToken(request, this.config);
    const actor = token === null ? null : await this.sessions.actorOf(token);
    if (actor !== null) request.actor = actor;
    if (isPublic === true) return true;
    if (actor === null) throw new UnauthorizedException('Sign in first.');
    if (changes && !sameText(request.header(CSRF_HEADER) ?? '', actor.csrfToken)) {
      throw new ForbiddenException('This page is out of date. Load it again, then repeat what you did.');
    }
    return true;
  }
}

function refuseOtherSites(request: Request): void {
  const site = request.header('sec-fetch-site');
  const origin = request.header('origin');
  const foreign = (site !== undefined && site !== 'same-origin' && site !== 'none') || (origin !== undefined && !isOwnOrigin(origin, request));
  if (foreign) throw new ForbiddenException('Requests from other sites are refused.');
}

/** An origin that cannot be read is not ours. */
function isOwnOrigin(origin: string, request: Request): boolean {
  return URL.canParse(origin) && new URL(origin).host === request.header('host');
}

function sameText(a: string, b: string): boolean {
  const left = Buffer.from(a);
  const right = Buffer.from(b);
  return left.length === right.length && timingSafeEqual(left, right);
}
