import { Injectable } from '@nestjs/common';

/** The one place where planning reads the time, so that tests can stand at a moment of their own. */
@Injectable()
export class Clock {
  nowMs(): number {
    return Date.now();
  }
}
