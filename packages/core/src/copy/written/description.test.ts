import { describe, expect, it } from 'vitest';
import { transcriptOf } from '../../talk.fixture.js';
import { winkTagger } from '../../text/tagger.js';
import { titleContext } from '../propose.js';
import { describe as describePassage, type Said, strongestOf } from './description.js';

describe('the text that goes with a title', () => {
  const TALK =
    'Hello and welcome back to the channel. So, um, the drain under the bath froze in the third week of January. And I think we poured two hundred litres of hot water down it, basically. The pipe cracked from one end to the other. And that was, um, that was that.';
  const textFor = (talk: string, title: string, limit = 200): string => {
    const transcript = transcriptOf(`WEBVTT\n\n00:00.000 --> 00:30.000\n${talk}\n`);
    return describePassage(titleContext(transcript, { firstWord: 0, endWord: transcript.words.length }), title, limit);
  };
  const textOf = (title: string, limit?: number): string => textFor(TALK, title, limit);
  it('adds to the title, in the order of the talk, and never greets', () => {
    const text = textOf('The pipe cracked from one end to the other');
    expect(text).toBe('The drain under the bath froze in the third week of January. We poured 200 litres of hot water down it.');
  });
  it('takes what leans on the sentence before only behind it', () => {
    const [pipe, vinegar, left] = ['The pipe was full of lime.', 'The plumber poured two bottles of vinegar down it.', 'They left it there until the evening.'];
    expect(textFor(`${left} ${vinegar} ${pipe}`, 'A title')).not.toContain('They left');
    expect(textFor(`${vinegar} ${left}`, 'A title')).toBe(`${vinegar.replace('two', '2')} ${left}`.replace('2 bottles', 'two bottles'));
    expect(textFor(left, 'A title')).toBe(left); // there is nothing else
  });
  it('is one sentence where two do not fit, and none where nothing fits', () => {
    expect(textOf('The pipe cracked from one end to the other', 70)).toMatch(/^[^.]{10,69}\.$/);
    expect(textOf('A title', 10)).toBe('');
  });
  it('takes what is short enough of a sentence that runs on, from where it may begin', () => {
    const said =
      'Well the thing about that whole week, and I said it to my sister, is, when the drain froze we poured two hundred litres of hot water down it, and the pipe cracked from one end to the other, and she laughed at me about it for the rest of the winter.';
    expect(textFor(said, 'The pipe cracked from one end to the other', 130)).not.toMatch(/\bis,|that whole week/);
  });
  it.each([
    'I was sent up to a I will not go into that tonight.',
    'Mostly for cellars and for the whole ground floor.',
    'Before we go to the travel and the weather on the hour.',
    "If it's been in your kitchen, even if it's a carrot peeling.",
    'What was it, eighteen letters on the whole line.',
    'Not just press the red button on the left.',
    'With the red light flashing on top of it, and so on.',
    'Dip the end of the pipe in for, what.',
    'Before we go to the travel, that people should be doing right now.',
    'Buy, if you can get one at all in the spring.',
  ])('is not made of what is no sentence that is read: “%s”', (said) => expect(textFor(said, 'A title')).toBe(''));
  it.each(['When the drain froze, we poured hot water down it.', 'In the third week of January, the drain under the bath froze.'])('is made of “%s”', (said) =>
    expect(textFor(said, 'A title')).toBe(said),
  );
});

describe('a passage of very many sentences', () => {
  it('and a word of a megabyte are tagged', () => expect(winkTagger(['the', 'a'.repeat(1_000_000), 'pump'])).toHaveLength(3));
  it('is not looked at pair by pair', () => {
    let looked = 0;
    class Counted extends Set<string> {
      override [Symbol.iterator](): SetIterator<string> {
        looked += 1;
        return super[Symbol.iterator]();
      }
    }
    const said = Array.from({ length: 1_000 }, (_, i): Said => ({
      text: `Pump ${i}.`,
      letters: `pump ${i}`,
      words: new Counted([`pump${i}`]),
      sentence: i,
      leans: false,
      worth: i % 97,
    }));
    const [first, second] = strongestOf(said, 200);
    expect([first!.worth, second!.worth]).toEqual([96, 96]);
    expect(first!.sentence).toBeLessThan(second!.sentence);
    expect(looked).toBeLessThan(10_000); // of a million pairs
  });
  it('is worded all the same', () => {
    const numbers = ['one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine'];
    const things = ['valve', 'pump', 'boiler', 'radiator', 'cistern', 'thermostat', 'gasket', 'stopcock'];
    const said = things.flatMap((a) => things.flatMap((b) => numbers.map((n) => `The ${a} broke the ${b} and ${n} plumbers mended the cellar.`)));
    const transcript = transcriptOf(`WEBVTT\n\n00:00.000 --> 59:00.000\n${said.join(' ')}\n`);
    const context = titleContext(transcript, { firstWord: 0, endWord: transcript.words.length });
    expect(describePassage(context, 'A title', 200).length).toBeGreaterThan(20);
  });
});
