import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';
import type { CandidateView, ScheduleView } from '../app/api.js';
import { dayHere, dropOn, minutesOver, toPlan, wallOf, windowsOn } from './planning/plan.js';
import { pairFiles } from './recordings/upload.js';
import { NO_FILTER } from './sifting/bench-slice.js';
import { paragraphOf, toParagraphs } from './sifting/paragraphs.js';
import { arrange } from './sifting/rank.js';

describe('pairFiles', () => {
  it('puts files of one base name together and names strangers', () => {
    const file = (name: string): File => new File(['x'], name);
    const { pairs, strangers } = pairFiles(['Ep 1.vtt', 'ep 1.MP3', 'alone.srt', 'sound.ogg', 'notes.pdf', 'ep 1.srt'].map(file));
    expect(pairs.map((pair) => [pair.base, pair.transcript?.name, pair.sound?.name])).toEqual([
      ['Ep 1', 'Ep 1.vtt', 'ep 1.MP3'],
      ['alone', 'alone.srt', undefined],
      ['sound', undefined, 'sound.ogg'],
    ]);
    expect(strangers).toEqual(['notes.pdf', 'ep 1.srt']);
  });
});

const candidate = (rank: number, fields: Partial<CandidateView> = {}): CandidateView =>
  ({
    id: `c${rank}`,
    rank,
    score: 90 - rank,
    startMs: (10 - rank) * 60_000,
    endMs: (10 - rank) * 60_000 + 20_000 + rank * 5_000,
    title: `Title ${rank}`,
    firstLine: 'first',
    lastLine: 'last',
    reason: 'reason',
    kind: 'story',
    state: 'open',
    signals: [20 + rank, 50, 50, 50, 50, 50].map((value) => ({ value })),
    ...fields,
  }) as CandidateView;

describe('arrange', () => {
  const all = [candidate(1), candidate(2, { state: 'kept', kind: 'advice' }), candidate(3, { reason: 'about Soil' })];
  it.each([
    ['by score', NO_FILTER, 'score', [1, 2, 3]],
    ['by time', NO_FILTER, 'time', [3, 2, 1]],
    ['by length', NO_FILTER, 'length', [1, 2, 3]],
    ['by a signal', NO_FILTER, 'opening', [3, 2, 1]],
    ['kept ones', { ...NO_FILTER, state: 'kept' }, 'score', [2]],
    ['a kind', { ...NO_FILTER, kind: 'advice' }, 'score', [2]],
    ['words', { ...NO_FILTER, text: ' soil ' }, 'score', [3]],
    ['length', { ...NO_FILTER, longestMs: 30_000 }, 'score', [1, 2]],
    ['signal', { ...NO_FILTER, signal: 'opening', atLeast: 22 }, 'score', [2, 3]],
  ] as const)('%s', (_, filter, sort, ranks) => expect(arrange(all, filter, sort).map((one) => one.rank)).toEqual(ranks));
  const three = all;
  it.each([
    [0, []],
    [420_000, [3, 2]],
    [540_000, [1]],
    [123, [3, 2, 1, 4]],
    [null, [3, 2, 1, 4]],
    [800_000, [4]],
    [900_000, [4]],
  ])('the topic that starts at %s ms: what mostly lies in it, and long cuts that hold it', (topicMs, ranks) => {
    const starts = [0, 420_000, 540_000, 800_000, 900_000, 1_000_000];
    const chapters = starts.map((startMs, i) => ({ startMs, endMs: starts[i + 1] ?? 1_100_000 }));
    const all = [...three, candidate(4, { startMs: 790_000, endMs: 990_000 })];
    expect(arrange(all, { ...NO_FILTER, topicMs }, 'time', chapters).map((one) => one.rank)).toEqual(ranks);
  });
  it('leaves the ranking itself alone', () => {
    const before = [...all];
    arrange(all, NO_FILTER, 'time');
    expect(all).toEqual(before);
  });
});

