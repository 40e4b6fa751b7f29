import { execFile } from 'node:child_process';
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { demoLines, toVtt } from '../../../packages/core/src/talk.fixture.js';

const MAIN = fileURLToPath(new URL('../dist/main.js', import.meta.url));
let dir: string;
beforeAll(() => {
  dir = mkdtempSync(join(tmpdir(), 'sift-reel-cli-'));
  writeFileSync(join(dir, 'talk.vtt'), toVtt(demoLines('up-the-flue-11')));
  writeFileSync(join(dir, 'bad.vtt'), 'WEBVTT\n\n00:00.000 --> 00:01.000\nfine\n\nlater --> 00:03.000\nno\n');
  writeFileSync(join(dir, 'bad.json'), '{"segments":[{"startTime":"soon","body":"x"}]}');
});
afterAll(() => rmSync(dir, { recursive: true, force: true }));

function run(...args: string[]): Promise<{ code: number; out: string; err: string }> {
  return new Promise((resolve) => {
    execFile(process.execPath, [MAIN, ...args], { cwd: dir, maxBuffer: 50_000_000 }, (error, out, err) =>
      resolve({ code: error === null ? 0 : Number(error.code), out, err }),
    );
  });
}

describe('sift', () => {
  it('prints the ranking as JSON', async () => {
    const { code, out } = await run(
      'sift',
      'talk.vtt',
      '--min',
      '15',
      '--max',
      '40',
      '--from',
      '0:10',
      '--to',
      '4:00',
      '--about',
      'newspaper, windows',
      '--json',
    );
    expect(code).toBe(0);
    const result = JSON.parse(out);
    expect(Object.keys(result)).toEqual(['duration', 'sentences', 'chapters', 'candidates', 'language']);
    expect(result.candidates.length).toBeGreaterThan(1);
    const [first] = result.candidates;
    expect(Object.keys(first)).toEqual([
      'rank',
      'start',
      'end',
      'score',
      'signals',
      'kind',
      'reason',
      'evidence',
      'firstLine',
      'lastLine',
      'title',
      'hashtags',
    ]);
    expect(Object.keys(first.signals)).toEqual(['opening', 'standsAlone', 'substance', 'charge', 'delivery', 'currency']);
    for (const one of result.candidates) {
      expect(one.end - one.start).toBeGreaterThanOrEqual(15);
      expect(one.end - one.start).toBeLessThanOrEqual(40);
      expect(one.start).toBeGreaterThanOrEqual(10);
      expect(one.end).toBeLessThanOrEqual(240);
      for (const evidence of one.evidence) expect(Object.keys(evidence)).toEqual(['signal', 'start', 'end', 'text']);
    }
  });
  it('prints no more than asked for', async () =>
    expect(JSON.parse((await run('sift', 'talk.vtt', '--count', '2', '--min', '12', '--json')).out).candidates).toHaveLength(2));
  it.each([
    ['bad.vtt', /^bad\.vtt:6: “later” is no start time/],
    ['bad.json', /^bad\.json:1: segments\[0\]\.startTime: expected seconds/],
    ['missing.vtt', /^missing\.vtt:1: no such file/],
  ])('refuses %s with 1 and its place', async (file, message) => {
    const { code, out, err } = await run('sift', file, '--json');
    expect([code, out]).toEqual([1, '']);
    expect(err).toMatch(message);
  });
  it('refuses a part beyond the recording with 1', async () => expect((await run('sift', 'talk.vtt', '--from', '9:00:00')).code).toBe(1));
  it.each([
    [[]],
    [['shift']],
    [['sift']],
    [['sift', 'a', 'b']],
    [['sift', 'talk.vtt', '--min', 'x']],
    [['sift', 'talk.vtt', '--min', '50', '--max', '20']],
    [['sift', 'talk.vtt', '--count', '0']],
    [['sift', 'talk.vtt', '--from', 'noon']],
    [['sift', 'talk.vtt', '--nonsense']],
    [['convert', 'talk.vtt']],
    [['convert', 'talk.vtt', 'out.pdf']],
  ])('%j is wrong use: 2', async (args) => {
    const { code, err } = await run(...args);
    expect([code, err.includes('usage:')]).toEqual([2, true]);
  });
});

describe('reel', () => {
  it('adds parts up to the length asked for, within five seconds, in order and without overlaps', async () => {
    const { code, out } = await run('reel', 'talk.vtt', '--length', '100', '--json');
    expect(code).toBe(0);
    const { length, parts } = JSON.parse(out) as { length: number; parts: { start: number; end: number; text: string }[] };
    expect(Math.abs(length - 100)).toBeLessThanOrEqual(5);
    expect(parts.reduce((sum, part) => sum + part.end - part.start, 0)).toBeCloseTo(length, 3);
    parts.forEach((part, i) => i > 0 && expect(part.start).toBeGreaterThanOrEqual(parts[i - 1]!.end));
    const text = await run('reel', 'talk.vtt', '--length', '100');
    expect(text.out).toMatch(/in \d+ parts\n$/);
  });
  it('says what is wrong', async () => {
    expect(await run('reel', 'talk.vtt', '--length', '1700')).toMatchObject({ code: 1, err: expect.stringContaining('no parts add up') });
    expect(await run('reel', 'talk.vtt', '--min', '20')).toMatchObject({ code: 2, err: expect.stringContaining('reel has no --min') });
    expect(await run('reel')).toMatchObject({ code: 2, err: expect.stringContaining('reel takes one FILE') });
  });
});

