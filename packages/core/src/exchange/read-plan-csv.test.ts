import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type PlanRow, planCsv } from './plan-files.js';
import { PlanFileRefusedError, readPlanCsv } from './read-plan-csv.js';

const refusalOf = (text: string): unknown => {
  try {
    readPlanCsv(text);
  } catch (error) {
    return error;
  }
  return null;
};

describe('a plan that was made elsewhere', () => {
  it('is read by its columns, in any order, with or without the rest', () => {
    const text = 'Title,Time,notes,Date,CHANNEL\r\nNo rope at all,7:30,x,2030-03-04,Tern clips\r\n"A, b",18:05,,2030-03-05,Second\r\n';
    expect(readPlanCsv(text)).toEqual({
      lines: [
        { line: 2, client: '', channel: 'Tern clips', date: '2030-03-04', minute: 450, title: 'No rope at all', recording: '' },
        { line: 3, client: '', channel: 'Second', date: '2030-03-05', minute: 1_085, title: 'A, b', recording: '' },
      ],
      refused: [],
    });
  });
  it('says the line and the field of what it cannot use, and reads the rest', () => {
    const text =
      'channel,date,time,title,notes\nA,2030-02-30,07:30,t,"over\ntwo lines"\nA,2030-03-04,25:00,t\n\n,2030-03-04,07:30,t\nA,2030-03-04,07:60,t\nA,2030-03-04,07:30,\nA,2030-03-04,07:30,t';
    const { lines, refused } = readPlanCsv(text);
    expect(lines.map(({ line }) => line)).toEqual([9]);
    expect(refused.map(({ line, field }) => [line, field])).toEqual([
      [2, 'date'],
      [4, 'time'],
      [6, 'channel'],
      [7, 'time'],
      [8, 'title'],
    ]);
  });
  it('is refused whole where a column is missing, or it is too long', () => {
    expect(refusalOf('channel,date,title\n')).toMatchObject({ name: 'PlanFileRefusedError', line: 1, field: 'time' });
    expect(refusalOf('')).toBeInstanceOf(PlanFileRefusedError);
    expect(refusalOf(`channel,date,time,title\n${'A,2030-03-04,07:30,t\n'.repeat(1_001)}`)).toMatchObject({ line: 1_002 });
  });
  it('is parted by what parts its columns, whatever stands in its lines', () => {
    for (const mark of [',', ';', '\t']) {
      const text = [
        ['channel', 'date', 'time', 'title'],
        ['a|b|c', '2026-03-02', '07:30', '(|)'],
      ]
        .map((cells) => cells.join(mark))
        .join('\n');
      expect(readPlanCsv(text).lines).toMatchObject([{ channel: 'a|b|c', title: '(|)' }]);
    }
  });
  it('comes back from our own file as it went', () => {
    const anyText = fc
      .string({ minLength: 1, maxLength: 20 })
      .map((text) => text.trim())
      .filter((text) => text !== '' && !text.startsWith("'"));
    const anyRow = fc.record({
      client: anyText,
      channel: anyText,
      title: anyText,
      recording: anyText,
      minute: fc.integer({ min: 0, max: 1_439 }),
      day: fc.integer({ min: 10, max: 28 }),
    });
    fc.assert(
      fc.property(fc.array(anyRow, { maxLength: 5 }), (any) => {
        const rows = any.map(({ day, ...fields }, i): PlanRow => ({
          ...{
            postId: `${i}`,
            platform: 'Loopline',
            zone: 'UTC',
            date: `2030-03-${day}`,
            atMs: i,
            state: 'planned',
            description: 'a\nb',
            hashtags: ['x'],
            lengthMs: 1_000,
            score: 5,
          },
          ...fields,
        }));
        const { lines, refused } = readPlanCsv(planCsv(rows));
        expect(refused).toEqual([]);
        expect(lines.map(({ line: _, ...one }) => one)).toEqual(
          rows.map(({ client, channel, date, minute, title, recording }) => ({ client, channel, date, minute, title, recording })),
        );
        expect(lines.map(({ line }) => line)).toEqual(rows.map((_, i) => 2 + 2 * i));
      }),
    );
  });
});
