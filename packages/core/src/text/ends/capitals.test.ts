import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { splitSentences } from '../sentences.js';
import { winkTagger } from '../tagger.js';
import { evenly } from './evenly.fixture.js';
import { learnCapitals, type Shape, SHAPES, shapesOf, tellCapitals } from './capitals.js';

const wordsOf = (text: string) =>
  text
    .split(/\s+/)
    .map((word, i) => ({ text: word, kind: word.startsWith('[') ? ('mark' as const) : ('word' as const), speaker: 0, startMs: 400 * i, endMs: 400 * i + 390 }));

/** Gaps of which every eighth is an end; words tell it faintly. A word is written large at these shares of ends and others. */
function written(n: number, large: { atEnds: number; elsewhere: number }) {
  const readings = [];
  const shapes: Shape[] = [];
  const isEnd: boolean[] = [];
  for (let i = 1; i <= n; i += 1) {
    const end = i % 8 === 0;
    readings.push({ end: (end ? -0.5 : -3) + 3 * (evenly(i, 3) - 0.5), clause: -2 });
    shapes.push(evenly(i, 7) < (end ? large.atEnds : large.elsewhere) ? 'capital' : 'small');
    isEnd.push(end);
  }
  return { readings, shapes, isEnd };
}

describe('learnCapitals', () => {
  it('finds that sentences begin with capitals where they do', () => {
    const { readings, shapes } = written(2_000, { atEnds: 1, elsewhere: 0.01 });
    const told = learnCapitals(readings, shapes);
    expect(told('capital')).toBeGreaterThan(3);
    expect(told('small')).toBeLessThan(-3);
  });
  it('concludes nothing where all is small, all is large, or capitals fall anywhere', () => {
    for (const share of [0, 1, 0.3]) {
      const { readings, shapes } = written(2_000, { atEnds: share, elsewhere: share });
      const told = learnCapitals(readings, shapes);
      for (const shape of SHAPES) expect(Math.abs(told(shape))).toBeLessThan(0.5);
    }
  });
  it('concludes little from a few words', () => {
    const told = learnCapitals(
      [
        { end: 1, clause: -2 },
        { end: -3, clause: -2 },
      ],
      ['capital', 'small'],
    );
    expect(told('capital')).toBeLessThan(0.3);
  });
  it('never says more than all words together, nor anything of what tells nothing', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.double({ min: -8, max: 8, noNaN: true }), fc.constantFrom(...SHAPES)), { maxLength: 60 }), (gaps) => {
        const told = learnCapitals(
          gaps.map(([end]) => ({ end, clause: 0 })),
          gaps.map(([, shape]) => shape),
        );
        for (const shape of SHAPES) expect(Math.abs(told(shape))).toBeLessThanOrEqual(5);
        expect(told('told-by-nothing')).toBe(0);
      }),
    );
  });
});

describe('tellCapitals', () => {
  it('counts how words are written at known ends', () => {
    const { isEnd, shapes } = written(8_000, { atEnds: 0.9, elsewhere: 0.1 });
    const told = tellCapitals(isEnd, shapes);
    expect(told('capital')).toBeCloseTo(Math.log(9), 0);
    expect(told('small')).toBeCloseTo(Math.log(1 / 9), 0);
  });
});

describe('shapesOf', () => {
  const shapes = (text: string, lines: readonly number[] = []) => shapesOf(wordsOf(text), new Set(lines));
  it('tells a capital of a word that is small elsewhere from a name', () => {
    expect(shapes('we saw Marrow and they saw us Saw it')).toEqual(['small', 'small', 'name', 'small', 'small', 'small', 'small', 'capital', 'small']);
  });
  it('knows function words, also with what is joined to them, as no names', () => {
    expect(shapes('There’d been rain The end')).toEqual(['capital', 'small', 'small', 'capital', 'small']);
  });
  it('is told nothing by "I", figures, marks, and letters said one by one', () => {
    expect(shapes('I I’m 40 3rd [laughter] BBC —')).toEqual(new Array(7).fill('told-by-nothing'));
  });
  it('knows a word that begins a line', () => {
    expect(shapes('the rain The rain', [2])[2]).toBe('capital-at-line');
    expect(shapes('the rain the rain', [2])[2]).toBe('small');
  });
});

describe('sentences of a file that lost its full stops', () => {
  const said = [
    'The river came up at four in the morning',
    'We heard the cellar go first',
    'My father stood on the stairs and counted the steps that were still dry',
    'Nobody said a word',
    'Then the lights went and the dog began to howl at the door',
    'So we carried her up to the loft with a blanket and a tin of biscuits',
    'It was the longest night that I remember',
    'In the morning there was a boat in the garden',
    'The neighbours had come for us',
    'That boat is still there and we never gave it back',
  ];
  const linesOfSix = (words: number) => new Set(Array.from({ length: Math.ceil(words / 6) }, (_, k) => 6 * k));
  const ends = said.map(
    (_, s) =>
      said
        .slice(0, s + 1)
        .join(' ')
        .split(' ').length,
  );

  it('are found again by its capitals', () => {
    const { sentences, sentenceEnds } = splitSentences(wordsOf(said.join(' ')), winkTagger);
    const found = new Set(sentences.map(({ endWord }) => endWord));
    expect(ends.filter((end) => found.has(end)).length).toBeGreaterThanOrEqual(9);
    expect(found.size).toBeLessThanOrEqual(12);
    expect(sentenceEnds).toBe('restored');
    const small = splitSentences(wordsOf(said.join(' ').toLowerCase()), winkTagger).sentences;
    expect(small.filter(({ endWord }) => ends.includes(endWord)).length).toBeLessThan(9);
  });
  it('are not looked for at every line where a tool writes each line large', () => {
    const text = [...said, ...said].join(' ').toLowerCase();
    const words = wordsOf(text).map((word, i) => (i % 6 === 0 ? { ...word, text: word.text[0]!.toUpperCase() + word.text.slice(1) } : word));
    const lines = linesOfSix(words.length);
    const atLines = (known?: ReadonlySet<number>) =>
      splitSentences(words, winkTagger, known === undefined ? {} : { lineStarts: known }).sentences.filter(({ firstWord }) => lines.has(firstWord)).length;
    expect(atLines(lines)).toBeLessThan(lines.size / 3);
  });
  it('are not looked for at names', () => {
    const text = said.join(' ').replace('My father', 'My father Anselm Marrow').replace('the neighbours', 'the Quillfords');
    const { sentences } = splitSentences(wordsOf(text), winkTagger);
    const starts = sentences.map(({ firstWord }) => wordsOf(text)[firstWord]!.text);
    expect(starts).not.toContain('Anselm');
    expect(starts).not.toContain('Marrow');
  });
});
