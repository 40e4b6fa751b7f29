import { createHash } from 'node:crypto';
import { HttpException, Injectable } from '@nestjs/common';
import { ThrottlerGuard } from '@nestjs/throttler';
import type { Request } from 'express';

/** Sign-in attempts a minute for one address and e-mail. */
export const SIGN_IN_ATTEMPTS = 8;
export const SIGN_IN_WINDOW_MS = 60_000;

/** Slows guessing down: attempts are counted for the address and the e-mail together. */
@Injectable()
export class SignInThrottle extends ThrottlerGuard {
  protected override async getTracker(request: Request): Promise<string> {
    const email = String((request.body as { email?: unknown } | undefined)?.email ?? '').toLowerCase();
    return createHash('sha256')
      .update(`${request.ip ?? ''} ${email}`)
      .digest('hex');
  }

  protected override async throwThrottlingException(): Promise<void> {
    throw new HttpException('Too many attempts. Wait a minute, then try again.', 429);
  }
}
