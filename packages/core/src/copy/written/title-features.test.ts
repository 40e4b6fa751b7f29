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
    ['tells of the past', 'The pump broke in May. The pump breaks in frost.', ['The pump broke in May']],
    ['I did', 'I sold the kiln last year. The kiln was sold.', ['I sold the kiln last year']],
    ['you do', 'You need the reducer. You lost the reducer.', ['You need the reducer']],
    ['reports', 'She said the clay is wet. The clay is wet.', ['She said the clay is wet']],
    ['a reason follows', 'Close the doors at night. Because the warm air comes in.', ['Close the doors at night']],
    ['answers a question', 'What do you do first? Turn the water off.', ['Turn the water off']],
    ['concludes', 'The tray is level. So the house is crooked.', ['The house is crooked']],
    ['ends in a noun', 'Turn off the water. Turn the water off.', ['Turn off the water']],
    ['no noun', 'Leave it out. Leave the dough out.', ['Leave it out']],
    ['runs on', "Cut the edge it's too wide. Cut the edge.", []],
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
