import { parse } from 'csv-parse/sync';
import fc from 'fast-check';
import ICAL from 'ical.js';
import { describe, expect, it } from 'vitest';
import { writeCsv } from './csv.js';
import { cutSheetCells, edgeWords } from './cut-sheet.js';
import { fileName } from './file-name.js';
import { planCalendar, planCsv, type PlanRow } from './plan-files.js';

describe('writeCsv: RFC 4180', () => {
  it('quotes what section 2 says to quote (rules 5 to 7), and ends lines with CRLF (rule 1)', () => {
    expect(
      writeCsv(
        ['aaa', 'b,b'],
        [
          ['x "y" z', 'two\r\nlines'],
          [5, null],
        ],
      ),
    ).toBe('\uFEFFaaa,"b,b"\r\n"x ""y"" z","two\r\nlines"\r\n5,\r\n');
  });
  it('quotes a cell with a character at which some spreadsheets divide, so that no formula begins inside it', () => {
    expect(
      writeCsv(
        ['a', 'b'],
        [
          ['x;=1+1', 'y\t=2'],
          ['z|@s', 'plain'],
        ],
      ),
    ).toBe('\uFEFFa,b\r\n"x;=1+1","y\t=2"\r\n"z|@s",plain\r\n');
  });
  it('is read back whole by a reference parser', () => {
    const cell = fc.string({ maxLength: 20 }).filter((text) => !/^[=+\-@\t\r]/.test(text));
    fc.assert(
      fc.property(fc.array(fc.tuple(cell, cell), { minLength: 1, maxLength: 8 }), (rows) => {
        const read = parse(writeCsv(['a', 'b'], rows), { bom: true, record_delimiter: '\r\n', relax_column_count: true }) as string[][];
        expect(read).toEqual([['a', 'b'], ...rows]);
      }),
    );
  });
  it.each(['=1+1', '@x', '+1', '-1', '\tx'])('takes the sting out of %j', (text) => expect(writeCsv(['a'], [[text]])).toContain(`'${text}`));
});

describe('fileName', () => {
  it.each([
    [['Harbour Bread', 'plan', '4 May'], 'Harbour Bread - plan - 4 May.csv'],
    [['../../etc/passwd'], 'etc passwd.csv'],
    [['con'], 'sift-reel con.csv'],
    [['a:b*c?"<>|'], 'a b c.csv'],
    [['...'], 'sift-reel.csv'],
    [['Zażółć'], 'Zażółć.csv'],
    [['x'.repeat(300)], `${'x'.repeat(120)}.csv`],
    [['a\u0000b\u202Ec'], 'abc.csv'],
  ])('%j', (parts, name) => expect(fileName(parts, 'csv')).toBe(name));
});

const ROW: PlanRow = {
  postId: '11111111-1111-4111-8111-111111111111',
  client: 'Harbour Bread',
  channel: 'Loopline',
  platform: 'Loopline',
  zone: 'Europe/Dublin',
  date: '2026-10-25',
  minute: 450,
  atMs: Date.UTC(2026, 9, 25, 7, 30),
  state: 'planned',
  recording: 'No. 3',
  title: 'Crust; crumb, and \\ patience',
  description: 'Line one\nline two, with a comma; and a very long tail that goes on and on so that the line must be folded somewhere along the way – surely',
  hashtags: ['bread', 'crust'],
  lengthMs: 44_000,
  score: 71.4,
};

describe('planCalendar: RFC 5545', () => {
  const text = planCalendar([ROW, { ...ROW, postId: '2', atMs: ROW.atMs + 86_400_000 }], 'Plan', Date.UTC(2026, 0, 1));
  it('is read back by ical.js with the same instants, texts and ids', () => {
    const component = new ICAL.Component(ICAL.parse(text));
    expect(component.getFirstPropertyValue('version')).toBe('2.0');
    const [first, second] = component.getAllSubcomponents('vevent').map((one) => new ICAL.Event(one));
    expect([first!.uid, first!.startDate.toJSDate().toISOString(), first!.summary]).toEqual([
      `${ROW.postId}@sift-reel.invalid`,
      '2026-10-25T07:30:00.000Z',
      `Loopline: ${ROW.title}`,
    ]);
    expect(first!.description.split('\n').slice(0, 3)).toEqual(['Line one', ROW.description.split('\n')[1], '#bread #crust']);
    expect(second!.startDate.compare(first!.startDate)).toBe(1);
  });
  it('folds lines at 75 octets and ends them with CRLF (section 3.1)', () => {
    expect(text).not.toMatch(/[^\r]\n/);
    for (const line of text.split('\r\n')) expect(new TextEncoder().encode(line).length).toBeLessThanOrEqual(75);
  });
  it('is the same for the same plan, so that a second import moves nothing', () =>
    expect(planCalendar([{ ...ROW, postId: '2', atMs: ROW.atMs + 86_400_000 }, ROW], 'Plan', Date.UTC(2026, 0, 1))).toBe(text));
});

describe('planCsv and cut sheet', () => {
  it('give a post a line, in order of time', () => {
    const rows = parse(planCsv([{ ...ROW, atMs: ROW.atMs + 1, title: 'later' }, ROW]), { bom: true, columns: true, record_delimiter: '\r\n' }) as Record<
      string,
      string
    >[];
    expect(rows.map((row) => [row['title'], row['instant (UTC)'], row['time'], row['hashtags']])).toEqual([
      [ROW.title, '2026-10-25T07:30:00.000Z', '07:30', '#bread #crust'],
      ['later', '2026-10-25T07:30:00.001Z', '07:30', '#bread #crust'],
    ]);
  });
  it('give an editor timecodes and edges', () => {
    expect(
      cutSheetCells({
        kind: 'story',
        startMs: 61_500,
        endMs: 100_000,
        playedMs: 38500,
        firstWords: 'a',
        lastWords: 'b',
        title: 't',
        description: '',
        keywords: ['x', 'y'],
        coverLine: '',
        reason: 'r',
      }).slice(0, 4),
    ).toEqual(['story', '00:01:01.500', '00:01:40.000', '0:39']);
    expect([edgeWords(['a', 'b', 'c'], 'first', 2), edgeWords(['a', 'b', 'c'], 'last', 2)]).toEqual(['a b', 'b c']);
  });
});
