import { describe, expect, it } from 'vitest';
import { readTranscript, ROLES } from '@sift-reel/core';
import { seededChance, shuffled } from './math/chance.js';
import { fitLogistic, predict } from './math/logistic.js';
import { fitSparseLogistic } from './math/sparse-logistic.js';
import { judge, judgeByLater, overlap } from './editors/agreement.js';
import { gradesOf, meanOver, neverOf, readMarks } from './editors/marks.js';
import { readTalk, toCaptions } from './editors/talk.js';
import { worthOf } from './editors/worth.js';
import { asHeard, roughened } from './roles/as-heard.js';
import { bareText, readLabelled } from './roles/labelled.js';
import { countTransitions } from './roles/fit-roles.js';
import { fitPairwise } from './weights/pairwise.js';

describe('chance', () => {
  it('tells the same again, and other things with another seed', () => {
    const draw = (seed: number): number[] => {
      const chance = seededChance(seed);
      return [chance(), chance(), chance()];
    };
    expect(draw(5)).toEqual(draw(5));
    expect(draw(5)).not.toEqual(draw(6));
    const list = [1, 2, 3, 4, 5, 6, 7, 8];
    const other = shuffled(list, seededChance(2));
    expect([...other].sort((a, b) => a - b)).toEqual(list);
    expect(other).not.toEqual(list);
  });
});

describe('multinomial logistic regression', () => {
  const options = { classes: 3, dense: 2, sparse: 2, epochs: 60, pull: { head: 0, tail: 0, sparse: 0, split: 2 }, rate: 0.05, chance: seededChance(1) };
  const at = [
    [1, 0],
    [0, 1],
    [-1, -1],
  ];
  const chance = seededChance(9);
  const examples = Array.from({ length: 90 }, (_, i) => ({
    dense: Float32Array.of(at[i % 3]![0]! + 0.4 * (chance() - 0.5), at[i % 3]![1]! + 0.4 * (chance() - 0.5)),
    places: new Int32Array(0),
    weight: 1,
    label: i % 3,
    counts: 1,
  }));
  it('tells three clouds apart, with probabilities that sum to one', () => {
    const weights = fitLogistic(examples, options);
    const p = new Float64Array(3);
    for (const example of examples) {
      predict(example, weights, 5, 2, 2, p);
      expect(p[0]! + p[1]! + p[2]!).toBeCloseTo(1, 9);
      expect(p.indexOf(Math.max(...p))).toBe(example.label);
    }
  });
  it('gives the same weights again', () => {
    expect(fitLogistic(examples, { ...options, chance: seededChance(1) })).toEqual(fitLogistic(examples, { ...options, chance: seededChance(1) }));
  });
  it('binary, over places: learns which place tells', () => {
    const labels = Uint8Array.from({ length: 200 }, (_, i) => i % 2);
    const places = Int32Array.from(Array.from(labels, (label, i) => [label === 1 ? 3 : 4, i % 3]).flat());
    const weights = fitSparseLogistic({ places, features: 2, labels }, { size: 8, epochs: 6, rate: 0.1, pull: 0, chance: seededChance(4) });
    expect(weights[3]!).toBeGreaterThan(1);
    expect(weights[4]!).toBeLessThan(-1);
  });
  it('binary, over places and numbers: gives each number a weight of its own behind the places', () => {
    const draw = seededChance(6);
    const values = Float32Array.from({ length: 600 }, () => 2 * draw() - 1);
    const labels = Uint8Array.from({ length: 300 }, (_, i) => (values[2 * i]! > 0 ? 1 : 0));
    const set = { places: new Int32Array(300), features: 1, labels, numbers: { values, columns: 2 } };
    const weights = fitSparseLogistic(set, { size: 4, epochs: 12, rate: 0.2, pull: 0, chance: seededChance(4) });
    expect(weights).toHaveLength(6);
    expect(weights[4]!).toBeGreaterThan(2);
    expect(Math.abs(weights[5]!)).toBeLessThan(0.25 * weights[4]!);
  });
});

