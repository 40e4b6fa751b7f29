import ical, { ICalCalendarMethod } from 'ical-generator';
import { formatMinute } from '../plan/calendar.js';
import type { PostState } from '../plan/types.js';
import { formatLength } from '../time/timecode.js';
import { writeCsv } from './csv.js';

/** A post with everything that somebody who posts it by hand needs. */
export interface PlanRow {
  readonly postId: string;
  readonly client: string;
  readonly channel: string;
  readonly platform: string;
  readonly zone: string;
  readonly date: string;
  readonly minute: number;
  readonly atMs: number;
  readonly state: PostState;
  readonly recording: string;
  readonly title: string;
  readonly description: string;
  readonly hashtags: readonly string[];
  readonly lengthMs: number;
  readonly score: number;
}

const PLAN_HEADER = [
  'client',
  'channel',
  'platform',
  'date',
  'time',
  'time zone',
  'instant (UTC)',
  'state',
  'title',
  'description',
  'hashtags',
  'length',
  'sift score',
  'recording',
];

/** The plan as CSV, a post a line, in order of time. */
export function planCsv(rows: readonly PlanRow[]): string {
  const lines = [...rows]
    .sort((a, b) => a.atMs - b.atMs)
    .map((row) => [
      row.client,
      row.channel,
      row.platform,
      row.date,
      formatMinute(row.minute),
      row.zone,
      new Date(row.atMs).toISOString(),
      row.state,
      row.title,
      row.description,
      row.hashtags.map((tag) => `#${tag}`).join(' '),
      formatLength(row.lengthMs),
      Math.round(row.score),
      row.recording,
    ]);
  return writeCsv(PLAN_HEADER, lines);
}

const POST_TAKES_MS = 15 * 60_000;

/**
 * The plan as iCalendar (RFC 5545): an event a post, at its instant in UTC, with the copy in the description. The same
 * post keeps its UID, so that a second import moves it instead of doubling it.
 * @param stampMs when the file was made, for DTSTAMP
 * @param refreshS after how long a subscriber may ask again, for REFRESH-INTERVAL (RFC 7986, section 5.7); null for a file
 */
export function planCalendar(rows: readonly PlanRow[], name: string, stampMs: number, refreshS: number | null = null): string {
  const calendar = ical({
    name,
    ...(refreshS === null ? {} : { ttl: refreshS }),
    prodId: { company: 'Sift Reel', product: 'posting plan', language: 'EN' },
    method: ICalCalendarMethod.PUBLISH,
  });
  for (const row of [...rows].sort((a, b) => a.atMs - b.atMs)) {
    calendar.createEvent({
      id: `${row.postId}@sift-reel.invalid`,
      stamp: new Date(stampMs),
      start: new Date(row.atMs),
      end: new Date(row.atMs + POST_TAKES_MS),
      summary: `${row.channel}: ${row.title}`,
      description: [
        row.description,
        row.hashtags.map((tag) => `#${tag}`).join(' '),
        `${row.client} · ${row.platform} · ${row.date} ${formatMinute(row.minute)} ${row.zone} · ${row.state}`,
      ]
        .filter((line) => line !== '')
        .join('\n'),
    });
  }
  return calendar.toString();
}
