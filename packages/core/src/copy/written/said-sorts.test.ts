import { describe, expect, it } from 'vitest';
import { transcriptOf } from '../../talk.fixture.js';
import { winkTagger } from '../../text/tagger.js';
import { normaliseWords } from '../../text/tells/find-tells.js';
import { compress } from './compress.js';
import { type SaidSort, saidSort } from './said-sorts.js';

function sortOf(text: string): SaidSort | null {
  const { words } = transcriptOf(`WEBVTT\n\n00:00.000 --> 00:30.000\n${text}\n`);
  const texts = normaliseWords(words);
  return saidSort({ sort: 'said', line: compress({ words, texts, tags: winkTagger(texts) }, 0, words.length) });
}

describe('what a quoted line does', () => {
  it.each<[string, SaidSort | null]>([
    ['I forgot the drain and it flooded the cellar.', 'mistake'],
    ['The fault is on the other side.', 'mistake'],
    ['We lost forty trees that winter.', 'mistake'],
    ['The oak was harder than the ash.', 'comparison'],
    ['You burn the ash instead of the pine.', 'comparison'],
    ['It weighs three point four kilos.', 'figure'],
    ['Eleven of them had not moved.', 'figure'],
    ['Forty percent went for juice.', 'figure'],
    // More than a number is still the number; a number that names is none; and what is fine is no fine.
    ['It dried for more than twelve weeks.', 'figure'],
    ['The answer is on page twelve.', null],
    ['The first day it was fine.', null],
    ['I would leave it in the shade.', null],
  ])('“%s”: %s', (text, sort) => expect(sortOf(text)).toBe(sort));
  it('what was made of a line keeps its own sort', () => {
    expect(saidSort({ sort: 'advice', line: [{ text: 'lost', norm: 'lost', tag: 'VERB', first: 0, end: 1 }] })).toBeNull();
  });
});
