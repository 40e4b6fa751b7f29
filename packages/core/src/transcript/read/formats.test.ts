import { parseSync } from 'subtitle';
import { describe, expect, it } from 'vitest';
import { detectFormat, readTranscript } from '../read-transcript.js';
import { TranscriptRefusedError } from '../types.js';
import { readPodcastJson } from './podcast-json.js';
import { hasStamp, readStampedText } from './stamped-text.js';
import { readSubRip } from './subrip.js';

const SRT = `1
00:00:01,000 --> 00:00:03,500
The kettle <i>never</i> boils

2
00:00:04,000 --> 00:00:06,000
when you {\\an8}stand
over it.

3
00:01:00,250 --> 00:01:02,000
12

`;

describe('readTranscript', () => {
  it('needs its bytes no longer than until they are text', () => {
    const [file, wiped] = [new TextEncoder().encode(SRT), new TextEncoder().encode(SRT)];
    expect(readTranscript(wiped, { onDecoded: () => wiped.fill(0) })).toEqual(readTranscript(file));
    expect(wiped.every((byte) => byte === 0)).toBe(true);
  });
});

describe('readSubRip', () => {
  it('agrees with the registry’s subtitle package on times and texts', () => {
    const reference = parseSync(SRT)
      .filter((node) => node.type === 'cue')
      .map((node) => node.data as { start: number; end: number; text: string });
    const own = readSubRip(SRT).cues;
    expect(own.map((cue) => [cue.startMs, cue.endMs])).toEqual(reference.map((cue) => [cue.start, cue.end]));
    expect(own.map((cue) => cue.text)).toEqual(['The kettle never boils', 'when you stand\nover it.', '12']);
  });
  it('bears missing counters and single-digit times', () => {
    expect(readSubRip('0:0:1,5 --> 0:0:2,0\nshort\n\n00:00:03,000 --> 00:00:04,000\nlong\n').cues.map((cue) => [cue.startMs, cue.text])).toEqual([
      [1_500, 'short'],
      [3_000, 'long'],
    ]);
  });
  it('says where a timing is broken', () => expect(() => readSubRip('1\n00:00:01,000 --> soon\nx\n')).toThrow(TranscriptRefusedError));
});

describe('readPodcastJson: the podcast namespace’s transcript shape', () => {
  const text = JSON.stringify(
    {
      version: '1.0.0',
      segments: [
        { speaker: 'Mo', startTime: 0.5, endTime: 2, body: 'Hello there.' },
        {
          startTime: 2,
          endTime: 3,
          words: [
            { word: 'Good', startTime: 2 },
            { word: 'day.', startTime: 2.4 },
          ],
        },
      ],
    },
    null,
    1,
  );
  it('reads segments and words', () => {
    const { cues } = readPodcastJson(text);
    expect(cues[0]).toMatchObject({ startMs: 500, endMs: 2_000, speaker: 'Mo', text: 'Hello there.' });
    expect(cues[1]).toMatchObject({
      text: 'Good day.',
      stamps: [
        { at: 0, startMs: 2_000 },
        { at: 5, startMs: 2_400 },
      ],
    });
  });
  it.each([
    ['{"segments": [', 'bad-json', null],
    ['{"cues": []}', 'bad-field', 'segments'],
    ['{"segments": [{"body": "x"}]}', 'bad-field', 'segments[0].startTime'],
    ['{"segments": [{"startTime": "soon", "body": "x"}]}', 'bad-field', 'segments[0].startTime'],
    ['{"segments": [{"startTime": 1, "body": 5}]}', 'bad-field', 'segments[0].body'],
  ])('refuses %s with the field', (json, code, field) => {
    expect(() => readPodcastJson(json)).toThrow(expect.objectContaining({ code, field }));
  });
});

describe('readStampedText', () => {
  it('reads stamps anywhere, speakers on either side, and text that runs on', () => {
    const { cues, repairs } = readStampedText('Episode nine\n[00:05] Obi: It settles.\nInto layers. [00:12] Then it stops.\nTamsin [01:02:03]: Right.\n');
    expect(cues.map((cue) => [cue.startMs, cue.speaker, cue.text])).toEqual([
      [5_000, 'Obi', 'It settles. Into layers.'],
      [12_000, 'Obi', 'Then it stops.'],
      [3_723_000, 'Tamsin', 'Right.'],
    ]);
    expect(repairs[0]).toMatchObject({ line: 1, code: 'unknown-block' });
  });
  it.each(['[02:75] no', '[00:61:00] no'])('refuses %s', (line) => expect(() => readStampedText(line)).toThrow(TranscriptRefusedError));
  it('reads a file whose lines were looked at before', () => {
    const text = '[00:00] Ann: Hello there.\n[00:05] Bo: And you.\n';
    expect(text.split('\n').some(hasStamp)).toBe(true);
    expect(readStampedText(text).cues).toHaveLength(2);
  });
  it('knows a stamp from a score', () => {
    expect(hasStamp('[12:30] hello')).toBe(true);
    expect(hasStamp('the score was 3 to 2')).toBe(false);
  });
});

describe('HTML character references', () => {
  it('are resolved in every format', () => {
    expect(readSubRip('1\n00:00:01,000 --> 00:00:02,000\nsalt &amp; sand &#39;n&#39; grit\n').cues[0]!.text).toBe("salt & sand 'n' grit");
    expect(readPodcastJson('{"segments":[{"startTime":1,"body":"salt &amp; sand"}]}').cues[0]!.text).toBe('salt & sand');
    expect(readStampedText('[00:01] salt &amp; sand').cues[0]!.text).toBe('salt & sand');
  });
});

describe('detectFormat', () => {
  it.each([
    ['WEBVTT\n', 'webvtt'],
    ['1\n00:00:01,000 --> 00:00:02,000\nx', 'subrip'],
    ['00:01.000 --> 00:02.000\nx', 'webvtt'],
    ['\n {"segments":[]}', 'podcast-json'],
    ['[00:01] x', 'stamped-text'],
  ])('%s', (text, format) => expect(detectFormat(text)).toBe(format));
  it.each([
    ['', /the file is empty/],
    ['Just a letter.\n', /no cue timing/],
  ])('refuses “%s”', (text, message) => expect(() => detectFormat(text)).toThrow(message));
});

describe('names before a line', () => {
  const spoken = (line: string): (string | undefined)[] => {
    const { transcript } = readTranscript(new TextEncoder().encode(`1\n00:00:01,000 --> 00:00:09,000\n${line}\n`));
    return [transcript.speakers[0], transcript.words[0]?.text];
  };
  it.each([
    ['Tamsin: So we went.', 'Tamsin', 'So'],
    ['Élodie: On y va.', 'Élodie', 'On'],
    ['Łucja Żak: Tak było.', 'Łucja Żak', 'Tak'],
    ['Ольга: Мы пошли.', 'Ольга', 'Мы'],
    ['سلمى: مساء الخير جميعا.', 'سلمى', 'مساء'],
    ['דנה: ערב טוב לכולם.', 'דנה', 'ערב'],
  ])('%s', (line, name, first) => expect(spoken(line)).toEqual([name, first]));
  it.each([['one thing: we went.'], ['Question: why that?'], ['at 10:30 we went.'], ['كان يقول لنا دائما: نعم كل يوم.']])('none in “%s”', (line) =>
    expect(spoken(line)[0]).toBeUndefined(),
  );
});
