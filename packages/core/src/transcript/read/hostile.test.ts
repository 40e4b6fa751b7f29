import { describe, expect, it } from 'vitest';
import { readTranscript } from '../read-transcript.js';
import { boundWords, LONGEST_WORD } from '../bound-words.js';
import { TranscriptRefusedError } from '../types.js';

const read = (text: string) => readTranscript(new TextEncoder().encode(text));
const MANY = 200_000;
const cue = (body: string): string => `WEBVTT\n\n00:00.000 --> 00:05.000\n${body}\n`;

// Each of these took minutes, or for ever, when reading it was quadratic or worse; a test that hangs fails by its time limit.
describe('text made to be slow to read is read all the same', () => {
  it.each<[string, string]>([
    ['a million letters without a space', cue('a'.repeat(1_000_000))],
    ['a word split over lines, of a million letters', cue(`${'a'.repeat(1_000_000)}-\nbc`)],
    ['a style that never closes, in SubRip', `1\n00:00:00,000 --> 00:00:05,000\n${'{\\'.repeat(MANY)}\nwords\n`],
    ['a voice with classes without end', cue(`<v${'.a'.repeat(MANY)}>words`)],
    ['angle brackets without end', cue(`${'<'.repeat(MANY)} words`)],
    ['one time and a text of many lines', `[00:01] one\n${'and so on\n'.repeat(MANY / 2)}`],
    ['white space between a name and a time', `Ann${' '.repeat(MANY)}x [00:01] one`],
    ['white space between a name and a bare time', `[00:01] one\n${`Ann${' '.repeat(4_900)}0:02x\n`.repeat(40)}`],
    ['a tag of white space that never closes, in LRC', `[ti:x]\n[00:01.00]one\n[ar:${' '.repeat(MANY)}\n`],
    ['times without end in one cue', cue(Array.from({ length: 20_000 }, (_, i) => `<00:00:0${Math.floor(i / 4_001)}.000>w${i} `).join(''))],
  ])('%s', (_, text) => {
    const { transcript } = read(text);
    expect(transcript.words.length).toBeGreaterThan(0);
    for (const word of transcript.words) expect(word.text.length).toBeLessThanOrEqual(LONGEST_WORD + 1);
  });
  it('comments without end before something that is no TTML', () => {
    expect(() => read(`${'<!--a-->'.repeat(900)}<p>`)).toThrow(TranscriptRefusedError);
  });
  it('words that people write are left as they are', () => {
    const text = 'Llanfairpwllgwyngyllgogerychwyrndrobwllllantysiliogogogoch is a place; see https://example.invalid/a/rather/long/address';
    expect(boundWords(text)).toBe(text);
    expect(
      boundWords('a'.repeat(250))
        .split(' ')
        .map((piece) => piece.length),
    ).toEqual([120, 120, 10]);
  });
});

describe('more than a recording can hold is refused, at its line', () => {
  it('cues without end', () => {
    const stamp = (i: number): string => new Date(i * 100).toISOString().slice(11, 23);
    const text = `WEBVTT\n\n${Array.from({ length: 500_002 }, (_, i) => `${stamp(i)} --> ${stamp(i + 1)}\na\n`).join('\n')}`;
    expect(() => read(text)).toThrow(expect.objectContaining({ code: 'too-long', line: 1_500_003 }) as Error);
  });
  it.each<[string, string, number]>([
    ['times without a word', '[0:01]\n'.repeat(500_002), 500_001],
    ['LRC times without a word', `[ti:x]\n${'[00:01.00]\n'.repeat(500_002)}`, 500_002],
    ['a text of letters without end', `[0:01] ${'a'.repeat(2_600_000)}\n[0:02] ${'b'.repeat(2_600_000)}\n`, 2],
    [
      'TTML spans without a word',
      `<tt xmlns="http://www.w3.org/ns/ttml"><body><div><p begin="1s">${'<span begin="1s"/>'.repeat(200_001)}</p></div></body></tt>`,
      1,
    ],
  ])('%s', (_, text, line) => expect(() => read(text)).toThrow(expect.objectContaining({ code: 'too-long', line }) as Error));
});

describe('podcast JSON', () => {
  const segment = (fields: object): string => JSON.stringify({ startTime: 1, endTime: 3, body: 'One two.', ...fields });
  const refusal = (text: string): TranscriptRefusedError => {
    try {
      read(text);
    } catch (error) {
      if (error instanceof TranscriptRefusedError) return error;
    }
    throw new Error('it was read');
  };
  it('takes the end of each word as it is given', () => {
    const words = [
      { startTime: 1, endTime: 1.2, word: 'One' },
      { startTime: 2, endTime: 2.9, word: 'two.' },
    ];
    expect(read(`{"segments":[${segment({ words })}]}`).transcript.words.map(({ startMs, endMs }) => [startMs, endMs])).toEqual([
      [1_000, 1_200],
      [2_000, 2_900],
    ]);
  });
  it.each<[string, string, number, string | null]>([
    ['a field of a segment', `{"segments":[\n${segment({})},\n{"startTime":4,\n"body":\n5}]}`, 5, 'segments[1].body'],
    [
      'a field of a word, among words that have times themselves',
      `{"segments":[\n{"startTime":1,"words":[\n{"startTime":1,"word":"a"},\n{"startTime":2,"word":"b"},\n{"startTime":"x","word":"c"}\n]}]}`,
      5,
      'segments[0].words[2].startTime',
    ],
    ['a field that is missing', `{"segments":[\n${segment({})},\n{"body":"x"}]}`, 3, 'segments[1].startTime'],
    ['a zero character', `{"segments":[\n${segment({ body: 'a\0b' })}]}`, 2, 'segments[0].body'],
    ['half of a character', `{"segments":[\n{"startTime":1,"body":"\\ud800"}]}`, 2, 'segments[0].body'],
    ['a comma too many', '{"segments":[\n{"startTime":1,\n"body":}]}\n\n\n', 3, null],
    ['an end that comes too early', '{"segments":[\n{"startTime":1', 2, null],
  ])('is refused at the line of the fault: %s', (_, text, line, field) => expect(refusal(text)).toMatchObject({ line, field }));
});
