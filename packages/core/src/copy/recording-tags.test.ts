import { describe, expect, it } from 'vitest';
import { transcriptOf } from '../talk.fixture.js';
import { rarity } from '../text/spoken-words.js';
import { winkTagger } from '../text/tagger.js';
import { normaliseWords } from '../text/tells/find-tells.js';
import { gerund, recordingSubject } from './recording-tags.js';

describe('what a recording is about', () => {
  const subject = (text: string) => {
    const { words } = transcriptOf(`WEBVTT\n\n00:00.000 --> 00:50.000\n${text}\n`);
    const texts = normaliseWords(words);
    return recordingSubject(texts, winkTagger(texts), words);
  };
  it('is told by compounds and by words that are seldom said otherwise, not by names', () => {
    const { compounds, singles } = subject(
      'The flour mill is in the barn. Ask Merrow about the flour mill. The mill needs a new stone, and the stone for the mill is heavy. We met Merrow at the mill, and the day was long. The day after, Merrow was at the other mill. It was a day.',
    );
    expect(compounds.map(({ text, count }) => [text, count])).toEqual([['flour mill', 2]]);
    expect(singles.map(({ text }) => text)).toEqual(['mill']);
  });
  it.each([
    ['bake', 'baking'],
    ['bakes', 'baking'],
    ['plan', 'planning'],
    ['tile', 'tiling'],
    ['see', 'seeing'],
    ['carries', 'carrying'],
    ['sewing', 'sewing'],
  ])('what is done: %s, %s', (verb, doing) => expect(gerund(verb)).toBe(doing));
  it('rests on how often words are said, as the list tells it (Brysbaert & New 2009)', () => {
    expect(rarity('you')).toBe(0);
    expect(rarity('dog')).toBeLessThan(rarity('hive'));
    expect(rarity('windlass')).toBeGreaterThan(rarity('window') + 2);
  });
});
