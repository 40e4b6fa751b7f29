import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { decodeText } from './decode.js';
import { packTranscript, unpackTranscript } from './pack.js';
import { readTranscript } from './read-transcript.js';
import { repairCues } from './repair-cues.js';
import type { RawCue } from './types.js';
import { splitIntoPieces } from './words.js';

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);
const cue = (line: number, startMs: number, endMs: number | null, text = 'some words here'): RawCue => ({ line, startMs, endMs, speaker: null, text });

describe('decodeText', () => {
  const word = 'Café – naïve';
  it('reads UTF-8 with and without mark', () => {
    expect(decodeText(bytes(word)).text).toBe(word);
    expect(decodeText(bytes(`\uFEFF${word}`))).toMatchObject({ text: word, encoding: 'utf-8' });
  });
  it('reads UTF-16 of both ends, with mark and without', () => {
    const units = [...word].map((c) => c.charCodeAt(0));
    const little = Uint8Array.from(units.flatMap((u) => [u & 255, u >> 8]));
    const big = Uint8Array.from(units.flatMap((u) => [u >> 8, u & 255]));
    expect(decodeText(little)).toMatchObject({ text: word, encoding: 'utf-16le' });
    expect(decodeText(Uint8Array.from([0xff, 0xfe, ...little])).text).toBe(word);
    expect(decodeText(Uint8Array.from([0xfe, 0xff, ...big])).text).toBe(word);
  });
  it('reads Windows-1252, where 0x96 is a dash and 0x92 an apostrophe (WHATWG Encoding Standard)', () => {
    expect(decodeText(Uint8Array.from([0x43, 0x61, 0x66, 0xe9, 0x20, 0x96, 0x20, 0x69, 0x74, 0x92, 0x73]))).toMatchObject({
      text: 'Café – it’s',
      encoding: 'windows-1252',
    });
  });
  it('makes one kind of line end of all', () => {
    const text = 'a\r\nb\rc\nd\u2028é\u2029\u0085€\r';
    for (const encoded of [bytes(text), Buffer.from(`\uFEFF${text}`, 'utf16le')]) expect(decodeText(encoded).text).toBe('a\nb\nc\nd\né\n\n€\n');
  });
  it('may be asked of the same bytes again', () => {
    const own = bytes('WEBVTT\r\n\r\n00:01.000 --> 00:02.000\r\nWe went on.\r\n');
    expect(readTranscript(own)).toEqual(readTranscript(own));
  });
  it('refuses bytes that are no text, with the line', () => expect(() => decodeText(bytes('fine\nno\0t'))).toThrow(/line 2: .*zero bytes/));
});

describe('repairCues', () => {
  it('sorts, drops the empty, lifts the negative, closes the endless and says so', () => {
    const { cues, repairs } = repairCues([
      cue(1, 5_000, 6_000),
      cue(3, 1_000, 2_000),
      cue(5, 3_000, 3_500, '  '),
      cue(7, 7_000, 6_500),
      cue(9, 9_000, 9_000_000),
      cue(11, 20_000, null),
    ]);
    expect(cues.map((one) => one.startMs)).toEqual([1_000, 5_000, 7_000, 9_000, 20_000]);
    expect(cues.every((one) => one.endMs > one.startMs)).toBe(true);
    expect(repairs.map((one) => [one.line, one.code])).toEqual(
      expect.arrayContaining([
        [3, 'unordered'],
        [5, 'empty'],
        [7, 'negative-length'],
        [9, 'endless'],
      ]),
    );
    expect(repairCues([cue(1, -500, 800)]).cues[0]).toMatchObject({ startMs: 0, endMs: 800 });
  });
  it('drops what rolling captions repeat', () => {
    const { cues } = repairCues([
      cue(1, 0, 2_000, 'so we dug it up'),
      cue(4, 2_000, 4_000, 'so we dug it up\nand there it was'),
      cue(8, 4_000, 6_000, 'and there it was\na whole boot'),
    ]);
    expect(cues.map((one) => one.text.trim())).toEqual(['so we dug it up', 'and there it was', 'a whole boot']);
  });
  it('leaves two people who say the same alone', () => {
    const { cues, repairs } = repairCues([cue(1, 0, 2_000, 'you can see your smoke'), cue(4, 2_000, 4_000, 'you can see your smoke')]);
    expect([cues.length, repairs]).toEqual([2, []]);
  });
  it('always gives cues in order, of positive length, not overlapping', () => {
    const any = fc.record({
      startMs: fc.integer({ min: -9_000, max: 90_000 }),
      endMs: fc.option(fc.integer({ min: -9_000, max: 400_000 })),
      text: fc.constantFrom('one', 'two words', '', 'a longer run of words here'),
    });
    fc.assert(
      fc.property(fc.array(any, { maxLength: 40 }), (list) => {
        const { cues } = repairCues(list.map((one, i) => ({ line: i + 1, speaker: null, ...one })));
        cues.forEach((one, i) => {
          expect(one.startMs).toBeGreaterThanOrEqual(0);
          expect(one.endMs).toBeGreaterThan(one.startMs);
          if (i > 0) expect(one.startMs).toBeGreaterThanOrEqual(cues[i - 1]!.startMs);
        });
      }),
    );
  });
});

