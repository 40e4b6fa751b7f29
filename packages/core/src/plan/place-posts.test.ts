import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays } from './calendar.js';
import { checkPlacement } from './check-placement.js';
import { fitTogether, type WishedPost } from './place-posts.js';
import { channel, plan, post, short } from './plan.fixture.js';
import type { PlannedPost } from './types.js';
import { instantOf } from './zone.js';

const MONDAY = '2026-05-04';
const wish = (shortId: string, n: number, channelId = 'c1'): WishedPost => ({ shortId, channelId, date: addDays(MONDAY, n), minute: 450 });
const codes = (...args: Parameters<typeof fitTogether>): (string | undefined)[] => fitTogether(...args).map((one) => one?.code);

describe('wishes of a plan that was made elsewhere', () => {
  const channels = [channel(), channel({ id: 'c2', name: 'Second', order: 2 })];
  const shorts = [short('a'), short('b', { recordingId: 'r2' }), short('c')];
  it('are taken where no rule speaks against them, the earlier first', () => {
    expect(codes(plan({ channels, shorts }), [wish('b', 1), wish('a', 0), wish('c', 0), wish('c', 1)])).toEqual([undefined, undefined, 'day-full', 'day-full']);
    expect(codes(plan({ channels, shorts }), [wish('c', 3), wish('b', 1), wish('a', 0)])).toEqual([undefined, undefined, undefined]);
    expect(codes(plan({ channels, shorts }), [wish('a', 0), wish('c', 3)])).toEqual([undefined, 'same-recording']);
  });
  it('wait for a short’s first channel, wherever in the list that is', () =>
    expect(codes(plan({ channels, shorts }), [wish('a', 1, 'c2'), wish('a', 0)])).toEqual([undefined, undefined]));
  it('stand beside what stands', () =>
    expect(codes(plan({ channels, shorts, posts: [post({ date: MONDAY })] }), [wish('a', 0), wish('a', 1)])).toEqual(['day-full', undefined]));
  it('for what is not there are refused', () => expect(codes(plan({ channels, shorts }), [wish('z', 0), wish('a', 0, 'z')])).toEqual(['no-slot', 'no-slot']));
  it('leave a plan without a broken rule, whatever is wished', () => {
    const anyWish = fc.record({ shortId: fc.constantFrom('a', 'b', 'c'), channelId: fc.constantFrom('c1', 'c2'), n: fc.integer({ min: 0, max: 9 }) });
    fc.assert(
      fc.property(fc.array(anyWish, { maxLength: 12 }), (any) => {
        const wishes = any.map(({ shortId, channelId, n }) => wish(shortId, n, channelId));
        const refusals = fitTogether(plan({ channels, shorts }), wishes);
        const posts = wishes.flatMap((one, n): PlannedPost[] =>
          refusals[n] === undefined
            ? [
                {
                  ...one,
                  id: `${n}`,
                  recordingId: shorts.find(({ id }) => id === one.shortId)!.recordingId,
                  atMs: instantOf('Europe/Dublin', one).atMs,
                  state: 'planned',
                },
              ]
            : [],
        );
        const after = plan({ channels, shorts, posts });
        const of = (one: WishedPost) => [shorts.find(({ id }) => id === one.shortId)!, channels.find(({ id }) => id === one.channelId)!] as const;
        for (const one of posts) expect(checkPlacement(after, ...of(one), one, one.id)).toEqual([]);
        wishes.forEach((one, n) => {
          if (refusals[n] !== undefined) expect(checkPlacement(after, ...of(one), one)).not.toEqual([]);
        });
      }),
      { numRuns: 300 },
    );
  });
});
