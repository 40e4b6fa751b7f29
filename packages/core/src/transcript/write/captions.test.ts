import { createRequire } from 'node:module';
import fc from 'fast-check';
import { parseSync } from 'subtitle';
import { describe, expect, it } from 'vitest';
import { demoTranscript } from '../../talk.fixture.js';
import { readTranscript } from '../read-transcript.js';
import { WRITTEN_FORMATS } from '../types.js';
import { captionCues, writeSubRip, writeWebVtt } from './captions.js';
import { writeTranscript } from './write-transcript.js';

const { WebVTTParser } = createRequire(import.meta.url)('webvtt-parser') as {
  WebVTTParser: new () => { parse(text: string, kind?: string): { cues: { startTime: number; endTime: number; text: string }[]; errors: unknown[] } };
};

const transcript = demoTranscript('up-the-flue-11');
const words = transcript.words.length;

describe('captionCues', () => {
  it('start at zero, keep lines short, hold every word in order, and never mix voices', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: words - 2 }), fc.integer({ min: 1, max: 120 }), (firstWord, n) => {
        const endWord = Math.min(words, firstWord + n);
        const startMs = transcript.words[firstWord]!.startMs;
        const cues = captionCues(transcript, firstWord, endWord, startMs);
        expect(cues[0]!.startMs).toBe(0);
        expect(cues.map((cue) => cue.text).join(' ')).toBe(
          transcript.words
            .slice(firstWord, endWord)
            .map((word) => word.text)
            .join(' '),
        );
        cues.forEach((cue, i) => {
          expect(cue.endMs).toBeGreaterThan(cue.startMs);
          if (i > 0) expect(cue.startMs).toBeGreaterThanOrEqual(cues[i - 1]!.endMs);
          expect(cue.text.length <= 42 || !cue.text.includes(' ')).toBe(true);
        });
      }),
      { numRuns: 60 },
    );
  });
  it('stay half a second after their words where nothing follows, and no longer than until the next ones', () => {
    const held = readTranscript(
      new TextEncoder().encode('WEBVTT\n\n00:00.000 --> 00:01.000\nOne two.\n\n00:01.200 --> 00:02.000\nThree.\n\n00:09.000 --> 00:10.000\nFour.\n'),
    ).transcript;
    expect(captionCues(held, 0, 4, 0).map((cue) => [cue.startMs, cue.endMs])).toEqual([
      [0, 1_200],
      [1_200, 2_500],
      [9_000, 9_910], // the recording ends here, and a slow word with it
    ]);
  });
  it('break at pauses', () => {
    const { transcript: paused } = readTranscript(
      new TextEncoder().encode('WEBVTT\n\n00:00.000 --> 00:01.000\none two\n\n00:03.000 --> 00:04.000\nthree four.\n'),
    );
    expect(captionCues(paused, 0, 4, 0).map((cue) => cue.text)).toEqual(['one two', 'three four.']);
  });
});

describe('writers', () => {
  const cues = captionCues(transcript, 10, 80, transcript.words[10]!.startMs);
  it('SubRip is read by the registry’s subtitle package', () => {
    expect(parseSync(writeSubRip(cues, 'leave-out')).map((node) => node.data)).toEqual(
      cues.map((cue) => expect.objectContaining({ start: cue.startMs, end: cue.endMs, text: cue.text })),
    );
  });
  it('SubRip says who speaks where it is a transcript, and not where it goes on a picture', () => {
    const one = (speaker: string, text: string) => ({ startMs: 0, endMs: 900, speaker, text });
    const talk = [one('Ann', 'Yes.'), one('Ann', 'No.'), one('Bo', 'Well.')];
    const texts = (text: string): string[] => parseSync(text).map((node) => (node.data as { text: string }).text);
    expect(texts(writeSubRip(talk, 'label'))).toEqual(['Ann: Yes.', 'No.', 'Bo: Well.']);
    expect(texts(writeSubRip(talk, 'leave-out'))).toEqual(['Yes.', 'No.', 'Well.']);
  });
  it('WebVTT is read without a complaint by the W3C’s parser', () => {
    const { cues: read, errors } = new WebVTTParser().parse(writeWebVtt(cues), 'captions');
    expect(errors).toEqual([]);
    expect(read.map((cue) => [Math.round(cue.startTime * 1_000), Math.round(cue.endTime * 1_000)])).toEqual(cues.map((cue) => [cue.startMs, cue.endMs]));
  });
  it('WebVTT escapes what would be markup', () => {
    const text = writeWebVtt([{ startMs: 0, endMs: 900, speaker: 'A & <b>', text: '2 < 3 & so on' }]);
    expect(text).toContain('<v A &amp; &lt;b&gt;>2 &lt; 3 &amp; so on');
    expect(new WebVTTParser().parse(text, 'captions').errors).toEqual([]);
  });
  it.each(WRITTEN_FORMATS)('%s keeps the words through writing and reading', (format) => {
    const again = readTranscript(new TextEncoder().encode(writeTranscript(transcript, format)));
    expect(again.format).toBe(format);
    expect(again.repairs.filter((repair) => repair.code !== 'overlap')).toEqual([]);
    expect(again.transcript.words.map((word) => word.text)).toEqual(transcript.words.map((word) => word.text));
    expect(again.transcript.speakers).toEqual(transcript.speakers);
  });
  it('podcast JSON keeps every word’s time', () => {
    const again = readTranscript(new TextEncoder().encode(writeTranscript(transcript, 'podcast-json'))).transcript;
    expect(again.wordTimes).toBe('given');
    expect(again.words.map((word) => word.startMs)).toEqual(transcript.words.map((word) => word.startMs));
  });
});
