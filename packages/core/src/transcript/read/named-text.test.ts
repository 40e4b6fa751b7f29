import { describe, expect, it } from 'vitest';
import { detectFormat, readTranscript } from '../read-transcript.js';
import { readLrc } from './lrc.js';
import { readStampedText } from './stamped-text.js';

const heard = (text: string) => readStampedText(text).cues.map(({ startMs, speaker, text: said }) => [startMs / 1_000, speaker, said]);
const TWO = [
  [3, 'Ann Lee', 'Hello there.'],
  [8, 'Bo', 'Hello. And more.'],
];

describe('text whose paragraphs begin with a name, a time or both', () => {
  it.each([
    ['name and time above', 'Ann Lee 00:00:03\nHello there.\n\nBo 00:00:08\nHello.\nAnd more.\n'],
    ['name, bar and time', 'Ann Lee | 0:03\nHello there.\nBo | 0:08\nHello. And more.\n'],
    ['name and a range of times', 'Ann Lee 00:03 - 00:07\nHello there.\nBo 00:08 to 00:12\nHello. And more.\n'],
    ['time and name above', '00:00:03 Ann Lee\nHello there.\n\n00:00:08 Bo\nHello. And more.\n'],
    ['time, name, colon, in one line', '00:03 Ann Lee: Hello there.\n00:08 Bo: Hello. And more.\n'],
    ['brackets with a range', '[00:03 - 00:07] Ann Lee: Hello there.\n[00:08 - 00:12] Bo: Hello. And more.\n'],
    ['parentheses after the name', 'Ann Lee (00:03): Hello there.\nBo (00:08): Hello. And more.\n'],
    ['name and time in one line', 'Ann Lee 00:03: Hello there.\nBo 00:08: Hello. And more.\n'],
  ])('%s', (_, text) => {
    expect(detectFormat(text)).toBe('stamped-text');
    expect(heard(text)).toEqual(TWO);
  });
  it('a title before the first time is left out, and said', () => {
    const { cues, repairs } = readStampedText('The kettle hour\n\nAnn Lee 0:03\nHello there.\n');
    expect([cues.length, repairs.map(({ line, code }) => [line, code])]).toEqual([1, [[1, 'unknown-block']]]);
  });
  it('who takes over between two times gets a share of what lies between', () => {
    const text = '[00:00] Ann: Hello there Bo.\nBo: Hello to you.\nAnn: Good.\n[00:10] Ann: So.\nBo: Yes.\n';
    const cues = readStampedText(text).cues.map(({ startMs, speaker, text: said }) => [speaker, said, startMs]);
    expect(cues.map(([speaker, said]) => [speaker, said])).toEqual([
      ['Ann', 'Hello there Bo.'],
      ['Bo', 'Hello to you.'],
      ['Ann', 'Good.'],
      ['Ann', 'So.'],
      ['Bo', 'Yes.'],
    ]);
    // 15, 13 and 5 characters over ten seconds.
    expect(cues.map(([, , startMs]) => startMs)).toEqual([0, 4_545, 8_485, 10_000, 10_200]);
  });
  it('a word before a colon that nobody is called by stays what was said', () => {
    expect(heard('[00:00] Ann: We went to\nDublin: a city.\n')).toEqual([[0, 'Ann', 'We went to Dublin: a city.']]);
  });
  it('one word after a time is said, where names do not stand so all over', () => {
    expect(heard('0:03 Right\n0:05 So we begin.\n0:09 Yes.\n')).toEqual([
      [3, null, 'Right'],
      [5, null, 'So we begin.'],
      [9, null, 'Yes.'],
    ]);
  });
  it('without any time it is refused, in words', () => {
    expect(() => readTranscript(new TextEncoder().encode('Ann: Hello.\nBo: Hello.\n'))).toThrow('no time before what is said');
  });
});

const LRC = '[ti:The kettle hour]\n[ar:Ann Lee]\n[offset:+500]\n[00:12.00]Never <00:12.80>again\n[00:17.20][00:41.50]Once more\n[00:20.00]\n';

describe('LRC', () => {
  const cues = readLrc(LRC).cues.map(({ startMs, endMs, text }) => [startMs, endMs, text]);
  it('is known by its tags', () => expect(detectFormat(LRC)).toBe('lrc'));
  it('repeats a line at each of its times, moves all by the offset, and lets an empty line end the one before', () => {
    expect(cues).toEqual([
      [11_500, 16_700, 'Never again'],
      [16_700, 19_500, 'Once more'],
      [41_000, null, 'Once more'],
    ]);
  });
  it('gives words their times', () => {
    expect(readLrc(LRC).cues[0]!.stamps).toEqual([{ at: 6, startMs: 12_300 }]);
  });
  it('says where a time is none, and what it left out', () => {
    expect(() => readLrc('[ti:x]\n[00:75.00]No\n')).toThrow('line 2');
    expect(readLrc('[ti:x]\nLoose words\n[00:01.00]Yes\n').repairs).toMatchObject([{ line: 2, code: 'unknown-block' }]);
  });
  it('plain stamps are not taken for it', () => expect(detectFormat('[00:01] Hello\n[00:02.50] there\n')).toBe('stamped-text'));
});
