import { describe, expect, it } from 'vitest';
import type { Plan } from '@sift-reel/core';
import { bestOpenSlot, dayOr, inBoardOrder, minutesOver } from './plan.js';

describe('the order of the board', () => {
  const channel = (id: string, clientId: string) => ({ id, clientId });
  it('is client by client by name, and within a client as it was', () => {
    const names = new Map([
      ['k1', 'Zinnia'],
      ['k2', 'Ardcree'],
    ]);
    const channels = [channel('a', 'k1'), channel('b', 'k2'), channel('c', 'k1'), channel('d', 'k2')];
    expect(inBoardOrder(channels, names).map(({ id }) => id)).toEqual(['b', 'd', 'a', 'c']);
    expect(channels.map(({ id }) => id)).toEqual(['a', 'b', 'c', 'd']);
  });
  it('keeps clients of one name apart', () => {
    const names = new Map([
      ['k1', 'Twin'],
      ['k2', 'Twin'],
    ]);
    expect(inBoardOrder([channel('a', 'k2'), channel('b', 'k1'), channel('c', 'k2')], names).map(({ id }) => id)).toEqual(['b', 'a', 'c']);
  });
});

describe('a day out of an address', () => {
  it.each(['x', '', '2030-02-30', '2030-13-01', '0000-01-01', '2030-1-1'])('that is none gives another: %j', (text) =>
    expect(dayOr(text, '2030-03-04')).toBe('2030-03-04'),
  );
  it('is taken where it is one', () => expect([dayOr('2030-02-28', 'other'), dayOr(null, 'other')]).toEqual(['2030-02-28', 'other']));
});

describe('the best open slot', () => {
  const window = (weekday: number, weight: number) => ({ weekday, minute: 450, weight });
  const channel = {
    id: 'c',
    name: 'Tern clips',
    zone: 'UTC',
    postsPerDay: 1,
    postsPerWeek: 2,
    windows: [window(2, 60), window(3, 90), window(4, 80)],
    blackouts: [],
    rules: { postsPerDay: 1, minGapMinutes: 0 },
  };
  const post = (date: string) => ({ id: date, channelId: 'c', shortId: 's', date, minute: 450, atMs: Date.parse(`${date}T07:30:00Z`) });
  // 4 March 2030 is a Monday.
  const best = (posts: object[]): string | null => {
    const plan = { channels: [channel], shorts: [], posts, nowMs: Date.parse('2030-03-04T09:00:00Z') } as unknown as Plan;
    return bestOpenSlot(plan, '2030-03-04', '2030-03-17')?.date ?? null;
  };
  it('is the strongest window that is free, the earliest of equals', () =>
    expect([best([]), best([post('2030-03-06')])]).toEqual(['2030-03-06', '2030-03-13']));
  it('is not in a week that is full', () => expect(best([post('2030-03-05'), post('2030-03-07')])).toBe('2030-03-13'));
  it('is none where all weeks are full', () => expect(best(['2030-03-05', '2030-03-07', '2030-03-12', '2030-03-14'].map(post))).toBeNull());
});

describe('how much of a day is over', () => {
  const now = Date.parse('2030-03-05T02:30:00Z');
  it('is told on the wall of the channel', () => {
    expect(minutesOver('UTC', now, '2030-03-05')).toBe(150);
    expect(minutesOver('America/Halifax', now, '2030-03-05')).toBe(-1); // there it is still the fourth
    expect([minutesOver('America/Halifax', now, '2030-03-04'), minutesOver('UTC', now, '2030-03-04')]).toEqual([22 * 60 + 30, 1_440]);
  });
});
