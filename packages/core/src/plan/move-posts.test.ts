import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays } from './calendar.js';
import { checkPlacement } from './check-placement.js';
import { checkMoves, checkTakeOff, movesByDays, movesThatFit, type PostMove } from './move-posts.js';
import { channel, plan, post, short } from './plan.fixture.js';
import type { Plan } from './types.js';
import { instantOf } from './zone.js';

const MONDAY = '2026-05-04';
const day = (n: number): string => addDays(MONDAY, n);
const to = (postId: string, date: string, channelId = 'c1', minute = 450): PostMove => ({ postId, channelId, date, minute });
/** A row of posts, each of its own short, by day and recording. */
const row = (...posts: [id: string, n: number, recordingId: string][]): Plan =>
  plan({
    shorts: posts.map(([id, , recordingId]) => short(`s-${id}`, { recordingId })),
    posts: posts.map(([id, n, recordingId]) => post({ id, shortId: `s-${id}`, recordingId, date: day(n) })),
  });
const codes = (on: Plan, ...moves: PostMove[]): [string, string][] => checkMoves(on, moves).map(({ postId, refusal }) => [postId, refusal.code]);

describe('one post that moves', () => {
  it('may not leave two posts of one recording side by side', () => {
    const on = row(['before', 0, 'r1'], ['own', 1, 'r2'], ['after', 3, 'r1']);
    expect(codes(on, to('own', day(4)))).toEqual([['own', 'same-recording']]);
    expect(checkTakeOff(on, 'own')?.detail).toContain('Mon 4 May 07:30 and Thu 7 May 07:30');
  });
  it('may stay between them, or leave two recordings side by side', () => {
    expect(codes(row(['before', 0, 'r1'], ['own', 1, 'r2'], ['after', 3, 'r1']), to('own', day(2)))).toEqual([]);
    const on = row(['before', 0, 'r1'], ['own', 1, 'r2'], ['after', 3, 'r3']);
    expect(codes(on, to('own', day(4)))).toEqual([]);
    expect(checkTakeOff(on, 'own')).toBeUndefined();
  });
  it('is refused as its place is, and stays where it was posted', () => {
    const on = row(['a', 0, 'r1'], ['b', 1, 'r2']);
    expect(codes(on, to('a', day(1)))).toEqual([['a', 'day-full']]);
    expect(codes({ ...on, posts: on.posts.map((one) => ({ ...one, state: 'posted' })) }, to('a', day(3)))).toEqual([['a', 'posted']]);
    expect(codes(on, to('gone', day(3)))).toEqual([['gone', 'no-slot']]);
  });
});

describe('posts that move together', () => {
  it('do not stand in each other’s way where they come from', () => {
    const on = row(['a', 0, 'r1'], ['b', 1, 'r2']);
    expect(codes(on, to('a', day(1)), to('b', day(2)))).toEqual([]);
    expect(codes(on, to('a', day(1)), to('b', day(0)))).toEqual([]);
  });
  it('stand in each other’s way where they go', () => {
    const on = row(['a', 0, 'r1'], ['b', 1, 'r2'], ['c', 2, 'r1']);
    expect(codes(on, to('a', day(3)), to('b', day(3)))).toEqual([
      ['a', 'day-full'],
      ['b', 'day-full'],
    ]);
    expect(codes(on, to('b', day(4)), to('c', day(1)))).toEqual([['c', 'same-recording']]);
  });
  it('keep a short behind its lead when both go', () => {
    const on = plan({
      channels: [channel(), channel({ id: 'c2', name: 'Second', order: 2 })],
      shorts: [short('s')],
      posts: [post({ id: 'lead', shortId: 's', date: day(0) }), post({ id: 'later', shortId: 's', channelId: 'c2', date: day(1) })],
    });
    expect(codes(on, to('lead', day(3)))).toEqual([['lead', 'after-later-channel']]);
    expect(codes(on, to('lead', day(3)), to('later', day(4), 'c2'))).toEqual([]);
  });
  it('are as many as fit when some are refused', () => {
    const on = row(['a', 0, 'r1'], ['b', 1, 'r2'], ['c', 7, 'r3']);
    const later = movesByDays(on, ['a', 'b'], 7).moves;
    expect(codes(on, ...later)).toEqual([['a', 'day-full']]);
    expect(movesThatFit(on, later)).toEqual([to('b', day(8))]);
  });
  it('leave a plan that no rule speaks against, whatever moves', () => {
    const anyPosts = fc.uniqueArray(fc.record({ n: fc.integer({ min: 0, max: 12 }), recording: fc.integer({ min: 1, max: 3 }) }), {
      maxLength: 8,
      selector: (one) => one.n,
    });
    fc.assert(
      fc.property(anyPosts, fc.array(fc.integer({ min: -5, max: 9 }), { minLength: 8, maxLength: 8 }), (posts, by) => {
        const on = row(...posts.map(({ n, recording }, i): [string, number, string] => [`p${i}`, n, `r${recording}`]));
        const fitting = movesThatFit(
          on,
          on.posts.map((one, i) => to(one.id, addDays(one.date, by[i]!))),
        );
        const moved = new Map(fitting.map((move) => [move.postId, move]));
        const after = {
          ...on,
          posts: on.posts.map((one) => ({ ...one, ...moved.get(one.id), atMs: instantOf('Europe/Dublin', moved.get(one.id) ?? one).atMs })),
        };
        for (const one of after.posts.filter(({ id }) => moved.has(id)))
          expect(
            checkPlacement(
              after,
              after.shorts.find(({ id }) => id === one.shortId)!,
              after.channels[0]!,
              one,
              one.id,
            ),
          ).toEqual([]);
        // Neighbours of one recording are those that were side by side before.
        const pairs = (all: Plan): string[] => {
          const sorted = [...all.posts].sort((a, b) => a.atMs - b.atMs);
          return sorted.slice(1).flatMap((next, i) => (next.recordingId === sorted[i]!.recordingId ? [`${sorted[i]!.id} ${next.id}`] : []));
        };
        const old = pairs(on);
        for (const pair of pairs(after)) expect(old).toContain(pair);
      }),
      { numRuns: 300 },
    );
  });
});

describe('moves by days', () => {
  const on = { ...row(['a', 4, 'r1']), channels: [channel({ windows: [...channel().windows, { weekday: 1, minute: 1_080, weight: 90 }] })] };
  it('keep the time a week later, and take a window of the day elsewhere', () => {
    expect(movesByDays(on, ['a'], 7).moves).toEqual([to('a', day(11))]);
    expect(movesByDays(on, ['a'], 3).moves).toEqual([to('a', day(7))]);
    expect(movesByDays({ ...on, posts: on.posts.map((one) => ({ ...one, minute: 500 })) }, ['a'], 3).moves).toEqual([to('a', day(7), 'c1', 1_080)]);
  });
  it('are refused where a day has no window', () => {
    const { moves, refused } = movesByDays(on, ['a'], 1);
    expect([moves, refused.map((one) => one.refusal.detail)]).toEqual([[], ['First has no posting window on Sat 9 May.']]);
  });
});
