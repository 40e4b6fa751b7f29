import { describe, expect, it } from 'vitest';
import { demoTranscript } from '../talk.fixture.js';
import { sift } from '../sift/sift.js';
import { writeCsv } from './csv.js';
import { INTEREST_HEADER, InterestRefusedError, interestWeight, readInterestCsv } from './interest-csv.js';

describe('interest list', () => {
  it('is read with its columns in any order, quotes, a byte order mark and empty lines', () => {
    expect(readInterestCsv('\uFEFFvolume,term,change,competition,note\r\n1200,"Wet wood, stacked",0.25,0.4,x\r\n\r\n80,kiln,-0.1,0,\r\n')).toEqual([
      { term: 'wet wood, stacked', volume: 1200, competition: 0.4, change: 0.25 },
      { term: 'kiln', volume: 80, competition: 0, change: -0.1 },
    ]);
  });
  it('lets the last of a term count', () =>
    expect(readInterestCsv('term,volume,competition,change\na,1,0,0\nA,2,0,0\n')).toMatchObject([{ term: 'a', volume: 2 }]));
  it.each([
    ['term,volume,competition\na,1,0', 1, 'change'],
    ['term,volume,competition,change\na,many,0,0', 2, 'volume'],
    ['term,volume,competition,change\na,1,0,0\n\nb,1,2,0', 4, 'competition'],
    ['term,volume,competition,change\n,1,0,0', 2, 'term'],
    ['term,volume,competition,change\na,1,0,-3', 2, 'change'],
    ['', 1, 'term'],
  ])('refuses %j at line %i, %s', (text, line, field) => {
    expect(() => readInterestCsv(text)).toThrow(expect.objectContaining({ name: 'InterestRefusedError', line, field }));
    expect(new InterestRefusedError(line, field, 'x').message).toContain(`line ${line}`);
  });
  it('reads back what was written for a spreadsheet, also what begins like a formula', () => {
    const terms = ['+size dresses', "'tis the season", '-50 % days', 'a;b|c', 'plain'].map((term) => ({ term, volume: 10, competition: 0.5, change: -0.1 }));
    const rows = terms.map(({ term, volume, competition, change }) => [term, volume, competition, change]);
    expect(readInterestCsv(writeCsv(INTEREST_HEADER, rows))).toEqual(terms);
  });
  it('weighs what is looked for more, and what grows, higher', () => {
    const term = (volume: number, change: number) => ({ term: 't', volume, competition: 0.5, change });
    expect(interestWeight(term(1_000, 0), 1_000)).toBeCloseTo(1, 12);
    expect(interestWeight(term(10, 0), 1_000)).toBeLessThan(0.6);
    expect(interestWeight(term(10, 1), 1_000)).toBeGreaterThan(interestWeight(term(10, 0), 1_000));
    expect(interestWeight(term(0, -1), 0)).toBeCloseTo(0.2, 12);
  });
  it('shifts Currency of a sift and is named as the reason', () => {
    const transcript = demoTranscript('up-the-flue-11');
    const brief = { partStartMs: 0, partEndMs: null, minMs: 25_000, maxMs: 60_000, roughCount: 10, topics: [], kinds: [], avoid: [] };
    const input = { transcript, brief, clientTags: [], sentenceVectors: null, topicVectors: null };
    const phrase = sift(input).keyPhrases[0]!;
    expect(phrase.count).toBe(phrase.firstWords.length);
    const asked = sift({ ...input, interest: [{ term: phrase.text, volume: 5_000, competition: 0.3, change: 0.4 }] });
    const touching = asked.candidates.filter((one) => one.signals.currency.evidence.length > 0);
    expect(touching.length).toBeGreaterThan(0);
    expect(touching[0]!.signals.currency.sentence).toContain('looked for now');
    const others = asked.candidates.filter((one) => one.signals.currency.evidence.length === 0);
    expect(Math.min(...touching.map((one) => one.signals.currency.value))).toBeGreaterThan(Math.max(...others.map((one) => one.signals.currency.value)));
  });
});
