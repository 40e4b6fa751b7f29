import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays, dateOfDay, mondayOf } from './calendar.js';
import { checkFit, checkPlacement } from './check-placement.js';
import { layOut } from './lay-out.js';
import { channel, plan, post, short } from './plan.fixture.js';
import { type Plan, type PlanChannel, type PlanShort, STAGGER_MS } from './types.js';

const codes = (p: Plan, s: PlanShort, c: PlanChannel, date: string, minute = 450): string[] =>
  checkPlacement(p, s, c, { date, minute }).map((refusal) => refusal.code);

describe('checkPlacement', () => {
  const monday = '2026-05-04';
  it('lets a short go to an empty day', () => expect(codes(plan(), short('a'), channel(), monday)).toEqual([]));
  it.each([
    ['not-approved', {}, { approved: false }, {}],
    ['too-long', {}, { lengthMs: 61_000 }, {}],
    ['too-short', {}, { lengthMs: 2_000 }, {}],
    ['other-client', {}, { clientId: 'other' }, {}],
    ['copy-over-limit', {}, { copyProblems: { c1: 'title 120 characters, 100 allowed' } }, {}],
    ['in-past', { nowMs: Date.UTC(2026, 5, 1) }, {}, {}],
    ['blackout', {}, {}, { blackouts: [{ fromDate: '2026-05-03', toDate: '2026-05-05', reason: 'stocktaking' }] }],
    ['day-full', { posts: [post({ date: monday, minute: 900 })] }, {}, {}],
    ['week-full', { posts: ['2026-05-05', '2026-05-06'].map((date, i) => post({ id: `p${i}`, shortId: `q${i}`, date })) }, {}, { postsPerWeek: 2 }],
    ['too-close', { posts: [post({ date: monday, minute: 560 })] }, {}, { postsPerDay: 2 }],
    ['already-there', { posts: [post({ date: '2026-05-07', shortId: 'a', recordingId: 'r1' })] }, {}, {}],
    ['same-recording', { posts: [post({ date: '2026-05-05', recordingId: 'r1' })] }, {}, {}],
  ])('refuses with %s', (code, planFields, shortFields, channelFields) => {
    expect(codes(plan(planFields as Partial<Plan>), short('a', shortFields), channel(channelFields), monday)).toContain(code);
  });
  it('sees the neighbour of the same recording across other days, but not across another post', () => {
    const neighbour = post({ id: 'n', date: '2026-05-08', recordingId: 'r1' });
    expect(codes(plan({ posts: [neighbour] }), short('a'), channel(), monday)).toEqual(['same-recording']);
    expect(
      codes(plan({ posts: [neighbour, post({ id: 'between', shortId: 'z', date: '2026-05-06', recordingId: 'r9' })] }), short('a'), channel(), monday),
    ).toEqual([]);
  });
  it('does not let a moved post stand in its own way', () => {
    const own = post({ id: 'own', shortId: 'a', recordingId: 'r1', date: monday });
    expect(checkPlacement(plan({ posts: [own] }), short('a'), channel(), { date: '2026-05-06', minute: 450 }, 'own')).toEqual([]);
  });
  describe('of a short that may come again', () => {
    const evergreen = short('a', { comesAgainDays: 30 });
    const first = post({ shortId: 'a', recordingId: 'r1', date: monday });
    const between = post({ id: 'between', shortId: 'z', recordingId: 'r9', date: '2026-05-20' });
    it('takes it after its days, not before, and nothing of its recording beside it', () => {
      expect(codes(plan({ posts: [first, between] }), evergreen, channel(), '2026-06-03')).toEqual([]);
      expect(codes(plan({ posts: [first, between] }), evergreen, channel(), '2026-06-02')).toEqual(['already-there']);
      expect(codes(plan({ posts: [first] }), evergreen, channel(), '2026-06-03')).toEqual(['same-recording']);
      expect(checkPlacement(plan({ posts: [first] }), evergreen, channel(), { date: '2026-05-05', minute: 450 })[0]!.detail).toBe(
        'The short is already on First, on Mon 4 May; it may come again after 30 days.',
      );
    });
    it('goes by its first post on its lead', () => {
      const second = channel({ id: 'c2', name: 'Second', order: 2 });
      const on = plan({
        channels: [channel(), second],
        shorts: [evergreen],
        posts: [first, between, post({ id: 'later', shortId: 'a', recordingId: 'r1', date: '2026-06-08' })],
      });
      expect(codes(on, evergreen, second, '2026-05-05')).toEqual([]);
      const both = { ...on, posts: [first, between, post({ id: 'other', shortId: 'a', recordingId: 'r1', channelId: 'c2', date: '2026-05-05' })] };
      expect(codes(both, evergreen, channel(), '2026-06-03')).toEqual([]);
    });
  });
  it('refuses a time that the clocks skip', () => expect(codes(plan({ nowMs: 0 }), short('a'), channel(), '2026-03-29', 90)).toContain('skipped-hour'));
  it('keeps second channels behind the first', () => {
    const second = channel({ id: 'c2', name: 'Second', order: 2 });
    const channels = [channel(), second];
    expect(codes(plan({ channels }), short('a'), second, monday)).toEqual(['before-first-channel']);
    const first = post({ shortId: 'a', recordingId: 'r1', date: '2026-05-05' });
    expect(codes(plan({ channels, posts: [first] }), short('a'), second, monday)).toContain('before-first-channel');
    expect(codes(plan({ channels, posts: [first] }), short('a'), second, '2026-05-06')).toEqual([]);
    const onSecond = post({ shortId: 'a', channelId: 'c2', recordingId: 'r1', date: '2026-05-04' });
    expect(codes(plan({ channels, posts: [onSecond] }), short('a'), channel(), '2026-05-06')).toContain('after-later-channel');
  });
  it('does not wait for a first channel that cannot take the short', () => {
    const second = channel({ id: 'c2', order: 2, rules: { ...channel().rules, maxDurationMs: 180_000 } });
    expect(codes(plan({ channels: [channel(), second] }), short('a', { lengthMs: 90_000 }), second, monday)).toEqual([]);
  });
});