describe('toParagraphs', () => {
  it('cuts long turns between sentences and finds a word again', () => {
    const sentences = Array.from({ length: 30 }, (_, i) => ({
      firstWord: i * 10,
      endWord: i * 10 + 10,
      startMs: i * 4_000,
      endMs: i * 4_000 + 3_000,
      speaker: i < 20 ? 0 : 1,
    }));
    const paragraphs = toParagraphs({ sentences, speakers: ['Ann', 'Bo'], words: [], durationMs: 0, wordTimes: 'given', sentenceEnds: 'written' });
    expect(paragraphs.map((one) => [one.firstWord, one.endWord, one.speaker, one.opensTurn])).toEqual([
      [0, 70, 'Ann', true],
      [70, 140, 'Ann', false],
      [140, 200, 'Ann', false],
      [200, 270, 'Bo', true],
      [270, 300, 'Bo', false],
    ]);
    expect(
      paragraphOf(
        paragraphs.map((one) => one.firstWord),
        139,
      ),
    ).toBe(1);
  });
});

describe('dropOn', () => {
  const channel = {
    id: 'c',
    clientId: 'k',
    name: 'First',
    zone: 'UTC',
    order: 1,
    postsPerDay: 1,
    postsPerWeek: 7,
    windows: [
      { weekday: 1, minute: 450, weight: 30 },
      { weekday: 1, minute: 900, weight: 80 },
    ],
    platform: {
      id: 'p',
      name: 'Loopline',
      minDurationMs: 0,
      maxDurationMs: 60_000,
      shapes: ['vertical'],
      titleLimit: 100,
      descriptionLimit: 100,
      hashtagLimit: 5,
      postsPerDay: 2,
      minGapMinutes: 60,
    },
  };
  const view = {
    channels: [channel],
    blackouts: [],
    shorts: [{ id: 's', clientId: 'k', recordingId: 'r', recordingTitle: 'R', title: 'S', lengthMs: 30_000, score: 50, approved: true, copyProblems: [] }],
    posts: [],
    now: '2026-05-01T00:00:00.000Z',
  } as unknown as ScheduleView;
  it('takes the day’s heaviest window', () =>
    expect(dropOn(toPlan(view), 's', 'c', '2026-05-04', null)).toEqual({ kind: 'fits', date: '2026-05-04', minute: 900 }));
  it('says why a day is refused', () => {
    expect(dropOn(toPlan(view), 's', 'c', '2026-05-05', null)).toMatchObject({ refusal: { detail: 'First has no posting window on this weekday.' } });
    expect(dropOn(toPlan(view), 's', 'c', '2026-04-27', null)).toMatchObject({ refusal: { code: 'in-past' } });
  });
  it('goes by the clock of whoever looks, where that is asked', () => {
    // 15:00 UTC on a Monday is five in the morning of Tuesday on Kiritimati, 14 hours ahead.
    const there = 'Pacific/Kiritimati';
    expect(dropOn(toPlan(view), 's', 'c', '2026-05-05', there)).toEqual({ kind: 'fits', date: '2026-05-04', minute: 900 });
    expect(windowsOn(toPlan(view).channels[0]!, '2026-05-05', there).map((one) => [one.date, one.minute, one.shown])).toEqual([['2026-05-04', 900, 300]]);
    expect(windowsOn(toPlan(view).channels[0]!, '2026-05-04', there).map((one) => one.shown)).toEqual([1_290]);
    expect(wallOf(there, { date: '2026-05-04', minute: 900, at: '2026-05-04T15:00:00.000Z' })).toEqual({ date: '2026-05-05', minute: 300 });
    expect(wallOf(null, { date: '2026-05-04', minute: 900, at: '2026-05-04T15:00:00.000Z' })).toEqual({ date: '2026-05-04', minute: 900 });
  });
  it('sees the hole that a post leaves behind it', () => {
    const post = (id: string, recordingId: string, date: string) => ({
      id,
      channelId: 'c',
      shortId: 's',
      recordingId,
      date,
      minute: 900,
      at: `${date}T15:00:00.000Z`,
      state: 'planned',
    });
    const posts = [post('before', 'q', '2026-05-04'), post('own', 'r', '2026-05-11'), post('after', 'q', '2026-05-18')];
    const plan = toPlan({ ...view, posts: posts.map((one) => ({ ...one, shortId: one.id === 'own' ? 's' : one.id })) } as unknown as ScheduleView);
    expect(dropOn(plan, 's', 'c', '2026-05-25', null, 'own')).toMatchObject({
      refusal: { code: 'same-recording', detail: expect.stringContaining('would follow each other') },
    });
  });
});