describe('pairwise weights', () => {
  const chance = seededChance(8);
  const values = Float32Array.from({ length: 600 }, () => chance());
  const worth = Array.from({ length: 200 }, (_, r) => 3 * values[3 * r]! - 2 * values[3 * r + 1]!);
  const options = { prior: [0.5, -0.5, 0.5], hold: 0.01, least: 0, apart: 0.2, pairs: 4_000, steps: 200, seed: 1 };
  it('find what ranks, keep signs, and let go of what tells nothing', () => {
    const weights = fitPairwise([{ values, worth }], options);
    expect(weights[0]! / -weights[1]!).toBeCloseTo(1.5, 0);
    expect(Math.abs(weights[2]!)).toBeLessThan(0.15 * weights[0]!);
    const wrong = fitPairwise([{ values, worth }], { ...options, prior: [-0.5, -0.5, 0.5], least: 0.4 });
    expect(wrong[0]!).toBeCloseTo(-0.2, 6);
  });
  it('stay at the prior when held', () => {
    fitPairwise([{ values, worth }], { ...options, hold: 1_000, steps: 0 }).forEach((weight, p) => expect(weight).toBeCloseTo(options.prior[p]!, 6));
  });
});

describe('marked talks', () => {
  const talk = readTalk('# a remark\nAnn: Good morning, all.\nBo: Hello.\n\nAnn: The roof came off, and I laughed.\nAnn: Nobody was hurt.\n', 1);
  it('have sentences with speakers, pauses and words in order', () => {
    expect(talk.sentences.map(({ speaker, afterPause }) => [speaker, afterPause])).toEqual([
      ['Ann', false],
      ['Bo', false],
      ['Ann', true],
      ['Ann', false],
    ]);
    const words = talk.sentences.flatMap((sentence) => sentence.words);
    words.forEach((word, i) => i > 0 && expect(word.startMs).toBeGreaterThanOrEqual(words[i - 1]!.endMs));
    expect(readTalk('- a b.\n- c d.\n', 1).sentences.map((one) => one.speaker)).toEqual(['A', 'B']);
  });
  it.each([
    ['written', 'lines', 'named', 4],
    ['none', 'rolling', 'nameless', null],
  ] as const)('become %s %s %s captions that the core reads back word for word', (punctuation, cues, speakers, sentences) => {
    const { transcript } = readTranscript(new TextEncoder().encode(toCaptions(talk, { punctuation, cues, speakers })));
    const said = talk.sentences.flatMap((one) => one.words.map((word) => word.text.toLowerCase().replace(/[^a-z]/g, '')));
    expect(transcript.words.map((word) => word.text.toLowerCase().replace(/[^a-z]/g, ''))).toEqual(said);
    if (sentences !== null) expect(transcript.sentences).toHaveLength(sentences);
    expect(transcript.speakers).toHaveLength(speakers === 'named' ? 2 : 0);
  });
  const marks = readMarks('m', '# taste\n01 3-4 5\n01 1-2 never\n02 1-1 3\n').filter((mark) => mark.talk === '01');
  it('marks give grades by sentence and means over time', () => {
    expect([...gradesOf(talk, marks)]).toEqual([0, 0, 5, 5]);
    expect([...neverOf(talk, marks)]).toEqual([1, 1, 0, 0]);
    const [, , third] = talk.sentences;
    expect(meanOver(talk, gradesOf(talk, marks), third!.startMs, third!.endMs)).toBe(5);
    expect(meanOver(talk, gradesOf(talk, marks), talk.durationMs, talk.durationMs + 5)).toBe(0);
  });
  it.each(['01 4-3 5', '01 1-2 6', '01 x', '01 0-2 3'])('refuse the mark “%s” with its line', (line) => {
    expect(() => readMarks('m', `# taste\n${line}`)).toThrow(expect.objectContaining({ name: 'MarkedSetError', line: 2 }));
  });
  it('worth is highest for the very passage that was marked', () => {
    const best = { startMs: talk.sentences[2]!.startMs, endMs: talk.sentences[3]!.endMs };
    const off = { startMs: talk.sentences[1]!.startMs, endMs: talk.sentences[2]!.endMs };
    const [a, b] = worthOf({ talk, marks: [marks] }, [best, off]);
    expect(a!).toBeCloseTo(0.7 * 5 + 0.6 * 5, 9);
    expect(b!).toBeLessThan(a!);
    expect([
      overlap(best, best),
      overlap({ startMs: 0, endMs: 10 }, { startMs: 10, endMs: 20 }),
      overlap({ startMs: 0, endMs: 10 }, { startMs: 5, endMs: 15 }),
    ]).toEqual([1, 0, 1 / 3]);
  });
});

