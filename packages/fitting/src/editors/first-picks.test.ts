import { describe, expect, it } from 'vitest';
import { bestPassages, judgeFirstPicks } from './first-picks.js';
import { readMarks } from './marks.js';
import type { Talk } from './talk.js';

// Twelve sentences of twenty seconds: four minutes, so two picks count.
const sentences = Array.from({ length: 12 }, (_, i) => ({
  text: 'x',
  speaker: '',
  afterPause: false,
  startMs: 20_000 * i,
  endMs: 20_000 * (i + 1),
  words: [],
}));
const talk: Talk = { sentences, durationMs: 240_000 };
const marks = ['01 1-2 5\n01 5-6 4\n01 11-12 never', '01 1-2 5\n01 5-6 3', '01 1-2 4\n01 7-8 5'].map((text, i) => readMarks(`${i}`, text));
const marked = { talk, marks };
const pass = (first: number, end: number) => ({ startMs: 20_000 * first, endMs: 20_000 * end });

describe('first picks', () => {
  it('are worth what the readers gave them: counted out by hand', () => {
    const judged = judgeFirstPicks([marked], [[pass(0, 2), pass(4, 6)]]);
    // Found: (5 + 5 + 4) / 15 and (4 + 3 + 0) / 15, the mean of both. Readers by the other two, first two each:
    // (.9 + .3) / 2, (.9 + .4) / 2, (1 + 0) / 2. Random: 40 of 241 seconds for each mark.
    const random = ((5 + 4 + 5 + 3 + 4 + 5) / 5 / 3) * (40 / 241);
    const reader = (0.6 + 0.65 + 0.5) / 3;
    expect(judged.agreement).toBeCloseTo((21 / 30 - random) / (reader - random), 6);
    expect(judged).toMatchObject({ picks: 2, wanted: 2, never: 0 });
    expect(judged.kept).toBeCloseTo((1 + 2 / 3) / 2, 9);
  });
  it('that are missing count nothing, and those that nobody should post are counted', () => {
    const [one, two] = [[pass(0, 2)], [pass(0, 2), pass(10, 12)]].map((picks) => judgeFirstPicks([marked], [picks]));
    expect(one!.agreement).toBeCloseTo(two!.agreement, 9);
    expect([one!.picks, one!.wanted, one!.never, two!.never]).toEqual([1, 2, 0, 1]);
  });
  it('a later pick does not count', () => {
    const more = judgeFirstPicks([marked], [[pass(0, 2), pass(4, 6), pass(6, 8)]]);
    expect(more).toEqual(judgeFirstPicks([marked], [[pass(0, 2), pass(4, 6)]]));
  });
});

describe('the best passages', () => {
  it('are of whole sentences, in the band, none over another, best first', () => {
    const worth = [0, 5, 5, 0, 0, 0, 9, 0, 0, 0, 0, 0];
    const best = bestPassages(sentences, worth, 3);
    expect(best[0]).toMatchObject(pass(6, 7));
    expect(best.slice(1)).toEqual([expect.objectContaining(pass(1, 2)), expect.objectContaining(pass(2, 3))]);
  });
});
