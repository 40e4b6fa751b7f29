import { dateOfDay, dayNumber, type WallTime } from './calendar.js';

const MINUTE_MS = 60_000;
const DAY_MS = 86_400_000;
const formatters = new Map<string, Intl.DateTimeFormat>();

function formatterFor(zone: string): Intl.DateTimeFormat {
  let formatter = formatters.get(zone);
  if (formatter === undefined) {
    formatter = new Intl.DateTimeFormat('en-CA', {
      timeZone: zone,
      hourCycle: 'h23',
      year: 'numeric',
      month: '2-digit',
      day: '2-digit',
      hour: '2-digit',
      minute: '2-digit',
      second: '2-digit',
    });
    formatters.set(zone, formatter); // a cache of a pure function, one entry a zone
  }
  return formatter;
}

/** True for a name of the IANA time zone database, as far as this runtime knows it. */
export function isZone(zone: string): boolean {
  if (!/^(?:UTC|[A-Za-z_]+(?:\/[A-Za-z0-9_+-]+)+)$/.test(zone)) return false;
  try {
    formatterFor(zone);
    return true;
  } catch {
    return false;
  }
}

/** What the zone is ahead of UTC at an instant, in ms (negative west of Greenwich). @throws RangeError for no zone */
export function zoneOffsetMs(zone: string, atMs: number): number {
  const parts: Record<string, number> = {};
  for (const { type, value } of formatterFor(zone).formatToParts(atMs)) if (type !== 'literal') parts[type] = Number(value);
  const wallMs = Date.UTC(parts['year']!, parts['month']! - 1, parts['day'], parts['hour'], parts['minute'], parts['second']);
  return wallMs - Math.floor(atMs / 1_000) * 1_000;
}

/** What the wall of a zone shows at an instant. */
export function wallTimeAt(zone: string, atMs: number): WallTime {
  const wallMs = atMs + zoneOffsetMs(zone, atMs);
  const day = Math.floor(wallMs / DAY_MS);
  return { date: dateOfDay(day), minute: Math.floor((wallMs - day * DAY_MS) / MINUTE_MS) };
}

const dayOffsets = new Map<string, Map<number, number>>();

/** `zoneOffsetMs` at the beginning of a day of UTC. */
function offsetOfDay(zone: string, day: number): number {
  let known = dayOffsets.get(zone);
  if (known === undefined) dayOffsets.set(zone, (known = new Map()));
  let offset = known.get(day);
  if (offset === undefined) {
    offset = zoneOffsetMs(zone, day * DAY_MS);
    known.set(day, offset); // a cache of a pure function, one entry a day that is asked about
  }
  return offset;
}

interface ResolvedWallTime {
  readonly atMs: number;
  /**
   * `exact`: the wall shows this time once. `repeated`: it shows it twice (clocks went back); the first is meant.
   * `skipped`: it never does (clocks went forward); the instant is as much later as the clocks were set.
   */
  readonly kind: 'exact' | 'repeated' | 'skipped';
}

/**
 * The instant of a wall time in a zone. RFC 5545, section 3.3.5: a time that occurs twice means the first; a time that
 * does not occur is read with the offset before the gap (2:30 becomes 3:30 where clocks go from 2 to 3).
 */
export function instantOf(zone: string, wall: WallTime): ResolvedWallTime {
  const day = dayNumber(wall.date);
  const wallMs = day * DAY_MS + wall.minute * MINUTE_MS;
  // Offsets a day before and after hold on either side of any change near this time; zones change at most once in three days.
  const before = offsetOfDay(zone, day - 1);
  const after = offsetOfDay(zone, day + 2);
  const early = wallMs - before;
  if (before === after) return { atMs: early, kind: 'exact' };
  const late = wallMs - after;
  const earlyHolds = zoneOffsetMs(zone, early) === before;
  const lateHolds = zoneOffsetMs(zone, late) === after;
  if (earlyHolds && lateHolds) return { atMs: Math.min(early, late), kind: 'repeated' };
  if (earlyHolds) return { atMs: early, kind: 'exact' };
  if (lateHolds) return { atMs: late, kind: 'exact' };
  return { atMs: early, kind: 'skipped' };
}

/**
 * The instant of a posting window on a day. As `instantOf`, but a time that the clocks skip is moved to the end of what
 * they skip: 2:30 is 3:00 where they go from 2 to 3.
 */
export function slotInstant(zone: string, wall: WallTime): ResolvedWallTime {
  const found = instantOf(zone, wall);
  if (found.kind !== 'skipped') return found;
  // `found` lies behind the change by what the wall time lies behind the beginning of the gap.
  const after = zoneOffsetMs(zone, found.atMs);
  let early = found.atMs - DAY_MS;
  let late = found.atMs;
  while (late - early > MINUTE_MS) {
    const middle = Math.floor((early + late) / 2 / MINUTE_MS) * MINUTE_MS;
    if (middle <= early) break;
    if (zoneOffsetMs(zone, middle) === after) late = middle;
    else early = middle;
  }
  return { atMs: late, kind: 'skipped' };
}
