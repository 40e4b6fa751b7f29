import fc from 'fast-check';
import { DateTime } from 'luxon';
import { describe, expect, it } from 'vitest';
import { addDays, dateOfDay, dayNumber, daysBetween, formatDay, mondayOf, weekdayOf } from './calendar.js';
import { instantOf, isZone, wallTimeAt, zoneOffsetMs } from './zone.js';

const at = (zone: string, date: string, clock: string): ReturnType<typeof instantOf> =>
  instantOf(zone, { date, minute: Number(clock.slice(0, 2)) * 60 + Number(clock.slice(3)) });
const iso = (ms: number): string => new Date(ms).toISOString().slice(0, 16);

describe('instantOf: the published rules of zones, IANA time zone database (rules from memory)', () => {
  // EU: last Sunday of March and of October, at 01:00 UTC.
  it('Europe/Dublin, 29 March 2026: 01:30 does not exist', () =>
    expect(at('Europe/Dublin', '2026-03-29', '01:30')).toEqual({ atMs: Date.UTC(2026, 2, 29, 1, 30), kind: 'skipped' }));
  it('Europe/Dublin, 25 October 2026: 01:30 exists twice, the first is meant', () =>
    expect(at('Europe/Dublin', '2026-10-25', '01:30')).toEqual({ atMs: Date.UTC(2026, 9, 25, 0, 30), kind: 'repeated' }));
  // US and Canada: second Sunday of March, first Sunday of November, at 02:00 wall time.
  it('America/Halifax, 8 March 2026: 02:30 is read with the offset before the gap (RFC 5545, 3.3.5)', () => {
    const { atMs, kind } = at('America/Halifax', '2026-03-08', '02:30');
    expect([iso(atMs), kind, wallTimeAt('America/Halifax', atMs)]).toEqual(['2026-03-08T06:30', 'skipped', { date: '2026-03-08', minute: 210 }]);
  });
  it('America/Halifax, 1 November 2026: 01:30 exists twice', () => {
    const { atMs, kind } = at('America/Halifax', '2026-11-01', '01:30');
    expect([iso(atMs), kind]).toEqual(['2026-11-01T04:30', 'repeated']);
  });
  it('America/New_York: RFC 5545’s own example, 4 November 2007 01:30 is the first, in EDT', () =>
    expect(iso(at('America/New_York', '2007-11-04', '01:30').atMs)).toBe('2007-11-04T05:30'));
  // South Australia: first Sunday of October forward at 02:00, first Sunday of April back at 03:00, half an hour off the hour.
  it('Australia/Adelaide, 4 October 2026: 02:15 does not exist', () =>
    expect([iso(at('Australia/Adelaide', '2026-10-04', '02:15').atMs), at('Australia/Adelaide', '2026-10-04', '02:15').kind]).toEqual([
      '2026-10-03T16:45',
      'skipped',
    ]));
  it('Australia/Adelaide, 5 April 2026: 02:30 exists twice', () =>
    expect([iso(at('Australia/Adelaide', '2026-04-05', '02:30').atMs), at('Australia/Adelaide', '2026-04-05', '02:30').kind]).toEqual([
      '2026-04-04T16:00',
      'repeated',
    ]));
  // Lord Howe Island moves its clocks by half an hour only.
  it('Australia/Lord_Howe, 4 October 2026: only 02:00 to 02:30 is skipped', () => {
    expect(at('Australia/Lord_Howe', '2026-10-04', '02:15').kind).toBe('skipped');
    expect(at('Australia/Lord_Howe', '2026-10-04', '02:45').kind).toBe('exact');
  });
  it('Asia/Kathmandu is 5 h 45 min ahead, all year', () => expect(zoneOffsetMs('Asia/Kathmandu', Date.UTC(2026, 0, 1))).toBe(20_700_000));
  it('Pacific/Apia skipped the whole of 30 December 2011', () => expect(at('Pacific/Apia', '2011-12-30', '12:00').kind).toBe('skipped'));
});

describe('instantOf against luxon, over random days and zones', () => {
  const zones = fc.constantFrom(
    'Europe/Dublin',
    'America/Halifax',
    'America/St_Johns',
    'Australia/Adelaide',
    'Australia/Perth',
    'America/Sao_Paulo',
    'Asia/Kolkata',
    'Africa/Casablanca',
    'UTC',
  );
  it('gives the instant luxon gives wherever the wall time exists once', () => {
    fc.assert(
      fc.property(zones, fc.integer({ min: 16_800, max: 22_500 }), fc.integer({ min: 0, max: 1_439 }), (zone, day, minute) => {
        const date = dateOfDay(day);
        const { atMs, kind } = instantOf(zone, { date, minute });
        const [year, month, dayOfMonth] = date.split('-').map(Number);
        if (kind === 'exact')
          expect(atMs).toBe(
            DateTime.fromObject({ year: year!, month: month!, day: dayOfMonth!, hour: Math.floor(minute / 60), minute: minute % 60 }, { zone }).toMillis(),
          );
        if (kind !== 'skipped') expect(wallTimeAt(zone, atMs)).toEqual({ date, minute });
      }),
      { numRuns: 400 },
    );
  });
});

describe('calendar', () => {
  it.each([
    ['2024-02-29', 4],
    ['2026-11-24', 2],
    ['1970-01-01', 4],
    ['2000-01-01', 6],
    ['1969-12-28', 7],
  ])('%s is ISO weekday %d', (date, weekday) => expect(weekdayOf(date)).toBe(weekday));
  it('agrees with luxon on weekdays and weeks', () => {
    fc.assert(
      fc.property(fc.integer({ min: -20_000, max: 60_000 }), (day) => {
        const date = dateOfDay(day);
        const luxon = DateTime.fromISO(date, { zone: 'UTC' });
        expect([weekdayOf(date), mondayOf(date)]).toEqual([luxon.weekday, luxon.startOf('week').toISODate()]);
      }),
    );
  });
  it('walks over the end of a year', () => expect(daysBetween('2026-12-30', '2027-01-02')).toEqual(['2026-12-30', '2026-12-31', '2027-01-01', '2027-01-02']));
  it('shows a day', () => expect(formatDay('2026-05-07')).toBe('Thu 7 May'));
  it.each(['2026-02-29', '2026-13-01', '26-01-01', 'soon'])('refuses %s', (date) => expect(() => dayNumber(date)).toThrow(RangeError));
  it('adds days', () => expect(addDays('2026-02-27', 2)).toBe('2026-03-01'));
});

describe('isZone', () => {
  it.each([
    ['Europe/Dublin', true],
    ['America/Argentina/Ushuaia', true],
    ['UTC', true],
    ['Europe/Atlantis', false],
    ['+01:00', false],
    ['', false],
  ])('%s', (zone, known) => expect(isZone(zone)).toBe(known));
});
