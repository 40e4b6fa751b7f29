import { describe, expect, it } from 'vitest';
import { demoTranscript, DEMO_TALKS } from '../talk.fixture.js';
import { normalise } from '../text/lexicon.js';
import { toHashtag } from './hashtags.js';
import { characters, copyProblems, proposeCopy } from './propose.js';
import { shorten } from './title.js';
import { COVER_LINE_LIMIT } from './types.js';

const LIMITS = { title: 60, description: 300, hashtags: 4 };

describe.each(DEMO_TALKS)('proposeCopy on %s', (name) => {
  const transcript = demoTranscript(name);
  const passages = Array.from({ length: 12 }, (_, i) => {
    const first = Math.floor((transcript.sentences.length * (i + 1)) / 15);
    return { firstWord: transcript.sentences[first]!.firstWord, endWord: transcript.sentences[Math.min(first + 7, transcript.sentences.length - 1)]!.endWord };
  });
  it('is inside the limits, and made only of what is said', () => {
    for (const { firstWord, endWord } of passages) {
      const copy = proposeCopy(transcript, firstWord, endWord, ['neverSaidAnywhere', 'wet wood'], LIMITS);
      expect(copyProblems(copy, LIMITS)).toEqual([]);
      const said = transcript.words.slice(firstWord, endWord).map((word) => normalise(word.text));
      const all = said.join('');
      for (const word of copy.title.replace(/…$/, '').split(' ').map(normalise))
        expect(
          said.some((one) => one === word || one.startsWith(word)),
          word,
        ).toBe(true);
      for (const word of `${copy.description} ${copy.coverLine}`.split(/\s+/).map(normalise)) if (word !== '') expect(all).toContain(word);
      for (const tag of copy.hashtags) expect(tag === 'wetwood' || all.includes(tag)).toBe(true);
      expect(copy.hashtags).not.toContain('neversaidanywhere');
      expect(characters(copy.coverLine)).toBeLessThanOrEqual(COVER_LINE_LIMIT);
    }
  });
});

describe('parts of it', () => {
  it.each([
    ['Wet Wood!', 'wetwood'],
    ['o’clock', 'oclock'],
    ['Straße 7', 'straße7'],
  ])('toHashtag(%s)', (phrase, tag) => expect(toHashtag(phrase)).toBe(tag));
  it.each([
    ['short', 10, 'short'],
    ['a longer line of words', 12, 'a longer…'],
    ['unbreakablelongword', 8, 'unbreak…'],
  ])('shorten(%s, %d)', (line, limit, cut) => {
    expect(shorten(line, limit)).toBe(cut);
    expect(shorten(line, limit).length).toBeLessThanOrEqual(limit);
  });
  // Unicode UAX #29, extended grapheme clusters: a family and a letter with its accent are one each.
  it.each([
    ['👩‍👩‍👧', 1],
    ['e\u0301', 1],
    ['🇮🇪', 1],
    ['abc', 3],
  ])('characters(%s)', (text, n) => expect(characters(text)).toBe(n));
  it('says what breaks a limit', () => {
    const copy = { title: '', description: 'x'.repeat(301), hashtags: ['a', 'b', 'c', 'd', 'e'], keywords: [], coverLine: 'x'.repeat(40) };
    expect(copyProblems(copy, LIMITS).map((problem) => problem.field)).toEqual(['title', 'description', 'hashtags', 'coverLine']);
  });
});
