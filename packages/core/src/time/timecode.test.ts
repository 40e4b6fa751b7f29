import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { formatLength, formatTimecode, parseClock } from './timecode.js';
import { lastAtOrBefore, overlaps } from './span.js';

describe('formatTimecode', () => {
  it.each([
    [1_623_240, 'tenths', '27:03.2'],
    [0, 'clock', '00:00'],
    [3_723_999, 'clock', '1:02:03'],
    [360_000_000, 'vtt', '100:00:00.000'],
    [1_500, 'srt', '00:00:01,500'],
  ] as const)('%d as %s', (ms, style, text) => expect(formatTimecode(ms, style)).toBe(text));
  it('never shows a time after the moment', () => expect(formatTimecode(59_999)).toBe('00:59'));
});

describe('formatLength', () => {
  it.each([
    [44_300, '0:44'],
    [44_500, '0:45'],
    [3_729_000, '1:02:09'],
  ])('%d', (ms, text) => expect(formatLength(ms)).toBe(text));
});

describe('parseClock', () => {
  it.each([
    ['1:02:03.5', 3_723_500],
    ['04:00', 240_000],
    ['90', 90_000],
    ['90.25', 90_250],
    ['125:00', 7_500_000],
    [' 0:05 ', 5_000],
  ])('%s', (text, ms) => expect(parseClock(text)).toBe(ms));
  it.each(['', 'x', '1:75', '1:60:00', '-5', '1:2:3:4', '5 min'])('refuses “%s”', (text) => expect(parseClock(text)).toBeNull());
  it('reads back what formatTimecode writes', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 170_000_000 }), (ms) => {
        expect(parseClock(formatTimecode(ms, 'vtt'))).toBe(ms);
      }),
    );
  });
});

describe('lastAtOrBefore', () => {
  it('agrees with a plain search', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: -50, max: 50 })), fc.integer({ min: -60, max: 60 }), (keys, value) => {
        const sorted = [...keys].sort((a, b) => a - b);
        expect(lastAtOrBefore(sorted, value)).toBe(sorted.findLastIndex((key) => key <= value));
      }),
    );
  });
});

describe('overlaps', () => {
  it('counts touching spans as apart', () => expect(overlaps({ startMs: 0, endMs: 5 }, { startMs: 5, endMs: 9 })).toBe(false));
  it('sees one millisecond', () => expect(overlaps({ startMs: 0, endMs: 6 }, { startMs: 5, endMs: 9 })).toBe(true));
});
