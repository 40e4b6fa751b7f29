import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { rouge1, rougeL } from './rouge.js';

const words = (line: string): string[] => line.split(' ');

describe('ROUGE', () => {
  // The worked example of Lin (2004), 3.1, from memory: with β = 1, S2 scores 3/4 and S3 2/4 by ROUGE-L, though both have the same bigrams.
  const reference = words('police killed the gunman');
  it.each([
    ['police kill the gunman', 3 / 4],
    ['the gunman kill police', 2 / 4],
    ['the gunman police killed', 2 / 4],
  ])('%s', (candidate, f) => expect(rougeL(words(candidate), reference).f).toBe(f));
  it('counts words as often as both have them', () => {
    expect(rouge1(words('the the the cat'), words('the cat sat on the mat'))).toEqual({ recall: 3 / 6, precision: 3 / 4, f: 0.6 });
    expect(rouge1([], reference)).toEqual({ recall: 0, precision: 0, f: 0 });
  });
  it('is 1 for the same and never more by order than without', () => {
    const line = fc.array(fc.constantFrom('a', 'b', 'c', 'd'), { minLength: 1, maxLength: 12 });
    fc.assert(
      fc.property(line, line, (a, b) => {
        expect(rougeL(a, a).f).toBe(1);
        expect(rougeL(a, b).f).toBeLessThanOrEqual(rouge1(a, b).f);
        expect(rougeL(a, b).recall).toBe(rougeL(b, a).precision);
      }),
    );
  });
});
