import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { cutListOf, keptRuns, playedAt, playedMs, sourceAt } from './cut-list.js';
import { cutFrames, frameAt, framesOf, frameStartMs, type FrameRate } from './frames.js';
import { canDrop, formatSmpte, parseSmpte } from './smpte.js';
import type { Word } from '../transcript/types.js';

/** Words of one length, with one pause between them. */
const wordsOfText = (text: string, wordMs: number, pauseMs: number): Word[] =>
  text.split(' ').map((word, i) => ({ text: word, kind: 'word', speaker: 0, startMs: i * (wordMs + pauseMs), endMs: i * (wordMs + pauseMs) + wordMs }));

const NTSC: FrameRate = { numerator: 30_000, denominator: 1_001 };
const NTSC_60: FrameRate = { numerator: 60_000, denominator: 1_001 };
const FILM: FrameRate = { numerator: 24_000, denominator: 1_001 };
const PAL: FrameRate = { numerator: 25, denominator: 1 };
const RATES = [NTSC, NTSC_60, FILM, PAL, { numerator: 24, denominator: 1 }, { numerator: 30, denominator: 1 }, { numerator: 50, denominator: 1 }];
const anyRate = fc.constantFrom(...RATES);

describe('a cut list', () => {
  const words = wordsOfText('so um we burn it dry and and then it is warm', 400, 100);

  test('keeps what is not taken out, whatever order that is told in', () => {
    const whole = { firstWord: 2, endWord: 10 };
    expect(keptRuns(whole, [])).toEqual([whole]);
    expect(
      keptRuns(whole, [
        { firstWord: 7, endWord: 8 },
        { firstWord: 0, endWord: 3 },
        { firstWord: 9, endWord: 12 },
      ]),
    ).toEqual([
      { firstWord: 3, endWord: 7 },
      { firstWord: 8, endWord: 9 },
    ]);
    expect(keptRuns(whole, [{ firstWord: 0, endWord: 99 }])).toEqual([]);
  });

  test('never cuts into a word that it keeps, and joins what lies side by side', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.integer({ min: 0, max: words.length - 1 })), (out) => {
        const runs = keptRuns(
          { firstWord: 0, endWord: words.length },
          out.map((firstWord) => ({ firstWord, endWord: firstWord + 1 })),
        );
        const cuts = cutListOf(words, runs);
        for (const [i, word] of words.entries())
          if (!out.includes(i)) expect(cuts.some(({ startMs, endMs }) => startMs <= word.startMs && word.endMs <= endMs)).toBe(true);
        for (const [i, { startMs }] of cuts.entries()) expect(startMs).not.toBe(cuts[i - 1]?.endMs);
      }),
    );
  });

  test('leads from what is played to the source and back', () => {
    const cuts = [
      { startMs: 9_000, endMs: 10_000 },
      { startMs: 2_000, endMs: 4_500 },
    ];
    expect(playedMs(cuts)).toBe(3_500);
    expect([0, 999, 1_000, 3_499, 3_500].map((at) => sourceAt(cuts, at))).toEqual([9_000, 9_999, 2_000, 4_499, 4_500]);
    expect(playedAt(cuts, 5_000)).toBeNull();
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 3_499 }), (at) => {
        expect(playedAt(cuts, sourceAt(cuts, at))).toBe(at);
      }),
    );
  });
});

describe('frames', () => {
  test('are the nearest ones, there and back', () => {
    expect(frameAt(1_001, NTSC)).toBe(30);
    expect(frameAt(20, PAL)).toBe(1); // half a frame goes to the later one
    expect(frameStartMs(25, PAL)).toBe(1_000);
    // One hour of 29.97 frames a second; a frame is longer than a millisecond, so nothing is lost.
    fc.assert(
      fc.property(anyRate, fc.integer({ min: 0, max: 3_000_000 }), (rate, frame) => {
        expect(frameAt(frameStartMs(frame, rate), rate)).toBe(frame);
      }),
    );
  });

  test('of a cut list never drift from it by a frame, over an hour and more and at every cut', () => {
    const span = fc
      .tuple(fc.integer({ min: 0, max: 36_000_000 }), fc.integer({ min: 1, max: 60_000 }))
      .map(([startMs, ms]) => ({ startMs, endMs: startMs + ms }));
    fc.assert(
      fc.property(anyRate, fc.array(span, { minLength: 1, maxLength: 200 }), (rate, cuts) => {
        for (let n = 1; n <= cuts.length; n += 1) {
          const exact = (playedMs(cuts.slice(0, n)) * rate.numerator) / (1_000 * rate.denominator);
          expect(Math.abs(framesOf(cutFrames(cuts.slice(0, n), rate)) - exact)).toBeLessThanOrEqual(0.5 + 1e-6);
        }
        for (const [i, { startFrame }] of cutFrames(cuts, rate).entries())
          if (cuts.length === cutFrames(cuts, rate).length) expect(startFrame).toBe(frameAt(cuts[i]!.startMs, rate));
      }),
      { numRuns: 40 },
    );
  });
});

// SMPTE ST 12-1, as it is quoted everywhere (from memory): an hour of 29.97 drop-frame is 107,892 frames; numbers 00 and 01 of
// each minute but every tenth are left out.
describe('timecode', () => {
  test('of an hour at 29.97 with numbers dropped is 107,892 frames', () => {
    expect(parseSmpte('01:00:00;00', NTSC)).toBe(107_892);
    expect(formatSmpte(107_892, NTSC, true)).toBe('01:00:00;00');
    expect(formatSmpte(108_000, NTSC, false)).toBe('01:00:00:00');
    expect(parseSmpte('01:00:00;00', NTSC_60)).toBe(215_784);
  });

  test('leaves out the first numbers of a minute, but not of a tenth', () => {
    expect([1_799, 1_800, 17_981, 17_982].map((frame) => formatSmpte(frame, NTSC, true))).toEqual(['00:00:59;29', '00:01:00;02', '00:09:59;29', '00:10:00;00']);
    expect(parseSmpte('00:01:00;00', NTSC)).toBeNull();
    expect(parseSmpte('00:01:00;01', NTSC)).toBeNull();
    expect(parseSmpte('00:01:00;03', NTSC_60)).toBeNull();
    expect(parseSmpte('00:10:00;00', NTSC)).toBe(17_982);
  });

  test('is refused where the rate knows no such frame, or drops nothing', () => {
    expect(parseSmpte('00:00:00:25', PAL)).toBeNull();
    expect(parseSmpte('00:00:10;02', PAL)).toBeNull();
    expect(parseSmpte('00:60:00:00', PAL)).toBeNull();
    expect(parseSmpte('1:00:00:00', PAL)).toBeNull();
    expect([NTSC, NTSC_60, FILM, PAL].map(canDrop)).toEqual([true, true, false, false]);
  });

  test('leads there and back at every rate', () => {
    fc.assert(
      fc.property(anyRate, fc.boolean(), fc.integer({ min: 0, max: 10_000_000 }), (rate, drop, frame) => {
        expect(parseSmpte(formatSmpte(frame, rate, drop), rate)).toBe(frame);
      }),
    );
  });
});
