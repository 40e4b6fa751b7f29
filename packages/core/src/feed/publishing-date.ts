const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];
/** Hours from UTC of the zones that RFC 822, section 5.1, names. */
const ZONES: Readonly<Record<string, number>> = { UT: 0, GMT: 0, Z: 0, EST: -5, EDT: -4, CST: -6, CDT: -5, MST: -7, MDT: -6, PST: -8, PDT: -7 };
const DATE = /^(?:[a-z]{3,9}\s*,\s*)?(\d{1,2})\s+([a-z]{3})[a-z]*\.?\s+(\d{2}|\d{4})\s+(\d{1,2}):(\d{2})(?::(\d{2}))?\s*([a-z]{1,4}|[+-]\d{2}:?\d{2})?$/i;

/**
 * Reads a day and time as RSS 2.0 has it: RFC 822 with years of two or four digits (those of two as RFC 5322, section 4.3, has them).
 * A zone that is not there, or that nobody defined, is UTC (RFC 5322, section 4.3: "-0000").
 * @returns ms since 1970, or null for what is no such day
 */
export function publishingDate(text: string): number | null {
  const [, day = '', month = '', years = '', hour = '', minute = '', second = '0', zone = ''] = DATE.exec(text.trim().replace(/\s+/g, ' ')) ?? [];
  const at = MONTHS.indexOf(month.toLowerCase());
  if (at < 0 || Number(hour) > 23 || Number(minute) > 59 || Number(second) > 60) return null;
  const written = Number(years);
  const year = years.length === 4 ? written : written + (written < 50 ? 2_000 : 1_900);
  const midnight = new Date(Date.UTC(year, at, Number(day)));
  if (midnight.getUTCDate() !== Number(day)) return null; // the 31st of a shorter month
  const offset = offsetMinutes(zone);
  if (offset === null) return null;
  return midnight.getTime() + ((Number(hour) * 60 + Number(minute) - offset) * 60 + Number(second)) * 1_000;
}

function offsetMinutes(zone: string): number | null {
  const [, sign, hours, minutes] = /^([+-])(\d{2}):?(\d{2})$/.exec(zone) ?? [];
  if (sign === undefined) return (ZONES[zone.toUpperCase()] ?? 0) * 60;
  const size = Number(hours) * 60 + Number(minutes);
  return Number(minutes) > 59 || size > 14 * 60 ? null : sign === '-' ? -size : size;
}

/** No talk is longer; a length beyond is a slip, such as one in milliseconds. */
const LONGEST_MS = 500 * 3_600_000;

/** A length as feeds write it: seconds, `mm:ss` or `hh:mm:ss`, with or without a fraction. @returns ms, or null */
export function feedLength(text: string): number | null {
  const [, hours = '0', minutes = '0', seconds = ''] = /^(?:(?:(\d{1,3}):)?(\d{1,3}):)?(\d{1,7}(?:\.\d{1,6})?)$/.exec(text.trim()) ?? [];
  if (seconds === '') return null;
  const ms = Math.round(((Number(hours) * 60 + Number(minutes)) * 60 + Number(seconds)) * 1_000);
  return ms > 0 && ms <= LONGEST_MS ? ms : null;
}
