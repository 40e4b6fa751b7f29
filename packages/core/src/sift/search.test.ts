import { worthInSet } from './select.js';
import { describe, expect, it } from 'vitest';
import BM25Vectorizer from 'wink-nlp/utilities/bm25-vectorizer.js';
import its from 'wink-nlp/src/its.js';
import { demoLines, demoTranscript, toVtt, transcriptOf } from '../talk.fixture.js';
import { bestAround, PassageRefusedError, scorePassage } from './passage.js';
import { bm25, searchTranscript } from './search.js';
import { sift } from './sift.js';
import { SIGNALS } from './types.js';

describe('BM25 (Robertson & Zaragoza 2009)', () => {
  const texts = [
    ['the', 'cat', 'sat'],
    ['the', 'dog', 'dog', 'ran'],
    ['a', 'bird'],
  ];
  it('reckoned by hand: one text of three holds “dog” twice', () => {
    const idf = Math.log(1 + (3 - 1 + 0.5) / (1 + 0.5));
    const expected = (idf * 2 * 2.2) / (2 + 1.2 * (0.25 + (0.75 * 4) / 3));
    expect([...bm25(texts, ['dog'])]).toEqual([0, expect.closeTo(expected, 12), 0]);
  });
  it('agrees with wink-nlp’s vectorizer (its b 0.75, k1 1.2, k 1, no norm) on every text and word', () => {
    const vectorizer = BM25Vectorizer({ b: 0.75, k1: 1.2, k: 1, norm: 'none' });
    for (const text of texts) vectorizer.learn(text);
    const terms: string[] = vectorizer.out(its.terms);
    const table: number[][] = vectorizer.out(its.docTermMatrix);
    terms.forEach((term, t) => {
      // The package gives zero to a word that a text does not hold, as we do, and rounds to six places.
      bm25(texts, [term]).forEach((score, d) => expect(score).toBeCloseTo(table[d]![t]!, 5));
    });
  });
  it('a rarer word counts for more, and what is not there counts nothing', () => {
    const [first] = bm25(texts, ['cat']);
    expect(first!).toBeGreaterThan(bm25(texts, ['the'])[0]!);
    expect([...bm25(texts, ['horse'])]).toEqual([0, 0, 0]);
  });
});

describe('search of a transcript', () => {
  const transcript = transcriptOf(
    toVtt(
      ['We cut the hedges in autumn.', 'The cheapest hedge is a fence.', 'It rained for nine days.', 'Nobody cuts anything in the rain.'].map((text) => ({
        speaker: 'Ann',
        text,
      })),
    ),
  );
  it('finds words in any inflection, best first', () => {
    const hits = searchTranscript(transcript, 'hedge cutting', null);
    expect(hits[0]).toEqual({ sentence: 0, score: 1, by: 'words' });
    expect(hits.map((hit) => hit.sentence).sort()).toEqual([0, 1, 3]);
    expect(searchTranscript(transcript, 'zebra', null)).toEqual([]);
    expect(searchTranscript(transcript, '  ', null)).toEqual([]);
  });
  it('finds by meaning what has no word of the query, and lists nothing twice', () => {
    const unit = (...values: number[]): number[] => values.map((value) => value / Math.hypot(...values));
    const rows = Array.from({ length: 20 }, (_, i) => (i === 2 ? unit(1, 0.1) : unit(0.05 * (i % 3), 1)));
    const many = transcriptOf(toVtt(Array.from({ length: 20 }, (_, i) => ({ speaker: 'Ann', text: `Line number ${i} of it.` }))));
    const vectors = { sentences: { dimensions: 2, data: Float32Array.from(rows.flat()) }, query: { dimensions: 2, data: Float32Array.of(1, 0) } };
    expect(searchTranscript(many, 'weather', vectors)).toEqual([{ sentence: 2, score: 1, by: 'meaning' }]);
    expect(searchTranscript(many, 'number', vectors).filter((hit) => hit.sentence === 2)).toHaveLength(1);
  });
});

