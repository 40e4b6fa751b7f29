import { describe, expect, it } from 'vitest';
import { FIELDS } from '../text/lists/fields.js';
import { FIELD_TAGS } from '../text/lists/field-tags.js';
import { winkTagger } from '../text/tagger.js';
import { transcriptOf } from '../talk.fixture.js';
import { otherNames, saidTags } from './field-tags.js';
import { base } from './fields.js';
import { toHashtag } from './hashtags.js';
import { proposeCopy } from './propose.js';

const lines = (list: string): string[] => list.split('\n').filter((line) => line !== '' && !line.startsWith('#'));
const countsOf = (text: string): Map<string, number> => {
  const counts = new Map<string, number>();
  for (const word of text.split(' ').map(base)) counts.set(word, (counts.get(word) ?? 0) + 1);
  return counts;
};

const once = (): number => 1;

describe('tags beside the name of a field', () => {
  it('are listed for every field and no other, each once, written as hashtags are', () => {
    const fields = lines(FIELDS).map((line) => line.split(/ > |: /)[0]!);
    expect(lines(FIELD_TAGS).map((line) => line.split(': ')[0])).toEqual(fields);
    for (const line of lines(FIELD_TAGS)) {
      expect(line).toMatch(/^[a-z0-9]+: [a-z]+(?: [a-z]+)*(?:; (?:[a-z+-]+=[a-z]+ ?)*)?$/);
      const [field, rest] = line.split(': ') as [string, string];
      const others = otherNames(field);
      expect(new Set(others).size, line).toBe(others.length);
      for (const tag of [...others, ...[...rest.matchAll(/=([a-z]+)/g)].map((one) => one[1]!)]) expect(toHashtag(tag).length, tag).toBeLessThanOrEqual(30);
    }
  });
  it('are of what is said, whatever its form, the most and the rarest first', () => {
    expect(saidTags('beekeeping', countsOf('a queen and honey'), once)).toEqual(['queenbee', 'honey']);
    expect(saidTags('beekeeping', countsOf('the honey and the queen and our honey'), once)).toEqual(['honey', 'queenbee']);
    // What is said all over the recording tells less of a passage.
    expect(saidTags('beekeeping', countsOf('a queen and honey'), (word) => (word === 'queen' ? 40 : 1))).toEqual(['honey', 'queenbee']);
    expect(saidTags('guidedogs', countsOf('a kerb'), once)).toEqual(['guidedogtraining']);
    expect(saidTags('workplacesafety', countsOf('that was a near miss'), once)).toEqual(['nearmiss']);
    expect(saidTags('workplacesafety', countsOf('we were near it'), once)).toEqual([]);
  });
  it('come once each, and none from a word that only begins like one', () => {
    // Mites and varroa have one tag; somebody who leaves is no leaver.
    expect(saidTags('beekeeping', countsOf('a mite is varroa'), once)).toEqual(['varroa']);
    expect(saidTags('payroll', countsOf('they leave at five'), once)).toEqual([]);
    expect(saidTags('no such field', countsOf('queen'), once)).toEqual([]);
    expect(otherNames('no such field')).toEqual([]);
  });
});

describe('a set of hashtags', () => {
  const TALK = [
    'We open the hive and we look for the queen on the brood frames.',
    'In the hive we count the mites, because varroa kills the colony.',
    'The honey comes off in August and the bees are fed with syrup.',
    'Put the lid on the hive and do not open it when it rains.',
  ];
  const transcript = transcriptOf(`WEBVTT\n\n${TALK.map((text, i) => `00:${i}0.000 --> 00:${i}9.000\n${text}`).join('\n\n')}\n`);
  const tagsOf = (first: number, end: number, hashtags = 5): readonly string[] =>
    proposeCopy(
      transcript,
      {
        firstWord: transcript.sentences[first]!.firstWord,
        endWord: transcript.sentences[end - 1]!.endWord,
        clientTags: [],
        limits: { title: 60, description: 200, hashtags },
      },
      winkTagger,
    ).hashtags;
  it('goes from what only the passage says to what it belongs to', () => {
    const tags = tagsOf(1, 2);
    expect(tags).toHaveLength(5);
    expect(tags[0]).toBe('varroa');
    expect(tags.slice(-2)).toEqual(['beekeeping', 'smallholding']);
    for (const tag of tags.slice(1, 3)) expect([...otherNames('beekeeping'), 'beehives', 'beecolony']).toContain(tag);
  });
  it('keeps what is general where there is room for less', () => {
    expect(tagsOf(1, 2, 3)).toEqual(['varroa', 'beekeeping', 'smallholding']);
    expect(tagsOf(1, 2, 1)).toHaveLength(1);
  });
  it('is another for another passage', () => {
    expect(tagsOf(0, 1)).toContain('brood');
    expect(tagsOf(1, 2)).not.toContain('brood');
    expect(tagsOf(2, 3)).toContain('honey');
  });
});
