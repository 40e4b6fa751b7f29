/** What times of a document are counted in. */
export interface TtmlClock {
  /** Frames in a second, with the multiplier. */
  readonly frameRate: number;
  readonly tickRate: number;
}

const CLOCK = /^(\d{2,}):([0-5]\d):([0-5]\d|60)(?:\.(\d+)|:(\d{2,})(?:\.\d+)?)?$/;
const OFFSET = /^(\d+(?:\.\d+)?)(h|m|s|ms|f|t)$/;
const UNIT_MS = { h: 3_600_000, m: 60_000, s: 1_000, ms: 1 } as const;

/**
 * A time expression (W3C TTML2, 12.3.1): `hh:mm:ss`, with a fraction or frames, or a number with its metric.
 * @returns ms, or null where it is none
 */
export function ttmlTime(text: string, { frameRate, tickRate }: TtmlClock): number | null {
  const clock = CLOCK.exec(text);
  if (clock !== null) {
    const [, h, m, s, fraction, frames] = clock;
    const seconds = (Number(h) * 60 + Number(m)) * 60 + Number(s);
    if (frames !== undefined) return Number(frames) >= Math.ceil(frameRate) ? null : Math.round((seconds + Number(frames) / frameRate) * 1_000);
    return Math.round((seconds + Number(`0.${fraction ?? 0}`)) * 1_000);
  }
  const offset = OFFSET.exec(text);
  if (offset === null) return null;
  const [value, metric] = [Number(offset[1]), offset[2] as keyof typeof UNIT_MS | 'f' | 't'];
  if (metric === 'f') return Math.round((value / frameRate) * 1_000);
  return Math.round(metric === 't' ? (value / tickRate) * 1_000 : value * UNIT_MS[metric]);
}
