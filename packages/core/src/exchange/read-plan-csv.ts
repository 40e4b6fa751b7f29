import Papa from 'papaparse';
import { type CalendarDate, dayNumber } from '../plan/calendar.js';

/** A post of a plan that was made elsewhere, in the words of its file. */
export interface PlanLine {
  /** In the file, from 1; the first of several that a quoted cell runs over. */
  readonly line: number;
  /** Empty where the file does not say. */
  readonly client: string;
  readonly channel: string;
  readonly date: CalendarDate;
  /** After midnight, on the channel's wall. */
  readonly minute: number;
  readonly title: string;
  /** Empty where the file does not say. */
  readonly recording: string;
}

/** Why a line of a plan cannot be used. */
export interface RefusedLine {
  readonly line: number;
  readonly field: string;
  readonly detail: string;
}

/** A file is no plan at all; nothing of it is used. */
export class PlanFileRefusedError extends Error {
  override readonly name = 'PlanFileRefusedError';
  constructor(
    readonly line: number,
    readonly field: string,
    detail: string,
  ) {
    super(`line ${line}, ${field}: ${detail}`);
  }
}

const NEEDED = ['channel', 'date', 'time', 'title'] as const;
const MOST_LINES = 1_000;
const TIME = /^(\d{1,2}):(\d{2})(?::00)?$/;

/** What parts the cells, by the line that names the columns: what stands below may be anything. A comma, or what spreadsheets write elsewhere. */
function delimiterOf(text: string): string {
  const [head = ''] = text.split(/[\r\n]/, 1);
  const count = (mark: string): number => head.split(mark).length;
  return [',', ';', '\t'].reduce((best, mark) => (count(mark) > count(best) ? mark : best));
}

/**
 * Reads a posting plan: CSV (RFC 4180) with the columns channel, date (YYYY-MM-DD), time (HH:MM on the channel's wall) and
 * title, and where there are any client and recording, in any order; others are left alone. What `planCsv` writes is read back.
 * @throws PlanFileRefusedError where a column is missing, or the file is too long
 */
export function readPlanCsv(text: string): { readonly lines: readonly PlanLine[]; readonly refused: readonly RefusedLine[] } {
  const plain = text.replace(/^\uFEFF/, '');
  const { data } = Papa.parse<string[]>(plain, { skipEmptyLines: false, delimiter: delimiterOf(plain) });
  const header = (data[0] ?? []).map((cell) => cell.trim().toLowerCase());
  for (const name of NEEDED)
    if (!header.includes(name))
      throw new PlanFileRefusedError(1, name, `the column is missing; a plan has the columns ${NEEDED.join(', ')}, and may have client and recording`);
  const [lines, refused]: [PlanLine[], RefusedLine[]] = [[], []];
  let line = 1 + newlines(data[0]!) + 1;
  for (const cells of data.slice(1)) {
    const at = line;
    line += newlines(cells) + 1;
    if (cells.every((cell) => cell.trim() === '')) continue;
    if (lines.length + refused.length >= MOST_LINES) throw new PlanFileRefusedError(at, 'title', `a plan is read with at most ${MOST_LINES} lines`);
    // The apostrophe that keeps a spreadsheet from running a text comes back with our own files: see writeCsv.
    const cell = (name: string): string => (cells[header.indexOf(name)] ?? '').trim().replace(/^'(?=[=+\-@])/, '');
    const minute = minuteOf(cell('time'));
    const refuse = (field: string, detail: string): number => refused.push({ line: at, field, detail });
    if (cell('channel') === '') refuse('channel', 'the channel is missing');
    else if (!isDay(cell('date'))) refuse('date', `expected a day, YYYY-MM-DD, found “${cell('date')}”`);
    else if (minute === null) refuse('time', `expected a time, HH:MM, found “${cell('time')}”`);
    else if (cell('title') === '') refuse('title', 'the title is missing');
    else
      lines.push({
        line: at,
        client: cell('client'),
        channel: cell('channel'),
        date: cell('date'),
        minute,
        title: cell('title'),
        recording: cell('recording'),
      });
  }
  return { lines, refused };
}

const newlines = (cells: readonly string[]): number => cells.reduce((sum, cell) => sum + (cell.match(/\r\n|\r|\n/g)?.length ?? 0), 0);

function minuteOf(text: string): number | null {
  const [, hours, minutes] = TIME.exec(text) ?? [];
  const minute = Number(hours) * 60 + Number(minutes);
  return hours !== undefined && Number(minutes) < 60 && minute < 1_440 ? minute : null;
}

function isDay(text: string): boolean {
  try {
    return Number.isFinite(dayNumber(text));
  } catch {
    return false;
  }
}
