/** Pitches that are looked for: from a low man's voice to a child's, in Hz. */
export const LOWEST_HZ = 60;
export const HIGHEST_HZ = 500;

/** A period counts as one when what is left between it and the next is below this; the paper uses 0.1 to 0.15. */
const THRESHOLD = 0.15;

/** Samples that one look at the pitch reads, at a rate. */
export const pitchWindow = (rate: number): { window: number; longest: number } => ({
  window: Math.round(0.032 * rate),
  longest: Math.ceil(rate / LOWEST_HZ) + 1,
});

/**
 * Pitch of a voice by YIN (de Cheveigné & Kawahara 2002, steps 1 to 5): difference function, divided by its running mean,
 * the first dip below a threshold, refined by a parabola.
 * @param samples at any scale, @param from where to look; `window + longest` samples from there are read
 * @param rate samples a second
 * @returns Hz, `LOWEST_HZ` to `HIGHEST_HZ`, or 0 where nothing is voiced
 */
export function pitchAt(samples: Float32Array, from: number, rate: number): number {
  const { window, longest } = pitchWindow(rate);
  const shortest = Math.floor(rate / HIGHEST_HZ);
  const relative = new Float64Array(longest + 1).fill(1);
  let running = 0;
  for (let lag = 1; lag <= longest; lag += 1) {
    const difference = differenceAt(samples, from, window, lag);
    running += difference;
    relative[lag] = running === 0 ? 1 : (difference * lag) / running;
    const before = lag - 1;
    // Once past a dip, what comes later is a multiple of the period.
    if (before > shortest && relative[before]! < THRESHOLD && relative[lag]! >= relative[before]!) return rate / refine(relative, before);
  }
  return 0;
}

function differenceAt(samples: Float32Array, from: number, window: number, lag: number): number {
  let sum = 0;
  for (let i = from, end = from + window; i < end; i += 1) {
    const difference = samples[i]! - samples[i + lag]!;
    sum += difference * difference;
  }
  return sum;
}

/** The bottom of the parabola through a dip and its neighbours. */
function refine(values: Float64Array, at: number): number {
  const [left, middle, right] = [values[at - 1]!, values[at]!, values[at + 1]!];
  const bend = left - 2 * middle + right;
  return bend <= 0 ? at : at + (left - right) / (2 * bend);
}