describe('a passage of one’s own', () => {
  const transcript = demoTranscript('what-goes-down-31');
  const brief = { partStartMs: 0, partEndMs: null, minMs: 25_000, maxMs: 60_000, roughCount: 10, topics: [], kinds: [], avoid: [] };
  const input = { transcript, brief, clientTags: [], sentenceVectors: null, topicVectors: null };
  const [best] = sift(input).candidates;
  it('has the score and signals that the sift gives the same words', () => {
    const own = scorePassage(input, { firstWord: best!.firstWord, endWord: best!.endWord });
    expect(own.score).toBe(best!.score);
    for (const name of SIGNALS) expect(own.signals[name]).toEqual(best!.signals[name]);
    expect([own.startMs, own.endMs, own.kind, own.title]).toEqual([best!.startMs, best!.endMs, best!.kind, best!.title]);
  });
  it('may start and end on any word, lie outside the part and the band, and keeps its evidence inside', () => {
    const own = scorePassage({ ...input, brief: { ...brief, partStartMs: 900_000 } }, { firstWord: 101, endWord: 118 });
    expect([own.firstWord, own.endWord]).toEqual([101, 118]);
    expect(own.firstLine.startsWith(transcript.words[101]!.text)).toBe(true);
    for (const name of SIGNALS) {
      for (const range of own.signals[name].evidence) expect(range.firstWord >= 101 && range.endWord <= 118).toBe(true);
    }
  });
  it('the best around some words holds them, is in the band, and is as good as the best that the sift found there', () => {
    const middle = transcript.sentences.filter((one) => one.firstWord > best!.firstWord && one.endWord < best!.endWord)[1]!;
    const around = bestAround(input, middle);
    const worth = (one: { score: number; startMs: number; endMs: number }): number => worthInSet(one.score, one.endMs - one.startMs);
    expect(worth(around)).toBeGreaterThanOrEqual(worth(best!)); // in the set a cut also makes room for others
    expect(around.firstWord).toBeLessThanOrEqual(middle.firstWord);
    for (const sentence of transcript.sentences.filter((_, s) => s % 37 === 5)) {
      const one = bestAround(input, sentence);
      expect(one.endWord).toBeGreaterThanOrEqual(sentence.endWord);
      expect(one.startMs).toBeLessThan(sentence.endMs);
      if (one.endMs - one.startMs >= brief.minMs) expect(one.endMs - one.startMs).toBeLessThanOrEqual(brief.maxMs);
    }
  });
  it('the best around some words holds them, though a cut would come in behind them', () => {
    const lines = [
      'We sold the old pump in the spring.',
      'It depends on that, and the farmers around here lose a third of it every year.',
      ...demoLines('what-goes-down-31').map(({ text }) => text),
    ];
    const talk = transcriptOf(toVtt(lines.map((text) => ({ speaker: 'Ann', text }))));
    const asked = { ...input, transcript: talk };
    const { firstWord, endWord } = talk.sentences[1]!;
    const depends = { firstWord: firstWord + 1, endWord: firstWord + 2 };
    expect(talk.words[depends.firstWord]!.text).toBe('depends');
    const around = bestAround(asked, depends);
    expect([around.firstWord <= depends.firstWord, around.endWord >= endWord]).toEqual([true, true]);
    const whole = bestAround({ ...asked, brief: { ...brief, avoid: ['pump'], maxMs: 26_000, minMs: 25_900 } }, depends);
    expect(whole.firstWord).toBeLessThanOrEqual(depends.firstWord);
  });
  it('around words that no clean cut holds there are the sentences they stand in', () => {
    const short = { ...input, brief: { ...brief, avoid: [transcript.words[best!.firstWord + 3]!.text] } };
    const at = { firstWord: best!.firstWord + 3, endWord: best!.firstWord + 4 };
    const sentence = transcript.sentences.find((one) => one.endWord > at.firstWord)!;
    expect(bestAround(short, at).endWord).toBe(sentence.endWord);
  });
  it.each([
    [-1, 4],
    [9, 9],
    [0, 1e9],
  ])('refuses words %i to %i', (firstWord, endWord) => {
    expect(() => scorePassage(input, { firstWord, endWord })).toThrow(PassageRefusedError);
    expect(() => bestAround(input, { firstWord, endWord })).toThrow(PassageRefusedError);
  });
});
