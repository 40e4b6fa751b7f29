/**
 * The lines of a text, one after another. A text is never split into all of its lines at once: 60 MB of line ends would be
 * 60 million strings, and a thread that runs out of memory inside one call of the engine takes its process down.
 */
export class LineCursor {
  /** Number of the line, from 1. */
  number = 1;
  /** Where the line begins and where it ends, its line end left out. */
  start = 0;
  end: number;

  constructor(private readonly all: string) {
    this.end = this.endFrom(0);
  }

  /** Past the last line. */
  get done(): boolean {
    return this.start > this.all.length;
  }

  get text(): string {
    return this.all.slice(this.start, this.end);
  }

  /** The line after this one; empty after the last. */
  get following(): string {
    return this.end >= this.all.length ? '' : this.all.slice(this.end + 1, this.endFrom(this.end + 1));
  }

  next(): void {
    this.start = this.end + 1;
    this.end = this.endFrom(this.start);
    this.number += 1;
  }

  private endFrom(at: number): number {
    const end = this.all.indexOf('\n', at);
    return end < 0 ? this.all.length : end;
  }
}
