import { createRequire } from 'node:module';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readTranscript } from '../read-transcript.js';
import { parseVttTimestamp, readWebVtt } from './webvtt.js';

// Reference: webvtt-parser, the W3C's own parser and validator, from the registry.
const { WebVTTParser } = createRequire(import.meta.url)('webvtt-parser') as {
  WebVTTParser: new () => { parse(text: string, kind?: string): { cues: { startTime: number; endTime: number; text: string }[]; errors: unknown[] } };
};

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);

/** Of the shape of the examples in the W3C Candidate Recommendation of 4 April 2019, section 1, with other words. */
const W3C_SPEAKERS = `WEBVTT

00:11.000 --> 00:13.000
<v Ada Quill>We are in the harbour now

00:13.000 --> 00:16.000
<v Ada Quill>We’re actually at the old cannery, just down the street

00:16.000 --> 00:18.000
<v Ada Quill>from the customs house

00:32.000 --> 00:33.500 align:right size:50%
<v Ben Marl>Didn’t we talk about enough in that conversation?
`;

const W3C_BLOCKS = `WEBVTT - with everything

REGION
id:bill
width:40%

STYLE
::cue(v[voice=Ben]) { color: lime }

NOTE
a note that
has two lines

NOTE one line

intro
00:00:01.000 --> 00:00:02.000 position:10%,line-left align:left size:35% region:bill
<b>Bold</b> and <c.loud>loud</c> &amp; <i>leaning</i>

00:02.000 --> 00:05.000
I said <00:03.000>Bear <00:04.000>is coming
`;

describe('parseVttTimestamp: W3C Candidate Recommendation 4 April 2019, section 4.1', () => {
  it.each([
    ['00:01.500', 1_500],
    ['100:00:00.000', 360_000_000],
    ['00:00:00.001', 1],
    ['59:59.999', 3_599_999],
  ])('%s', (text, ms) => expect(parseVttTimestamp(text)).toBe(ms));
  it.each(['0:01.500', '00:60.000', '60:00.000', 'x00:01.500', '00:01.5000', '00:01', ''])('refuses %s', (text) => expect(parseVttTimestamp(text)).toBeNull());
});

describe('readWebVtt', () => {
  it('reads the voices of the standard’s example', () => {
    const { cues, repairs } = readWebVtt(W3C_SPEAKERS);
    expect(repairs).toEqual([]);
    expect(cues.map((cue) => [cue.startMs, cue.endMs, cue.speaker])).toEqual([
      [11_000, 13_000, 'Ada Quill'],
      [13_000, 16_000, 'Ada Quill'],
      [16_000, 18_000, 'Ada Quill'],
      [32_000, 33_500, 'Ben Marl'],
    ]);
  });
  it('skips notes, styles, regions and settings, and takes tags and entities away', () => {
    const { cues, repairs } = readWebVtt(W3C_BLOCKS);
    expect(repairs).toEqual([]);
    expect(cues.map((cue) => cue.text)).toEqual(['Bold and loud & leaning', 'I said Bear is coming']);
    expect(cues[1]!.stamps).toEqual([
      { at: 7, startMs: 3_000 },
      { at: 12, startMs: 4_000 },
    ]);
  });
  it('agrees with the reference parser on times and number of cues', () => {
    for (const text of [W3C_SPEAKERS, W3C_BLOCKS]) {
      const reference = new WebVTTParser().parse(text, 'captions');
      const own = readWebVtt(text).cues;
      expect(own.map((cue) => [cue.startMs, cue.endMs])).toEqual(
        reference.cues.map((cue) => [Math.round(cue.startTime * 1_000), Math.round(cue.endTime * 1_000)]),
      );
    }
  });
  it('agrees with the reference parser on generated files', () => {
    const word = fc.stringMatching(/^[a-z]{1,9}$/);
    const cue = fc.tuple(fc.integer({ min: 1, max: 4_000 }), fc.integer({ min: 1, max: 4_000 }), fc.array(word, { minLength: 1, maxLength: 6 }));
    fc.assert(
      fc.property(fc.array(cue, { minLength: 1, maxLength: 12 }), (parts) => {
        let at = 0;
        const stamp = (ms: number): string => new Date(ms).toISOString().slice(11, 23);
        const text = `WEBVTT\n\n${parts
          .map(([gap, length, words]) => {
            const from = at + gap;
            at = from + length;
            return `${stamp(from)} --> ${stamp(at)}\n${words.join(' ')}\n`;
          })
          .join('\n')}`;
        const reference = new WebVTTParser().parse(text, 'captions').cues;
        expect(readWebVtt(text).cues.map((one) => [one.startMs, one.endMs, one.text])).toEqual(
          reference.map((one) => [Math.round(one.startTime * 1_000), Math.round(one.endTime * 1_000), one.text]),
        );
      }),
      { numRuns: 60 },
    );
  });
  it('splits a cue that holds two voices', () => {
    const { cues } = readWebVtt('WEBVTT\n\n00:00.000 --> 00:04.000\n<v Ann>Hello there</v>\n<v Bo>Good day to you</v>\n');
    expect(cues.map((cue) => [cue.speaker, cue.text.trim()])).toEqual([
      ['Ann', 'Hello there'],
      ['Bo', 'Good day to you'],
    ]);
    expect(cues[0]!.endMs).toBe(cues[1]!.startMs);
  });
  it('keeps angle brackets that are no tags', () =>
    expect(readWebVtt('WEBVTT\n\n00:00.000 --> 00:01.000\nI <3 this, 2 < 5\n').cues[0]!.text).toBe('I <3 this, 2 < 5'));
  it('says the line of a time it cannot read', () => {
    expect(() => readWebVtt('WEBVTT\n\n00:00.000 --> 00:01.000\nfine\n\nlater --> 00:03.000\nno\n')).toThrow(/line 6: “later” is no start time/);
  });
  it('takes a missing header as plain', () => expect(readWebVtt('00:00.000 --> 00:01.000\nhi\n').repairs[0]).toMatchObject({ line: 1, code: 'no-header' }));
});

describe('readTranscript on WebVTT', () => {
  it('gives words the times inside the cue', () => {
    const { transcript } = readTranscript(bytes('WEBVTT\n\n00:02.000 --> 00:05.000\nI said <00:03.000>Bear <00:04.000>is coming\n'));
    expect(transcript.words.map((word) => [word.text, word.startMs])).toEqual([
      ['I', 2_000],
      ['said', 2_333],
      ['Bear', 3_000],
      ['is', 4_000],
      ['coming', 4_333],
    ]);
    expect(transcript.wordTimes).toBe('given');
  });
});