describe('convert', () => {
  it('goes round all formats and keeps the words', async () => {
    const text = (file: string): string =>
      JSON.parse(readFileSync(join(dir, file), 'utf8'))
        .segments.map((segment: { body: string }) => segment.body)
        .join(' ');
    for (const [from, to] of [
      ['talk.vtt', 'a.json'],
      ['a.json', 'b.srt'],
      ['b.srt', 'c.vtt'],
      ['c.vtt', 'd.txt'],
      ['a.json', 'e.vtt'],
      ['e.vtt', 'f.json'],
      ['d.txt', 'g.json'],
      ['b.srt', 'h.json'],
    ])
      expect((await run('convert', from!, to!)).code).toBe(0);
    expect(text('f.json')).toBe(text('a.json'));
    expect(text('g.json')).toBe(text('a.json'));
    expect(text('h.json')).toBe(text('a.json'));
  });
  it('leaves nothing half-made', async () => {
    expect((await run('convert', 'bad.vtt', 'out.srt')).code).toBe(1);
    expect((await run('convert', 'talk.vtt', 'nowhere/out.srt')).code).toBe(1);
    expect(existsSync(join(dir, 'out.srt')) || readdirSync(dir).some((name) => name.endsWith('.partial'))).toBe(false);
  });
});

describe('plan', () => {
  const channel = {
    id: 'c1',
    client: 'k',
    platform: 'p',
    zone: 'Europe/Dublin',
    order: 1,
    perDay: 1,
    perWeek: 1,
    gapMinutes: 60,
    windows: [{ day: 'sun', at: '01:30', weight: 80 }],
    blackouts: [],
  };
  const short = { id: 's1', client: 'k', recording: 'r1', score: 90, seconds: 30, shape: '9:16', notBefore: null, notAfter: null };
  const problem = {
    now: '2026-03-20T00:00:00Z',
    from: '2026-03-23',
    to: '2026-04-19',
    platforms: [{ id: 'p', minSeconds: 3, maxSeconds: 60, shapes: ['9:16'], perDay: 2 }],
    channels: [channel],
    shorts: [short, { ...short, id: 's2', seconds: 61 }],
    posts: [],
    rules: { crossPostHours: 20, floor: 0 },
  };
  const moon = JSON.stringify({ ...problem, channels: [channel, { ...channel, id: 'c2', order: 2, zone: 'Moon/Base' }] }, null, 1);
  const moonLine = moon.split('\n').findIndex((line) => line.includes('Moon')) + 1;
  beforeAll(() => {
    writeFileSync(join(dir, 'plan.json'), JSON.stringify(problem));
    writeFileSync(join(dir, 'cut.json'), JSON.stringify(problem, null, 1).slice(0, 400));
    writeFileSync(join(dir, 'zone.json'), moon);
    writeFileSync(join(dir, 'list.json'), '[]');
    writeFileSync(join(dir, 'letters.json'), 'x'.repeat(1_000_000));
    writeFileSync(join(dir, 'long.json'), JSON.stringify({ ...problem, now: 'x'.repeat(1_000_000) }));
  });
  it('prints the posts, what has no place, the value and the bound, as JSON', async () => {
    const { code, out } = await run('plan', 'plan.json', '--json');
    expect(code).toBe(0);
    expect(JSON.parse(out)).toEqual({
      // On 29 March clocks in Dublin go from 1 to 2, which is 1 in UTC.
      posts: [
        {
          short: 's1',
          channel: 'c1',
          at: '2026-03-29T01:00:00.000Z',
          local: '2026-03-29T02:00',
          weight: 80,
          why: 'Weight 80 times score 90 adds 72; no time in these days is heavier here.',
        },
      ],
      unplaced: [{ short: 's2', channel: 'c1', why: '61 s is over the 60 s that p allows; 1 s less would fit.' }],
      value: 72,
      bound: expect.closeTo(72, 2),
    });
  });
  it('prints a line for each, to be read', async () =>
    expect((await run('plan', 'plan.json')).out).toMatch(
      /^2026-03-29 02:00 {2}c1 {2}s1 {2}Weight 80 .*\nnot placed {8}c1 {2}s2 .*\n1 posts, worth 72.0, at least (?:99.9|100.0) %/,
    ));
  it('refuses with the file, the line and the field', async () => {
    expect(await run('plan', 'zone.json')).toMatchObject({
      code: 1,
      err: `zone.json:${moonLine}: channels[1].zone: "Moon/Base" is no zone of the IANA time zone database\n`,
    });
    expect((await run('plan', 'list.json')).err).toBe('list.json:1: [] is not an object\n');
    expect((await run('plan', 'letters.json')).err).toMatch(/^letters\.json:1: not JSON \(\w+\)\n$/);
    expect((await run('plan', 'long.json')).err).toMatch(/^long\.json:1: now: "x{56}… is not an instant with Z/);
    expect((await run('plan', 'cut.json')).err).toMatch(/^cut\.json:\d+: not JSON \(/);
    expect((await run('plan', 'none.json')).err).toBe('none.json:1: no such file\n');
    expect((await run('plan')).code).toBe(2);
  });
});
