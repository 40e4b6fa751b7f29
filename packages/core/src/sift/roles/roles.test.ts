import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { toVtt, transcriptOf } from '../../talk.fixture.js';
import { packNumbers, unpackNumbers } from '../../text/pack-weights.js';
import { judgeRoles } from './model.js';
import { readForRoles } from './reading.js';
import { readRoles, trainedRoles } from './read-roles.js';
import { sentenceFeatures } from './sentence-features.js';
import { type Role, roleAt, ROLES } from './roles.js';
import { smoothRoles } from './smooth.js';
import { asksHere, SURFACE_FEATURES, writeSurface } from './surface.js';

const readingOf = (texts: readonly string[]) => {
  const { words, sentences } = transcriptOf(toVtt(texts.map((text) => ({ speaker: 'Ann', text }))));
  return readForRoles(words, sentences);
};
const leading = (text: string): Role => {
  const p = judgeRoles(sentenceFeatures(readingOf([text])), null, trainedRoles(null));
  return ROLES[p.indexOf(Math.max(...p))]!;
};

describe('roles of sentences that are in no training text, by words alone', () => {
  it.each<[string, readonly Role[]]>([
    ['Hello everybody and welcome to another evening with us.', ['greeting']],
    ['If you use the code MAPLE you get fifteen percent off your first order.', ['sponsor']],
    ['So I click on this button up here and then I drag that over to the left.', ['walkThrough']],
    ['Please subscribe and leave us a review wherever you listen.', ['subscribe']],
    ['Hang on a second, it is still loading.', ['waiting']],
    ['What is the one thing you would do differently?', ['question']],
    ['You should always write the date on the box before you put it away.', ['advice']],
    ['Seventy two percent of the people we asked had never opened it.', ['figure']],
    ['So the old man stood up, looked at me, and said, that is my hat.', ['story']],
    ['I burst into tears and I could not stop crying.', ['feeling']],
  ])('%s', (text, roles) => expect(roles).toContain(leading(text)));
});

describe('the role model', () => {
  const reading = readingOf(['Hello and welcome.', 'What did it cost?', 'It cost forty pence, and I cried.', '[laughter]', 'Um, so, yeah.']);
  const sums = (p: Float32Array): number[] =>
    Array.from({ length: p.length / ROLES.length }, (_, s) => p.subarray(s * ROLES.length, (s + 1) * ROLES.length).reduce((sum, value) => sum + value, 0));
  it('gives probabilities that sum to one, alone and with neighbours heard', () => {
    const alone = judgeRoles(sentenceFeatures(reading), null, trainedRoles(null));
    for (const sum of [...sums(alone), ...sums(readRoles(sentenceFeatures(reading), null))]) expect(sum).toBeCloseTo(1, 5);
  });
  it('changes nothing by smoothing where transitions tell nothing', () => {
    const alone = judgeRoles(sentenceFeatures(reading), null, trainedRoles(null));
    const flat = smoothRoles(alone, new Float32Array(ROLES.length ** 2).fill(1));
    flat.forEach((value, i) => expect(value).toBeCloseTo(alone[i]!, 5));
  });
  it('smoothing is the exact posterior of the chain: forward–backward against adding up every path', () => {
    const roles = ROLES.length;
    const alone = Float32Array.from({ length: 3 * roles }, (_, i) => 1 + ((i * 7) % 5));
    const transitions = Float32Array.from({ length: roles * roles }, (_, i) => 0.5 + ((i * 3) % 4));
    const step = (a: number, b: number): number => Math.pow(transitions[a * roles + b]!, 0.6);
    const middle = new Float64Array(roles);
    for (let a = 0; a < roles; a += 1) {
      for (let b = 0; b < roles; b += 1) {
        for (let c = 0; c < roles; c += 1) middle[b]! += alone[a]! * step(a, b) * alone[roles + b]! * step(b, c) * alone[2 * roles + c]!;
      }
    }
    const total = middle.reduce((sum, value) => sum + value, 0);
    const found = smoothRoles(alone, transitions);
    middle.forEach((value, b) => expect(found[roles + b]).toBeCloseTo(value / total, 5));
  });
  it('hears neighbours: a bare line between lines of a sponsor read is taken for one of them', () => {
    const lines = ['This show is sponsored by Fernhill blankets.', 'They are wool and they wash well.', 'Use the code FERN at checkout for ten percent off.'];
    const at = ROLES.length + roleAt('sponsor');
    expect(readRoles(sentenceFeatures(readingOf(lines)), null)[at]!).toBeGreaterThan(
      judgeRoles(sentenceFeatures(readingOf(lines)), null, trainedRoles(null))[at]!,
    );
  });
  it('reads features that have a name each, and are never negative', () => {
    expect(new Set(SURFACE_FEATURES).size).toBe(SURFACE_FEATURES.length);
    const row = new Float32Array(SURFACE_FEATURES.length);
    for (let s = 0; s < reading.sentences.length; s += 1) {
      writeSurface(reading, s, row, 0);
      for (const value of row) expect(value).toBeGreaterThanOrEqual(0);
    }
  });
  it.each([
    ['so what do you do when it rains', true],
    ['do you think that it will hold', true],
    ['how long does it take', true],
    ['what you do is you hold it down', false],
    ['we did it in the rain', false],
    ['Did they?', true],
    ['What a day.', false],
  ])('asks, with or without a mark: “%s” %s', (text, asks) => expect(asksHere(readingOf([text]), 0)).toBe(asks));
});

describe('packed numbers', () => {
  it('come back within 1/254 of the largest of their block', () => {
    fc.assert(
      fc.property(fc.array(fc.float({ min: -100, max: 100, noNaN: true }), { minLength: 1, maxLength: 300 }), (list) => {
        const values = Float32Array.from(list);
        const back = unpackNumbers(packNumbers(values));
        expect(back.length).toBe(values.length);
        for (let b = 0; b < values.length; b += 64) {
          const most = Math.max(...values.subarray(b, b + 64).map(Math.abs));
          for (let i = b; i < Math.min(values.length, b + 64); i += 1) expect(Math.abs(back[i]! - values[i]!)).toBeLessThanOrEqual(most / 254 + 1e-4);
        }
      }),
    );
  });
});