describe('agreement', () => {
  const line = (i: number): string => `Sentence number ${i} of a talk that is long enough to hold some passages of half a minute each, and goes on a bit.`;
  const talk = readTalk(Array.from({ length: 60 }, (_, i) => line(i)).join('\n'), 2);
  const reader = (firsts: number[]) => firsts.map((first) => ({ talk: '01', first, end: first + 5, grade: 5 }));
  const marks = [reader([10, 30, 50]), reader([10, 31, 50]), reader([11, 30, 49])];
  const passage = (first: number) => ({ startMs: talk.sentences[first]!.startMs, endMs: talk.sentences[first + 4]!.endMs });
  it('is about 1 for passages like the readers’, 0 for chance, below 0 for worse', () => {
    expect(judge({ talk, marks }, [10, 30, 50].map(passage)).agreement).toBeGreaterThan(0.95);
    expect(judge({ talk, marks }, [0, 20, 40].map(passage)).agreement).toBeLessThan(0);
    expect(judge({ talk, marks }, [10, 30, 50].map(passage)).ndcg).toBeGreaterThan(0.9);
  });
  it('tells how well edges meet the readers’: all of a passage is better than half of it, and readers meet each other', () => {
    const half = ({ startMs, endMs }: { startMs: number; endMs: number }) => ({ startMs, endMs: (startMs + endMs) / 2 });
    const whole = judge({ talk, marks }, [10, 30, 50].map(passage));
    const halves = judge({ talk, marks }, [10, 30, 50].map(passage).map(half));
    expect(whole.edges).toBeGreaterThan(0.85);
    expect(halves.edges).toBeLessThan(0.6);
    expect(halves.agreement).toBeCloseTo(whole.agreement, 1); // which is why edges are asked for
    expect(whole.edgesOfReaders).toBeGreaterThan(0.7);
    expect(judge({ talk, marks }, []).edges).toBe(0);
  });
  it('tells how many a reader would keep as they are', () => {
    const third = ({ startMs, endMs }: { startMs: number; endMs: number }) => ({ startMs, endMs: startMs + (endMs - startMs) / 3 });
    expect(judge({ talk, marks }, [10, 30, 0].map(passage)).kept).toBeCloseTo(2 / 3, 9);
    expect(judge({ talk, marks }, [10, 30, 50].map(passage).map(third)).kept).toBe(0);
    expect(judge({ talk, marks }, []).keptOfReaders).toBe(1);
  });
  it('by a later reader: earlier readers stand at 1, and who meets the later one better stands above them', () => {
    const later = reader([12, 32, 52]);
    const by = (firsts: number[]) => judgeByLater({ talk, marks: [marks[0]!] }, [...later, { talk: '01', first: 0, end: 5, grade: 0 }], firsts.map(passage));
    expect(by([10, 30, 50]).agreement).toBeCloseTo(1, 9);
    expect(by([12, 32, 52]).agreement).toBeGreaterThan(1.2);
    expect(by([12, 32, 52])).toMatchObject({ edges: 1, kept: 1, never: 0 });
    expect(by([10, 30, 50]).edges).toBeCloseTo(by([10, 30, 50]).edgesOfReaders, 9);
    expect(by([0]).agreement).toBeLessThan(0);
    expect(by([0]).never).toBeCloseTo(1, 6);
  });
  it('tells the share that two readers say nobody should post', () => {
    const never = [...marks[0]!, { talk: '01', first: 0, end: 5, grade: 0 }];
    expect(judge({ talk, marks: [never, never, marks[2]!] }, [0].map(passage)).never).toBeCloseTo(1, 6);
    expect(judge({ talk, marks: [never, marks[1]!, marks[2]!] }, [0].map(passage)).never).toBe(0);
  });
});

