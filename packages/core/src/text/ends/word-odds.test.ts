import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { GAP_ODDS, ODDS_KINDS, oddsKey, OddsTable, packOdds, readWordOdds } from './word-odds.js';

const oddsAt = (text: string, k: number): number[] => {
  const into = new Float32Array(GAP_ODDS);
  readWordOdds(text.split(' '))(k, into);
  return [...into];
};
const sum = (values: readonly number[]): number => values.reduce((total, value) => total + value, 0);

describe('a table of odds', () => {
  it('gives back what was packed, to a tenth, and what is asked for otherwise', () => {
    const word = fc.stringMatching(/^[a-z']{1,9}$/);
    const entry = fc.tuple(fc.constantFrom(...ODDS_KINDS), fc.array(word, { minLength: 1, maxLength: 3 }), fc.double({ min: -12, max: 12, noNaN: true }));
    fc.assert(
      fc.property(fc.array(entry, { maxLength: 60 }), (entries) => {
        const odds = new Map(entries.map(([kind, words, value]) => [oddsKey(kind, ...words), value]));
        const table = new OddsTable(packOdds(odds));
        for (const [key, value] of odds) expect(Math.abs(table.get(key, 99) - value)).toBeLessThanOrEqual(0.051);
        const other = oddsKey('across', 'not', 'there', 'at', 'all');
        if (!odds.has(other)) expect(table.get(other, 7)).toBe(7);
      }),
    );
  });
  it('holds what is beyond its range at the end of it', () => {
    const key = oddsKey('three', 'a', 'b', 'c');
    expect(new OddsTable(packOdds(new Map([[key, -40]]))).get(key)).toBeCloseTo(-12.7, 6);
  });
  it('tells kinds and orders of words apart', () => {
    const keys = [
      oddsKey('across', 'a', 'b'),
      oddsKey('across', 'b', 'a'),
      oddsKey('pairBefore', 'a', 'b'),
      oddsKey('before', 'a'),
      oddsKey('after', 'a'),
      oddsKey('three', 'a', 'b', 'c'),
    ];
    expect(new Set(keys).size).toBe(keys.length);
  });
});

describe('readWordOdds', () => {
  it.each([
    ['we thank you i think it is fine', 3, 'we thank you | i think'],
    ['it went very well so i said yes', 4, 'it went very well | so i said'],
    ['come and see us tomorrow what do you think', 5, 'come and see us tomorrow | what do you'],
  ])('%s: likelier to end at %d than at any other gap', (text, at) => {
    const others = text.split(' ').flatMap((_, k) => (k === 0 || k === at ? [] : [sum(oddsAt(text, k))]));
    expect(sum(oddsAt(text, at))).toBeGreaterThan(Math.max(...others));
  });
  it.each([
    ['we were out of the house', 4],
    ['i do not know', 3],
    ['they want to go', 2],
  ])('%s: runs on at gap %d', (text, at) => expect(sum(oddsAt(text, at))).toBeLessThan(-2));
  it('reads words that nobody knows, and the ends of the text', () => {
    expect(oddsAt('xylqua brovendish', 1)).toEqual([-2, -1, 0, 0, 0]);
    expect(oddsAt('hello', 0)[0]).toBe(-2);
  });
});
