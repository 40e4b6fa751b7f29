/** Loudness of a whole recording (EBU R 128, EBU Tech 3341 and 3342). */
export interface HeardLoudness {
  /** Integrated, in LUFS. */
  readonly integrated: number;
  /** The loudest three seconds, in LUFS. */
  readonly shortTerm: number;
  /** Loudness range, in LU. */
  readonly range: number;
  /** True peak, in dBTP. */
  readonly truePeak: number;
}

/** Below the absolute gate of ITU-R BS.1770 nothing counts. */
const GATE_LUFS = -70;

/** Reads what ffmpeg's ebur128 filter says, line by line: ten lines a second, and a summary at the end. */
export class LoudnessReader {
  private rest = '';
  private shortTerm = -Infinity;
  private readonly summary = new Map<string, number>();
  private inSummary = false;

  push(text: string): void {
    const lines = (this.rest + text).split('\n');
    this.rest = lines.pop() ?? '';
    for (const line of lines) this.read(line);
  }

  private read(line: string): void {
    // A filter graph that is laid out anew sums up what it had heard, which is nothing, before the first line.
    const loud = /TARGET:.*\bS:\s*(-?[\d.]+)/.exec(line)?.[1];
    if (loud !== undefined) {
      this.shortTerm = Math.max(this.shortTerm, Number(loud));
      this.inSummary = false;
    } else if (line.includes('Summary:')) this.inSummary = true;
    if (!this.inSummary) return;
    const told = /^\s*(I|LRA|Peak):\s*(-?[\d.]+|-inf) (?:LUFS|LU|dBFS)/.exec(line);
    if (told !== null) this.summary.set(told[1]!, told[2] === '-inf' ? -Infinity : Number(told[2]));
  }

  /** @returns null for silence */
  finish(): HeardLoudness | null {
    this.read(this.rest);
    const [integrated, range, truePeak] = [this.summary.get('I'), this.summary.get('LRA'), this.summary.get('Peak')];
    if (integrated === undefined || range === undefined || truePeak === undefined) return null;
    if (integrated <= GATE_LUFS || !Number.isFinite(truePeak)) return null;
    // What is shorter than three seconds has none.
    return { integrated, shortTerm: this.shortTerm > GATE_LUFS ? this.shortTerm : integrated, range, truePeak };
  }
}
