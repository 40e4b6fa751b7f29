import { describe, expect, it } from 'vitest';
import { toVtt, transcriptOf } from '../talk.fixture.js';
import { buildContext } from './context.js';
import { findSaid, type SaidKind } from './said.js';
import { sift } from './sift.js';
import type { Brief, SiftInput } from './types.js';

const brief: Brief = { partStartMs: 0, partEndMs: null, minMs: 3_000, maxMs: 60_000, roughCount: 5, topics: [], kinds: [], avoid: [] };
const inputOf = (lines: readonly string[], topics: string[] = []): SiftInput => ({
  transcript: transcriptOf(toVtt(lines.map((text) => ({ speaker: 'Ann', text })))),
  brief: { ...brief, topics },
  clientTags: [],
  sentenceVectors: null,
  topicVectors: null,
});

/** What is found of a kind in a line, as it was said. */
function said(line: string, kind: SaidKind): string[] {
  const context = buildContext(inputOf([line]));
  return findSaid(context, 0)
    .filter((one) => one.kind === kind)
    .map(({ firstWord, endWord }) =>
      context.words
        .slice(firstWord, endWord)
        .map(({ text }) => text)
        .join(' '),
    );
}

describe('what is said, at its words', () => {
  it.each<[SaidKind, string, string[]]>([
    ['number', 'We planted two hundred trees along the road.', ['two hundred']],
    ['money', 'It costs £40 and the lining is three hundred euros more.', ['£40', 'three hundred euros']],
    ['duration', 'It took nine weeks and then another two years.', ['nine weeks', 'two years.']],
    ['percentage', 'Under twenty per cent is dry, and 35% is not.', ['twenty per cent', '35%']],
    ['name', 'We rang Marjorie about the roof.', ['Marjorie']],
    ['comparison', 'Oak is much heavier than ash and it is as good as coal.', ['heavier than', 'as good as']],
    ['comparison', 'I was more tired than anybody.', ['more tired than']],
    ['superlative', 'That is the cheapest tool we own.', ['cheapest']],
    ['negation', 'You can’t do it and nobody ever will.', ['can’t', 'nobody']],
    ['question', 'So what do you do about the damp?', ['So what do you do about the damp?']],
    ['question', 'what do you do about the damp', ['what do you do about the damp']],
    ['imperative', 'Hold the paper in front of the door.', ['Hold the paper in front of the door.']],
    ['first-person', 'I told my brother that we would.', ['I', 'my', 'we']],
    ['second-person', 'You want your hand on it.', ['You', 'your']],
    ['direct-speech', 'And she said, no, you are not coming in here.', ['no, you are not coming in here.']],
    ['direct-speech', 'He told me “stay where you are” and left.', ['“stay where you are”']],
    ['direct-speech', 'and she said no you are not coming in here', ['no you are not coming in here']],
  ])('%s: %s', (kind, line, words) => expect(said(line, kind)).toEqual(words));

  it.each<[SaidKind, string]>([
    ['money', 'Ten per cent of it is ash.'],
    ['direct-speech', 'He said that it was raining.'],
    ['direct-speech', 'It is what they call a “kiln” there.'],
    ['comparison', 'Other people live there.'],
    ['imperative', 'Holding the paper is not enough.'],
    ['question', 'What you do about the damp is up to you.'],
  ])('no %s: %s', (kind, line) => expect(said(line, kind)).toEqual([]));
});

describe('a brief in free words', () => {
  const lines = [
    'We went along there for a while and it was quiet.',
    'The whole job came to four thousand euros in the end.',
    'Then we came back again by the other road.',
    'It was more or less like the others up there.',
  ];
  const currencyOf = (topics: string[]): { value: number; sentence: string }[] => {
    const { transcript, ...input } = inputOf(lines, topics);
    return sift({ transcript, ...input, brief: { ...input.brief, minMs: 3_000, maxMs: 5_500 } })
      .candidates.toSorted((a, b) => a.startMs - b.startMs)
      .map((one) => ({ ...one.signals.currency, start: one.firstLine }));
  };
  it.each([[['parts where prices are named']], [['how much money it takes']]])('%j finds the sentence with the sum, and quotes it', (topics) => {
    const readings = currencyOf(topics);
    const best = readings.reduce((top, one) => (one.value > top.value ? one : top));
    expect(best.value).toBeGreaterThan(55);
    expect(best.sentence).toContain('four thousand euros');
  });
  it('hears a subject as a subject, though it has a word for figures in it', () => {
    for (const { sentence } of currencyOf(['data privacy', 'market share', 'paid leave']))
      expect(sentence).toBe('Touches none of the topics, tags or terms looked for');
  });
  it('names what kinds of figure a passage has', () => {
    const { candidates } = sift(inputOf(lines));
    expect(candidates.find((one) => one.signals.substance.evidence.length > 0)!.signals.substance.sentence).toMatch(/a sum of money/i);
  });
});