describe('splitIntoPieces', () => {
  it('keeps marks whole and drops lone punctuation', () => {
    expect(splitIntoPieces('Well - [dog barks] yes (laughs) ♪ la la ♪ (which I did) ok').map((piece) => [piece.kind, piece.text])).toEqual([
      ['word', 'Well'],
      ['mark', '[dog barks]'],
      ['word', 'yes'],
      ['mark', '(laughs)'],
      ['mark', '♪ la la ♪'],
      ['word', '(which'],
      ['word', 'I'],
      ['word', 'did)'],
      ['word', 'ok'],
    ]);
  });
});

describe('readTranscript', () => {
  const line = (i: number, text: string): string => `00:00:${String(i).padStart(2, '0')}.000 --> 00:00:${String(i + 1).padStart(2, '0')}.000\n${text}\n`;
  it('packs and unpacks to the same transcript', () => {
    const { transcript } = readTranscript(
      bytes(`WEBVTT\n\n${line(1, '<v Ann>Hello there. [laughter] So?')}\n${line(3, '<v Bo>Yes &amp; no.')}\n${line(5, 'nobody named')}`),
    );
    expect(unpackTranscript(JSON.parse(JSON.stringify(packTranscript(transcript))))).toEqual(transcript);
  });
  it('gives words in order whatever the cues are like', () => {
    const piece = fc.record({
      start: fc.integer({ min: 0, max: 50 }),
      length: fc.integer({ min: -5, max: 50 }),
      text: fc.constantFrom('a', 'well, um, no.', '[music]', 'It is. It was!'),
    });
    fc.assert(
      fc.property(fc.array(piece, { minLength: 1, maxLength: 25 }), (parts) => {
        const stamp = (s: number): string => new Date(Math.max(0, s) * 1_000).toISOString().slice(11, 23);
        const { transcript } = readTranscript(
          bytes(`WEBVTT\n\n${parts.map((one) => `${stamp(one.start)} --> ${stamp(one.start + one.length)}\n${one.text}\n`).join('\n')}`),
        );
        transcript.words.forEach((word, i) => {
          expect(word.endMs).toBeGreaterThan(word.startMs);
          if (i > 0) expect(word.startMs).toBeGreaterThanOrEqual(transcript.words[i - 1]!.endMs);
        });
        expect(transcript.sentences[0]?.firstWord).toBe(0);
        transcript.sentences.forEach((sentence, i) => expect(sentence.endWord).toBe(transcript.sentences[i + 1]?.firstWord ?? transcript.words.length));
      }),
      { numRuns: 50 },
    );
  });
  it('refuses times in another unit, and files without words', () => {
    expect(() => readTranscript(bytes('{"segments":[{"startTime": 900000, "endTime": 900500, "body": "hi"}]}'))).toThrow(/beyond 48 hours/);
    expect(() => readTranscript(bytes('WEBVTT\n\n00:01.000 --> 00:02.000\n...\n'))).toThrow(/no words/);
  });
  it('reads 200,000 cues whole', () => {
    const n = 200_000;
    const stamp = (ms: number): string => new Date(ms).toISOString().slice(11, 23).replace('.', ',');
    const text = Array.from({ length: n }, (_, i) => `${i + 1}\n${stamp(i * 400)} --> ${stamp(i * 400 + 390)}\nword ${i} here.\n`).join('\n');
    const { transcript, cueCount, repairs } = readTranscript(bytes(text));
    expect([cueCount, transcript.words.length, transcript.sentences.length, repairs.length]).toEqual([n, 3 * n, n, 0]);
  });
});

describe('split words', () => {
  const wordsOf = (texts: string[]): string[] =>
    readTranscript(bytes(`WEBVTT\n\n${texts.map((text, i) => `00:0${i}.000 --> 00:0${i + 1}.000\n${text}\n`).join('\n')}`)).transcript.words.map(
      ({ text }) => text,
    );
  it('are put together, in a cue and from one cue to the next, and the repair is listed', () => {
    expect(wordsOf(['It took forty min-\nutes to', 'finish the const-', 'ruction, he said.'])).toEqual(
      'It took forty minutes to finish the construction, he said.'.split(' '),
    );
    const { repairs } = repairCues([cue(3, 0, 900, 'forty min-'), cue(6, 1_000, 2_000, 'utes or so')]);
    expect(repairs).toEqual([{ line: 6, code: 'split-word', detail: '“min-” and “utes” put together as “minutes”' }]);
  });
  it.each([
    [
      ['a well-', 'known man'],
      ['a', 'well-known', 'man'],
    ],
    [
      ['a long-', 'term plan for the term'],
      ['a', 'long-term', 'plan', 'for', 'the', 'term'],
    ],
    [
      ['he stopped -', 'and then left'],
      ['he', 'stopped', 'and', 'then', 'left'],
    ],
    [
      ['the min-', 'Utes are a people'],
      ['the', 'min-', 'Utes', 'are', 'a', 'people'],
    ],
  ])('%j keeps its hyphen', (cues, words) => {
    expect(wordsOf(cues)).toEqual(words);
  });
});

describe('turns of nobody named', () => {
  const sentencesOf = (body: string): string[] => {
    const { words, sentences } = readTranscript(bytes(`WEBVTT\n\n00:00.000 --> 00:09.000\n${body}\n`)).transcript;
    return sentences.map(({ firstWord, endWord }) =>
      words
        .slice(firstWord, endWord)
        .map(({ text }) => text)
        .join(' '),
    );
  };
  it.each([
    ['>> and what did you do then\n>> I left the room'],
    ['and what did you do then >> I left the room'],
    ['- and what did you do then\n- I left the room'],
  ])('part sentences: %j', (body) => {
    expect(sentencesOf(body)).toEqual(['and what did you do then', 'I left the room']);
  });
});