describe('minutesOver', () => {
  const nowMs = Date.UTC(2026, 10, 26, 1, 30);
  it.each([
    ['Europe/Dublin', '2026-11-26', 90],
    ['Europe/Dublin', '2026-11-25', 1_440],
    ['Europe/Dublin', '2026-11-27', -1],
    // Halifax is four hours behind, so its day before is not over yet; Adelaide ten and a half ahead.
    ['America/Halifax', '2026-11-25', 21 * 60 + 30],
    ['America/Halifax', '2026-11-26', -1],
    ['Australia/Adelaide', '2026-11-26', 12 * 60],
  ])('%s, %s', (zone, date, minutes) => expect(minutesOver(zone, nowMs, date)).toBe(minutes));
});

describe('dayHere', () => {
  const nowMs = Date.UTC(2026, 10, 26, 1, 30);
  it.each([
    ['America/Halifax', '2026-11-25'],
    ['Europe/Dublin', '2026-11-26'],
    ['Pacific/Auckland', '2026-11-26'],
  ])('the producer in %s has %s', (zone, date) => expect(dayHere(nowMs, zone)).toBe(date));
});

describe('colours: WCAG 2.2, contrast minimum (AA, 4.5 to 1 for text)', () => {
  const css = readFileSync(fileURLToPath(new URL('../app/theme.css', import.meta.url)), 'utf8');
  const tokens = (block: string): Map<string, string> => new Map([...block.matchAll(/--([\w-]+):\s*(#[0-9a-f]{6})/g)].map((match) => [match[1]!, match[2]!]));
  const day = tokens(css.slice(css.indexOf(':root'), css.indexOf('[data-theme')));
  const night = tokens(css.slice(css.indexOf("[data-theme='night']"), css.indexOf('@theme')));
  const luminance = (hex: string): number => {
    const [r, g, b] = [1, 3, 5].map((i) => parseInt(hex.slice(i, i + 2), 16) / 255).map((c) => (c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4));
    return 0.2126 * r! + 0.7152 * g! + 0.0722 * b!;
  };
  const contrast = (a: string, b: string): number => {
    const [hi, lo] = [luminance(a), luminance(b)].sort((x, y) => y - x);
    return (hi! + 0.05) / (lo! + 0.05);
  };
  const PAIRS: [string, string][] = [
    ['ink', 'paper'],
    ['ink', 'sheet'],
    ['ink', 'band'],
    ['ink', 'tint'],
    ['ink', 'lit'],
    ['soft', 'paper'],
    ['soft', 'sheet'],
    ['soft', 'band'],
    ['soft', 'tint'],
    ['madder-text', 'paper'],
    ['madder-text', 'sheet'],
    ['madder-text', 'madder-tint'],
    ['verdigris-text', 'paper'],
    ['verdigris-text', 'sheet'],
    ['saffron-text', 'paper'],
    ['bar-text', 'bar'],
    ['bar-soft', 'bar'],
    ['sheet', 'ink'],
    ['sheet', 'verdigris'],
    ['sheet', 'madder'],
  ];
  it('checks a known pair: black on white is 21 to 1', () => expect(contrast('#000000', '#ffffff')).toBeCloseTo(21, 5));
  it.each(PAIRS)('%s on %s, by day and by night', (text, ground) => {
    expect(contrast(day.get(text)!, day.get(ground)!), 'day').toBeGreaterThanOrEqual(4.5);
    expect(contrast(night.get(text)!, night.get(ground)!), 'night').toBeGreaterThanOrEqual(4.5);
  });
});
