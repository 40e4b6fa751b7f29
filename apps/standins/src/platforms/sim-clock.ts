import { readFileSync } from 'node:fs';

/** The time by which the platforms live: the time of day, or that of a file which says how simulated time runs. */
export class SimClock {
  /** @param file as `Clock` of the server reads it, or null */
  constructor(private readonly file: string | null) {}

  nowMs(): number {
    if (this.file === null) return Date.now();
    const { startMs, sinceMs, speed } = this.read();
    return Math.round(startMs + (Date.now() - sinceMs) * speed);
  }

  /** So long a stretch of it takes by the time of day. */
  realMs(ms: number): number {
    return this.file === null ? ms : ms / this.read().speed;
  }

  private read(): { startMs: number; sinceMs: number; speed: number } {
    return JSON.parse(readFileSync(this.file!, 'utf8')) as { startMs: number; sinceMs: number; speed: number };
  }
}