describe('layOut', () => {
  it('alternates recordings, best first, and says why', () => {
    const shorts = [short('a', { score: 90 }), short('b', { score: 85 }), short('x', { score: 60, recordingId: 'r2' }), short('c', { score: 80 })];
    const { placements, unplaced } = layOut({ plan: plan({ shorts }), shortIds: shorts.map((one) => one.id), fromDate: '2026-05-04', toDate: '2026-05-10' });
    expect(placements.map((one) => one.shortId)).toEqual(['a', 'x', 'b']);
    expect(placements[0]!.why).toBe('Weight 80 times score 90 adds 72; no time in these days is heavier here.');
    expect(unplaced).toEqual([expect.objectContaining({ shortId: 'c', code: 'no-slot' })]);
    expect(unplaced[0]!.detail).toContain('2 lie next to its own recording');
  });
  it('explains what can never go, and what finds no slot', () => {
    const shorts = [short('long', { lengthMs: 90_000 }), short('a'), short('b', { recordingId: 'r2' })];
    const { unplaced } = layOut({
      plan: plan({ shorts, channels: [channel({ postsPerWeek: 1 }), channel({ id: 'c3', name: 'Bare', order: 2, windows: [] })] }),
      shortIds: shorts.map((one) => one.id),
      fromDate: '2026-05-04',
      toDate: '2026-05-10',
    });
    const of = (shortId: string, channelId: string): string | undefined =>
      unplaced.find((one) => one.shortId === shortId && one.channelId === channelId)?.detail;
    expect(of('long', 'c1')).toBe('90 s is over the 60 s that Loopline allows; 30 s less would fit.');
    expect(of('a', 'c3')).toBe('Bare has no posting windows.');
    expect(of('b', 'c1')).toMatch(/One more post a week on First would place it on Tue 5 May 07:30/);
  });
  it('lets a short come again where it may, and says when else', () => {
    const stands = post({ shortId: 'a', recordingId: 'r1', date: '2026-05-04' });
    const ask = (fields: Partial<PlanShort>, fromDate: string) =>
      layOut({
        plan: plan({ shorts: [short('a', fields), short('b', { recordingId: 'r2', score: 20 })], posts: [stands] }),
        shortIds: ['a', 'b'],
        fromDate,
        toDate: addDays(fromDate, 13),
      });
    expect(ask({}, '2026-06-01').placements.map((one) => one.shortId)).toEqual(['b']);
    const { placements, unplaced, value, bound } = ask({ comesAgainDays: 30 }, '2026-06-01');
    expect(placements.map((one) => [one.shortId, one.channelId])).toEqual([
      ['b', 'c1'],
      ['a', 'c1'],
    ]);
    expect([placements[1]!.date >= '2026-06-03', value <= bound + 1e-9, unplaced]).toEqual([true, true, []]);
    // A place that is kept of a proposal is the round that was asked for.
    const kept = post({ id: 'kept', shortId: 'a', recordingId: 'r1', date: '2026-06-03' });
    const again = layOut({
      plan: plan({
        shorts: [short('a', { comesAgainDays: 14 })],
        posts: [stands, post({ id: 'z', shortId: 'z', recordingId: 'r9', date: '2026-06-10' }), kept],
      }),
      keptIds: ['kept'],
      shortIds: ['a'],
      fromDate: '2026-06-01',
      toDate: '2026-08-01',
    });
    expect(again.placements).toEqual([]);
    expect(ask({ comesAgainDays: 60 }, '2026-06-01').unplaced).toEqual([
      { shortId: 'a', channelId: 'c1', code: 'already-there', detail: '“Short a” stands there, and comes again after 60 days.' },
    ]);
  });
  it('never breaks a rule, whatever is asked', () => {
    const anyShort = fc.record({
      recordingId: fc.constantFrom('r1', 'r2', 'r3'),
      lengthMs: fc.integer({ min: 2_000, max: 70_000 }),
      score: fc.integer({ min: 0, max: 100 }),
      approved: fc.boolean(),
    });
    const anyChannel = fc.record({
      postsPerDay: fc.integer({ min: 1, max: 2 }),
      postsPerWeek: fc.integer({ min: 1, max: 6 }),
      zone: fc.constantFrom('Europe/Dublin', 'America/Halifax', 'Australia/Adelaide'),
      windows: fc.uniqueArray(
        fc.record({ weekday: fc.integer({ min: 1, max: 7 }), minute: fc.integer({ min: 0, max: 1_439 }), weight: fc.integer({ min: 1, max: 100 }) }),
        { maxLength: 9, selector: (one) => `${one.weekday} ${one.minute}` },
      ),
    });
    fc.assert(
      fc.property(
        fc.array(anyShort, { maxLength: 9 }),
        fc.array(anyChannel, { minLength: 1, maxLength: 3 }),
        fc.integer({ min: 20_530, max: 20_560 }),
        (shortFields, channelFields, day) => {
          const shorts = shortFields.map((fields, i) => short(`s${i}`, fields));
          const channels = channelFields.map((fields, i) => channel({ id: `c${i + 1}`, name: `C${i + 1}`, order: i + 1, ...fields }));
          const empty = plan({ shorts, channels, nowMs: 0 });
          const from = dateOfDay(day);
          const { placements, unplaced } = layOut({ plan: empty, shortIds: shorts.map((one) => one.id), fromDate: from, toDate: addDays(from, 13) });
          expect(placements.length + unplaced.length).toBe(shorts.length * channels.length);
          for (const one of placements) {
            const rest = { ...empty, posts: placements.filter((other) => other !== one) };
            expect(
              checkPlacement(
                rest,
                shorts.find((s) => s.id === one.shortId)!,
                channels.find((c) => c.id === one.channelId)!,
                one,
              ),
            ).toEqual([]);
            const lead = channels.find(
              (c) =>
                checkFit(
                  shorts.find((s) => s.id === one.shortId)!,
                  c,
                ).length === 0,
            )!;
            const first = placements.find((other) => other.shortId === one.shortId && other.channelId === lead.id);
            if (lead.id !== one.channelId) expect(first).toBeDefined();
            if (first !== undefined && first !== one) expect(one.atMs - first.atMs).toBeGreaterThanOrEqual(STAGGER_MS);
          }
          for (const one of channels) {
            const weeks = new Map<string, number>();
            for (const placed of placements.filter((p) => p.channelId === one.id))
              weeks.set(mondayOf(placed.date), (weeks.get(mondayOf(placed.date)) ?? 0) + 1);
            for (const n of weeks.values()) expect(n).toBeLessThanOrEqual(one.postsPerWeek);
          }
        },
      ),
      { numRuns: 60 },
    );
  });
});
