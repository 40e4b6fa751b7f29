/** A source of chance that always tells the same: numbers in [0, 1). */
export type Chance = () => number;

/** Mulberry32: 32 bits of state, period 2^32; enough to shuffle and to sample, never for secrets. */
export function seededChance(seed: number): Chance {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  };
}

/** The items in another order (Fisher–Yates); the list handed in stays as it is. */
export function shuffled<T>(items: readonly T[], chance: Chance): T[] {
  const out = [...items];
  for (let i = out.length - 1; i > 0; i -= 1) {
    const k = Math.floor(chance() * (i + 1));
    [out[i], out[k]] = [out[k]!, out[i]!];
  }
  return out;
}
