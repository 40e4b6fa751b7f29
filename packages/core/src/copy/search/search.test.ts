import { describe, expect, it } from 'vitest';
import { proposeKeywords } from '../keywords.js';
import { titleContext } from '../propose.js';
import { recordingSubject } from '../recording-tags.js';
import { titleWords } from '../title-tags.js';
import { transcriptOf } from '../../talk.fixture.js';
import { winkTagger } from '../../text/tagger.js';
import { normaliseWords } from '../../text/tells/find-tells.js';
import { searchDrafts, type SearchGround } from './search-drafts.js';
import { SEARCH_FEATURES, searchFeatures } from './search-features.js';
import { SEARCH_WEIGHTS } from './search-weights.js';

const LINES = [
  'The seed potato has a lot number on its label and you keep the label.',
  'When the planter skips, the seed potato is too long for the cup.',
  'So we keep every label of the seed potato until the crop is lifted.',
];
const transcript = transcriptOf(`WEBVTT\n\n${LINES.map((text, i) => `00:${i}0.000 --> 00:${i}9.000\n${text}`).join('\n\n')}\n`);
const context = titleContext(transcript, { firstWord: 0, endWord: transcript.words.length });
const texts = normaliseWords(transcript.words);
const NAMELESS: SearchGround = { subject: recordingSubject(texts, winkTagger(texts), transcript.words), titled: [], titleWords: [] };
const NAMED: SearchGround = { ...NAMELESS, titled: ['seed potato'], titleWords: ['seed', 'potato'] };

/** Weighs phrases by these features alone. */
const by = (weights: Partial<Record<(typeof SEARCH_FEATURES)[number], number>>): number[] => SEARCH_FEATURES.map((feature) => weights[feature] ?? 0);

describe('search phrases', () => {
  it('are made of words side by side, and of things behind what names the recording', () => {
    const drafts = searchDrafts(context.passage, NAMED);
    const of = (text: string) => drafts.find((one) => one.text === text)?.sort;
    expect(of('seed potato')).toBe('compound');
    expect(of('seed potato label')).toBe('titled');
    expect(of('seed label')).toBe('title word');
    // Neither the head again, nor the same words another way round.
    expect(drafts.filter(({ text }) => text === 'seed potato potato' || text === 'potato seed')).toEqual([]);
    expect(new Set(drafts.map(({ stems }) => [...stems].sort().join(' '))).size).toBe(drafts.length);
    expect(searchDrafts(context.passage, NAMELESS).filter(({ sort }) => sort === 'titled' || sort === 'title word')).toEqual([]);
  });
  it('are weighed by how often their words are said, here and in all', () => {
    const drafts = searchDrafts(context.passage, NAMED);
    const rows = searchFeatures(drafts, context.passage, context.statistics, NAMED);
    const row = rows[drafts.findIndex(({ text }) => text === 'seed potato label')]!;
    const of = (feature: (typeof SEARCH_FEATURES)[number]): number => row[SEARCH_FEATURES.indexOf(feature)]!;
    // Each of the three is said three times, in two sentences together.
    expect([of('least said here'), of('most said here')]).toEqual([1, 1]);
    expect([of('is titled'), of('is compound'), of('of the title'), of('said together')]).toEqual([1, 0, 1, 1]);
    expect(of('least of the passage')).toBe(1);
    expect(of('words')).toBeCloseTo(1 / 3, 9);
  });
  it('hold no word more than twice, none of another’s meaning, and none that is worth too little', () => {
    const worthy = by({ 'is titled': 9, 'is title word': 8, 'is compound': 9 });
    const phrases = proposeKeywords(context, NAMED, 8, worthy);
    expect(phrases.length).toBeGreaterThan(1);
    for (const word of ['seed', 'potato', 'label']) expect(phrases.filter((text) => text.split(' ').includes(word)).length).toBeLessThanOrEqual(2);
    expect(proposeKeywords(context, NAMED, 8, by({ 'is titled': 3 }))).toHaveLength(1); // a lone one
    expect(proposeKeywords(context, NAMED, 8, by({}))).toEqual([]);
    expect(SEARCH_WEIGHTS).toHaveLength(SEARCH_FEATURES.length);
  });
  it('name the recording where its title does', () => {
    expect(proposeKeywords(context, NAMED, 8)[0]).toMatch(/^seed potato \w+$/);
  });
  it('are key phrases alone where the language is not known', () => {
    expect(proposeKeywords(context, null, 2).length).toBeLessThanOrEqual(2);
  });
});

describe('words of a title', () => {
  it('are those that the recording says again and again, not what it is', () => {
    const counts = new Map(Object.entries({ seed: 4, potato: 6, panel: 9, crop: 1 }));
    expect(titleWords('Seed-potato panel: the crop, 2024 (potato)', counts, winkTagger)).toEqual(['seed', 'potato']);
    expect(titleWords('potato-phone-in', new Map([...counts, ['phone', 5]]), winkTagger)).toEqual(['potato']);
    expect(titleWords('What lives in a potato', new Map([...counts, ['live', 5]]), winkTagger)).toEqual(['potato']);
  });
});
