/**
 * What goes wrong with a call: a 5xx before or after it took effect; the line gone before it, or after it with the answer lost; an answer
 * that comes very late; an effect that comes very late, when whoever asked has given up; not now (429).
 */
export const FAULTS = ['before', 'after', 'broken', 'lost', 'slow', 'late', 'throttle'] as const;
export type Fault = (typeof FAULTS)[number];

export const isFault = (text: unknown): text is Fault => (FAULTS as readonly unknown[]).includes(text);

/** Numbers from 0 to 1, the same for the same seed. Mulberry32, by T. Ettinger, in the public domain; from memory. */
export function seeded(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296;
  };
}

/** A number that a text always has. FNV-1a, 32 bits (draft-eastlake-fnv). */
export function hashOf(text: string): number {
  let hash = 0x811c9dc5;
  for (const byte of Buffer.from(text)) hash = Math.imul(hash ^ byte, 0x01000193) >>> 0;
  return hash;
}

/** Which calls go wrong: those that were ordered first, then a share of all by a seed. */
export class Faults {
  private share = 0;
  private random = seeded(1);
  private kinds: readonly Fault[] = FAULTS;
  private readonly ordered: Fault[] = [];

  /** @param share of the calls, 0 to 1 */
  bySeed(seed: number, share: number, kinds: readonly Fault[] = FAULTS): void {
    this.share = share;
    this.random = seeded(seed);
    this.kinds = kinds;
  }

  /** The next calls that publish go wrong so, one after the other. */
  order(faults: readonly Fault[]): void {
    this.ordered.push(...faults);
  }

  next(publishes: boolean): Fault | null {
    if (publishes && this.ordered.length > 0) return this.ordered.shift()!;
    if (this.share === 0 || this.random() >= this.share) return null;
    return this.kinds[Math.floor(this.random() * this.kinds.length)] ?? null;
  }
}
