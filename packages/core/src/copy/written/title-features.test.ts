import { describe, expect, it } from 'vitest';
import { transcriptOf } from '../../talk.fixture.js';
import { titleContext } from '../propose.js';
import { TITLE_FEATURES, titleFeatures } from './title-features.js';
import { titleDrafts } from './title-sorts.js';
import { TITLE_WEIGHTS } from './title-weights.js';

/** What is set of a feature, by the texts of the drafts of what is said. */
function setOn(feature: (typeof TITLE_FEATURES)[number], said: string): string[] {
  const transcript = transcriptOf(`WEBVTT\n\n00:00.000 --> 00:30.000\n${said}\n`);
  const context = titleContext(transcript, { firstWord: 0, endWord: transcript.words.length });
  const drafts = titleDrafts(context.passage, 60);
  const rows = titleFeatures(drafts, context);
  return drafts.filter((_, i) => rows[i]![TITLE_FEATURES.indexOf(feature)] === 1).map(({ text }) => text);
}

describe('what titles are weighed by', () => {
  it('has a weight each', () => expect(TITLE_WEIGHTS).toHaveLength(TITLE_FEATURES.length));
  it.each([
    ['begins with it', 'It dries by noon. Paint dries in the shade.', ['It dries by noon']],
    ['begins with you', 'You need the reducer. Your hose needs it too.', ['You need the reducer', 'Your hose needs it too']],
    ['begins beside the point', 'When the lock is full you float over it.', ['When the lock is full you float over it']],
    ['a question', 'Do you have to read it back? Read it back.', ['Do you have to read it back?']],
    ['few words', 'Count a bag. A bag holds a thousand tubers.', ['Count a bag']],
  ] as const)('%s', (feature, said, texts) => expect(setOn(feature, said)).toEqual(expect.arrayContaining([...texts])));
  it('tells one comma from several', () => {
    const said = 'He dug the hole, he set the post, and he went home.';
    const of = (feature: 'one comma' | 'several commas'): number[] => setOn(feature, said).map((text) => text.split(',').length - 1);
    expect(of('one comma').every((commas) => commas === 1)).toBe(true);
    expect(of('several commas').every((commas) => commas > 1)).toBe(true);
    expect(of('one comma').length).toBeGreaterThan(0);
  });
});
