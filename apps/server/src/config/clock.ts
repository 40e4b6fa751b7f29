import { readFileSync } from 'node:fs';
import { Inject, Injectable } from '@nestjs/common';
import type { Config } from './config.js';
import { CONFIG } from './token.js';

/** Where simulated time stands: at `sinceMs` of the time of day it was `startMs`, and it runs so many times as fast. */
interface Simulated {
  readonly startMs: number;
  readonly sinceMs: number;
  readonly speed: number;
}

/**
 * The one place where planning and posting read the time, so that tests can stand at a moment of their own. In simulated time it is told
 * by a file that every process of an installation reads anew each time: whoever writes it moves all of them together.
 */
@Injectable()
export class Clock {
  private readonly aheadMs: number;
  private readonly file: string | null;

  constructor(@Inject(CONFIG) { clockStartMs, clockFile }: Config) {
    this.aheadMs = clockStartMs === null ? 0 : clockStartMs - Date.now();
    this.file = clockFile;
  }

  nowMs(): number {
    return this.file === null ? Date.now() + this.aheadMs : simulated(this.file);
  }

  /** How many times as fast as the time of day it runs. */
  speed(): number {
    return this.file === null ? 1 : read(this.file).speed;
  }
}

const read = (file: string): Simulated => JSON.parse(readFileSync(file, 'utf8')) as Simulated;

function simulated(file: string): number {
  const { startMs, sinceMs, speed } = read(file);
  return Math.round(startMs + (Date.now() - sinceMs) * speed);
}
