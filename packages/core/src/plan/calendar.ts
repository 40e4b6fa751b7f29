/** A day of the calendar, `YYYY-MM-DD`, in no zone. */
export type CalendarDate = string;

/** A time on the wall of some zone: a day and minutes after midnight, 0 to 1439. Not an instant: see `zone.ts`. */
export interface WallTime {
  readonly date: CalendarDate;
  readonly minute: number;
}

const DAY_MS = 86_400_000;
const DATE = /^(\d{4})-(\d{2})-(\d{2})$/;

/** Days since 1970-01-01. @throws RangeError for text that is no day of the Gregorian calendar */
export function dayNumber(date: CalendarDate): number {
  const match = DATE.exec(date);
  const ms = match === null ? NaN : Date.UTC(Number(match[1]), Number(match[2]) - 1, Number(match[3]));
  if (Number.isNaN(ms) || new Date(ms).toISOString().slice(0, 10) !== date) throw new RangeError(`“${date}” is no calendar day; expected YYYY-MM-DD`);
  return ms / DAY_MS;
}

export function dateOfDay(day: number): CalendarDate {
  return new Date(day * DAY_MS).toISOString().slice(0, 10);
}

export function addDays(date: CalendarDate, days: number): CalendarDate {
  return dateOfDay(dayNumber(date) + days);
}

/** ISO 8601 weekday: Monday 1 to Sunday 7. */
export function weekdayOf(date: CalendarDate): number {
  return ((((dayNumber(date) + 3) % 7) + 7) % 7) + 1; // 1970-01-01 was a Thursday
}

/** Monday of the week the day lies in. */
export function mondayOf(date: CalendarDate): CalendarDate {
  return addDays(date, 1 - weekdayOf(date));
}

/** Days from `from` to `to`, both inside. */
export function daysBetween(from: CalendarDate, to: CalendarDate): CalendarDate[] {
  const first = dayNumber(from);
  const last = dayNumber(to);
  return Array.from({ length: Math.max(0, last - first + 1) }, (_, i) => dateOfDay(first + i));
}

const WEEKDAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];
const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

export function weekdayName(weekday: number): string {
  return WEEKDAYS[weekday - 1] ?? '';
}

/** "Thu 7 May" */
export function formatDay(date: CalendarDate): string {
  const [, month, day] = date.split('-').map(Number);
  return `${weekdayName(weekdayOf(date)).slice(0, 3)} ${day} ${MONTHS[month! - 1]!}`;
}

/** "07:30" */
export function formatMinute(minute: number): string {
  return `${String(Math.floor(minute / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`;
}
