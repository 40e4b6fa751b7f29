import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { Word } from '../transcript/types.js';
import { cutListOf } from './cut-list.js';
import { type Edit, type EditedPassage, editProblem, NO_EDIT, playedRuns, tidyEdit } from './edit.js';
import { editOfFrames, joinedFrames } from './edit-of-frames.js';
import { cutFrames, type FrameRate } from './frames.js';

const PAL: FrameRate = { numerator: 25, denominator: 1 };
const RATES: FrameRate[] = [PAL, { numerator: 30_000, denominator: 1_001 }, { numerator: 24_000, denominator: 1_001 }, { numerator: 60, denominator: 1 }];

/** Words of 200 to 400 ms, with pauses from none to two seconds. */
function talk(count: number, seed: number): Word[] {
  let [at, state] = [700, seed];
  const next = (below: number): number => (state = (state * 48_271) % 2_147_483_647) % below;
  return Array.from({ length: count }, (_, i) => {
    const startMs = at;
    const endMs = startMs + 200 + next(200);
    at = endMs + (next(4) === 0 ? 500 + next(1_500) : next(120));
    return { text: `w${i}`, startMs, endMs, kind: 'word' } as unknown as Word;
  });
}
const framesOf = (words: readonly Word[], passage: EditedPassage, rate: FrameRate) => cutFrames(cutListOf(words, playedRuns(words, passage)), rate);
const playedWords = (words: readonly Word[], passage: EditedPassage): number[] =>
  playedRuns(words, passage).flatMap(({ firstWord, endWord }) => Array.from({ length: endWord - firstWord }, (_, i) => firstWord + i));

const WORDS = talk(400, 7);
const range = (from: number, to: number) =>
  fc
    .tuple(fc.integer({ min: from, max: to - 1 }), fc.integer({ min: 1, max: 12 }))
    .map(([firstWord, length]) => ({ firstWord, endWord: Math.min(to, firstWord + length) }));
/** A passage between words 100 and 200, with words and pauses taken out, and parts from elsewhere around it. */
const edited = fc.record({
  removed: fc.array(range(110, 190), { maxLength: 4 }),
  pauses: fc.array(fc.record({ afterWord: fc.integer({ min: 101, max: 198 }), leftMs: fc.integer({ min: 60, max: 600 }) }), { maxLength: 5 }),
  before: fc.array(range(300, 390), { maxLength: 1 }),
  after: fc.array(range(10, 60), { maxLength: 1 }),
});
const passageOf = (edit: Partial<Edit>): EditedPassage => ({ firstWord: 100, endWord: 200, edit: tidyEdit({ ...NO_EDIT, ...edit }) });

describe('frames that were cut', () => {
  test('of a short of ours are found again as the same frames, at every rate', () => {
    fc.assert(
      fc.property(edited, fc.constantFrom(...RATES), (edit, rate) => {
        const frames = framesOf(WORDS, passageOf(edit), rate);
        const found = editOfFrames(WORDS, frames, rate)!;
        expect(playedWords(WORDS, found.passage)).toEqual(playedWords(WORDS, passageOf(edit)));
        expect(editProblem(WORDS, found.passage)).toBeNull();
        expect(joinedFrames(framesOf(WORDS, found.passage, rate))).toEqual(joinedFrames(frames));
        expect(found.offMs).toBe(0);
      }),
      { numRuns: 300 },
    );
  });
  test('say what is taken out, cut down, and played from elsewhere', () => {
    const edit = { removed: [{ firstWord: 120, endWord: 125 }], before: [{ firstWord: 300, endWord: 306 }], after: [{ firstWord: 20, endWord: 30 }] };
    expect(editOfFrames(WORDS, framesOf(WORDS, passageOf(edit), PAL), PAL)!.passage).toEqual(passageOf(edit));
  });
  test('that play a place in front which is taken out later are parts, each by itself', () => {
    // A hook from the middle of the passage, and the passage without it.
    const spans = [
      { firstWord: 140, endWord: 146 },
      { firstWord: 100, endWord: 140 },
      { firstWord: 146, endWord: 200 },
    ].flatMap((run) => cutFrames(cutListOf(WORDS, [run]), PAL));
    const { passage } = editOfFrames(WORDS, spans, PAL)!;
    expect(playedWords(WORDS, passage).slice(0, 7)).toEqual([140, 141, 142, 143, 144, 145, 100]);
    expect(playedWords(WORDS, passage)).toHaveLength(100);
    expect(passage.edit.removed).toEqual([]);
  });
  test('within words are brought to their ends, and it is said by how much', () => {
    const [first, last] = [WORDS[50]!, WORDS[70]!];
    const frame = (ms: number): number => Math.round(ms / 40);
    const spans = [{ startFrame: frame(first.startMs + 60), endFrame: frame(last.endMs - 60) }];
    const { passage, offMs } = editOfFrames(WORDS, spans, PAL)!;
    expect(passage).toEqual({ firstWord: 50, endWord: 71, edit: NO_EDIT });
    expect(offMs).toBeGreaterThan(30);
    expect(offMs).toBeLessThan(260);
  });
  test('that are cut through, with nothing left out, are one passage; only its ends are moved', () => {
    const frame = (ms: number): number => Math.round(ms / 40);
    const [from, to] = [frame(WORDS[50]!.startMs), frame(WORDS[150]!.endMs)];
    const bladed = Array.from({ length: 20 }, (_, i) => ({
      startFrame: from + Math.round(((to - from) * i) / 20),
      endFrame: from + Math.round(((to - from) * (i + 1)) / 20),
    }));
    const { passage, offMs } = editOfFrames(WORDS, bladed, PAL)!;
    expect(passage).toEqual({ firstWord: 50, endWord: 151, edit: NO_EDIT });
    expect(offMs).toBeLessThan(200);
  });
  test('of silence among others are left out, and it is said', () => {
    const silent = { startFrame: 2, endFrame: 12 }; // before the first word
    const spoken = framesOf(WORDS, passageOf({}), PAL);
    expect(editOfFrames(WORDS, [silent, ...spoken], PAL)).toEqual({ passage: passageOf({}), offMs: 400 });
  });
  test('in which nobody speaks are none', () => {
    expect(editOfFrames(WORDS, [{ startFrame: 0, endFrame: 10 }], PAL)).toBeNull();
    expect(editOfFrames(WORDS, [], PAL)).toBeNull();
  });
});
