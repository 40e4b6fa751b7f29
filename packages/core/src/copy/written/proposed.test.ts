import { describe, expect, it } from 'vitest';
import { DEMO_TALKS, demoTranscript, transcriptOf } from '../../talk.fixture.js';
import { proposeCopy, proposeTitlesFor } from '../propose.js';
import { contentOf, shared } from './content.js';

describe('talk that is made to be slow', () => {
  it.each(['I was, I was, ', 'the ', 'so, ', 'you know, ', 'two hundred ', "it's the, it's the, ", `a${','.repeat(3_000)}b `, `it was ${'a'.repeat(5_000)} `])(
    'is worded all the same: %.14s',
    (said) => {
      const transcript = transcriptOf(`WEBVTT\n\n00:00.000 --> 59:00.000\n${said.repeat(Math.ceil(60_000 / said.length))}\n`);
      for (const language of [null, 'de']) {
        const copy = proposeCopy(transcript, {
          firstWord: 0,
          endWord: transcript.words.length,
          clientTags: [],
          limits: { title: 60, description: 200, hashtags: 5 },
          language,
        });
        expect(copy.title.length).toBeLessThanOrEqual(60);
        expect(copy.description.length).toBeLessThanOrEqual(200);
      }
    },
  );
});

describe.each(DEMO_TALKS)('titles proposed for %s', (name) => {
  const transcript = demoTranscript(name);
  const passages = Array.from({ length: 12 }, (_, i) => {
    const first = Math.floor((transcript.sentences.length * (i + 1)) / 15);
    return { firstWord: transcript.sentences[first]!.firstWord, endWord: transcript.sentences[Math.min(first + 7, transcript.sentences.length - 1)]!.endWord };
  });
  it('are several, all different, inside the limit and inside the passage; the same again for the same', () => {
    for (const passage of passages) {
      const request = { ...passage, clientTags: [], limits: { title: 60, description: 200, hashtags: 5 } };
      const titles = proposeTitlesFor(transcript, request, 5);
      expect(titles.length).toBeGreaterThanOrEqual(2);
      expect(new Set(titles.map(({ text }) => text.toLowerCase())).size).toBe(titles.length);
      for (const { text, firstWord, endWord } of titles) {
        expect(text.length).toBeLessThanOrEqual(60);
        expect(firstWord).toBeGreaterThanOrEqual(passage.firstWord);
        expect(endWord).toBeLessThanOrEqual(passage.endWord);
        expect(text).toMatch(/^[\p{Lu}\p{N}]/u);
      }
      expect(proposeTitlesFor(transcript, request, 5)).toEqual(titles);
    }
  });
  it('have each a text that adds to it, the first the one that is proposed', () => {
    const said = (text: string): ReadonlySet<string> => contentOf(text.toLowerCase().match(/[\p{L}\p{N}']+/gu) ?? []);
    for (const passage of passages) {
      const request = { ...passage, clientTags: [], limits: { title: 60, description: 200, hashtags: 5 } };
      const copy = proposeCopy(transcript, request);
      const titles = proposeTitlesFor(transcript, request, 5);
      const own = titles.find(({ text }) => text === copy.title);
      if (own !== undefined) expect(own.description).toBe(copy.description);
      for (const { line, description } of titles) {
        expect(description.length).toBeLessThanOrEqual(200);
        expect(description.split(/(?<=[.?!]) /)).not.toContain(`${line}.`);
        for (const sentence of description.split(/(?<=[.?!]) /)) expect(shared(said(sentence), said(line))).toBeLessThan(0.5);
      }
    }
  });
  it('are none for talk that is not English', () =>
    expect(proposeTitlesFor(transcript, { ...passages[0]!, clientTags: [], limits: { title: 60, description: 200, hashtags: 5 }, language: 'de' }, 5)).toEqual(
      [],
    ));
});
