import { readFileSync } from 'node:fs';
import { Inject, Injectable } from '@nestjs/common';
import { type Config, ConfigError } from './config.js';
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
  private readonly file: string | null;

  /** @throws ConfigError where there is a file that tells no time */
  constructor(@Inject(CONFIG) { clockFile }: Pick<Config, 'clockFile'>) {
    this.file = clockFile;
    if (clockFile !== null) read(clockFile);
  }

  nowMs(): number {
    if (this.file === null) return Date.now();
    const { startMs, sinceMs, speed } = read(this.file);
    return Math.round(startMs + (Date.now() - sinceMs) * speed);
  }

  /** How many times as fast as the time of day it runs. */
  speed(): number {
    return this.file === null ? 1 : read(this.file).speed;
  }
}

function read(file: string): Simulated {
  let told: Partial<Simulated> | null;
  try {
    told = JSON.parse(readFileSync(file, 'utf8')) as Partial<Simulated> | null;
  } catch {
    throw new ConfigError(`SIFT_REEL_CLOCK_FILE must name a file of JSON, ${file} is none`);
  }
  const { startMs, sinceMs, speed } = told ?? {};
  if (![startMs, sinceMs, speed].every(Number.isFinite) || !(speed! > 0))
    throw new ConfigError(`SIFT_REEL_CLOCK_FILE: startMs, sinceMs and speed must be numbers, speed over 0, in ${file}`);
  return { startMs: startMs!, sinceMs: sinceMs!, speed: speed! };
}
