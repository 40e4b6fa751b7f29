/** How a time is written: `clock` 27:03 or 1:27:03, `tenths` 27:03.2, `vtt` 00:27:03.200, `srt` 00:27:03,200. */
type TimecodeStyle = 'clock' | 'tenths' | 'vtt' | 'srt';

const pad = (value: number, width = 2): string => String(value).padStart(width, '0');

/**
 * Writes a time of the recording. Clock styles cut off (never round up), so a shown time is never after the moment.
 * @param ms integer milliseconds >= 0
 * @example formatTimecode(1_623_240, 'tenths') // '27:03.2'
 */
export function formatTimecode(ms: number, style: TimecodeStyle = 'clock'): string {
  const whole = Math.max(0, Math.floor(ms));
  const hours = Math.floor(whole / 3_600_000);
  const minutes = Math.floor(whole / 60_000) % 60;
  const seconds = Math.floor(whole / 1_000) % 60;
  const millis = whole % 1_000;
  if (style === 'vtt' || style === 'srt') {
    return `${pad(hours)}:${pad(minutes)}:${pad(seconds)}${style === 'vtt' ? '.' : ','}${pad(millis, 3)}`;
  }
  const head = hours > 0 ? `${hours}:${pad(minutes)}` : pad(minutes);
  const tail = style === 'tenths' ? `.${Math.floor(millis / 100)}` : '';
  return `${head}:${pad(seconds)}${tail}`;
}

/**
 * Writes a length, rounded to the nearest second: 0:44, 3:05, 1:02:09.
 * @example formatLength(44_300) // '0:44'
 */
export function formatLength(ms: number): string {
  const total = Math.round(Math.max(0, ms) / 1_000);
  const hours = Math.floor(total / 3_600);
  const minutes = Math.floor(total / 60) % 60;
  return hours > 0 ? `${hours}:${pad(minutes)}:${pad(total % 60)}` : `${minutes}:${pad(total % 60)}`;
}

const CLOCK = /^(?:(\d{1,3}):)?(\d{1,4}):([0-5]?\d)(?:[.,](\d{1,3}))?$/;
const SECONDS = /^\d{1,7}(?:\.\d{1,3})?$/;

/**
 * Reads a time a person typed: `mm:ss`, `h:mm:ss`, either with a fraction, or plain seconds (`90`, `90.5`).
 * @returns integer ms, or null when the text is none of these
 * @example parseClock('1:02:03.5') // 3_723_500
 */
export function parseClock(text: string): number | null {
  const trimmed = text.trim();
  if (SECONDS.test(trimmed)) return Math.round(Number(trimmed) * 1_000);
  const match = CLOCK.exec(trimmed);
  if (match === null) return null;
  const [, hours, minutes, seconds, fraction] = match;
  if (hours !== undefined && Number(minutes) > 59) return null;
  const millis = fraction === undefined ? 0 : Number(fraction.padEnd(3, '0'));
  return ((Number(hours ?? 0) * 60 + Number(minutes)) * 60 + Number(seconds)) * 1_000 + millis;
}
