import { dayNumber } from '../calendar.js';
import { isZone } from '../zone.js';
import type { PlanProblem, ProblemChannel, ProblemPlatform, ProblemShort, StandingPost } from './problem.js';

/** A planning problem was refused. `field` says where, as `channels[2].windows[0].at`; empty for the whole. */
export class ProblemRefusedError extends Error {
  override readonly name = 'ProblemRefusedError';
  constructor(
    readonly field: string,
    readonly detail: string,
  ) {
    super(field === '' ? detail : `${field}: ${detail}`);
  }
}

const WEEKDAYS = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'];
const INSTANT = /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}(?::\d{2}(?:\.\d{1,9})?)?Z$/;
const LONGEST_DAYS = 732;

/** A value at its place in the file, read as what it must be. */
class Field {
  constructor(
    private readonly value: unknown,
    private readonly path: string,
  ) {}

  refuse(detail: string): never {
    throw new ProblemRefusedError(this.path, detail);
  }

  private expected(what: string): never {
    return this.refuse(this.value === undefined ? `is missing; expected ${what}` : `${shown(this.value)} is not ${what}`);
  }

  of(name: string): Field {
    if (typeof this.value !== 'object' || this.value === null || Array.isArray(this.value)) this.expected('an object');
    return new Field((this.value as Record<string, unknown>)[name], this.path === '' ? name : `${this.path}.${name}`);
  }

  list(): Field[] {
    if (!Array.isArray(this.value)) this.expected('a list');
    return (this.value as unknown[]).map((one, i) => new Field(one, `${this.path}[${i}]`));
  }

  get isNothing(): boolean {
    return this.value === null || this.value === undefined;
  }

  text(): string {
    if (typeof this.value !== 'string' || this.value === '') this.expected('a text of at least one character');
    return this.value as string;
  }

  number(what: string, holds: (value: number) => boolean): number {
    if (typeof this.value !== 'number' || !Number.isFinite(this.value) || !holds(this.value)) this.expected(what);
    return this.value as number;
  }

  from0(): number {
    return this.number('a number, 0 or more', (value) => value >= 0);
  }

  count(): number {
    return this.number('a whole number, 0 or more', (value) => value >= 0 && Number.isInteger(value));
  }

  day(): string {
    const text = typeof this.value === 'string' ? this.value : this.expected('a day, as 2026-03-23');
    try {
      dayNumber(text);
    } catch {
      this.expected('a day, as 2026-03-23');
    }
    return text;
  }

  instant(): number {
    const text = typeof this.value === 'string' && INSTANT.test(this.value) ? this.value : this.expected('an instant with Z, as 2026-03-23T07:30:00Z');
    const ms = Date.parse(text);
    if (Number.isNaN(ms) || new Date(ms).toISOString().slice(0, 10) !== text.slice(0, 10)) this.expected('an instant with Z, as 2026-03-23T07:30:00Z');
    return ms;
  }

  oneOf(known: ReadonlySet<string>, what: string): string {
    const text = this.text();
    return known.has(text) ? text : this.refuse(`there is no ${what} ${shown(text)}`);
  }
}

function shown(value: unknown): string {
  const text = JSON.stringify(value) ?? 'undefined';
  return text.length > 60 ? `${text.slice(0, 57)}…` : text;
}

/** The ids of a list's rows. @throws ProblemRefusedError where one comes twice */
function idsOf(rows: readonly Field[]): Set<string> {
  const ids = new Set<string>();
  for (const row of rows) {
    const id = row.of('id');
    if (ids.has(id.text())) id.refuse(`${shown(id.text())} is there twice`);
    ids.add(id.text());
  }
  return ids;
}

/**
 * A planning problem out of what a JSON file held: the form is in docs/guide.md. Fields that are not known are left alone.
 * @throws ProblemRefusedError with the field, at the first that cannot be used
 */