describe('sentences as they are heard', () => {
  const file = Array.from({ length: 40 }, (_, i) => `${i % 2 === 0 ? 'st' : '> cl'} The baker of number ${i} went out early, and nobody saw him again.`).join(
    '\n',
  );
  const sentences = readLabelled('f', `${file}\n\nad You should never do that at home.\nad It is always better outside.\n`);
  it('keep every word, voice and stretch; some are cut in two, some run together', () => {
    const heard = asHeard(sentences, seededChance(3));
    const words = (list: readonly { text: string }[]): string[] => list.flatMap(({ text }) => text.split(' '));
    const spoken = words(heard).filter((word, i, all) => word !== all[i - 1]);
    for (const word of new Set(words(sentences.map(({ text }) => ({ text: bareText(text) }))))) expect(spoken).toContain(word);
    expect(heard.length).not.toBe(sentences.length);
    expect(heard.filter((one) => one.opens)).toHaveLength(2);
    expect(heard.filter((one) => one.newVoice)).toHaveLength(20);
    expect(heard.some((one) => one.share < 1)).toBe(true);
    for (const one of heard) expect(one.share).toBeGreaterThanOrEqual(0.5);
    expect(asHeard(sentences, seededChance(3))).toEqual(heard);
  });
  it('never run together across voices', () => {
    const turns = sentences.slice(0, 40).map((one) => ({ ...one, newVoice: true }));
    for (const one of asHeard(turns, seededChance(5))) expect(one.share).toBe(1);
  });
  it('roughened, they keep their places and roles and gain words', () => {
    const rough = roughened(sentences, seededChance(3));
    expect(rough.map(({ role, opens, newVoice }) => [role, opens, newVoice])).toEqual(sentences.map(({ role, opens, newVoice }) => [role, opens, newVoice]));
    expect(rough.map(({ text }) => text).join(' ').length).toBeGreaterThan(sentences.map(({ text }) => text).join(' ').length);
  });
});

describe('labelled sentences', () => {
  it('are read with voice, role and stretch', () => {
    expect(readLabelled('f', 'gr Hello all.\n> cl It is wrong.\n\nwa I click here.\n')).toEqual([
      { text: 'Hello all.', role: ROLES.indexOf('greeting'), newVoice: false, opens: true },
      { text: 'It is wrong.', role: ROLES.indexOf('claim'), newVoice: true, opens: false },
      { text: 'I click here.', role: ROLES.indexOf('walkThrough'), newVoice: false, opens: true },
    ]);
    expect(() => readLabelled('f', 'gr Hello.\nzz What?')).toThrow(expect.objectContaining({ line: 2 }));
    expect(bareText('Well, Dr. Osei said “no”! [laughs]')).toBe('well dr osei said no [laughs]');
  });
  it('transitions are above 1 where one role follows another more than by chance', () => {
    const sentences = readLabelled('f', 'wa a\nwa b\nwa c\nwa d\nwa e\nwa f\n\nsp a\nsp b\nsp c\nsp d\n');
    const table = countTransitions([sentences]);
    const at = (from: 'walkThrough' | 'sponsor', to: 'walkThrough' | 'sponsor'): number => table[ROLES.indexOf(from) * ROLES.length + ROLES.indexOf(to)]!;
    expect(at('walkThrough', 'walkThrough')).toBeGreaterThan(1);
    expect(at('walkThrough', 'sponsor')).toBeLessThan(1);
  });
});
