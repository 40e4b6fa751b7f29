import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { evenly } from './evenly.fixture.js';
import type { GapReading } from './gap-model.js';
import { learnPauses, tellPauses } from './pauses.js';

interface Recording {
  readonly readings: GapReading[];
  readonly pauses: number[];
  readonly isEnd: boolean[];
}

/**
 * A recording of `n` gaps whose truth is known: one in ten is an end, one in ten a comma. Words tell each from the rest but
 * faintly; a pause of 100 ms is heard with the given chances, none otherwise.
 */
function recording(n: number, heard: { end: number; clause: number; other: number }, pauseMs = 100): Recording {
  const readings: GapReading[] = [];
  const pauses: number[] = [];
  const isEnd: boolean[] = [];
  for (let i = 1; i <= n; i += 1) {
    const sort = i % 10 === 0 ? 'end' : i % 10 === 5 ? 'clause' : 'other';
    const noise = 4 * (evenly(i, 3) - 0.5);
    readings.push({ end: (sort === 'end' ? 0 : -3) + noise, clause: (sort === 'clause' ? 0.5 : -3) + 4 * (evenly(i, 5) - 0.5) });
    pauses.push(evenly(i, 7) < heard[sort] ? pauseMs : 0);
    isEnd.push(sort === 'end');
  }
  return { readings, pauses, isEnd };
}

describe('learnPauses', () => {
  // What is to be learned is known: the odds of a pause at an end against elsewhere, by which it was made.
  it.each([
    { end: 0.8, clause: 0.1, other: 0.02 },
    { end: 0.6, clause: 0.5, other: 0.02 },
    { end: 0.9, clause: 0.05, other: 0.1 },
  ])('finds how pauses fall that fall so: $end, $clause, $other', (heard) => {
    const { readings, pauses } = recording(6_000, heard);
    const told = learnPauses(readings, pauses);
    const near = (odds: number, chances: number): void => expect(Math.abs(odds - Math.log(chances))).toBeLessThan(0.8);
    // Where the words are sure that no comma stands, and where they are sure that one does.
    near(told(100, -9), heard.end / heard.other);
    near(told(100, 9), heard.end / heard.clause);
    near(told(0, -9), (1 - heard.end) / (1 - heard.other));
  });
  it('a recording with short pauses tells as much as one with long ones', () => {
    const heard = { end: 0.8, clause: 0.1, other: 0.02 };
    const short = recording(4_000, heard, 70);
    const long = recording(4_000, heard, 600);
    expect(learnPauses(short.readings, short.pauses)(70, -2)).toBeCloseTo(learnPauses(long.readings, long.pauses)(600, -2), 0);
  });
  it('concludes nothing where no pause is shown, and little where pauses fall anywhere', () => {
    const none = recording(4_000, { end: 0, clause: 0, other: 0 });
    expect(learnPauses(none.readings, none.pauses)(0, -2)).toBeCloseTo(0, 1);
    const anywhere = recording(4_000, { end: 0.2, clause: 0.2, other: 0.2 });
    expect(Math.abs(learnPauses(anywhere.readings, anywhere.pauses)(100, -2))).toBeLessThan(0.5);
  });
  it('before anything was heard, knows that a long pause tells of an end', () => {
    const told = learnPauses([], []);
    expect(told(0, -2)).toBeLessThan(0);
    expect(told(600, -2)).toBeGreaterThan(1.5);
    expect(told(600, 2)).toBeLessThan(told(600, -2));
  });
  it('never lets a longer pause tell less, nor anything weigh more than all words', () => {
    const gap = fc.record({ end: fc.double({ min: -6, max: 4, noNaN: true }), clause: fc.double({ min: -6, max: 4, noNaN: true }) });
    fc.assert(
      fc.property(
        fc.array(fc.tuple(gap, fc.integer({ min: -300, max: 3_000 })), { maxLength: 80 }),
        fc.double({ min: -6, max: 4, noNaN: true }),
        (gaps, clause) => {
          const told = learnPauses(
            gaps.map(([reading]) => reading),
            gaps.map(([, pauseMs]) => pauseMs),
          );
          let before = -4;
          for (let pauseMs = -200; pauseMs <= 2_000; pauseMs += 20) {
            const odds = told(pauseMs, clause);
            expect(odds).toBeGreaterThanOrEqual(before - 1e-9);
            expect(odds).toBeLessThanOrEqual(4);
            before = odds;
          }
        },
      ),
    );
  });
});

describe('tellPauses', () => {
  it('counts pauses at known ends', () => {
    const { pauses, isEnd } = recording(6_000, { end: 0.8, clause: 0.1, other: 0.1 });
    const told = tellPauses(pauses.map((pauseMs, i) => ({ pauseMs, isEnd: isEnd[i]! })));
    expect(told(100, 0)).toBeCloseTo(Math.log(8), 1);
    expect(told(0, 0)).toBeCloseTo(Math.log(0.2 / 0.9), 1);
  });
});