export function readProblem(json: unknown): PlanProblem {
  const whole = new Field(json, '');
  const from = whole.of('from').day();
  const to = whole.of('to').day();
  if (to < from) whole.of('to').refuse(`${to} is before the first day, ${from}`);
  if (dayNumber(to) - dayNumber(from) >= LONGEST_DAYS) whole.of('to').refuse(`${to} is more than ${LONGEST_DAYS} days from the first day, ${from}`);
  const platformRows = whole.of('platforms').list();
  const platformIds = idsOf(platformRows);
  const platforms = platformRows.map(readPlatform);
  const channelRows = whole.of('channels').list();
  const channelIds = idsOf(channelRows);
  const channels = channelRows.map((row) => readChannel(row, platformIds));
  requireOrders(channels, channelRows);
  const shortRows = whole.of('shorts').list();
  idsOf(shortRows);
  const posts = whole.of('posts').isNothing ? [] : whole.of('posts').list();
  const rules = whole.of('rules');
  return {
    nowMs: whole.of('now').instant(),
    from,
    to,
    platforms,
    channels,
    shorts: shortRows.map(readShort),
    posts: posts.map((row): StandingPost => ({
      short: row.of('short').text(),
      channel: row.of('channel').oneOf(channelIds, 'channel'),
      recording: row.of('recording').text(),
      atMs: row.of('at').instant(),
    })),
    rules: { crossPostHours: rules.of('crossPostHours').from0(), floor: rules.of('floor').from0() },
  };
}

function readPlatform(row: Field): ProblemPlatform {
  const minSeconds = row.of('minSeconds').from0();
  const maxSeconds = row.of('maxSeconds').from0();
  if (maxSeconds < minSeconds) row.of('maxSeconds').refuse(`${maxSeconds} is under minSeconds, ${minSeconds}`);
  return {
    id: row.of('id').text(),
    minSeconds,
    maxSeconds,
    shapes: row
      .of('shapes')
      .list()
      .map((one) => one.text()),
    perDay: row.of('perDay').count(),
  };
}

function readChannel(row: Field, platforms: ReadonlySet<string>): ProblemChannel {
  const zone = row.of('zone');
  if (!isZone(zone.text())) zone.refuse(`${shown(zone.text())} is no zone of the IANA time zone database`);
  const blackouts = row.of('blackouts').isNothing ? [] : row.of('blackouts').list();
  return {
    id: row.of('id').text(),
    client: row.of('client').text(),
    platform: row.of('platform').oneOf(platforms, 'platform'),
    zone: zone.text(),
    order: row.of('order').number('a number', () => true),
    perDay: row.of('perDay').count(),
    perWeek: row.of('perWeek').count(),
    gapMinutes: row.of('gapMinutes').from0(),
    windows: row
      .of('windows')
      .list()
      .map((window) => ({
        weekday: WEEKDAYS.indexOf(window.of('day').oneOf(new Set(WEEKDAYS), 'weekday')) + 1,
        minute: readMinute(window.of('at')),
        weight: window.of('weight').number('a number from 0 to 100', (value) => value >= 0 && value <= 100),
      })),
    blackouts: blackouts.map((one) => {
      const [from, to] = [one.of('from').day(), one.of('to').day()];
      if (to < from) one.of('to').refuse(`${to} is before ${from}`);
      return { from, to };
    }),
  };
}

function readMinute(field: Field): number {
  const match = /^([01]\d|2[0-3]):([0-5]\d)$/.exec(field.text());
  return match === null ? field.refuse(`${shown(field.text())} is not a time of day, as 07:30`) : Number(match[1]) * 60 + Number(match[2]);
}

function readShort(row: Field): ProblemShort {
  const instant = (field: Field): number | null => (field.isNothing ? null : field.instant());
  return {
    id: row.of('id').text(),
    client: row.of('client').text(),
    recording: row.of('recording').text(),
    score: row.of('score').from0(),
    seconds: row.of('seconds').from0(),
    shape: row.of('shape').text(),
    notBeforeMs: instant(row.of('notBefore')),
    notAfterMs: instant(row.of('notAfter')),
  };
}

/** Orders within a client differ: else no channel would be the first. */
function requireOrders(channels: readonly ProblemChannel[], rows: readonly Field[]): void {
  const seen = new Map<string, string>();
  channels.forEach(({ id, client, order }, i) => {
    const key = JSON.stringify([client, order]);
    const other = seen.get(key);
    if (other !== undefined) rows[i]!.of('order').refuse(`${order} is the order of ${shown(other)} too, another channel of ${shown(client)}`);
    seen.set(key, id);
  });
}
