import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoTranscript, toVtt, transcriptOf } from '../../talk.fixture.js';
import { buildContext } from '../context.js';
import { PrefixSums } from '../prefix-sums.js';
import { readForRoles } from '../roles/reading.js';
import { sentenceFeatures } from '../roles/sentence-features.js';
import { HASHES } from '../roles/word-hashes.js';
import { HEARD, heardAround, judgeStandOut, standOutFeatures } from './model.js';
import { PLACE_FEATURES, placeFeatures } from './place.js';
import { standOutBy } from './read-stand-out.js';

const BRIEF = { partStartMs: 0, partEndMs: null, minMs: 15_000, maxMs: 60_000, roughCount: 5, topics: [], kinds: [], avoid: [] };
const place = (name: (typeof PLACE_FEATURES)[number]): number => PLACE_FEATURES.indexOf(name);
const lines = ['We went along there.', 'It was a shed.', 'It was a shed.', 'Then it rained for nine days.'];
const little = transcriptOf(toVtt(lines.map((text, i) => ({ speaker: i === 3 ? 'Bo' : 'Ann', text }))));

describe('where a sentence stands', () => {
  // Directions of 0, 90, 90 and 45 degrees.
  const half = Math.SQRT1_2;
  const vectors = { dimensions: 2, data: Float32Array.of(1, 0, 0, 1, 0, 1, half, half) };
  const rows = placeFeatures(little.sentences, new PrefixSums(vectors, 4), { start: true, end: false });
  const of = (s: number, name: (typeof PLACE_FEATURES)[number]): number => rows[s * PLACE_FEATURES.length + place(name)]!;
  it('tells what is new from what was said before', () => {
    expect([of(1, 'new'), of(1, 'like the one before')]).toEqual([1, 0]);
    expect(of(2, 'new')).toBeCloseTo(1 - half, 6); // before it: one of each
    expect(of(2, 'like the one before')).toBeCloseTo(1, 6);
    expect(of(1, 'like the one after')).toBeCloseTo(1, 6);
    expect(of(3, 'like the recording')).toBeCloseTo(((1 + half + (2 + half)) * half) / Math.hypot(1 + half, 2 + half), 6);
  });
  it('knows the voice, the turn, and the edges of a recording where they are its own', () => {
    expect(of(0, 'share of the voice')).toBeCloseTo(12 / 18, 6);
    expect([of(0, 'at the very start'), of(3, 'at the very end')]).toEqual([1, 0]);
    expect(of(3, 'length of the turn')).toBeCloseTo(Math.log(6), 6);
  });
});

describe('heardAround', () => {
  it('is the mean of what is there', () => {
    expect([...heardAround(Float64Array.of(1, 2, 3, 4, 5), 1)]).toEqual([1.5, 2, 3, 4, 4.5]);
    expect([...heardAround(Float64Array.of(7))]).toEqual([7]);
  });
  it('agrees with the mean counted out', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: -9, max: 9, noNaN: true }), { maxLength: 30 }), (list) => {
        heardAround(Float64Array.from(list)).forEach((value, s) => {
          const near = list.slice(Math.max(0, s - HEARD), s + HEARD + 1);
          expect(value).toBeCloseTo(near.reduce((sum, one) => sum + one, 0) / near.length, 9);
        });
      }),
    );
  });
});

describe('what stands out', () => {
  const context = buildContext({ transcript: demoTranscript('what-goes-down-31'), brief: BRIEF, clientTags: [], sentenceVectors: null, topicVectors: null });
  const times = context.sentences.map(({ startMs, endMs }) => endMs - startMs);
  it('does so from the recording itself: over all of its time it comes to nothing', () => {
    const sum = context.standOut.reduce((total, value, s) => total + value * times[s]!, 0);
    expect(sum / times.reduce((total, time) => total + time, 0)).toBeCloseTo(0, 9);
    expect(Math.max(...context.standOut)).toBeGreaterThan(0.1);
  });
  it('is a sum: twice the weights, twice as much', () => {
    const reading = readForRoles(little.words, little.sentences);
    const features = standOutFeatures({
      sentences: little.sentences,
      features: sentenceFeatures(reading),
      roles: new Float32Array(4 * 20).fill(0.05),
      vectors: null,
      sums: new PrefixSums({ dimensions: 2, data: new Float32Array(8).fill(0.7) }, 4),
      edges: { start: true, end: true },
    });
    const weights = (n: number, by: number): Float32Array => Float32Array.from({ length: n }, (_, i) => (by * ((i * 7) % 5)) / 10);
    const model = (by: number) => ({ own: weights(features.row + HASHES, by), around: weights(features.row - PLACE_FEATURES.length + HASHES, by) });
    const [once, twice] = [1, 2].map((by) => judgeStandOut(features, model(by), [1, 1, 1, 1]));
    expect(once!.some((value) => Math.abs(value) > 0.01)).toBe(true);
    once!.forEach((value, s) => expect(twice![s]!).toBeCloseTo(2 * value, 5));
  });
  it('can be judged by another model for a while', () => {
    const usual = context.standOut;
    const nothing = { own: new Float32Array(HASHES), around: new Float32Array(HASHES) };
    const again = () => buildContext(context.input).standOut;
    expect(standOutBy(nothing, 'words', again).every((value) => value === 0)).toBe(true);
    expect(again()).toEqual(usual);
  });
});
