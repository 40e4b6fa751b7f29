import { describe, expect, it } from 'vitest';
import { readTranscript } from '../read-transcript.js';
import { TranscriptRefusedError } from '../types.js';
import { readTtml } from './ttml.js';
import { ttmlTime } from './ttml-time.js';

const HEAD =
  '<?xml version="1.0" encoding="UTF-8"?>\n<tt xmlns="http://www.w3.org/ns/ttml" xmlns:ttp="http://www.w3.org/ns/ttml#parameter" xmlns:ttm="http://www.w3.org/ns/ttml#metadata"';
const doc = (body: string, attributes = '', head = ''): string => `${HEAD} xml:lang="en"${attributes}>\n<head>${head}</head>\n<body>${body}</body>\n</tt>\n`;
const cues = (text: string) => readTtml(text).cues.map(({ startMs, endMs, text: said, speaker }) => [startMs, endMs, said.trim(), speaker]);
const refusal = (text: string): TranscriptRefusedError => {
  try {
    readTtml(text);
  } catch (error) {
    if (error instanceof TranscriptRefusedError) return error;
  }
  throw new Error('it was taken');
};

// W3C TTML2, 12.3.1 “<time-expression>”: the forms and their meaning.
describe('times of TTML', () => {
  it.each([
    ['00:00:01', 1_000],
    ['00:00:01.5', 1_500],
    ['01:02:03.250', 3_723_250],
    ['00:00:01:12', 1_480],
    ['1.5s', 1_500],
    ['250ms', 250],
    ['2m', 120_000],
    ['0.5h', 1_800_000],
    ['50f', 2_000],
    ['3000t', 3_000],
  ])('%s', (text, ms) => expect(ttmlTime(text, { frameRate: 25, tickRate: 1_000 })).toBe(ms));
  it.each(['1', '00:01', '00:61:00', '00:00:01:25', '1.5', 'soon', '-1s', '00:00:01,5'])('%s is none', (text) =>
    expect(ttmlTime(text, { frameRate: 25, tickRate: 1_000 })).toBeNull(),
  );
  it('count frames at 30000/1001 where the multiplier says so', () => {
    const at = doc('<div><p begin="30f" end="60f">Hello</p></div>', ' ttp:frameRate="30" ttp:frameRateMultiplier="1000 1001"');
    expect(cues(at)).toEqual([[1_001, 2_002, 'Hello', null]]);
  });
});

describe('TTML', () => {
  // The shape of the W3C TTML2 recommendation's own sample document (its introduction), with other words.
  it('is read, breaks and spaces as they are shown', () => {
    const text = doc(`
      <div>
        <p xml:id="s1" begin="0.76s" end="3.45s">
          It seems to be a kettle,<br/>and it <span tts:color="red" xmlns:tts="http://www.w3.org/ns/ttml#styling">never</span>
          boils.
        </p>
        <p begin="5s" dur="5s">You &amp; I know <![CDATA[<why>]]>.</p>
      </div>`);
    expect(cues(text)).toEqual([
      [760, 3_450, 'It seems to be a kettle, and it never boils.', null],
      [5_000, 10_000, 'You & I know <why>.', null],
    ]);
    expect(readTtml(text).cues[0]!.line).toBe(6);
  });
  it('takes times from what an element stands in, side by side and one after another', () => {
    const text = doc(`<div begin="10s">
      <p begin="1s" end="2s">One</p>
      <p begin="3s" end="4s">Two</p></div>
      <div begin="20s" timeContainer="seq"><p dur="2s">Three</p><p dur="3s">Four</p></div>`);
    expect(cues(text)).toEqual([
      [11_000, 12_000, 'One', null],
      [13_000, 14_000, 'Two', null],
      [20_000, 22_000, 'Three', null],
      [22_000, 25_000, 'Four', null],
    ]);
  });
  it('lets a paragraph without a time be on for as long as what it stands in, or from its first span on', () => {
    const text = doc(
      '<div begin="1s" end="3s"><p>Whole</p></div><div begin="10s"><p><span begin="1s" end="2s">From</span> <span begin="3s" end="4s">here</span></p></div>',
    );
    expect(cues(text)).toEqual([
      [1_000, 3_000, 'Whole', null],
      [11_000, 14_000, 'From here', null],
    ]);
  });
  it('names who speaks by its agents, wherever they are declared', () => {
    const head = '<metadata><ttm:agent xml:id="a1" type="person"><ttm:name type="full">Tamsin Oke</ttm:name></ttm:agent></metadata>';
    const text = doc('<div ttm:agent="a1"><p begin="1s" end="2s">Yes.</p><p begin="2s" end="3s" ttm:agent="a2">No.</p></div>', '', head);
    expect(cues(text).map(([, , , speaker]) => speaker)).toEqual(['Tamsin Oke', 'a2']);
  });
  it('gives words the times that spans have, counted from the paragraph', () => {
    const text = doc('<div><p begin="10s" end="13s"><span begin="0s" end="0.5s">Never</span> <span begin="1s" end="1.4s">again</span></p></div>');
    const { words, wordTimes } = readTranscript(new TextEncoder().encode(text)).transcript;
    expect([wordTimes, words.map(({ text: said, startMs, endMs }) => [said, startMs, endMs])]).toEqual([
      'given',
      [
        ['Never', 10_000, 10_500],
        ['again', 11_000, 11_400],
      ],
    ]);
  });
  it('is known by its root, not by the name of its file', () => {
    const { format, transcript } = readTranscript(new TextEncoder().encode(doc('<div><p begin="1s" end="2s">Hello there.</p></div>')));
    expect([format, transcript.words.length]).toEqual(['ttml', 2]);
  });
  it.each([
    ['a time that is none', doc('<div>\n<p begin="soon">x</p></div>'), 'bad-time', 5, 'begin'],
    ['times of a clock', doc('', ' ttp:timeBase="clock"'), 'bad-field', 2, 'ttp:timeBase'],
    ['a rate of nothing', doc('', ' ttp:frameRate="0"'), 'bad-field', 2, 'ttp:frameRate'],
    ['markup that is broken', doc('<div><p begin="1s">x</div>'), 'bad-markup', 4, null],
    ['another language', '<html xmlns="http://www.w3.org/1999/xhtml"><body/></html>', 'bad-markup', 1, null],
    ['elements without end', doc('<span>'.repeat(100)), 'bad-markup', 4, null],
  ] as const)('refuses %s, and says where', (_, text, code, line, field) => {
    const { code: said, line: at, field: of } = refusal(text);
    expect([said, at, of]).toEqual([code, line, field]);
  });
  it('expands no entity that a document defines: nothing grows, and nothing is fetched', () => {
    const bomb = `<?xml version="1.0"?><!DOCTYPE tt [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;">]>${doc('<div><p begin="1s" end="2s">&b;</p></div>').split('\n').slice(1).join('\n')}`;
    expect(refusal(bomb).code).toBe('bad-markup');
  });
});
