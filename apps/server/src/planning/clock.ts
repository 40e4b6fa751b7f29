import { Inject, Injectable } from '@nestjs/common';
import { CONFIG, type Config } from '../config/config.module.js';

/** The one place where planning reads the time, so that tests can stand at a moment of their own. */
@Injectable()
export class Clock {
  private readonly aheadMs: number;

  constructor(@Inject(CONFIG) { clockStartMs }: Config) {
    this.aheadMs = clockStartMs === null ? 0 : clockStartMs - Date.now();
  }

  nowMs(): number {
    return Date.now() + this.aheadMs;
  }
}
