import { describe, expect, it } from 'vitest';
import { toVtt, transcriptOf } from '../../talk.fixture.js';
import { buildContext } from '../context.js';
import type { InterestTerm } from '../../exchange/interest-csv.js';
import type { Run, SiftInput, Vectors } from '../types.js';
import { currency } from './currency.js';

const LINES = [
  'We glued the sole with superglue before you start to walk on it.',
  'The kitten sat in the window for the whole of the afternoon.',
  'A new pair is a hundred and sixty dollars in the shop.',
  'Nobody had been up the hill since the spring of that year.',
  'There was a shed with a door and a lock on it.',
];
/** Each row points in one of four directions, or half between two of them. */
const rows = (...directions: readonly (readonly number[])[]): Vectors => ({
  dimensions: 4,
  data: Float32Array.from(
    directions.flatMap((list) => {
      const row = [0, 0, 0, 0];
      for (const d of list) row[d] = 1 / Math.sqrt(list.length);
      return row;
    }),
  ),
});
const SENTENCES = rows([0], [1], [2], [3], [3]);

const termOf = (term: string): InterestTerm => ({ term, volume: 1_000, competition: 0.2, change: 0.1 });

function judge(fields: Partial<SiftInput> & { topics?: string[] }, run: Run) {
  const { topics = [], ...rest } = fields;
  const context = buildContext({
    transcript: transcriptOf(toVtt(LINES.map((text) => ({ speaker: 'Ann', text })))),
    brief: { partStartMs: 0, partEndMs: null, minMs: 3_000, maxMs: 60_000, roughCount: 5, topics, kinds: [], avoid: [] },
    clientTags: [],
    sentenceVectors: SENTENCES,
    topicVectors: null,
    ...rest,
  });
  const signal = currency(context);
  const { sentence, evidence } = signal.explain(run);
  const words = evidence.map(({ firstWord, endWord }) =>
    context.words
      .slice(firstWord, endWord)
      .map((word) => word.text)
      .join(' '),
  );
  return { value: signal.value(run), sentence, words };
}
const ALL = { first: 0, end: LINES.length };

describe('currency', () => {
  it('is 50 and says why where there is nothing to judge by', () =>
    expect(judge({}, ALL)).toMatchObject({ value: 50, sentence: expect.stringContaining('Nothing to judge by') as string, words: [] }));
  it('says so where nothing is touched', () => {
    const { value, sentence } = judge({ topics: ['bicycles'] }, ALL);
    expect(value).toBeLessThan(50);
    expect(sentence).toBe('Touches none of the topics, tags or terms looked for');
  });
  it('names a tag that is only meant, with the sentence, and not where vectors are missing', () => {
    const tags = { clientTags: ['cats'], tagVectors: rows([1]) };
    const near = judge(tags, { first: 1, end: 2 });
    expect(near.sentence).toBe('Near the client’s “cats” in meaning: “The kitten sat in the window for the whole…”');
    expect(near.words).toEqual([LINES[1]]);
    expect(near.value).toBeGreaterThan(judge(tags, { first: 3, end: 4 }).value + 20);
    expect(judge({ ...tags, sentenceVectors: null }, { first: 1, end: 2 }).sentence).toContain('Touches none');
  });
  it('counts what the brief asks for once, though the client and the interest list have it, too', () => {
    const input = {
      topics: ['superglue'],
      topicVectors: rows([0]),
      clientTags: ['superglue'],
      tagVectors: rows([0]),
      interest: [termOf('Superglue')],
      interestVectors: rows([0]),
    };
    const { sentence, words } = judge(input, { first: 0, end: 1 });
    expect(sentence).toBe('Superglue: in the brief');
    expect(words.join(' ')).toContain('superglue');
    expect(judge({ ...input, interest: [], interestVectors: null, clientTags: [], tagVectors: null }, { first: 0, end: 1 }).value).toBeCloseTo(
      judge(input, { first: 0, end: 1 }).value,
      9,
    );
  });
  it('counts an interest term that a tag already names once', () => {
    const both = judge({ clientTags: ['cats'], tagVectors: rows([1]), interest: [termOf('cats')], interestVectors: rows([1]) }, { first: 1, end: 2 });
    expect(both.sentence).toBe('Near the client’s “cats” in meaning: “The kitten sat in the window for the whole…”');
  });
  it('a term looked for counts less than a tag of the client’s own, and is named as such', () => {
    const wanted = judge({ interest: [termOf('cats')], interestVectors: rows([1]) }, { first: 1, end: 2 });
    expect(wanted.sentence).toContain('near the looked-for “cats” in meaning'.replace('near', 'Near'));
    expect(wanted.value).toBeLessThan(judge({ clientTags: ['cats'], tagVectors: rows([1]) }, { first: 1, end: 2 }).value);
  });
  it('hears figures about cost where money is named, and quotes it', () => {
    const asked = { topics: ['parts with figures about cost'] };
    const about = judge(asked, { first: 2, end: 3 });
    expect(about.sentence).toContain('What “parts with figures about cost” asks for: “A new pair is a hundred and sixty dollars');
    expect(about.value).toBeGreaterThan(judge(asked, { first: 3, end: 4 }).value + 20);
  });
  it('one sentence on the topic makes a longer passage one about it, though less than when it is all of it', () => {
    const asked = { topics: ['superglue'] };
    const [alone, longer, off] = [judge(asked, { first: 0, end: 1 }), judge(asked, { first: 0, end: 4 }), judge(asked, { first: 1, end: 5 })];
    expect(alone.value).toBeGreaterThan(longer.value);
    expect(longer.value).toBeGreaterThan(off.value + 10);
  });
});
